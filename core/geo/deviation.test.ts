import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { angleBetween } from './angles'
import { compassToMagnetic, deviationFrom, deviationOf, deviationSeen, fitDeviation, magneticToCompass } from './deviation'
import { affineFromTies, extentOf, groundToPixel, pixelToGround, readWorldFile } from './georeference'

const card = (d: (h: number) => number, every = 30) =>
  Array.from({ length: 360 / every }, (_, i) => ({ headingDeg: i * every, deviationDeg: d(i * every) }))
const rad = Math.PI / 180

describe('deviation', () => {
  it('east is positive: the compass shows less than magnetic', () => {
    // "Deviation east, compass least" (seamanship, common practice).
    expect(
      compassToMagnetic(
        100,
        card(() => 4),
      ),
    ).toBe(104)
    expect(
      magneticToCompass(
        104,
        card(() => 4),
      ),
    ).toBeCloseTo(100, 6)
  })
  it('seen by a swing: magnetic less compass bearing', () => {
    expect(deviationSeen(355, 2)).toBe(7)
    expect(deviationSeen(2, 355)).toBe(-7)
  })
  it('finds the five coefficients that made a card', () => {
    const truth = [0.6, 2.5, -1.8, 0.9, -0.4] as const
    const f = fitDeviation(
      card(
        h =>
          truth[0] +
          truth[1] * Math.sin(h * rad) +
          truth[2] * Math.cos(h * rad) +
          truth[3] * Math.sin(2 * h * rad) +
          truth[4] * Math.cos(2 * h * rad),
        45,
      ),
    )
    truth.forEach((t, i) => expect(f.coefficients[i]).toBeCloseTo(t, 6))
    expect(f.residualDeg).toBeLessThan(1e-6)
    expect(deviationOf(f.coefficients, 90)).toBeCloseTo(0.6 + 2.5 + 0.4, 6)
  })
  it('with four or five headings keeps to three coefficients', () =>
    expect(fitDeviation(card(h => 3 * Math.sin(h * rad), 90)).coefficients.slice(3)).toEqual([0, 0]))
  it('refuses a swing that does not go round', () => {
    expect(() => fitDeviation(card(() => 0, 120))).toThrow(/at least 4/)
    expect(() => fitDeviation([0, 20, 40, 60, 80].map(headingDeg => ({ headingDeg, deviationDeg: 1 })))).toThrow(/gap of 280°/)
    expect(() => fitDeviation(card(() => 60))).toThrow(RangeError)
  })
  it('is straight between the entries of a card, over north too', () => {
    const c = [
      { headingDeg: 350, deviationDeg: 2 },
      { headingDeg: 10, deviationDeg: -2 },
      { headingDeg: 180, deviationDeg: 0 },
    ]
    expect(deviationFrom(c, 0)).toBeCloseTo(0, 9)
    expect(deviationFrom(c, 355)).toBeCloseTo(1, 9)
    expect(deviationFrom([], 77)).toBe(0)
  })
  it('compass to magnetic and back is the same heading', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        (h, b, c) => {
          const k = card(x => b * Math.sin(x * rad) + c * Math.cos(x * rad), 15)
          expect(angleBetween(magneticToCompass(compassToMagnetic(h, k), k), h)).toBeLessThan(1e-5)
        },
      ),
    ))
})

describe('a picture on the ground', () => {
  const p = { x: 100, y: 100, at: { latDeg: 46.8, lonDeg: -41.4 } }
  it('lies by two points, true to shape', () => {
    // The second point lies 200 px right on the picture, due east on the ground: north stays up, a pixel is as tall as wide on the ground.
    const t = affineFromTies(p, { x: 300, y: 100, at: { latDeg: 46.8, lonDeg: -41.39 } })
    expect(pixelToGround(t, 100, 100).latDeg).toBeCloseTo(46.8, 9)
    expect(pixelToGround(t, 300, 100).lonDeg).toBeCloseTo(-41.39, 9)
    const down = pixelToGround(t, 100, 300)
    expect(down.lonDeg).toBeCloseTo(-41.4, 9)
    expect(46.8 - down.latDeg).toBeCloseTo(0.01 * Math.cos(46.8 * rad), 6)
  })
  it('a picture taken with east up is turned', () => {
    const t = affineFromTies(p, { x: 100, y: 0, at: { latDeg: 46.8, lonDeg: -41.39 } })
    // What lies right on it is south.
    expect(pixelToGround(t, 200, 100).latDeg).toBeLessThan(46.8)
    expect(pixelToGround(t, 200, 100).lonDeg).toBeCloseTo(-41.4, 6)
  })
  it('ground to pixel and back', () =>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 2000, noNaN: true }), fc.double({ min: 0, max: 2000, noNaN: true }), (x, y) => {
        const t = affineFromTies(p, { x: 1900, y: 700, at: { latDeg: 46.77, lonDeg: -41.31 } })
        const back = groundToPixel(t, pixelToGround(t, x, y))
        expect(back.x).toBeCloseTo(x, 4)
        expect(back.y).toBeCloseTo(y, 4)
      }),
    ))
  it('reads a world file, whose place is the middle of the first pixel', () => {
    const t = readWorldFile('0.001\n0\n0\n-0.001\n-41.4995\n46.9995\n')
    expect(pixelToGround(t, 0.5, 0.5)).toEqual({ latDeg: 46.9995, lonDeg: -41.4995 })
    const e = extentOf(t, 100, 50)
    expect(e[0]).toBeCloseTo(-41.5, 9)
    expect(e[3]).toBeCloseTo(47, 9)
    expect(e[1]).toBeCloseTo(46.95, 9)
  })
  it('refuses points too close, and files of metres', () => {
    expect(() => affineFromTies(p, { ...p, x: 102 })).toThrow(/too close/)
    expect(() => affineFromTies(p, { ...p, x: 400 })).toThrow(/same place/)
    expect(() => readWorldFile('1 0 0 -1 350000 5200000')).toThrow(/metres/)
    expect(() => readWorldFile('1\n2\n')).toThrow(/six numbers/)
  })
})
