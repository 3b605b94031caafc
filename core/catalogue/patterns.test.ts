import { describe, expect, it } from 'vitest'
import type { AntennaPart } from '../job/part'
import { gainToward, meanOverSphereDb } from '../radio/pattern'
import { wavelengthM } from '../radio/freespace'
import { antennaAt, partOfKind, PARTS, usualPolarisation } from './parts'
import { panelBackDb } from './shapes'

const ANTENNAS = PARTS.filter((p): p is AntennaPart => p.kind === 'antenna')
const of = (id: string) => partOfKind(id, 'antenna')!
/** A dome hangs with its axis straight down. */
const DOWN = { azimuthDeg: 0, tiltDeg: -90 }
const LEVEL = { azimuthDeg: 0, tiltDeg: 0 }

/** Sources are of the method of moments: wire models, converged to 0.1–0.6 dB, in free space, matched. */
describe('patterns of the catalogue', () => {
  it('none radiates more than it is fed: the mean over the sphere is at most 0 dB', () => {
    for (const p of ANTENNAS)
      for (const r of p.ranges)
        for (const f of [r.lowMHz, (r.lowMHz + r.highMHz) / 2, r.highMHz])
          for (const fitted of ['vertical', 'horizontal', 'slant'] as const)
            expect(meanOverSphereDb(antennaAt(p, f, fitted).pattern), `${p.id} at ${f} MHz, ${fitted}`).toBeLessThanOrEqual(0.005)
  })

  const LOW: [elevationDeg: number, dbi: number][] = [
    [0, 1.4],
    [30, 0.5],
    [45, -0.8],
    [60, -3.4],
    [75, -8.8],
    [-60, -3],
    [-75, -8.5],
  ]
  it.each(LOW)('a dome below 1 GHz is a doughnut: at %i° of elevation %f dBi', (elevationDeg, dbi) => {
    for (const id of ['ant-dome', 'ant-dome-wide', 'ant-dome-f', 'ant-dome-x'])
      for (const f of [700, 850, 960])
        expect(gainToward(antennaAt(of(id), f).pattern, DOWN, 33, elevationDeg)).toBeCloseTo(dbi, 6)
  })
  it('above it throws downward: 3.5 dBi at 45° down, −1 level', () => {
    for (const f of [1750, 2150]) {
      expect(gainToward(antennaAt(of('ant-dome'), f).pattern, DOWN, 33, -45)).toBeCloseTo(3.5, 6)
      expect(gainToward(antennaAt(of('ant-dome'), f).pattern, DOWN, 33, 0)).toBeCloseTo(-1, 6)
    }
  })
  it('its own measured planes stand over the shape, read from the horizon as it hangs', () => {
    const plane = (at: (deg: number) => number) => Array.from({ length: 72 }, (_, i) => at(i * 5))
    const dome = of('ant-dome')
    const own = {
      ...dome,
      ranges: dome.ranges.map(r => ({ ...r, azimuthDb: plane(() => 0), elevationDb: plane(deg => (deg === 90 ? 25 : 2)) })),
    }
    const { pattern } = antennaAt(own, 850)
    expect(pattern.aboutAxisDb).toBeUndefined()
    expect(gainToward(pattern, LEVEL, 33, 90)).toBeCloseTo(1.4 - 25, 6)
    expect(gainToward(pattern, LEVEL, 33, 0)).toBeCloseTo(1.4 - 2, 6)
  })
  it('on a metal roof an antenna gives its peak less 5 dB at the horizon, the peak at 15–25° up', () => {
    const roof = ANTENNAS.filter(p => p.overMetal)
    expect(roof.map(p => p.id).sort()).toEqual(['ant-fin', 'ant-magnet', 'ant-roof-2', 'ant-roof-4', 'ant-roof-7'])
    for (const p of roof)
      for (const f of [800, 1900]) {
        const { pattern } = antennaAt(p, f)
        const at = (e: number) => gainToward(pattern, LEVEL, 77, e)
        expect(pattern.gainDbi - at(0), p.id).toBeCloseTo(5, 6)
        expect(at(0), p.id).toBeLessThanOrEqual(-0.4)
        const peak = Array.from({ length: 91 }, (_, e) => e).reduce((a, b) => (at(b) > at(a) ? b : a))
        expect(peak).toBeGreaterThanOrEqual(15)
        expect(peak).toBeLessThanOrEqual(25)
        expect(at(-30)).toBeLessThan(at(0) - 5)
      }
  })
  const BACKS: [mhz: number, db: number, withinDb: number][] = [
    [700, 7.4, 2.5],
    [806, 11.2, 0.5],
    [850, 12.3, 0.6],
    [960, 14.2, 1.2],
  ]
  it.each(BACKS)('a panel of 18 by 21 cm keeps its back at most so far down at %i MHz: %f dB', (mhz, db, withinDb) => {
    const { pattern } = antennaAt(of('ant-panel-in'), mhz)
    expect(Math.abs(pattern.frontToBackDb - db)).toBeLessThan(withinDb)
    expect(gainToward(pattern, LEVEL, 0) - gainToward(pattern, LEVEL, 180)).toBeCloseTo(pattern.frontToBackDb, 6)
  })
  it('from 0.85 λ on it is 17 to 18 dB; and no panel of the catalogue below 1 GHz is better than that', () => {
    expect(panelBackDb(0.85, 1)).toBeGreaterThanOrEqual(17)
    expect(panelBackDb(0.85, 1)).toBeLessThanOrEqual(18)
    for (const p of ANTENNAS.filter(a => a.shape === 'panel'))
      for (const f of [700, 850, 950])
        expect(antennaAt(p, f).pattern.frontToBackDb, p.id).toBeLessThanOrEqual(
          18.8 + 23.9 * Math.log10(p.sizeMm![0]! / 1000 / wavelengthM(f)) + 1e-9,
        )
  })
  it('upright beams are wider across than up, and lying ones the other way; at ±45° alike', () => {
    const log = antennaAt(of('ant-lpda'), 850, 'vertical').pattern
    expect([log.beamwidthDeg, log.verticalBeamwidthDeg]).toEqual([94, 62])
    const high = antennaAt(of('ant-lpda'), 1900, 'horizontal').pattern
    expect([high.beamwidthDeg, high.verticalBeamwidthDeg]).toEqual([46, 66])
    for (const p of ANTENNAS.filter(a => (a.shape === 'log-periodic' || a.shape === 'Yagi') && a.ports.length === 1))
      for (const r of p.ranges) {
        const up = antennaAt(p, r.lowMHz, 'vertical').pattern
        expect(up.beamwidthDeg, p.id).toBeGreaterThan(up.verticalBeamwidthDeg)
        const slant = antennaAt(p, r.lowMHz, 'slant').pattern
        expect(slant.beamwidthDeg).toBeCloseTo(slant.verticalBeamwidthDeg, 9)
      }
  })
  it('two feeds of a beam stand at ±45° where nobody said otherwise, everything else upright', () => {
    expect(usualPolarisation(of('ant-panel-x'))).toBe('slant')
    for (const id of ['ant-lpda', 'ant-omni-x', 'ant-dome-x', 'ant-panel-in']) expect(usualPolarisation(of(id))).toBe('vertical')
  })
})
