import { describe, expect, it } from 'vitest'
import { gainToward } from '../radio/pattern'
import { readPattern } from './pattern-csv'

const rows = (step: number, f: (deg: number) => number, from = 0) =>
  Array.from({ length: 360 / step }, (_, i) => {
    const deg = from + i * step
    return [String(deg), String(f(deg)), String(f(deg) / 2)]
  })

describe('a measured pattern', () => {
  it('comes to even steps, the peak at 0', () => {
    const p = readPattern(rows(10, d => 3 + Math.min(Math.abs(d), 360 - d) / 10))
    expect(p.azimuthDb).toHaveLength(72)
    expect(p.azimuthDb[0]).toBe(0)
    expect(p.azimuthDb[36]).toBeCloseTo(18, 6)
    expect(p.azimuthDb[1]).toBeCloseTo(0.5, 6)
    expect(p.elevationDb[36]).toBeCloseTo(9, 6)
  })
  it('levels may be signed either way, angles from −180, decimals with a comma', () => {
    const p = readPattern(rows(10, d => -Math.abs(d) / 10, -180).map(r => r.map(c => c.replace('.', ','))))
    expect(p.azimuthDb[0]).toBe(0)
    expect(p.azimuthDb[36]).toBeCloseTo(18, 6)
  })
  it('refuses a hole, and what is no number', () => {
    expect(() => readPattern(rows(10, () => 1).filter(r => Number(r[0]) < 90 || Number(r[0]) > 130))).toThrow(
      'the azimuth has a hole from 80° to 140°',
    )
    expect(() => readPattern([['0', 'x', '0']])).toThrow('row 1')
    expect(() => readPattern([['0', '1', '']])).toThrow('the azimuth has no samples')
  })
  it('stands in the place of the widths: gain toward a side is what was measured there', () => {
    const { azimuthDb, elevationDb } = readPattern(rows(10, d => Math.min(Math.abs(d), 360 - d) / 6))
    const p = { gainDbi: 8, beamwidthDeg: 70, verticalBeamwidthDeg: 70, frontToBackDb: 18, azimuthDb, elevationDb }
    expect(gainToward(p, { azimuthDeg: 100, tiltDeg: 0 }, 100)).toBeCloseTo(8, 9)
    expect(gainToward(p, { azimuthDeg: 100, tiltDeg: 0 }, 160)).toBeCloseTo(8 - 10, 6)
    expect(gainToward(p, { azimuthDeg: 100, tiltDeg: 0 }, 280)).toBeCloseTo(8 - 30, 6)
  })
})
