import { said } from '../../tests/support/said'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { BARE_FIXING } from '../job/fixing'
import { usualFeed } from '../judge/feeds'
import { insertsOf } from '../job/copy'
import { applyChanges } from '../job/changes'
import { emptyDocument } from '../job/schema'
import { differencesOf, lessonsOf, methodIdOf, MOST_UNITS, offered, unitNames, unitOf } from './fleet'
import { cardOf } from './card'

const unit2 = (h: House) => unitOf(h.doc, 'Van 2', h.id).document

describe('a method and its fleet', () => {
  it('a unit has the plan and none of what was read, said or ticked', () => {
    const h = new House('router', 'vehicle')
    h.check('step', 'fetch')
    const unit = unit2(h)
    expect(unit.jobs[0]).toMatchObject({ name: 'Van 2', carrier: 'Tern', methodId: h.doc.jobs[0]!.id })
    expect(unit.jobs[0]!.id).not.toBe(h.doc.jobs[0]!.id)
    // One made from a unit is of the same method.
    expect(methodIdOf(unitOf(unit, 'Van 3', h.id).document.jobs[0]!)).toBe(h.doc.jobs[0]!.id)
    for (const t of ['checks', 'readings', 'speedRuns', 'labels', 'visits', 'supplies', 'photos'] as const)
      expect(unit[t], t).toEqual([])
    expect(unit.nodes).toHaveLength(h.doc.nodes.length)
    expect(differencesOf(h.doc, unit)).toEqual([])
  })
  it('made anew by its inserts it is the same; its mast is the crew’s and stays named', () => {
    const h = new House('router', 'vehicle')
    const unit = { ...unit2(h), masts: [], cells: [] }
    const mastId = h.doc.designs.find(d => d.id === h.doc.jobs[0]!.designId)!.mastId!
    const back = applyChanges(emptyDocument(), insertsOf(unit, h.id, new Set([mastId])))
    expect(back.designs.find(d => d.id === unit.jobs[0]!.designId)!.mastId).toBe(mastId)
    expect(applyChanges(emptyDocument(), insertsOf(unit, h.id)).designs.every(d => d.mastId === null)).toBe(true)
  })
  it('what is its own is told: moved, added, left out, more cable', () => {
    const h = new House('router', 'vehicle')
    const unit = unit2(h)
    const [first] = unit.nodes.filter(n => n.part?.kind === 'antenna')
    const moved = { ...unit, nodes: unit.nodes.map(n => (n === first ? { ...n, northM: n.northM + 0.5 } : n)) }
    expect(differencesOf(h.doc, moved).map(said)).toEqual([expect.stringContaining('elsewhere')])
    const less = { ...unit, nodes: unit.nodes.filter(n => n !== first) }
    expect(differencesOf(h.doc, less).map(said)).toContainEqual(expect.stringContaining('left out'))
    expect(
      differencesOf(unit, { ...unit, runs: unit.runs.map(r => ({ ...r, lengthM: r.lengthM + 1 })) }).map(said),
    ).toContainEqual(expect.stringContaining('of cable more'))
  })
  it('another mount, another feed are told of the part they are of', () => {
    const h = new House('router', 'vehicle')
    const unit = unit2(h)
    const antenna = unit.nodes.find(n => n.part?.kind === 'antenna')!
    const router = unit.nodes.find(n => n.part?.kind === 'router')!
    const other = unit.nodes.map(n =>
      n === antenna
        ? { ...n, fixing: { ...BARE_FIXING, mount: 'bull bar' as const } }
        : n === router
          ? { ...n, feed: { ...usualFeed(), volts: 24 as const, fuseA: 7.5 } }
          : n,
    )
    expect(differencesOf(h.doc, { ...unit, nodes: other }).sort()).toEqual([
      `${antenna.part!.name} held by bull bar`,
      `${router.part!.name} fed by 24 V through its lead, fuse 7.5 A`,
    ])
  })
  it('what one taught is offered at the same step of the others, once, and not where it is known', () => {
    const h = new House('router', 'vehicle')
    const step = cardOf(h.doc, h.assess()).steps[2]!
    for (const by of ['Ila', 'Oren']) h.check('lesson', step.id, { reason: 'warm the clip first', by, about: step.words })
    const lessons = lessonsOf(h.doc)
    expect(offered(lessons, [], step.words).map(l => l.text)).toEqual(['warm the clip first'])
    expect(offered(lessons, [], 'another step')).toEqual([])
    expect(offered(lessons, lessons, step.words)).toEqual([])
  })
  it('names: one a line, none twice, none empty, not too many', () => {
    expect(unitNames(' Van 2 \n\nVan 3\r\nVan 2')).toEqual(['Van 2', 'Van 3'])
    expect(() => unitNames(' \n ')).toThrow('one name a line')
    expect(() => unitNames(Array.from({ length: MOST_UNITS + 1 }, (_, i) => `v${i}`).join('\n'))).toThrow('at once at most')
    expect(() => unitNames('x'.repeat(121))).toThrow('longer than 120')
  })
})
