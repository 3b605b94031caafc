import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { angleBetween } from '../geo/angles'
import { normals, seeded } from '../random'
import { bestHeading, nextHeading, sweepHeadings, sweepMinutes, readSwept } from './sweep'

const turnRound = (peak: number, step: number, noise: () => number, width = 70) =>
  sweepHeadings(step).map(headingDeg => ({
    headingDeg,
    value: 18 - Math.min(14, 12 * (angleBetween(headingDeg, peak) / width) ** 2) + noise(),
  }))

describe('best heading', () => {
  it('finds the peak between two steps', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 359.9, noNaN: true }), peak => {
        const r = bestHeading(turnRound(peak, 15, () => 0))
        expect(angleBetween(r.headingDeg, peak)).toBeLessThan(3)
      }),
    )
  })
  it('across north too', () => expect(angleBetween(bestHeading(turnRound(2, 15, () => 0)).headingDeg, 2)).toBeLessThan(2))
  it('its width holds the truth in about nine of ten noisy sweeps', () => {
    const normal = normals(seeded(7))
    const uniform = seeded(8)
    let held = 0
    const trials = 400
    for (let i = 0; i < trials; i++) {
      const peak = uniform() * 360
      const steps = [1, 2, 3].flatMap(() => turnRound(peak, 15, () => 0.8 * normal()))
      const r = bestHeading(steps)
      if (angleBetween(r.headingDeg, peak) <= r.plusMinusDeg) held++
    }
    expect(held / trials).toBeGreaterThan(0.8)
    expect(held / trials).toBeLessThanOrEqual(1)
  })
  it('knows its noise only from a second pass', () => {
    expect(bestHeading(turnRound(100, 30, () => 0)).noise).toBeNull()
    expect(bestHeading([...turnRound(100, 30, () => 0), ...turnRound(100, 30, () => 1)]).noise).toBeCloseTo(Math.SQRT1_2, 6)
  })
  it('names a second rise well away', () => {
    const steps = turnRound(250, 15, () => 0).map(s => ({ ...s, value: s.value + (angleBetween(s.headingDeg, 75) < 10 ? 8 : 0) }))
    expect(bestHeading(steps).second?.headingDeg).toBe(75)
  })
  it('says when turning changes nothing', () =>
    expect(bestHeading(sweepHeadings(45).map((headingDeg, i) => ({ headingDeg, value: 10 + (i % 2) * 0.4 }))).flat).toBe(true))
  it('needs three headings', () =>
    expect(() =>
      bestHeading([
        { headingDeg: 0, value: 1 },
        { headingDeg: 90, value: 2 },
      ]),
    ).toThrow(/at least 3/))
})

describe('the turn', () => {
  it('eight bracket positions, 30 s each, take six minutes', () => {
    expect(sweepHeadings(45)).toEqual([0, 45, 90, 135, 180, 225, 270, 315])
    expect(sweepMinutes(8, 30)).toBe(6)
  })
  it('goes on in the same sense and ends when all are taken', () => {
    const plan = sweepHeadings(45)
    expect(nextHeading(plan, [0], 0)).toBe(45)
    expect(nextHeading(plan, plan, 0)).toBeNull()
  })
})

describe('by pins', () => {
  const pins = [0, 45, 90, 135, 180, 225, 270, 315]
  it('the answer is a pin, never between two', () => {
    const steps = pins.map(h => ({
      headingDeg: h,
      value: 20 - 12 * (Math.min(Math.abs(h - 60), 360 - Math.abs(h - 60)) / 90) ** 2,
    }))
    expect(bestHeading(steps, { pins: true })).toMatchObject({ headingDeg: 45, plusMinusDeg: 45 })
    expect(bestHeading(steps).headingDeg).not.toBe(45)
  })
  it('lamps that all show the same are flat', () =>
    expect(
      bestHeading(
        pins.map(headingDeg => ({ headingDeg, value: 3 })),
        { pins: true, noise: 0.5 },
      ).flat,
    ).toBe(true))
})

describe('what is typed while turning', () => {
  it('95 of RSRP is −95, a speed stays above nothing, and nonsense is told in words', () => {
    expect(readSwept('95', 'RSRP')).toBe(-95)
    expect(readSwept('−95,5', 'RSRP')).toBe(-95.5)
    expect(readSwept('12', 'SINR')).toBe(12)
    expect(() => readSwept('', 'RSRP')).toThrow('what does it read?')
    expect(() => readSwept('-5', 'down')).toThrow('0 to 10000 Mbit/s')
    expect(() => readSwept('300', 'RSRP')).toThrow('−160 to −20 dBm')
    expect(() => readSwept('loud', 'RSRP')).toThrow()
  })
})
