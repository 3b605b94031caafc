import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cutTile, keyAt, Terrain } from './blocks'
import { cornerFromName, readHgt, VOID, writeHgt } from './hgt'
import { atHeight, computePath, PATH_HEIGHTS_M, pathKey } from './path'
import { diffractionParameter, knifeEdgeLossDb } from './diffraction'
import { inSpan, sampleProfile } from './profile'
import type { Screen } from './profile'
import { inverse } from '../geo/geodesic'

const tile = (f: (lat: number, lon: number) => number, southDeg = 46, westDeg = -42) => {
  const side = 1201
  const heights = new Int16Array(side * side)
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) heights[y * side + x] = f(southDeg + 1 - y / 1200, westDeg + x / 1200)
  return { southDeg, westDeg, side, heights }
}

describe('SRTM tiles', () => {
  it('names say the corner', () => {
    expect(cornerFromName('some/folder/S08W073.hgt')).toEqual({ southDeg: -8, westDeg: -73 })
    expect(() => cornerFromName('terrain.hgt')).toThrow(/south-west corner/)
  })
  it('reads back what it writes', () => {
    const made = tile((la, lo) => Math.round((la - 46) * 1000 + (lo + 42) * 100))
    const { name, bytes } = writeHgt(made)
    expect(name).toBe('N46W042.hgt')
    // A million values: one assertion, not one for each.
    const { heights } = readHgt(name, bytes)
    expect(heights.length).toBe(made.heights.length)
    expect(heights.findIndex((h, i) => h !== made.heights[i])).toBe(-1)
  })
  it('is big-endian: 0x01 0x02 is 258 m', () => {
    const bytes = new Uint8Array(1201 * 1201 * 2)
    bytes[0] = 1
    bytes[1] = 2
    expect(readHgt('N46W042.hgt', bytes).heights[0]).toBe(258)
  })
  it.each([0, 100, 1201 * 1201 * 2 - 2])('refuses %i bytes', n =>
    expect(() => readHgt('N46W042.hgt', new Uint8Array(n))).toThrow(/holds/),
  )
})

describe('terrain in blocks', () => {
  const slope = new Terrain(cutTile(tile((la, lo) => Math.round((la - 46) * 2000 + (lo + 42) * 1000))))
  it('a plane comes back by bilinear interpolation, across block edges too', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 46.001, max: 46.999, noNaN: true }),
        fc.double({ min: -41.999, max: -41.001, noNaN: true }),
        (la, lo) => {
          expect(slope.heightAt(la, lo)).toBeCloseTo((la - 46) * 2000 + (lo + 42) * 1000, -0.5)
        },
      ),
    )
    expect(Math.abs(slope.heightAt(46.5, -41.5) - 1500)).toBeLessThan(1)
  })
  it('knows nothing outside what it holds', () => expect(slope.heightAt(45.9, -41.5)).toBeNaN())
  it('a void corner gives its weight to the others, four voids are unknown', () => {
    const t = tile(() => 100)
    t.heights[600 * 1201 + 600] = VOID
    const terrain = new Terrain(cutTile(t))
    expect(terrain.heightAt(46.5 + 0.0002, -41.5 + 0.0002)).toBeCloseTo(100, 6)
    expect(new Terrain(cutTile(tile(() => VOID))).heightAt(46.5, -41.5)).toBeNaN()
  })
  it('keys wrap at the antimeridian', () => expect(keyAt(0, 180)).toBe(keyAt(0, -180)))
})

