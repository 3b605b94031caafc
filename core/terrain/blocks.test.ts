import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inverse } from '../geo/geodesic'
import { blockCentre, blocksAround, coarsen, COARSE_SIDE, isFar, overlay, parseKey, Terrain } from './blocks'
import type { HeightBlock } from './blocks'
import { VOID } from './hgt'
import { hillshade, mercatorToLat, mercatorToLon, reliefGrid } from './relief'

const block = (side: number, height: (x: number, y: number) => number): HeightBlock => ({
  key: '1365:1385',
  side,
  heights: Int16Array.from({ length: side * side }, (_, i) => height(i % side, Math.floor(i / side))),
})

describe('blocks laid over each other', () => {
  const coarse = block(121, x => 100 + x)
  const fine = block(361, (x, y) => (x > 100 && x < 130 && y > 50 ? VOID : 300))
  it('the finest that knows the ground counts, and its voids are filled from the next', () => {
    const o = overlay([coarse, fine])!
    expect(o.side).toBe(361)
    expect(o.heights[0]).toBe(300)
    expect(o.heights[200 * 361 + 117]).toBe(100 + 117 / 3)
    expect(o.heights.includes(VOID)).toBe(false)
  })
  it('their order does not matter', () =>
    fc.assert(
      fc.property(fc.shuffledSubarray([coarse, fine, block(121, () => 7)], { minLength: 3 }), layers => {
        const pick = (bs: HeightBlock[]) => overlay([...bs].sort((a, b) => a.heights[1]! - b.heights[1]!))!.heights
        expect([...pick(layers)]).toEqual([...pick([fine, coarse, layers.find(l => l.heights[1] === 7)!])])
      }),
      { numRuns: 6 },
    ))
  it('nothing laid is nothing', () => expect(overlay([])).toBeNull())
  it('thinned to 3″ keeps every third sample and the edges', () => {
    const c = coarsen(fine)
    expect(c.side).toBe(COARSE_SIDE)
    expect(c.heights[120 * 121 + 120]).toBe(fine.heights[360 * 361 + 360])
    expect(c.heights[40 * 121 + 39]).toBe(fine.heights[120 * 361 + 117])
    expect(coarsen(coarse)).toBe(coarse)
  })
})

describe('blocks about a place', () => {
  it('hold every block with ground within the circle', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -70, max: 70, noNaN: true }),
        fc.double({ min: -179.9, max: 179.9, noNaN: true }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (latDeg, lonDeg, angle, far) => {
          const keys = new Set(blocksAround({ latDeg, lonDeg }, 60_000).map(b => b.key))
          const at = {
            latDeg: latDeg + far * Math.cos(angle),
            lonDeg: ((lonDeg + (far * Math.sin(angle)) / Math.cos((latDeg * Math.PI) / 180) + 540) % 360) - 180,
          }
          if (inverse({ latDeg, lonDeg }, at).distanceM > 58_000) return
          const t = new Terrain([...keys].map(key => ({ key, side: 2, heights: new Int16Array(4) })))
          expect(t.heightAt(at.latDeg, at.lonDeg)).toBe(0)
        },
      ),
    ))
  it('a pack of 60 km stays under 40 MB, from the equator to 65°', () => {
    for (const latDeg of [0, 46.8, 65]) {
      const at = { latDeg, lonDeg: 10 }
      const bytes = blocksAround(at, 60_000).reduce((sum, b) => sum + 2 * (isFar(at, b.key) ? 121 : 361) ** 2, 0)
      expect(bytes).toBeLessThan(40e6)
    }
  })
  it('keys say where they lie, and nonsense is refused', () => {
    expect(blockCentre('1365:1385').latDeg).toBeCloseTo(46.55, 9)
    expect(() => parseKey('1800:0')).toThrow(/names no block/)
    expect(() => parseKey('x')).toThrow(RangeError)
  })
})

describe('what stands on the ground', () => {
  const t = new Terrain([block(121, () => 10)], [block(121, x => (x < 60 ? 18 : VOID))])
  it('is told by the nearest class, and 0 where none is known', () => {
    expect(t.coverAt(46.55, -41.48)).toBe(18)
    expect(t.coverAt(46.55, -41.42)).toBe(0)
    expect(t.coverAt(0, 0)).toBe(0)
    expect(t.hasCover).toBe(true)
  })
  it('goes away with its block', () => {
    const u = new Terrain([block(121, () => 10)])
    u.remove('1365:1385')
    expect(Number.isNaN(u.heightAt(46.55, -41.45))).toBe(true)
  })
})

describe('relief', () => {
  const t = new Terrain([block(121, x => 10 * x)])
  // EPSG:3857 of 46.5…46.6 N, 41.5…41.4 W: x = R·λ, y = R·ln tan(π/4 + φ/2).
  const x = (lon: number) => (6_378_137 * lon * Math.PI) / 180
  const y = (lat: number) => 6_378_137 * Math.log(Math.tan(Math.PI / 4 + (lat * Math.PI) / 360))
  const extent = [x(-41.5), y(46.5), x(-41.4), y(46.6)] as const
  it('the projection and its inverse agree', () => {
    expect(mercatorToLat(y(46.5))).toBeCloseTo(46.5, 9)
    expect(mercatorToLon(x(-41.5))).toBeCloseTo(-41.5, 9)
  })
  it('a slope rising east is darker than one rising west, with the light in the north-west', () => {
    const palette = { land: [200, 200, 200], high: [200, 200, 200], sea: [0, 0, 255], shadow: [0, 0, 0] } as const
    const shade = (terrain: Terrain) =>
      hillshade(reliefGrid(terrain, extent, 40, 40), { width: 40, height: 40, cellM: 190, palette })[(20 * 40 + 20) * 4]!
    const west = new Terrain([block(121, x => 10 * (120 - x))])
    expect(shade(t)).toBeGreaterThan(0)
    // Rising east faces west: lit. Rising west faces east: in shade.
    expect(shade(t)).toBeGreaterThan(shade(west))
  })
  it('is clear where nothing is known and sea at 0', () => {
    const palette = { land: [200, 200, 200], high: [1, 1, 1], sea: [0, 0, 255], shadow: [0, 0, 0] } as const
    expect(hillshade(reliefGrid(new Terrain(), extent, 4, 4), { width: 4, height: 4, cellM: 100, palette })[3]).toBe(0)
    expect([...hillshade(new Float32Array(4), { width: 2, height: 2, cellM: 100, palette }).subarray(0, 4)]).toEqual([
      0, 0, 255, 255,
    ])
  })
})
