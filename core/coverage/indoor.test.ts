import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { freeSpaceLossDb } from '../radio/freespace'
import { indoorLossDb, OPEN_N, RESIDENTIAL_N } from './indoor'

describe('inside a home', () => {
  it('at 1 m is free space to within 0.5 dB', () => {
    // ITU-R P.1238 is built so: 20·log f − 28 is free space over 1 m (20·log f − 27.55).
    for (const f of [806, 1842, 2655]) expect(indoorLossDb(1, f, 0)).toBeCloseTo(freeSpaceLossDb(1, f), 0)
  })
  it('worked value: 10 m at 1842 MHz through a floor of 4 dB is 69.3 dB', () => {
    // 20·log10(1842) + 28·1 + 4 − 28 = 65.31 + 4; ITU-R P.1238 gives a residential floor 4 dB.
    expect(indoorLossDb(10, 1842, 4)).toBeCloseTo(69.31, 2)
  })
  it('ten times the distance costs the coefficient; in open plan less', () => {
    expect(indoorLossDb(20, 806, 0) - indoorLossDb(2, 806, 0)).toBeCloseTo(RESIDENTIAL_N, 9)
    expect(indoorLossDb(20, 806, 0, OPEN_N) - indoorLossDb(2, 806, 0, OPEN_N)).toBeCloseTo(OPEN_N, 9)
  })
  it('is never below what it is at 1 m, and grows with distance and frequency', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 60, noNaN: true }), fc.double({ min: 600, max: 3800, noNaN: true }), (d, f) => {
        expect(indoorLossDb(d, f, 0)).toBeGreaterThanOrEqual(indoorLossDb(1, f, 0) - 1e-9)
        expect(indoorLossDb(d * 1.5, f, 0)).toBeGreaterThanOrEqual(indoorLossDb(d, f, 0))
        expect(indoorLossDb(d, f + 50, 0)).toBeGreaterThan(indoorLossDb(d, f, 0))
      }),
    )
  })
  it('refuses no distance', () => {
    expect(() => indoorLossDb(0, 806, 0)).toThrow('distanceM must be above 0, got 0')
    expect(() => indoorLossDb(NaN, 806, 0)).toThrow(RangeError)
  })
})
