import { describe, expect, it } from 'vitest'
import { angleBetween } from '../geo/angles'
import { bestOf, heardNow, loadsNow, worldOf } from './world'

const BEAM = { gainDbi: 10, beamwidthDeg: 50, frontToBackDb: 20 }
const OMNI = { gainDbi: 2, beamwidthDeg: 360, frontToBackDb: 0 }
const SEEDS = Array.from({ length: 60 }, (_, i) => i + 1)

describe('the simulated world', () => {
  it('of a seed is always the same, of another another', () => {
    const at = (seed: number) => heardNow(worldOf(seed), { headingDeg: 40, antenna: BEAM, atS: 12.3 })
    expect(at(7)).toEqual(at(7))
    expect(at(7)).not.toEqual(at(8))
  })
  it('a beam on the mast hears it better than one turned away, and an omni does not care', () => {
    for (const seed of SEEDS) {
      const w = worldOf(seed)
      const { headingDeg } = bestOf(w, BEAM)
      const level = (h: number, antenna = BEAM) => heardNow(w, { headingDeg: h, antenna, atS: 0 }).rsrpDbm
      expect(level(headingDeg)).toBeGreaterThan(level(headingDeg + 180))
      expect(level(headingDeg, OMNI)).toBeCloseTo(level(headingDeg + 180, OMNI), 6)
    }
  })
  it('the mast is mostly where the best is, but not always: a reflection may pull it', () => {
    const off = SEEDS.map(seed => angleBetween(bestOf(worldOf(seed), BEAM).headingDeg, worldOf(seed).mastDeg))
    expect(off.filter(o => o < 12).length).toBeGreaterThan(SEEDS.length * 0.75)
    expect(off.some(o => o > 40)).toBe(true)
  })
  it('about a bearing that is known it lies near that, and not on it', () => {
    const off = SEEDS.map(seed => angleBetween(worldOf(seed, { aboutDeg: 310 }).mastDeg, 310))
    expect(Math.max(...off)).toBeLessThan(20)
    expect(off.some(o => o > 1)).toBe(true)
  })
  it('loss before the receiver lowers level and SINR, never the share of the cell', () => {
    const w = worldOf(3)
    const near = heardNow(w, { headingDeg: 0, antenna: OMNI, atS: 5 })
    const behind = heardNow(w, { headingDeg: 0, antenna: OMNI, atS: 5, lossDb: 20 })
    expect(near.rsrpDbm - behind.rsrpDbm).toBeCloseTo(20, 6)
    expect(behind.sinrDb).toBeLessThan(near.sinrDb)
    for (let hour = 0; hour < 24; hour++) expect(w.shareAt(hour)).toBeGreaterThan(0)
  })
  it('RSRQ lies where the standard’s scale has it', () => {
    // TS 36.133: −19.5 to −3 dB; alone on the air at half load it is −7.8.
    for (const seed of SEEDS) {
      const { rsrqDb } = heardNow(worldOf(seed), { headingDeg: 0, antenna: OMNI, atS: 1 })
      expect(rsrqDb).toBeLessThanOrEqual(-7.7)
      expect(rsrqDb).toBeGreaterThan(-30)
    }
  })
  it('the plan’s cap holds, a better SINR is never slower', () => {
    const w = worldOf(5)
    expect(loadsNow(w, 25, 4, { capMbps: 10 })).toBe(10)
    for (let s = -8; s < 30; s++) expect(loadsNow(w, s + 1, 12)).toBeGreaterThanOrEqual(loadsNow(w, s, 12))
  })
  it('what is read wanders by two decibels or so, as phones do', () => {
    const w = worldOf(9)
    const v = Array.from({ length: 400 }, (_, i) => heardNow(w, { headingDeg: 0, antenna: OMNI, atS: i * 5 }).rsrpDbm)
    const mean = v.reduce((a, b) => a + b) / v.length
    const sigma = Math.sqrt(v.reduce((a, b) => a + (b - mean) ** 2, 0) / v.length)
    expect(sigma).toBeGreaterThan(1.5)
    expect(sigma).toBeLessThan(2.6)
  })
})
