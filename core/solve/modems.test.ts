import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { partOfKind } from '../catalogue/parts'
import { compareModems } from './modems'

/** A trailer between a mast of each carrier, each modem with a SIM of one. */
function trailer(): House {
  const h = new House(null, 'vehicle')
  const mast = h.doc.masts[0]!
  const gannet = h.add('masts', { ...mast, id: undefined, name: 'East', lonDeg: -29.9, carrier: 'Gannet' })
  h.add('cells', { ...h.doc.cells[0]!, id: undefined, mastId: gannet, cellId: '2' })
  h.kit('router', { antenna: partOfKind('ant-roof-4', 'antenna')!, box: partOfKind('rtr-dual', 'router')! })
  h.design({ mastId: mast.id, band: 'B20' })
  for (const [slot, name, carrier] of [
    [1, 'A', 'Tern'],
    [3, 'B', 'Gannet'],
  ] as const)
    h.slot(slot, h.sim(name, carrier))
  return h
}

describe('each modem by itself', () => {
  it('has its own mast, level and promise', () => {
    const h = trailer()
    const sides = compareModems(h.doc, h.evidence, AT)
    expect(sides.map(s => [s.name, s.side?.carrier, s.side?.at?.mast.mast.name])).toEqual([
      ['modem 1 of Router', 'Tern', 'West'],
      ['modem 2 of Router', 'Gannet', 'East'],
    ])
    // The farther mast comes in lower.
    expect(sides[1]!.side!.portDbm!).toBeLessThan(sides[0]!.side!.portDbm!)
    expect(sides[0]!.side!.down!.median).toBeGreaterThan(0)
  })
  it('what is unplugged from one changes nothing of the other', () => {
    const h = trailer()
    const before = compareModems(h.doc, h.evidence, AT)
    const box = h.part('router').id
    for (const r of h.doc.runs.filter(x => x.toNodeId === box && (x.toPort === '3' || x.toPort === '4'))) h.remove('runs', r.id)
    const after = compareModems(h.doc, h.evidence, AT)
    expect(after[0]!.side!.down).toEqual(before[0]!.side!.down)
    expect(after[1]!.side!.portDbm).toBeNull()
  })
  it('one feed less is less of its own modem alone', () => {
    const h = trailer()
    const before = compareModems(h.doc, h.evidence, AT)
    const run = h.doc.runs.find(x => x.toNodeId === h.part('router').id && x.toPort === '2')!
    h.remove('runs', run.id)
    const after = compareModems(h.doc, h.evidence, AT)
    expect(after[0]!.side!.down!.median).toBeLessThan(before[0]!.side!.down!.median)
    expect(after[1]!.side!.down).toEqual(before[1]!.side!.down)
  })
  it('a modem without a SIM, or whose carrier nobody said, promises nothing; a box of one modem is not asked', () => {
    const h = trailer()
    h.remove('simSlots', h.doc.simSlots[0]!.id)
    expect(compareModems(h.doc, h.evidence, AT)[0]!.side).toBeNull()
    expect(compareModems(new House('router').doc, h.evidence, AT)).toEqual([])
  })
})
