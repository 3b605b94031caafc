import { describe, expect, it } from 'vitest'
import { office, House } from '../../tests/support/house'
import { cardOf } from '../card/card'
import { plannedRows } from '../card/list'
import { partById, partOfKind } from '../catalogue/parts'
import { wireById } from '../catalogue/wires'
import { sourcesIn } from '../chain/supply'
import { treeOf } from '../chain/tree'
import { cableLabels } from '../install/pick-list'
import { moveSteps } from '../fitting/move'
import { removeSteps } from '../fitting/edits'
import { converterSteps, inverterSteps, upsSteps } from '../fitting/supply-lead'
import { changesOf, update } from '../job/edits'
import type { Step } from '../job/edits'
import { BARE_FIXTURE } from '../job/defaults'
import { buildingOf } from '../site/building'
import { usualFeed, feedsOf } from './feeds'

const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const feed = (h: House) => feedsOf(h.doc, tree(h), h.doc.jobs[0]!.kind, buildingOf(h.doc))[0]!
const found = (h: House, code: string) => h.assess().findings.find(f => f.code === code)
const on = (h: House) => ({ job: h.doc.jobs[0]!, building: buildingOf(h.doc), design: h.doc.designs[0]!, tree: tree(h) })
const take = (h: House, steps: readonly Step[]) => h.apply(changesOf(steps, h.id))

/** A van whose router runs on 12 V, its fuse board 3 m off. */
function van(): House {
  const h = new House('router', 'vehicle')
  const { eastM, northM } = h.part('router')
  h.add('fixtures', { ...BARE_FIXTURE, kind: '12 V feed', name: 'fuse board', eastM, northM: northM - 3, upM: 0.8 })
  return h
}
function wired(): House {
  const h = van()
  return h.cure(found(h, 'route.no-supply')!.cures[0]!)
}

