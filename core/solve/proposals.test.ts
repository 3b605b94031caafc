import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { pickList, pickListCsv, cableLabels } from '../install/pick-list'
import { misfits } from '../fitting/joints'
import { kitChanges } from '../fitting/usual-kit'
import type { Kit } from '../fitting/usual-kit'
import { copyDesign, nextName } from '../fitting/variants'
import { treeOf } from '../chain/tree'
import { applyChanges } from '../job/changes'
import { buildingOf } from '../site/building'
import { holesOf } from '../judge/place'
import { proposeKits } from './proposals'
import { compareVariants } from './variants'

const read = (h: House) => h.reads('Ridge', -95).reads('Kitchen', -112, 4).speed('Kitchen', 3, 0.6)

describe('kits proposed', () => {
  it.each([
    ['home', 'router'],
    ['home', 'outdoors'],
    ['home', 'booster'],
    ['building', 'booster'],
    ['vehicle', 'router'],
    ['vehicle', 'booster'],
    ['boat', 'router'],
    ['boat', 'booster'],
  ] as const)('for a %s with a %s there are three, and every plug of each mates', (kind, kit: Kit) => {
    const h = new House(kit === 'booster' ? 'booster' : 'router', kind)
    const inside = h.doc.spots.find(s => s.indoors)!.name
    const outside = h.doc.spots.find(s => !s.indoors)!.name
    h.reads(outside, -95).reads(inside, -112, 4).speed(inside, 3, 0.6)
    const found = proposeKits(h.doc, h.evidence, AT, { kit })
    expect(found.map(p => p.aim)).toEqual(['least work', 'best result', 'least cost'])
    for (const p of found) {
      const laid = applyChanges(
        h.doc,
        kitChanges(h.doc, h.doc.designs[0]!, p.kit, { bearingDeg: 270, newId: h.id, choice: p.choice }),
      )
      const tree = treeOf(laid, laid.designs[0]!)
      expect(
        misfits(tree).filter(m => m.kind === 'plug'),
        p.made.join(),
      ).toEqual([])
      expect(tree.loose, p.made.join()).toEqual([])
      expect(tree.broken).toEqual([])
    }
  })
  it('the best result is no slower than the others, the least cost no dearer, the least work no longer', () => {
    const [work, best, cost] = proposeKits(read(new House('router')).doc, new House('router').evidence, AT, { kit: 'router' })
    expect(best!.variant.down?.median ?? 0).toBeGreaterThanOrEqual(cost!.variant.down?.median ?? 0)
    expect(cost!.variant.cost).toBeLessThanOrEqual(best!.variant.cost)
    expect(work!.variant.hours).toBeLessThanOrEqual(best!.variant.hours)
  })
  it('on a vehicle nothing is clamped to a pole, on a boat nothing stands on a magnet', () => {
    for (const kind of ['vehicle', 'boat'] as const)
      for (const p of proposeKits(new House('router', kind).doc, new House('router', kind).evidence, AT, { kit: 'router' }))
        expect(p.choice.antenna!.mount, kind).toMatch(kind === 'vehicle' ? /bolt|magnet/ : /^(?!.*magnet)/)
  })
})

describe('variants', () => {
  it('are named by the first letter that is free', () => expect(nextName([{ name: 'A' }, { name: 'C' }])).toBe('B'))
  it('a copy is equal to its source', () => {
    const h = read(new House('booster'))
    const { designId, changes } = copyDesign(h.doc, h.doc.designs[0]!, h.id)
    h.apply(changes)
    expect(h.doc.jobs[0]!.designId).not.toBe(designId)
    const [a, b] = compareVariants(h.doc, h.evidence, AT)
    expect(b).toMatchObject({ ...a, designId, name: 'B', chosen: false })
    expect(a!.chosen).toBe(true)
  })
  it('a change in one leaves the other as it was', () => {
    const h = read(new House('booster'))
    const before = compareVariants(h.doc, h.evidence, AT)[0]!
    const { designId, changes } = copyDesign(h.doc, h.doc.designs[0]!, h.id)
    h.apply(changes)
    const dome = h.doc.nodes.find(n => n.designId === designId && n.partId === 'ant-dome')!
    h.set('nodes', dome.id, { upM: dome.upM + 2 })
    const [a, b] = compareVariants(h.doc, h.evidence, AT)
    expect({ ...a, chosen: true }).toEqual(before)
    expect(b!.worst!.rsrpDbm).not.toBeCloseTo(a!.worst!.rsrpDbm, 2)
  })
})

describe('the pick list', () => {
  const listOf = (h: House) => {
    const c = h.worked()
    return pickList({ job: c.job, design: c.design!, tree: c.tree!, building: buildingOf(h.doc), holes: holesOf(c).length })
  }
  it('holds every part of the tree exactly as often as it stands there, and every cable once', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const) {
      const h = new House('booster', kind)
      const list = listOf(h)
      const tree = treeOf(h.doc, h.doc.designs[0]!)
      const sum = (group: string) => list.rows.filter(r => r.group === group).reduce((n, r) => n + r.quantity, 0)
      expect(sum('parts'), kind).toBe(tree.nodes.length)
      expect(sum('cable'), kind).toBe(tree.joints.filter(j => j.run.partId).length)
    }
  })
  it('cut from drums the metres bought are never under those that run', () => {
    const h = new House('booster', 'building').design({ plugs: 'crimped' })
    const list = listOf(h)
    expect(list.cuttings.length).toBeGreaterThan(0)
    expect(list.boughtM).toBeGreaterThanOrEqual(list.runM)
    expect(list.rows.some(r => r.name.includes('plugs to crimp'))).toBe(true)
  })
  it('counts an earth for each arrestor, a bushing for each hole, and a terminator for each output left open', () => {
    const h = new House('booster')
    const list = listOf(h)
    const of = (name: string) => list.rows.find(r => r.name.startsWith(name))
    expect(of('Earth clamps')!.quantity).toBe(2)
    expect(of('Wall bushings')!.quantity).toBe(holesOf(h.worked()).length)
    expect(of('Terminators')).toBeUndefined()
    expect(of('Surge protector')!.note).toContain('not in the box')
  })
  it('goes out as a table, and every cable has a label at both ends', () => {
    const h = new House('router')
    expect(pickListCsv(listOf(h)).split('\n')[0]).toBe('group,part,quantity,unit,note\r')
    const labels = cableLabels(treeOf(h.doc, h.doc.designs[0]!), 'A')
    expect(labels).toHaveLength(2 * h.doc.runs.filter(r => r.partId).length)
    expect(new Set(labels.map(l => l.code)).size).toBe(labels.length / 2)
  })
})
