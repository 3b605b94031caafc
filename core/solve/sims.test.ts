import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { carriersOf } from '../survey/setups'
import { promiseIn } from '../judge/assess'
import { capOfSim } from '../judge/context'
import { compareSims } from './sims'

/** A house with a SIM of each of two carriers: one mast of Tern in the west, one of Gannet in the east, further off. */
function twoSims(): { h: House; east: string; tern: string; gannet: string } {
  const h = new House('router')
  const [first] = h.doc.sims
  const sim = (name: string, carrier: string, capDownMbps: number | null) =>
    h.add('sims', {
      name,
      carrier,
      plan: null,
      capDownMbps,
      capUpMbps: null,
      allowanceGb: null,
      callsOverWifi: null,
    })
  const tern = first?.carrier === 'Tern' ? first.id : sim('Tern SIM', 'Tern', null)
  const gannet = sim('Gannet SIM', 'Gannet', 12)
  const east = h.add('masts', {
    name: 'East',
    latDeg: 50,
    lonDeg: -29.86,
    heightM: 40,
    groundM: 0,
    carrier: 'Gannet',
    accuracyM: null,
    seenOn: null,
  })
  h.add('cells', {
    mastId: east,
    technology: 'LTE',
    band: 'B20',
    cellId: '7',
    channel: null,
    azimuthDeg: null,
    beamwidthDeg: null,
    powerDbm: null,
  })
  return { h, east, tern, gannet }
}

describe('SIMs side by side', () => {
  it('has a side for each carrier, each with its own masts alone', () => {
    const { h } = twoSims()
    h.reads('Ridge', -84)
    const sides = compareSims(h.doc, h.evidence, AT)
    expect(sides.map(s => s.carrier)).toEqual(['Tern', 'Gannet'])
    expect(sides.map(s => s.masts.map(m => m.mast.name))).toEqual([['West'], ['East']])
    expect(sides.map(s => s.planned)).toEqual([true, false])
    for (const s of sides) expect(s.down!.median).toBeGreaterThan(0)
  })
  it('the planned side is the promise of the job, figure by figure', () => {
    const { h } = twoSims()
    h.reads('Ridge', -84)
    const [tern] = compareSims(h.doc, h.evidence, AT)
    const promise = h.assess().promise!
    expect(tern!.down).toEqual(promise.down)
    expect(tern!.up).toEqual(promise.up)
  })
  it('what one SIM reads and tests moves nothing of the other', () => {
    const { h, gannet } = twoSims()
    h.reads('Ridge', -84)
    const before = compareSims(h.doc, h.evidence, AT)
    const own = h.doc.setups[0]!
    const { id: _, version: __, ...fields } = own as typeof own & { version?: number }
    const setupId = h.add('setups', { ...fields, simId: gannet })
    const roof = h.spot('Ridge')
    for (const rsrpDbm of [-78, -79, -78])
      h.add('readings', { ...h.doc.readings[0]!, id: undefined, spotId: roof.id, setupId, rsrpDbm })
    const after = compareSims(h.doc, h.evidence, AT)
    expect(after[0]).toEqual({ ...before[0], masts: after[0]!.masts })
    expect(after[1]!.readings).toBe(before[1]!.readings + 3)
    expect(after[1]!.down).not.toEqual(before[1]!.down)
  })
  it('a cap holds its own carrier down, and no other', () => {
    const { h } = twoSims()
    h.reads('Ridge', -70)
    const [tern, gannet] = compareSims(h.doc, h.evidence, AT)
    expect(gannet!.capDownMbps).toBe(12)
    expect(gannet!.down!.high).toBeLessThanOrEqual(12)
    expect(tern!.capDownMbps).toBeNull()
    expect(capOfSim(h.context()).downMbps).toBeNull()
  })
  it('turned to the other, what was locked and typed for the first carrier is left out', () => {
    const { h, east } = twoSims()
    h.reads('Ridge', -84)
    const free = compareSims(h.doc, h.evidence, AT)[1]!
    h.set('designs', h.doc.designs[0]!.id, { aimedDeg: 270, aimedAtUtc: AT, carriersInBand: 9 })
    expect(compareSims(h.doc, h.evidence, AT)[1]!.down).toEqual(free.down)
    // The same as a plan that was aimed at it from the first.
    h.set('designs', h.doc.designs[0]!.id, { aimedDeg: null, aimedAtUtc: null, carriersInBand: null, mastId: east, band: 'B20' })
    h.job({ carrier: 'Gannet' })
    expect(promiseIn(h.context())!.down).toEqual(free.down)
  })
  it('before there is a plan the usual kit stands for it, for every SIM', () => {
    const { h } = twoSims()
    h.reads('Ridge', -84)
    const laid = compareSims(h.doc, h.evidence, AT)
    for (const r of h.doc.runs) h.remove('runs', r.id)
    for (const n of h.doc.nodes) h.remove('nodes', n.id)
    const bare = compareSims(h.doc, h.evidence, AT)
    expect([laid, bare].map(sides => sides.map(s => s.usualKit))).toEqual([
      [false, false],
      [true, true],
    ])
    expect(bare[0]!.down!.median).toBeCloseTo(laid[0]!.down!.median, 6)
    expect(h.doc.nodes).toEqual([])
  })
  it('is empty of figures where no mast of a carrier is known, and knows one carrier once', () => {
    const { h } = twoSims()
    h.add('sims', {
      name: 'Third',
      carrier: 'Dunlin',
      plan: null,
      capDownMbps: null,
      capUpMbps: null,
      allowanceGb: null,
      callsOverWifi: null,
    })
    const [, , third] = compareSims(h.doc, h.evidence, AT)
    expect(third).toMatchObject({ carrier: 'Dunlin', masts: [], at: null, down: null, up: null })
    expect(carriersOf(h.doc)).toEqual(['Tern', 'Gannet', 'Dunlin'])
    expect(carriersOf(new House('router').doc)).toEqual(['Tern'])
  })
})
