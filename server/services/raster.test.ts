import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { cutTile, Terrain } from '../../core/terrain/blocks'
import type { HeightBlock } from '../../core/terrain/blocks'
import { readHgt, VOID } from '../../core/terrain/hgt'
import { openRaster, rasterBlocks, rasterClasses, sideOf } from './raster'

// Fixtures written by GDAL (tests/fixtures/README.md): height = 100 + 500·(lat − 10) + 300·(lon − 20).
const file = (name: string) => new Uint8Array(readFileSync(new URL(`../../tests/fixtures/${name}`, import.meta.url)))
const truth = (lat: number, lon: number) => 100 + 500 * (lat - 10) + 300 * (lon - 20)
async function terrainOf(name: string): Promise<{ terrain: Terrain; blocks: HeightBlock[] }> {
  const blocks: HeightBlock[] = []
  for await (const b of rasterBlocks(await openRaster(file(name)), { kind: 'ground' })) blocks.push(b)
  return { terrain: new Terrain(blocks), blocks }
}

describe('GeoTIFF', () => {
  it.each([
    ['geographic-float-tiled.tif', 0.6],
    ['geographic-int-strips.tif', 1.1],
    ['utm-float.tif', 0.8],
    ['utm-fine.tif', 1.3],
  ])('%s lies where its writer put it', async (name, within) => {
    const { terrain } = await terrainOf(name)
    let checked = 0
    for (let lat = 10.045; lat < 10.19; lat += 0.0117) {
      for (let lon = 20.03; lon < 20.18; lon += 0.0131) {
        const h = terrain.heightAt(lat, lon)
        if (Number.isNaN(h) || (Math.abs(lat - 10.119) < 0.006 && Math.abs(lon - 20.102) < 0.006)) continue
        expect(Math.abs(h - truth(lat, lon))).toBeLessThan(within)
        checked++
      }
    }
    expect(checked).toBeGreaterThan(name === 'utm-fine.tif' ? 3 : 100)
  })
  it('its resolution decides how fine the blocks are', async () => {
    expect(sideOf(await openRaster(file('utm-fine.tif')))).toBe(361)
    expect(sideOf(await openRaster(file('utm-float.tif')))).toBe(121)
  })
  it('no data stays void, and so does what lies beyond the edge', async () => {
    const { terrain, blocks } = await terrainOf('geographic-float-tiled.tif')
    expect(Number.isNaN(terrain.heightAt(10.119, 20.102))).toBe(true)
    expect(Number.isNaN(terrain.heightAt(10.005, 20.05))).toBe(true)
    expect(blocks.some(b => b.heights.includes(VOID))).toBe(true)
  })
  it('is refused without a georeference, on another grid, cut short, or when it is no TIFF', async () => {
    await expect(openRaster(file('no-georeference.tif'))).rejects.toThrow(/carries no georeference/)
    await expect(openRaster(file('other-grid.tif'))).rejects.toThrow(/EPSG:3035; geographic degrees or UTM is wanted/)
    await expect(openRaster(new Uint8Array([1, 2, 3, 4, 5, 6, 7, 8]))).rejects.toThrow(/does not read as GeoTIFF/)
    const half = file('geographic-int-strips.tif')
    await expect(
      (async () => {
        for await (const _ of rasterBlocks(await openRaster(half.subarray(0, half.length - 9000)), { kind: 'ground' }));
      })(),
    ).rejects.toThrow(/cut short/)
  })
  it('classes are listed by their share and taken by their heights, unmixed', async () => {
    const r = await openRaster(file('classes.tif'))
    const classes = await rasterClasses(r)
    expect(classes.map(c => c.value).sort()).toEqual([3, 7])
    expect(classes[0]!.share).toBeCloseTo(0.5, 1)
    const blocks: HeightBlock[] = []
    for await (const b of rasterBlocks(r, { kind: 'cover', heightOf: v => (v === 3 ? 18 : null) })) blocks.push(b)
    const t = new Terrain([], blocks)
    expect(t.coverAt(10.08, 20.05)).toBe(18)
    expect(t.coverAt(10.02, 20.05)).toBe(0)
    expect(new Set(blocks[0]!.heights)).toEqual(new Set([18, VOID]))
  })
  it('heights are no classes', async () => {
    await expect(rasterClasses(await openRaster(file('geographic-float-tiled.tif')))).rejects.toThrow(
      /more than 120 different values/,
    )
  })
})

describe('SRTM tile of another writer', () => {
  it('reads as GDAL wrote it', () => {
    const tile = readHgt('N10E020.hgt', gunzipSync(file('N10E020.hgt.gz')))
    expect(tile).toMatchObject({ southDeg: 10, westDeg: 20, side: 1201 })
    for (const [row, column] of [
      [0, 0],
      [600, 600],
      [1200, 1200],
      [7, 1193],
    ] as const)
      expect(tile.heights[row * 1201 + column]).toBe((row * 3 + column) % 2000)
    const t = new Terrain(cutTile(tile))
    expect(t.heightAt(10.5, 20.5)).toBeCloseTo((600 * 3 + 600) % 2000, 6)
  })
  it('cut short is refused with both sizes', () =>
    expect(() => readHgt('N10E020.hgt', gunzipSync(file('N10E020.hgt.gz')).subarray(0, 2_000_000))).toThrow(
      /2000000 bytes; an SRTM tile holds 2,884,802/,
    ))
})
