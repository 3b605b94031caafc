import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deltaBullington, diffractionParameter, knifeEdgeLossDb, sphericalEarthLossDb } from './diffraction'
import { earthBulgeM, fresnelRadiusM, radioHorizonKm, tightestClearance } from './clearance'

/** Exact knife-edge loss from the Fresnel integrals, ITU-R P.526-15 equation (30): −20·log10(√((1−C−S)² + (C−S)²)/2). */
function exactJ(v: number): number {
  let c = 0
  let s = 0
  const n = 40_000
  for (let i = 0; i < n; i++) {
    const t = (v * (i + 0.5)) / n
    c += (Math.cos((Math.PI / 2) * t * t) * v) / n
    s += (Math.sin((Math.PI / 2) * t * t) * v) / n
  }
  return -20 * Math.log10(Math.hypot(1 - c - s, c - s) / 2)
}

const line = (km: number, n: number, ground: (d: number) => number) => {
  const distanceKm = Array.from({ length: n }, (_, i) => (km * i) / (n - 1))
  return { distanceKm, groundM: distanceKm.map(ground) }
}

describe('knife edge', () => {
  it.each([-0.7, -0.5, 0, 0.5, 1, 2, 3, 5])('J(%f) is within 0.12 dB of the Fresnel integrals', v =>
    expect(knifeEdgeLossDb(v)).toBeCloseTo(exactJ(v), 0.5),
  )
  it('keeps within 0.12 dB over the whole range it claims', () => {
    for (let v = -0.7; v <= 4; v += 0.05) expect(Math.abs(knifeEdgeLossDb(v) - exactJ(v))).toBeLessThan(0.125)
  })
  it('grazing costs 6 dB', () => expect(knifeEdgeLossDb(0)).toBeCloseTo(6.0, 1))
  it('ν of an edge 10 m up, half way over 10 km at 800 MHz', () => {
    // ITU-R P.526-15 equation (26): h·√(2/λ·(1/d1 + 1/d2)).
    const wavelength = 299.792458 / 800
    expect(diffractionParameter(10, 5000, 5000, wavelength)).toBeCloseTo(
      10 * Math.sqrt((2 / wavelength) * (1 / 5000 + 1 / 5000)),
      9,
    )
  })
})

describe('delta-Bullington', () => {
  it('costs nothing over a clear path', () => {
    const r = deltaBullington({ ...line(5, 101, () => 0), txHeightM: 60, rxHeightM: 60, frequencyMHz: 1800 })
    expect(r.lossDb).toBeLessThan(0.05)
  })
  it('over smooth earth gives the spherical-earth loss', () => {
    // ITU-R P.526-15 §4.5.3: the method is built so that a smooth path gives §3.2.
    for (const [km, h1, h2, f] of [
      [40, 10, 30, 800],
      [60, 15, 15, 1800],
      [25, 5, 25, 2600],
    ] as const) {
      const r = deltaBullington({ ...line(km, 401, () => 0), txHeightM: h1, rxHeightM: h2, frequencyMHz: f })
      expect(r.lossDb).toBeCloseTo(
        Math.max(sphericalEarthLossDb(km, { h1M: h1, h2M: h2, frequencyMHz: f, aeKm: (6371 * 4) / 3 }), r.bullingtonDb),
        1,
      )
      expect(r.lossDb).toBeGreaterThan(3)
    }
  })
  it('is the same both ways', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { minLength: 6, maxLength: 60 }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 3, max: 60, noNaN: true }),
        fc.constantFrom(700, 1800, 3500),
        (ground, h, km, frequencyMHz) => {
          const distanceKm = ground.map((_, i) => (km * i) / (ground.length - 1))
          const there = deltaBullington({ distanceKm, groundM: ground, txHeightM: h, rxHeightM: 30, frequencyMHz })
          const back = deltaBullington({ distanceKm, groundM: [...ground].reverse(), txHeightM: 30, rxHeightM: h, frequencyMHz })
          expect(there.lossDb).toBeCloseTo(back.lossDb, 6)
          expect(there.lossDb).toBeGreaterThanOrEqual(0)
        },
      ),
    )
  })
  it('on one edge exceeds J(ν) by no more than some 10 dB', () => {
    const path = { ...line(10, 201, d => (Math.abs(d - 5) < 0.03 ? 80 : 0)), txHeightM: 30, rxHeightM: 30, frequencyMHz: 800 }
    const wavelength = 299.792458 / 800
    const j = knifeEdgeLossDb(diffractionParameter(80 + earthBulgeM(5000, 5000) - 30, 5000, 5000, wavelength))
    const r = deltaBullington(path)
    expect(r.lossDb).toBeGreaterThan(j)
    expect(r.lossDb).toBeLessThan(j + 11)
    expect(r.index).toBe(100)
  })
  it('loses more behind a higher ridge and less from a higher mount', () => {
    const ridge = (h: number, up: number) =>
      deltaBullington({
        ...line(8, 161, d => h * Math.exp(-(((d - 3) / 0.6) ** 2))),
        txHeightM: up,
        rxHeightM: 30,
        frequencyMHz: 800,
      }).lossDb
    expect(ridge(200, 5)).toBeGreaterThan(ridge(100, 5))
    expect(ridge(150, 5)).toBeGreaterThan(ridge(150, 20))
  })
  it('the far field of a sphere falls steadily with distance', () => {
    let last = -1
    for (let km = 30; km <= 120; km += 10) {
      const loss = sphericalEarthLossDb(km, { h1M: 10, h2M: 30, frequencyMHz: 800, aeKm: (6371 * 4) / 3 })
      expect(loss).toBeGreaterThan(last)
      last = loss
    }
  })
  it('refuses a profile of two points', () =>
    expect(() => deltaBullington({ distanceKm: [0, 1], groundM: [0, 0], txHeightM: 5, rxHeightM: 5, frequencyMHz: 800 })).toThrow(
      /at least 3/,
    ))
})

describe('clearance', () => {
  it('first Fresnel radius half way over 10 km at 1 GHz is 27.4 m', () =>
    expect(fresnelRadiusM(0.299792458, 5000, 5000)).toBeCloseTo(17.3 * Math.sqrt(25 / (1 * 10)), 0)) // ITU-R P.526
  it('the earth bulges d1·d2/17 m', () => expect(earthBulgeM(10_000, 10_000)).toBeCloseTo(100 / 17, 1)) // 4/3 earth, common form
  // 4.12(√h1+√h2)
  it('radio horizon of 30 m and 10 m is 35.6 km', () => expect(radioHorizonKm(30, 10)).toBeCloseTo(4.12 * (5.4772 + 3.1623), 1))
  it('finds the tightest place and its sign', () => {
    const distanceM = Float64Array.from({ length: 101 }, (_, i) => i * 100)
    const groundM = Float64Array.from(distanceM, d => (d === 3000 ? 50 : 0))
    const c = tightestClearance({ distanceM, groundM, totalM: 10_000, unknown: 0 }, 20, { toM: 30, frequencyMHz: 800 })
    expect(c.atM).toBe(3000)
    expect(c.clearM).toBeLessThan(0)
  })
})