describe('a box on 12 V', () => {
  it('without a lead is a finding; one press lays it from a tap at its feed', () => {
    const h = wired()
    const [tap] = sourcesIn(tree(h))
    expect(tap!.name).toBe('Fuse tap')
    expect(tap!.node.sourceId).toBe(h.doc.fixtures[0]!.id)
    expect([tap!.node.eastM, tap!.node.northM]).toEqual([h.doc.fixtures[0]!.eastM, h.doc.fixtures[0]!.northM])
    expect(found(h, 'route.no-supply')).toBeUndefined()
    expect(tree(h).broken).toEqual([])
    expect(tree(h).loose).toEqual([])
  })
  it('without a feed noted there is nothing to press', () => {
    const h = new House('router', 'vehicle')
    expect(found(h, 'route.no-supply')!.cures).toEqual([])
  })
  it('the lead is pulled, labelled at both ends, read under load, and bought once by its own metres', () => {
    const h = wired()
    h.read('Cab', -95)
    const a = h.assess()
    const lead = tree(h).joints.find(j => j.line?.wire)!
    const steps = cardOf(h.doc, a).steps.map(s => s.id)
    const box = h.part('router').id
    expect(steps).toEqual(expect.arrayContaining([`pull:${lead.run.id}`, `volts:${box}`, `power:${box}`]))
    expect(cableLabels(tree(h), 'A').filter(l => l.runId === lead.run.id)).toHaveLength(2)
    const rows = plannedRows(h.doc, tree(h))
    const wire = rows.filter(r => r.name.includes('cable') && r.name.includes('mm²'))
    expect(wire).toHaveLength(1)
    expect([wire[0]!.quantity, wire[0]!.unit]).toEqual([Math.ceil(lead.run.lengthM), 'm'])
    expect(rows.some(r => r.name.startsWith('Wire '))).toBe(false)
    expect(rows.find(r => r.key.startsWith('fuse:'))!.name).not.toContain('holder')
  })
  it('what arrives follows the planned lead, its length and its wire', () => {
    const h = wired()
    const lead = tree(h).joints.find(j => j.line?.wire)!
    const part = { ...h.part('router').part!, powerW: 12 }
    h.set('nodes', h.part('router').id, { part })
    h.set('runs', lead.run.id, { lengthM: 10, partId: 'wire-0.75', part: partById('wire-0.75') })
    // 10.5 V, 12 W, 20 m of 26 Ω/km (IEC 60228): V² − 10.5·V + 12·0.52 = 0, the larger root 9.867 V.
    expect(feed(h).fed!.volts).toBeCloseTo(9.867, 2)
    expect(feed(h).wire!.id).toBe('0.75')
    h.set('runs', lead.run.id, { lengthM: 2 })
    expect(feed(h).fed!.volts).toBeGreaterThan(10.3)
  })
  it('a lead that starves the box is laid thicker in one press', () => {
    const h = wired()
    const lead = tree(h).joints.find(j => j.line?.wire)!
    h.set('runs', lead.run.id, { lengthM: 40, partId: 'wire-0.5', part: partById('wire-0.5') })
    h.cure(found(h, 'route.starved')!.cures[0]!)
    expect(found(h, 'route.starved')).toBeUndefined()
    expect(wireById(tree(h).joints.find(j => j.line?.wire)!.line!.wire!)!.mm2).toBeGreaterThan(0.5)
  })
  it('a converter goes between the lead and the box, moves with it, and is taken out again', () => {
    const h = wired()
    take(h, converterSteps(tree(h), tree(h).routers[0]!))
    expect(feed(h).planned!.way.parts.map(p => p.name)).toEqual(['Converter', 'Fuse tap'])
    expect(feed(h).feed.through).toBe('converter')
    // Its own losses are drawn through the lead.
    const drawnW = feed(h).fed!.amps! * feed(h).fed!.volts!
    expect(drawnW).toBeCloseTo(feed(h).powerW / 0.9, 6)
    const converter = sourcesIn(tree(h)).find(s => s.name === 'Converter')!
    const was = converter.node.eastM
    take(h, moveSteps(on(h), [update('nodes', h.part('router').id, { eastM: h.part('router').eastM + 1 })]))
    expect(sourcesIn(tree(h)).find(s => s.name === 'Converter')!.node.eastM).toBeCloseTo(was + 1, 2)
    take(
      h,
      removeSteps(
        tree(h),
        sourcesIn(tree(h)).find(s => s.name === 'Converter')!,
      ),
    )
    expect(feed(h).planned!.way.parts.map(p => p.name)).toEqual(['Fuse tap'])
    expect(found(h, 'route.no-supply')).toBeUndefined()
  })
  it('a mains box aboard goes on an inverter with its lead; its waste, its most and its own lead are counted', () => {
    const h = van()
    const box = h.part('router')
    h.set('nodes', box.id, { part: { ...box.part!, supply: 'mains', powerW: 12 } })
    expect(feed(h)).toMatchObject({ supply: 'mains', wired: false, ahADay: null })
    const steps = inverterSteps(on(h), tree(h).routers[0]!, h.doc.fixtures[0]!)
    take(h, steps)
    expect(feed(h).planned!.way.parts.map(p => p.name)).toEqual(['Inverter', 'Fuse tap'])
    expect(feed(h)).toMatchObject({ wired: true, feed: { through: 'inverter' } })
    // (12 W / 0.85 + 8 W) over a day at 12.8 V, by hand: 41.47 Ah.
    expect(feed(h).ahADay!).toBeCloseTo(41.47, 1)
    // All that it can give: 150 W / 0.85 + 8 W = 184.5 W through its wires, 18 A and more at 10.5 V.
    const { fed, fuseA } = feed(h)
    expect(fed!.amps! * fed!.volts!).toBeCloseTo(184.5, 0)
    expect(fuseA).toBeGreaterThanOrEqual(1.25 * 17.5)
    expect(found(h, 'route.no-inverter')).toBeUndefined()
    const was = sourcesIn(tree(h)).find(s => s.name === 'Inverter')!.node.eastM
    take(h, moveSteps(on(h), [update('nodes', box.id, { eastM: h.part('router').eastM + 1 })]))
    const inverter = sourcesIn(tree(h)).find(s => s.name === 'Inverter')!
    expect(inverter.node.eastM).toBeCloseTo(was + 1, 2)
    // Taken out, its lead from the battery is not joined to the plug of a box that wants mains.
    take(h, removeSteps(tree(h), inverter))
    expect(sourcesIn(tree(h))).toEqual([])
    expect(feed(h)).toMatchObject({ planned: null, wired: false })
  })
  it('said to run through an inverter and none planned is a finding, cured in a press; without its lead that is missed', () => {
    const h = van()
    const box = h.part('router')
    h.set('nodes', box.id, {
      part: { ...box.part!, supply: 'mains', powerW: 12 },
      feed: { ...usualFeed(), through: 'inverter' },
    })
    h.cure(found(h, 'route.no-inverter')!.cures[0]!)
    expect(found(h, 'route.no-inverter')).toBeUndefined()
    h.read('Cab', -95)
    const steps = cardOf(h.doc, h.assess()).steps.map(s => s.id)
    expect(steps).toEqual(expect.arrayContaining([`volts:${box.id}`, `power:${box.id}`]))
    const lead = tree(h).joints.find(j => j.line?.wire)!
    h.remove('runs', lead.run.id)
    expect(found(h, 'route.no-supply')?.title).toBe('No lead to Inverter is planned')
    h.cure(found(h, 'route.no-supply')!.cures[0]!)
    expect(found(h, 'route.no-supply')).toBeUndefined()
    expect(feed(h).planned!.way.parts.map(p => p.name)).toContain('Inverter')
  })
  it('more on an inverter than it gives is told', () => {
    const h = van()
    const box = h.part('router')
    h.set('nodes', box.id, { part: { ...box.part!, supply: 'mains', powerW: 180 } })
    take(h, inverterSteps(on(h), tree(h).routers[0]!, h.doc.fixtures[0]!))
    expect(found(h, 'route.inverter')?.sentence).toMatch(/180 W hang on it, it gives 150 W/)
  })
  it('the lead follows a box that moves', () => {
    const h = wired()
    const before = feed(h).lengthM!
    take(h, moveSteps(on(h), [update('nodes', h.part('router').id, { northM: h.part('router').northM + 4 })]))
    expect(feed(h).lengthM!).toBeGreaterThanOrEqual(before + 3.5)
  })
  it('a box taken out leaves no tap and no lead behind', () => {
    const h = wired()
    take(h, removeSteps(tree(h), tree(h).routers[0]!))
    expect(sourcesIn(tree(h))).toEqual([])
    expect(h.doc.runs.filter(r => r.partId?.startsWith('wire'))).toEqual([])
  })
  it('a box changed for one without terminals has no end for the wires: they are no coax', () => {
    const h = wired()
    const lead = tree(h).joints.find(j => j.line?.wire)!
    const { part } = h.part('router')
    h.set('nodes', h.part('router').id, { part: { ...part!, supply: 'USB' } })
    expect(tree(h).broken).toEqual([lead.run.id])
    h.set('nodes', h.part('router').id, { part: { ...part!, supply: 'mains' } })
    expect(h.assess().findings.map(f => f.title)).toContainEqual(expect.stringContaining('DC plug against mains plug'))
  })
  it('a kit aboard lays its lead where a feed is noted', () => {
    const h = van()
    h.kit('booster')
    expect(feed(h).planned!.begins!.name).toBe('Fuse tap')
    expect(found(h, 'route.no-supply')).toBeUndefined()
  })
})