describe('profiles and paths', () => {
  const site = { latDeg: 46.3, lonDeg: -41.6 }
  const mast = { latDeg: 46.5, lonDeg: -41.3 }
  const input = {
    mastId: 'm',
    site,
    siteGroundM: null,
    mast,
    mastHeightM: 30,
    mastGroundM: null,
    bands: ['B20', 'B3'],
    k: 4 / 3,
    screens: [] as Screen[],
  }
  it('bridges unknown ground linearly and says its share', () => {
    const { distanceM } = inverse(site, { latDeg: 45.9, lonDeg: -41.6 })
    const p = sampleProfile(new Terrain(cutTile(tile(() => 50))), site, {
      to: { latDeg: 45.9, lonDeg: -41.6 },
      totalM: distanceM,
      stepM: 90,
    })
    expect(p.unknown).toBeGreaterThan(0.2)
    expect([...p.groundM].every(g => g === 50)).toBe(true)
  })
  it('over flat ground is clear, and over a wall is not', () => {
    const flat = computePath(new Terrain(cutTile(tile(() => 10))), { ...input, key: pathKey(input) })!
    const wall = computePath(new Terrain(cutTile(tile(la => (Math.abs(la - 46.4) < 0.004 ? 300 : 10)))), { ...input, key: 'w' })!
    const at5 = (p: typeof flat) => atHeight(p.bands[0]!.diffractionDb, 5)
    expect(wall.bands[0]!.clearance[2]!.clearM).toBeLessThan(0)
    expect(at5(wall)).toBeGreaterThan(at5(flat) + 12)
    // A ridge costs more the higher the frequency.
    expect(wall.bands[1]!.diffractionDb[2]!).toBeGreaterThan(wall.bands[0]!.diffractionDb[2]!)
    // The thinned sketch keeps the ridge.
    expect(Math.max(...wall.sketch.groundM)).toBe(300)
  })
  it('a higher mount never loses more over a single ridge', () => {
    const p = computePath(new Terrain(cutTile(tile(la => (Math.abs(la - 46.32) < 0.003 ? 60 : 10)))), { ...input, key: 'r' })!
    for (let i = 1; i < PATH_HEIGHTS_M.length; i++)
      expect(p.bands[0]!.diffractionDb[i]!).toBeLessThanOrEqual(p.bands[0]!.diffractionDb[i - 1]! + 0.01)
  })
  it('has no path to itself nor past 150 km', () => {
    const t = new Terrain()
    expect(computePath(t, { ...input, mast: site, key: 'x' })).toBeNull()
    expect(computePath(t, { ...input, mast: { latDeg: 48.3, lonDeg: -41.6 }, key: 'y' })).toBeNull()
  })
  const barn: Screen = { fromDeg: 170, toDeg: 200, distanceM: 120, heightM: 12 }
  it('an obstacle across the bearing costs what a knife edge there does, and elsewhere nothing', () => {
    const t = new Terrain(cutTile(tile(() => 10)))
    // A mast so near that the path is clear without the barn: there the one edge is all there is.
    const near = { ...input, mast: { latDeg: site.latDeg - 0.03, lonDeg: site.lonDeg } }
    const towards = inverse(site, near.mast).bearingDeg
    const open = computePath(t, { ...near, key: 'o' })!
    const across = computePath(t, { ...near, screens: [{ ...barn, fromDeg: towards - 5, toDeg: towards + 5 }], key: 'b' })!
    const beside = computePath(t, { ...near, screens: [{ ...barn, fromDeg: towards + 90, toDeg: towards + 120 }], key: 'c' })!
    expect(beside.bands).toEqual(open.bands)
    const added = across.bands[0]!.diffractionDb[1]! - open.bands[0]!.diffractionDb[1]!
    // J(ν) of a 12 m edge 120 m off, seen from 3 m, by ITU-R P.526 equation (31); the whole method adds up to 10 dB on one edge.
    const wavelength = 299.792458 / open.bands[0]!.frequencyMHz
    const rise = 9 - ((open.mastTopM - 13) * 120) / open.distanceM
    const j = knifeEdgeLossDb(diffractionParameter(rise, 120, open.distanceM - 120, wavelength))
    expect(added).toBeGreaterThan(j - 1)
    expect(added).toBeLessThan(j + 11)
    expect(across.bands[0]!.clearance[1]!.atM).toBe(120)
  })
  it('land cover raises the ground, but not right beside either end', () => {
    const heights = new Int16Array(121 * 121).fill(15)
    const blocks = cutTile(tile(() => 10))
    const t = new Terrain(
      blocks,
      blocks.map(b => ({ key: b.key, side: 121, heights })),
    )
    const { distanceM } = inverse(site, mast)
    const p = sampleProfile(t, site, { to: mast, totalM: distanceM, stepM: 90 })
    expect(p.groundM[0]).toBe(10)
    expect(p.groundM[5]).toBe(25)
    expect(p.groundM[p.groundM.length - 1]).toBe(10)
    expect(computePath(t, { ...input, key: 'd' })!.cover).toBe(true)
  })
  it('a bearing lies in a span that crosses north', () => {
    expect(inSpan(5, 350, 20)).toBe(true)
    expect(inSpan(349, 350, 20)).toBe(false)
    expect(inSpan(123, 40, 40)).toBe(true)
  })
  it('the key changes with every input', () => {
    const keys = [
      input,
      { ...input, siteGroundM: 5 },
      { ...input, mastHeightM: 31 },
      { ...input, bands: ['B20'] },
      { ...input, k: 1 },
      { ...input, screens: [barn] },
    ].map(pathKey)
    expect(new Set(keys).size).toBe(6)
  })
})
