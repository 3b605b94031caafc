import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { partOfKind } from '../catalogue/parts'
import { treeOf } from '../chain/tree'
import { divided, zoneTrouble } from '../fitting/zones'
import type { Division, Donors } from '../fitting/zones'
import { contextOf, isWorked } from '../judge/context'
import { fansOf } from '../judge/uneven'
import { buildingOf, floorAt } from '../site/building'
import { layZones } from './zones'

/** A clinic of 84 × 50 m on two floors, a mast 5 km to the west. */
function clinic(division: Division = 'three', rules: 'generic' | 'US' = 'generic'): House {
  const h = new House(null, 'building', { rules })
  h.site({ lengthM: 84, depthM: 50, storeys: 2, storeyHeightM: 3.6, roofRiseM: 0, axisDeg: 90 })
  h.design({ mastId: h.doc.masts[0]!.id, band: 'B20' })
  for (const z of divided(buildingOf(h.doc), division)) h.add('zones', z)
  return h
}
function laid(h: House, donors: Donors = 'own'): House {
  return h.apply(layZones(h.doc, h.doc.designs[0]!, { evidence: h.evidence, atUtc: AT, donors, newId: h.id }))
}
const tree = (h: House) => treeOf(h.doc, h.doc.designs[0]!)
const fans = (h: House) => {
  const c = contextOf(h.doc, h.evidence, AT)
  return isWorked(c) ? fansOf(c) : []
}

describe('a building by zones', () => {
  it('three zones of a clinic: an amplifier and an outside antenna each, both floors, everything joined', () => {
    const h = laid(clinic())
    const t = tree(h)
    expect([t.amplifiers.length, t.donors.length]).toEqual([3, 3])
    expect([t.broken, t.loose, t.open]).toEqual([[], [], []])
    // 28 × 50 m by one antenna for 110 m² (offices): 13 a floor and zone.
    for (const f of fans(h)) {
      const byLevel = f.servers.map(s => floorAt(buildingOf(h.doc).floors, s.server.at.node.upM - 0.01).level)
      expect([byLevel.filter(l => l === 0).length, byLevel.filter(l => l === 1).length]).toEqual([13, 13])
    }
    expect(fans(h)).toHaveLength(3)
    // Each outside antenna feeds its own amplifier alone.
    const pairs = t.visits.filter(v => v.at.part.kind === 'amplifier').map(v => `${v.donor.node.id} ${v.at.node.id}`)
    expect(new Set(pairs).size).toBe(3)
  })
  it('its antennas are fed within 3 dB of their targets, either way', () => {
    for (const f of fans(laid(clinic('four')))) expect(f.spreadDb).toBeLessThanOrEqual(6 + 1e-9)
  })
  it('domes of many are told apart by their number', () => {
    const names = tree(laid(clinic())).servers.map(s => s.name)
    expect(new Set(names).size).toBe(names.length)
  })
  it('a donor that is too strong gets its pad; no amplifier is overloaded', () => {
    const h = clinic()
    h.add('spots', { name: 'Roof', eastM: -40, northM: 0, upM: 9, indoors: false, needed: false })
    h.reads('Roof', -70)
    laid(h)
    const c = contextOf(h.doc, h.evidence, AT)
    expect(tree(h).nodes.filter(n => n.part.kind === 'pad')).toHaveLength(3)
    for (const a of c.main!.levels!.amplifiers) expect(a.inputMarginDb).toBeGreaterThanOrEqual(0)
  })
  it('one outside antenna is shared by a splitter', () => {
    const t = tree(laid(clinic(), 'shared'))
    expect([t.amplifiers.length, t.donors.length]).toEqual([3, 1])
    expect(t.nodes.filter(n => n.part.id === 'spl-3').length).toBeGreaterThanOrEqual(1)
    expect([t.broken, t.loose]).toEqual([[], []])
  })
  it('in the United States with an amplifier of its bands', () => {
    const { bands } = tree(laid(clinic('four', 'US'))).amplifiers[0]!.part
    expect(bands).toEqual(partOfKind('amp-na-building', 'amplifier')!.bands)
  })
  it('a zone a floor has no riser; laid out again it replaces what was there', () => {
    const h = laid(clinic('floors').site({ lengthM: 40 }))
    expect(tree(h).amplifiers).toHaveLength(2)
    const before = tree(h).nodes.length
    laid(h)
    expect(tree(h).nodes.length).toBe(before)
  })
  it('a wider use of its floor asks for fewer antennas', () => {
    const h = clinic('floors').site({ lengthM: 40 })
    for (const z of h.doc.zones) h.set('zones', z.id, { alongFromM: -20, alongToM: 20 })
    const many = tree(laid(h)).servers.length
    for (const z of h.doc.zones) h.set('zones', z.id, { use: 'store' })
    expect(tree(laid(h)).servers.length).toBeLessThan(many)
  })
  it('a zone without a floor, or beyond the walls, says so and is left out', () => {
    const h = clinic('two')
    const [a, b] = h.doc.zones
    h.set('zones', a!.id, { fromLevel: 5, toLevel: 7 })
    expect(zoneTrouble(buildingOf(h.doc), h.doc.zones[0]!)).toMatch(/no such floor/)
    expect(tree(laid(h)).amplifiers).toHaveLength(1)
    h.set('zones', b!.id, { alongFromM: 100, alongToM: 140 })
    expect(zoneTrouble(buildingOf(h.doc), h.doc.zones[1]!)).toMatch(/outside the walls/)
    expect(tree(laid(h)).amplifiers).toHaveLength(0)
  })
  it('more antennas than one amplifier is asked to feed are told, not left out in silence', () => {
    const h = clinic('whole')
    expect(zoneTrouble(buildingOf(h.doc), h.doc.zones[0]!)).toMatch(/more than 24 antennas on a floor/)
    expect(tree(laid(h)).amplifiers).toHaveLength(0)
  })
  it('without a mast it is laid out by rule', () => {
    const h = clinic()
    h.design({ mastId: null })
    expect(tree(laid(h)).servers).toHaveLength(78)
  })
})