describe('a UPS', () => {
  const house = () => {
    const h = new House('router')
    const { eastM, northM, upM } = h.part('router')
    h.add('fixtures', { ...BARE_FIXTURE, kind: 'mains socket', name: 'hall', eastM, northM, upM: upM - 0.5 })
    h.set('nodes', h.part('router').id, { part: { ...h.part('router').part!, supply: 'mains', powerW: 10 } })
    return h
  }
  const bridged = (h: House) => take(h, upsSteps(on(h), tree(h).routers[0]!, h.doc.fixtures[0]!))
  it('bridges by its battery and by all that hangs on it', () => {
    const h = bridged(house())
    // 150 W·h · 0.85 / 10 W = 12.75 h
    expect(feed(h).upsMin).toBeCloseTo(12.75 * 60, 3)
    expect(found(h, 'place.socket')).toBeUndefined()
    h.read('Kitchen', -95)
    const steps = cardOf(h.doc, h.assess()).steps.map(s => s.id)
    expect(steps).toContain(`bridge:${sourcesIn(tree(h))[0]!.node.id}`)
    h.set('nodes', h.part('router').id, { part: { ...h.part('router').part!, powerW: 20 } })
    expect(feed(h).upsMin).toBeCloseTo((12.75 * 60) / 2, 3)
  })
  it('gives no more than it can, and is no further than a plug reaches', () => {
    const h = bridged(house())
    h.set('nodes', h.part('router').id, { part: { ...h.part('router').part!, powerW: 499 } })
    expect(found(h, 'route.ups')).toBeUndefined()
    h.set('nodes', sourcesIn(tree(h))[0]!.node.id, { part: { ...partOfKind('ups-150', 'source')!, mostW: 400 } })
    expect(found(h, 'route.ups')!.sentence).toContain('499 W hang on it')
    h.set('nodes', h.part('router').id, { eastM: h.part('router').eastM + 4 })
    expect(found(h, 'place.socket')!.title).toBeDefined()
  })
  it('what somebody noted of a battery before stands as long as none is planned', () => {
    const h = house()
    h.set('nodes', h.part('router').id, { feed: { ...usualFeed(), upsWh: 100 } })
    expect(feed(h).upsMin).toBeCloseTo((100 * 0.85 * 60) / 10, 6)
    bridged(h)
    expect(feed(h).upsMin).toBeCloseTo(12.75 * 60, 3)
  })
  it('of a modem outdoors it feeds the injector', () => {
    const h = office()
    h.add('fixtures', { ...BARE_FIXTURE, kind: 'mains socket', name: 'desk', eastM: 2, northM: 1, upM: 0.4 })
    const f = feed(h)
    take(h, upsSteps(on(h), f.data!.injector!, h.doc.fixtures[0]!))
    expect(feed(h).planned!.ups!.name).toMatch(/^UPS/)
    expect(feed(h).upsMin).toBeCloseTo((150 * 0.85 * 60) / feed(h).powerW, 6)
  })
})
