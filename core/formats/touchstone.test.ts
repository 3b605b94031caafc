import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  distanceToFault,
  openEndLossDb,
  readTouchstone,
  returnLossDb,
  SIDE_LOBES_DB,
  throughLossDb,
  vswrFrom,
  worstFault,
  writeTouchstone,
} from './touchstone'
import type { SweepPoint } from './touchstone'

describe('Touchstone, version 1', () => {
  it('worked by hand: 0.2 of magnitude is VSWR 1.5 and 13.98 dB', () => {
    const { points, ports, referenceOhm } = readTouchstone('! a load\n# MHZ S MA R 50\n800 0.2 0\n900 0.3333333 180\n')
    expect({ ports, referenceOhm }).toEqual({ ports: 1, referenceOhm: 50 })
    expect(vswrFrom(points[0]!.s11)).toBeCloseTo(1.5, 6)
    expect(returnLossDb(points[0]!.s11)).toBeCloseTo(13.979, 3)
    expect(vswrFrom(points[1]!.s11)).toBeCloseTo(2, 5)
    expect(points[1]!.s11.re).toBeCloseTo(-0.3333, 4)
  })
  it('reads dB and GHz: −20 dB at 0.8 GHz is 0.1', () => {
    const { points } = readTouchstone('# GHz S DB R 75\n0.8 -20 90 ! here\n0.9 -6.0206 0')
    expect(points[0]!.frequencyMHz).toBeCloseTo(800, 9)
    expect(points[0]!.s11.im).toBeCloseTo(0.1, 9)
    expect(vswrFrom(points[1]!.s11)).toBeCloseTo(3, 3)
  })
  it('two ports: S21 of −1.4 dB is 1.4 dB through', () => {
    const { ports, points } = readTouchstone('# MHZ S DB R 50\n806 -26 0 -1.4 0 -1.4 0 -26 0\n900 -25 0 -1.5 0 -1.5 0 -25 0')
    expect(ports).toBe(2)
    expect(throughLossDb(points[0]!)).toBeCloseTo(1.4, 9)
  })
  it.each([
    ['# MHZ Z RI R 50\n1 2 3\n2 3 4', 'line 1: Z-parameters'],
    ['[Version] 2.0\n# MHZ', 'version 2'],
    ['# MHZ S RI R 50\n1 2 3\n2 3', 'line 3: 2 numbers'],
    ['# MHZ S RI R 50\n2 0 0\n1 0 0', 'line 3: frequencies must rise'],
    ['# MHZ S RI R 50\n1 x 0\n2 0 0', 'line 2: “1 x 0” is not numbers'],
    ['nothing', 'line 1'],
    ['', 'no sweep in the file'],
  ])('refuses %j', (text, words) => expect(() => readTouchstone(text)).toThrow(words))
  it('what is written reads back the same', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true })), {
          minLength: 2,
          maxLength: 40,
        }),
        pairs => {
          const points = pairs.map(([re, im], i): SweepPoint => ({ frequencyMHz: 700 + i, s11: { re, im }, s21: null }))
          const back = readTouchstone(writeTouchstone({ ports: 1, referenceOhm: 50, points }))
          back.points.forEach((p, i) => {
            expect(p.s11.re).toBeCloseTo(points[i]!.s11.re, 7)
            expect(p.s11.im).toBeCloseTo(points[i]!.s11.im, 7)
          })
        },
      ),
    ))
})

/** A cable with its far end open, and a bad joint on the way: Γ = Σ g·e^(−j4πfd/(cv)). */
const cable = (ends: [distanceM: number, gamma: number][], vf = 0.85, points = 401, widthMHz = 800): SweepPoint[] =>
  Array.from({ length: points }, (_, i) => {
    const frequencyMHz = 600 + (i * widthMHz) / (points - 1)
    let [re, im] = [0, 0]
    for (const [d, g] of ends) {
      const phase = (-4 * Math.PI * frequencyMHz * 1e6 * d) / (299_792_458 * vf)
      re += g * Math.cos(phase)
      im += g * Math.sin(phase)
    }
    return { frequencyMHz, s11: { re, im }, s21: null }
  })

describe('distance to fault', () => {
  it('an open end at 12 m is found there', () => {
    const worst = worstFault(distanceToFault(cable([[12, 0.5]]), 0.85))
    // 299.79·0.85/(2·800 MHz) = 0.16 m is how finely it sees.
    expect(worst.distanceM).toBeCloseTo(12, 0)
    expect(worst.returnLossDb).toBeCloseTo(6, 0)
  })
  it.each([
    [5, 1601, 2400],
    [20.05, 1601, 2400],
    [20.05, 401, 800],
    [33.3, 201, 400],
    [55, 401, 800],
  ])('a fault of 10 dB at %f m reads 10 dB there, by %i points over %i MHz', (m, points, widthMHz) => {
    const worst = worstFault(distanceToFault(cable([[m, 10 ** (-10 / 20)]], 0.85, points, widthMHz), 0.85))
    expect(Math.abs(worst.distanceM - m)).toBeLessThan((299.792458 * 0.85) / (2 * widthMHz))
    // Between two of the distances worked out a Hann window loses 0.1 dB.
    expect(worst.returnLossDb).toBeCloseTo(10, 0)
  })
  it('beside a place the window’s lobes lie 31 dB under it, as is stated', () => {
    const faults = distanceToFault(cable([[12, 1]]), 0.85)
    const cell = (299.792458 * 0.85) / (2 * 800)
    const beside = faults.filter(f => Math.abs(f.distanceM - 12) > 2 * cell)
    expect(Math.min(...beside.map(f => f.returnLossDb))).toBeGreaterThan(SIDE_LOBES_DB - 0.7)
  })
  it('an open end has no VSWR', () => {
    expect(vswrFrom({ re: 1, im: 0 })).toBe(Infinity)
    expect(vswrFrom({ re: 1 / 3, im: 0 })).toBeCloseTo(2, 9)
  })
  it('a wet joint at 4 m stands out before a good load', () =>
    expect(
      worstFault(
        distanceToFault(
          cable([
            [4, 0.2],
            [12, 0.02],
          ]),
          0.85,
        ),
      ).distanceM,
    ).toBeCloseTo(4, 0))
  it('half of what comes back from an open end is the loss one way: 5.6 dB is 2.8', () =>
    expect(openEndLossDb({ re: 10 ** (-5.6 / 20), im: 0 })).toBeCloseTo(2.8, 6))
  it('refuses a sweep too short to see by', () =>
    expect(() => distanceToFault(cable([[1, 1]]).slice(0, 8), 0.85)).toThrow('16 points'))
})
