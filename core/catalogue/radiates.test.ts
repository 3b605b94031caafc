import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { AntennaPart } from '../job/part'
import { partOfKind, PARTS } from './parts'
import { overfedBy, overfedWords } from './radiates'

const grid = partOfKind('ant-grid', 'antenna')!
const withRange = (gainDbi: number, across: number, up: number): AntennaPart => ({
  ...grid,
  ranges: [{ lowMHz: 1700, highMHz: 2700, gainDbi, beamwidthDeg: across, verticalBeamwidthDeg: up }],
})

describe('gain that goes with its beam', () => {
  it('every antenna of the catalogue may be', () => {
    for (const p of PARTS) if (p.kind === 'antenna') expect(overfedWords(p), p.id).toBeNull()
  })
  // Kraus: D ≈ 41253 / (across · up); Tai and Pereira put it lower. From memory of Balanis, Antenna Theory, ch. 2.
  it.each([
    [55, 60],
    [70, 70],
    [30, 30],
    [20, 45],
  ])('a beam of %i° by %i° may have what Kraus gives it, and not 4 dB more', (across, up) => {
    const kraus = 10 * Math.log10(41253 / (across * up))
    expect(overfedWords(withRange(kraus, across, up))).toBeNull()
    expect(overfedWords(withRange(kraus + 4, across, up))).toMatch(/does not go with a beam/)
  })
  it('a dipole has 2.15 dBi and may; the same beam with 6 dBi may not', () => {
    const whip = { ...grid, shape: 'whip' as const, ports: grid.ports.slice(0, 1) }
    const of = (gainDbi: number): AntennaPart => ({
      ...whip,
      ranges: [{ lowMHz: 700, highMHz: 960, gainDbi, beamwidthDeg: 360, verticalBeamwidthDeg: 78 }],
    })
    expect(overfedWords(of(2.15))).toBeNull()
    expect(overfedWords(of(6))).toContain('6.0 dBi at 700 to 960 MHz does not go with a beam of 360° by 78°')
  })
  it('a decibel more of gain is a decibel more of it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5, max: 20 }),
        fc.integer({ min: 10, max: 120 }),
        fc.integer({ min: 10, max: 120 }),
        (g, a, u) => {
          expect(overfedBy(withRange(g + 1, a, u)).db - overfedBy(withRange(g, a, u)).db).toBeCloseTo(1, 6)
        },
      ),
      { numRuns: 30 },
    )
  })
})
