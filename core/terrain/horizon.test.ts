import { describe, expect, it } from 'vitest'
import { toDeg } from '../geo/angles'
import { direct } from '../geo/geodesic'
import { cutTile, keyAt, Terrain } from './blocks'
import { elevationOf, horizonRing, rayDistances, skylineAt } from './horizon'
import { sampleProfile } from './profile'

const side = 1201
const tile = (southDeg: number, westDeg: number, height: (lat: number, lon: number) => number) =>
  cutTile({
    southDeg,
    westDeg,
    side,
    heights: Int16Array.from({ length: side * side }, (_, i) =>
      Math.round(height(southDeg + 1 - Math.floor(i / side) / (side - 1), westDeg + (i % side) / (side - 1))),
    ),
  })
const site = { latDeg: 46.5, lonDeg: -41.5 }

describe('skyline', () => {
  it('over a smooth sea dips by √(2h/(k·Re))', () => {
    // Dip of the horizon from geometry: cos θ = R/(R + h), θ ≈ √(2h/R).
    const h = horizonRing(new Terrain(tile(46, -42, () => 0)), site, 40, { radiusM: 38_000 })
    const dip = -toDeg(Math.sqrt((2 * 40) / ((4 / 3) * 6_371_000)))
    for (let r = 0; r < h.rays; r += 40) expect(h.elevationDeg[r]!).toBeCloseTo(dip, 2)
    expect(h.unknown).toBe(0)
  })
  it('sees a wall of 300 m, 11.1 km north, at its own angle and distance', () => {
    const t = new Terrain(tile(46, -42, la => (Math.abs(la - 46.6) < 0.002 ? 300 : 20)))
    const s = skylineAt(horizonRing(t, site, 2), 0)
    expect(s.ridgeM).toBeGreaterThan(10_800)
    expect(s.ridgeM).toBeLessThan(11_250)
    expect(s.elevationDeg).toBeCloseTo(elevationOf(22, 300, 11_100), 1)
    expect(skylineAt(horizonRing(t, site, 2), 180).elevationDeg).toBeLessThan(0.1)
  })
  it('agrees with the profile of the same path: no sample of it stands above the skyline', () => {
    const t = new Terrain(tile(46, -42, (la, lo) => 60 + 50 * Math.sin(la * 300) * Math.cos(lo * 260)))
    const h = horizonRing(t, site, 5)
    for (const bearingDeg of [0, 90, 180.5, 301]) {
      const far = direct(site, bearingDeg, 30_000)
      const p = sampleProfile(t, site, { to: far, totalM: 30_000, stepM: 90 })
      const top = Math.max(...[...p.groundM.keys()].slice(1).map(i => elevationOf(h.eyeM, p.groundM[i]!, p.distanceM[i]!)))
      expect(skylineAt(h, bearingDeg).elevationDeg).toBeGreaterThan(top - 0.06)
    }
  })
  it('an obstacle stands on it over its own bearings only', () => {
    const t = new Terrain(tile(46, -42, () => 10))
    const h = horizonRing(t, site, 2, { screens: [{ fromDeg: 350, toDeg: 20, distanceM: 100, heightM: 20 }] })
    expect(skylineAt(h, 5).elevationDeg).toBeCloseTo(toDeg(Math.atan((20 - 2) / 100)), 1)
    expect(skylineAt(h, 355).ridgeM).toBe(100)
    expect(skylineAt(h, 30).elevationDeg).toBeLessThan(0.2)
  })
  it('goes straight over the antimeridian', () => {
    const t = new Terrain([...tile(-18, 179, () => 5), ...tile(-18, -180, (la, lo) => (Math.abs(lo + 179.95) < 0.003 ? 200 : 5))])
    const s = skylineAt(horizonRing(t, { latDeg: -17.5, lonDeg: 179.96 }, 3), 90)
    expect(s.ridgeM).toBeGreaterThan(9000)
    expect(s.ridgeM).toBeLessThan(10_100)
  })
  it('says how much ground it does not know, and has no height where it knows none', () => {
    const h = horizonRing(new Terrain(), site, 3, { rays: 8 })
    expect(h.unknown).toBe(1)
    expect(Number.isNaN(h.elevationDeg[0]!)).toBe(true)
  })
  it('steps finely near and never skips more than a 250th of the distance far', () => {
    const d = rayDistances(40_000)
    for (let i = 1; i < d.length; i++) expect(d[i]! - d[i - 1]!).toBeLessThanOrEqual(Math.max(30, d[i - 1]! / 250) + 1e-9)
  })
  it('refuses what is out of range', () => {
    expect(() => horizonRing(new Terrain(), site, 3, { radiusM: 1e9 })).toThrow(RangeError)
    expect(keyAt(46.5, -41.5)).toBe('1365:1385')
  })
})
