/** The ground as a picture: a grid of heights over a map's extent, and its shade. */
import { inRange } from '../check'
import type { Terrain } from './blocks'

/** Earth radius of the web's map projection, m. @source EPSG:3857 */
const MERCATOR_RADIUS_M = 6_378_137

/** west, south, east, north, metres of EPSG:3857 */
export type Extent = readonly [west: number, south: number, east: number, north: number]

export const mercatorToLat = (y: number): number =>
  ((2 * Math.atan(Math.exp(y / MERCATOR_RADIUS_M)) - Math.PI / 2) * 180) / Math.PI
export const mercatorToLon = (x: number): number => ((x / MERCATOR_RADIUS_M) * 180) / Math.PI

/** @returns heights at the middles of the cells, row 0 in the north; NaN where nothing is known */
export function reliefGrid(terrain: Terrain, extent: Extent, width: number, height: number): Float32Array {
  inRange('width', width, 1, 4096)
  inRange('height', height, 1, 4096)
  const [west, south, east, north] = extent
  const lons = Float64Array.from({ length: width }, (_, x) => mercatorToLon(west + ((x + 0.5) / width) * (east - west)))
  const out = new Float32Array(width * height)
  const lats = new Float64Array(width)
  const row = new Float64Array(width)
  for (let y = 0; y < height; y++) {
    lats.fill(mercatorToLat(north - ((y + 0.5) / height) * (north - south)))
    terrain.heightsAlong(lats, lons, row)
    out.set(row, y * width)
  }
  return out
}

export type Rgb = readonly [number, number, number]

export interface ShadePalette {
  land: Rgb
  high: Rgb
  sea: Rgb
  shadow: Rgb
}

/**
 * Shaded relief with the light from the north-west, 45° up, tinted by height; clear where nothing is known.
 *
 * @param cellM  ground size of a cell, m
 * @param exaggeration  how many times too steep the ground is drawn; more on a small scale, where slopes are averaged away
 * @returns RGBA, row 0 in the north
 * @source B. K. P. Horn, Hill shading and the reflectance map, Proc. IEEE 69 (1981): gradient from the eight neighbours
 */
export function hillshade(
  heights: Float32Array,
  {
    width,
    height,
    cellM,
    palette,
    exaggeration = Math.min(9, Math.max(2, cellM / 25)),
  }: { width: number; height: number; cellM: number; palette: ShadePalette; exaggeration?: number },
): Uint8ClampedArray {
  const out = new Uint8ClampedArray(width * height * 4)
  const azimuth = (315 * Math.PI) / 180
  const light = [Math.sin(azimuth) * Math.SQRT1_2, Math.cos(azimuth) * Math.SQRT1_2, Math.SQRT1_2] as const
  const scale = exaggeration / (8 * cellM)
  let top = 1
  for (const h of heights) if (h > top) top = h
  for (let y = 0; y < height; y++) {
    const up = Math.max(0, y - 1) * width
    const down = Math.min(height - 1, y + 1) * width
    const row = y * width
    for (let x = 0; x < width; x++) {
      const h = heights[row + x]!
      const o = (row + x) * 4
      if (h !== h) continue
      if (h <= 0) {
        out.set([...palette.sea, 255], o)
        continue
      }
      const l = Math.max(0, x - 1)
      const r = Math.min(width - 1, x + 1)
      const at = (i: number) => (heights[i]! === heights[i]! ? heights[i]! : h)
      const gx = (at(up + r) + 2 * at(row + r) + at(down + r) - at(up + l) - 2 * at(row + l) - at(down + l)) * scale
      const gy = (at(up + l) + 2 * at(up + x) + at(up + r) - at(down + l) - 2 * at(down + x) - at(down + r)) * scale
      const norm = 1 / Math.sqrt(gx * gx + gy * gy + 1)
      const lit = Math.max(0, (-gx * light[0] - gy * light[1] + light[2]) * norm)
      const t = Math.min(1, h / top)
      const s = Math.min(1, lit / light[2])
      for (let c = 0; c < 3; c++) {
        const base = palette.land[c]! + (palette.high[c]! - palette.land[c]!) * t
        out[o + c] = palette.shadow[c]! + (base - palette.shadow[c]!) * (0.25 + 0.75 * s)
      }
      out[o + 3] = 255
    }
  }
  return out
}
