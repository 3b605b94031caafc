import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeSpaceLossDb, wavelengthM } from '../radio/freespace'
import {
  horizontalIsolationDb,
  isolation,
  ISOLATION_CAP_DB,
  leastMove,
  meetsRuleOfThumb,
  verticalIsolationDb,
  willOscillate,
} from './isolation'

const f = 806

describe('isolation', () => {
  it('horizontal is free space to within 0.02 dB', () =>
    expect(horizontalIsolationDb(10, f, 0)).toBeCloseTo(freeSpaceLossDb(10, f), 1)) // 20·log10(4π) = 21.98, printed as 22
  it('doubling gains 6 dB along and 12 dB up', () => {
    expect(horizontalIsolationDb(20, f, 5) - horizontalIsolationDb(10, f, 5)).toBeCloseTo(6.02, 2)
    expect(verticalIsolationDb(8, f) - verticalIsolationDb(4, f)).toBeCloseTo(12.04, 2)
  })
  it('one wavelength up is 28 dB', () => expect(verticalIsolationDb(wavelengthM(f), f)).toBeCloseTo(28, 9)) // common practice
  it('slant meets both ends', () => {
    const along = isolation({ alongM: 15, upM: 0, frequencyMHz: f, gainTowardDbi: [0, 0] })
    expect(along.slantDb).toBeCloseTo(along.horizontalDb!, 9)
    const up = isolation({ alongM: 0, upM: 6, frequencyMHz: f, gainTowardDbi: [0, 0] })
    expect(up.slantDb).toBeCloseTo(up.verticalDb!, 9)
  })
  it('is never above free space with both patterns plus what stands between, nor above the cap', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.double({ min: -15, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (alongM, upM, g, obstructionDb) => {
          const r = isolation({ alongM, upM, frequencyMHz: f, gainTowardDbi: [g, 0], obstructionDb })
          expect(r.isolationDb).toBeLessThanOrEqual(Math.min(r.freeSpaceDb + obstructionDb, ISOLATION_CAP_DB) + 1e-9)
        },
      ),
    )
  })
  it('grows as the antennas part', () => {
    let last = -Infinity
    for (let d = 2; d < 30; d += 1) {
      const i = isolation({ alongM: d, upM: 3, frequencyMHz: f, gainTowardDbi: [-8, 0] }).isolationDb
      expect(i).toBeGreaterThanOrEqual(last - 1e-9)
      last = i
    }
  })
  it('says when they stand too close for the formulas', () => {
    expect(isolation({ alongM: 0.5, upM: 0.1, frequencyMHz: f, gainTowardDbi: [0, 0] }).farField).toBe(false)
    expect(() => isolation({ alongM: 0, upM: 0, frequencyMHz: f, gainTowardDbi: [0, 0] })).toThrow(/distance/)
  })
  it('the rule of thumb is 6.1 m up or 15.2 m along', () => {
    // 20 ft and 50 ft, common practice (no source).
    expect(6.1 / 0.3048).toBeCloseTo(20, 0)
    expect(meetsRuleOfThumb(3, 6.2)).toBe(true)
    expect(meetsRuleOfThumb(16, 1)).toBe(true)
    expect(meetsRuleOfThumb(10, 5)).toBe(false)
  })
})

describe('the loop', () => {
  it('is stable, held back or oscillating by gain plus margin', () => {
    expect(willOscillate(77, 62, 15, 35)).toEqual({ state: 'stable', gainDb: 62, heldBackDb: 0 })
    expect(willOscillate(71, 62, 15, 35)).toEqual({ state: 'held back', gainDb: 56, heldBackDb: 6 })
    expect(willOscillate(45, 62, 15, 35).state).toBe('oscillating')
  })
  it('each dB of isolation is a dB of gain while it limits', () => {
    fc.assert(
      fc.property(fc.double({ min: 52, max: 75, noNaN: true }), i => {
        expect(willOscillate(i + 1, 62, 15, 35).gainDb - willOscillate(i, 62, 15, 35).gainDb).toBeCloseTo(1, 9)
      }),
    )
  })
  it('finds the least move, to 0.1 m, and none where none is enough', () => {
    const at = (x: number) => 60 + 2 * x
    expect(leastMove(at, 65, 8)).toBe(2.5)
    expect(leastMove(at, 59, 8)).toBe(0)
    expect(leastMove(at, 90, 8)).toBeNull()
  })
})
