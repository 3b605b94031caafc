/** GeoTIFF rasters as terrain blocks: geographic or UTM, whole numbers or floats, striped, tiled or compressed. */
import { inflateSync } from 'node:zlib'
import { addDecoder, BaseDecoder, fromArrayBuffer, fromFile } from 'geotiff'
import type { GeoTIFFImage, TypedArray } from 'geotiff'
import proj4 from 'proj4'
import { blockKey, PER_DEGREE, VOID } from '../../core/terrain'
import type { HeightBlock } from '../../core/terrain'

/** A raster laid on the globe. */
export interface Raster {
  width: number
  height: number
  /** west, south, east, north, degrees */
  bounds: [number, number, number, number]
  /** ground size of a pixel, degrees of latitude */
  pixelDeg: number
  /** column and row, counted from the middle of the first pixel */
  toPixel: (lonDeg: number, latDeg: number) => [number, number]
  /** values of a window; NaN where nothing is known */
  read: (x0: number, y0: number, x1: number, y1: number) => Promise<Float32Array>
}

/** Most bytes that one strip or tile of a raster may unpack to. */
const MOST_UNPACKED = 64_000_000
/** Most samples read at one go: a block of 0.1° at about 3 m. */
const MOST_SAMPLES = 16_000_000
/** none, LZW, deflate (two numbers), PackBits. @source TIFF 6.0 and its supplements */
const COMPRESSIONS: readonly number[] = [1, 5, 8, 32946, 32773]

/** Unpacks no further than a block may say it is: 24 kB can be made to unpack to gigabytes. */
class BoundedDeflate extends BaseDecoder {
  override decodeBlock(packed: ArrayBufferLike): ArrayBufferLike {
    const out = inflateSync(new Uint8Array(packed), { maxOutputLength: MOST_UNPACKED })
    return out.buffer.slice(out.byteOffset, out.byteOffset + out.byteLength) as ArrayBuffer
  }
}
addDecoder([8, 32946], async () => BoundedDeflate, undefined, false)

const tooLarge = (): never => {
  throw new RangeError(
    'The GeoTIFF says it unpacks to more than is read here: bring it over as tiles, gdal_translate -co TILED=YES in.tif out.tif',
  )
}

/** Refuses what it declares to be too large, before anything is unpacked. @throws RangeError */
async function refuseBombs(image: GeoTIFFImage): Promise<void> {
  const directory = image.fileDirectory
  const compression = Number((await directory.loadValue('Compression')) ?? 1)
  if (!COMPRESSIONS.includes(compression)) {
    throw new RangeError(
      `The GeoTIFF is packed in a way not read here (${compression}): bring it over, gdal_translate -co COMPRESS=DEFLATE ` +
        `-co TILED=YES in.tif out.tif`,
    )
  }
  const width = image.getWidth()
  const height = image.getHeight()
  const bytes = image.getBytesPerPixel()
  const sound = [width, height, bytes, image.getTileWidth(), image.getTileHeight()].every(n => Number.isFinite(n) && n > 0)
  if (!sound) throw new RangeError('The GeoTIFF does not say how large it is.')
  if (Math.min(image.getTileWidth(), width + 4096) * Math.min(image.getTileHeight(), height + 4096) * bytes > MOST_UNPACKED)
    tooLarge()
  if (width * height > 4e9) tooLarge()
}

/** Blocks that one raster may touch: about 25 square degrees. */
const MOST_BLOCKS = 2500
/** Finest spacing of a block is 1″, then 3″. */
const FINE_SIDE = 361
const COARSE_SIDE = 121

const EARTHS: Record<number, string> = {
  4326: 'WGS84',
  4258: 'GRS80',
  4269: 'GRS80',
  4979: 'WGS84',
  4283: 'GRS80',
  7844: 'GRS80',
}

/** @returns the projection's definition. @throws RangeError where it is neither geographic nor UTM */
function projectionOf(keys: Record<string, unknown>): string | null {
  const projected = Number(keys.ProjectedCSTypeGeoKey ?? 0)
  if (projected) {
    const utm = /^(326|327|258|269)(\d{2})$/.exec(String(projected))
    if (utm)
      return (
        `+proj=utm +zone=${Number(utm[2])} ` +
        `${utm[1] === '327' ? '+south ' : ''}+ellps=${utm[1] === '326' || utm[1] === '327' ? 'WGS84' : 'GRS80'} ` +
        `+towgs84=0,0,0 +units=m +no_defs`
      )
    if (projected === 3857)
      return '+proj=merc +a=6378137 +b=6378137 +lat_ts=0 +lon_0=0 +x_0=0 +y_0=0 +k=1 +units=m +nadgrids=@null +no_defs'
    throw new RangeError(
      `The raster’s grid is EPSG:${projected}; geographic degrees or UTM is wanted. Bring it over first: gdalwarp -t_srs ` +
        `EPSG:4326 in.tif out.tif`,
    )
  }
  const geographic = Number(keys.GeographicTypeGeoKey ?? 0)
  if (geographic && !EARTHS[geographic])
    throw new RangeError(
      `The raster’s datum is EPSG:${geographic}; WGS 84 or one like it is wanted. Bring it over first: gdalwarp -t_srs ` +
        `EPSG:4326 in.tif out.tif`,
    )
  return null
}

/** @throws RangeError where it is no GeoTIFF, has no georeference, or lies on a grid not read here */
export async function openRaster(from: Uint8Array | string): Promise<Raster> {
  let image: GeoTIFFImage
  try {
    const tiff =
      typeof from === 'string'
        ? await fromFile(from)
        : await fromArrayBuffer(from.buffer.slice(from.byteOffset, from.byteOffset + from.byteLength) as ArrayBuffer)
    image = await tiff.getImage()
  } catch {
    throw new RangeError('The file does not read as GeoTIFF: it is cut short or of another kind.')
  }
  await refuseBombs(image)
  let origin: number[]
  let resolution: number[]
  try {
    origin = image.getOrigin()
    resolution = image.getResolution()
  } catch {
    throw new RangeError('The GeoTIFF carries no georeference: it does not say where it lies.')
  }
  const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>
  if (!Object.keys(keys).length)
    throw new RangeError('The GeoTIFF carries no georeference: it does not say on which grid it lies.')
  const definition = projectionOf(keys)
  const [ox, oy] = origin as [number, number]
  const [rx, ry] = resolution as [number, number]
  const width = image.getWidth()
  const height = image.getHeight()
  // A raster of points puts its origin on the first sample, one of areas on the corner of its pixel.
  const half = Number(keys.GTRasterTypeGeoKey) === 2 ? 0 : 0.5
  const project = definition ? proj4('EPSG:4326', definition) : null
  const toGrid = (lon: number, lat: number) =>
    project ? (project.forward([lon, lat]) as [number, number]) : ([lon, lat] as [number, number])
  const toPixel = (lon: number, lat: number): [number, number] => {
    const [x, y] = toGrid(lon, lat)
    return [(x - ox) / rx - half, (y - oy) / ry - half]
  }
  const back = (x: number, y: number) => {
    const g = [ox + (x + half) * rx, oy + (y + half) * ry] as [number, number]
    return project ? (project.inverse(g) as [number, number]) : g
  }
  const edge = Array.from({ length: 33 }, (_, i) => i / 32).flatMap(t => [
    back(t * (width - 1), 0),
    back(t * (width - 1), height - 1),
    back(0, t * (height - 1)),
    back(width - 1, t * (height - 1)),
  ])
  const lons = edge.map(e => e[0])
  const lats = edge.map(e => e[1])
  const bounds: Raster['bounds'] = [Math.min(...lons), Math.min(...lats), Math.max(...lons), Math.max(...lats)]
  if (
    bounds.some(b => !Number.isFinite(b)) ||
    bounds[1] < -90.01 ||
    bounds[3] > 90.01 ||
    bounds[0] < -180.01 ||
    bounds[2] > 180.01
  )
    throw new RangeError('The GeoTIFF lies off the globe: its georeference is wrong.')
  const nodata = image.getGDALNoData()
  return {
    width,
    height,
    bounds,
    toPixel,
    pixelDeg: project ? Math.abs(ry) / 111_320 : Math.abs(ry),
    read: async (x0, y0, x1, y1) => {
      if ((x1 - x0) * (y1 - y0) > MOST_SAMPLES) {
        throw new RangeError(
          'The raster is finer than is of use here: bring it to about 10 m first, gdalwarp -tr 0.0001 0.0001 in.tif out.tif',
        )
      }
      let data: TypedArray
      try {
        data = (await image.readRasters({ window: [x0, y0, x1, y1], samples: [0] }))[0] as TypedArray
      } catch {
        throw new RangeError('The GeoTIFF is cut short: a part of its samples is missing.')
      }
      return Float32Array.from(data as ArrayLike<number>, v =>
        v === nodata || !Number.isFinite(v) || v < -12_000 || v > 30_000 ? NaN : v,
      )
    },
  }
}

export const sideOf = (r: Raster): number => (r.pixelDeg <= 1.6 / 3600 ? FINE_SIDE : COARSE_SIDE)

/**
 * Cuts a raster into blocks.
 * @param pick  height of a value; heights are taken between pixels, classes from the nearest
 * @throws RangeError where it covers more than about 25 square degrees
 */
export async function* rasterBlocks(
  r: Raster,
  pick: { kind: 'ground' } | { kind: 'cover'; heightOf: (value: number) => number | null },
): AsyncGenerator<HeightBlock> {
  const side = sideOf(r)
  const [west, south, east, north] = r.bounds
  const firstRow = Math.max(0, Math.floor((south + 90) * PER_DEGREE + 1e-6))
  const lastRow = Math.min(180 * PER_DEGREE - 1, Math.ceil((north + 90) * PER_DEGREE - 1e-6) - 1)
  const firstColumn = Math.max(0, Math.floor((west + 180) * PER_DEGREE + 1e-6))
  const lastColumn = Math.min(360 * PER_DEGREE - 1, Math.ceil((east + 180) * PER_DEGREE - 1e-6) - 1)
  if ((lastRow - firstRow + 1) * (lastColumn - firstColumn + 1) > MOST_BLOCKS)
    throw new RangeError('The raster covers more than 25 square degrees: cut out what the crew works in.')
  for (let row = firstRow; row <= lastRow; row++) {
    for (let column = firstColumn; column <= lastColumn; column++) {
      const block = await oneBlock(r, { row, column, side, pick })
      if (block) yield block
    }
  }
}

/** Places in pixels are exact on an 8 × 8 net and straight between, which over 0.1° of UTM strays by a few centimetres. */
const NET = 8

async function oneBlock(
  r: Raster,
  { row, column, side, pick }: { row: number; column: number; side: number; pick: Parameters<typeof rasterBlocks>[1] },
): Promise<HeightBlock | null> {
  const north = (row + 1) / PER_DEGREE - 90
  const west = column / PER_DEGREE - 180
  const net = Array.from({ length: NET + 1 }, (_, j) =>
    Array.from({ length: NET + 1 }, (_, i) => r.toPixel(west + i / NET / PER_DEGREE, north - j / NET / PER_DEGREE)),
  )
  const xs = net.flat().map(p => p[0])
  const ys = net.flat().map(p => p[1])
  const x0 = Math.max(0, Math.floor(Math.min(...xs)) - 1)
  const y0 = Math.max(0, Math.floor(Math.min(...ys)) - 1)
  const x1 = Math.min(r.width, Math.ceil(Math.max(...xs)) + 2)
  const y1 = Math.min(r.height, Math.ceil(Math.max(...ys)) + 2)
  if (x1 <= x0 || y1 <= y0) return null
  const values = await r.read(x0, y0, x1, y1)
  const wide = x1 - x0
  const tall = y1 - y0
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= wide || y >= tall ? NaN : values[y * wide + x]!)
  const heights = new Int16Array(side * side).fill(VOID)
  for (let y = 0; y < side; y++) {
    const v = (y / (side - 1)) * NET
    const j = Math.min(NET - 1, Math.floor(v))
    for (let x = 0; x < side; x++) {
      const u = (x / (side - 1)) * NET
      const i = Math.min(NET - 1, Math.floor(u))
      const mix = (k: 0 | 1) => {
        const top = net[j]![i]![k] + (net[j]![i + 1]![k] - net[j]![i]![k]) * (u - i)
        const under = net[j + 1]![i]![k] + (net[j + 1]![i + 1]![k] - net[j + 1]![i]![k]) * (u - i)
        return top + (under - top) * (v - j)
      }
      const px = mix(0) - x0
      const py = mix(1) - y0
      const h = pick.kind === 'cover' ? classAt(at, px, py, pick.heightOf) : heightAt(at, px, py)
      if (h !== null && !Number.isNaN(h)) heights[y * side + x] = Math.round(h)
    }
  }
  return { key: blockKey(row, column), side, heights }
}

function classAt(
  at: (x: number, y: number) => number,
  px: number,
  py: number,
  heightOf: (value: number) => number | null,
): number | null {
  const v = at(Math.round(px), Math.round(py))
  return Number.isNaN(v) ? null : heightOf(v)
}

/** Between four pixels; unknown ones give their weight to the others, and half a pixel beyond the edge is the edge's. */
function heightAt(at: (x: number, y: number) => number, px: number, py: number): number {
  const x = Math.floor(px)
  const y = Math.floor(py)
  const fx = px - x
  const fy = py - y
  let sum = 0
  let weight = 0
  for (const [dx, dy, w] of [
    [0, 0, (1 - fx) * (1 - fy)],
    [1, 0, fx * (1 - fy)],
    [0, 1, (1 - fx) * fy],
    [1, 1, fx * fy],
  ] as const) {
    const v = at(x + dx, y + dy)
    if (v !== v) continue
    sum += v * w
    weight += w
  }
  return weight >= 0.25 ? sum / weight : NaN
}

/** Classes of a land-cover raster with their share, most common first. @throws RangeError where its values are no classes */
export async function rasterClasses(r: Raster): Promise<{ value: number; share: number }[]> {
  const counts = new Map<number, number>()
  const step = Math.max(1, Math.floor(r.height / 400))
  let n = 0
  if (r.width > MOST_SAMPLES) tooLarge()
  for (let y = 0; y < r.height; y += step) {
    for (const v of await r.read(0, y, r.width, y + 1)) {
      if (Number.isNaN(v)) continue
      counts.set(v, (counts.get(v) ?? 0) + 1)
      n++
    }
    if (counts.size > 120)
      throw new RangeError('The raster holds more than 120 different values: these are heights, not classes of land cover.')
  }
  return [...counts].map(([value, count]) => ({ value, share: count / n })).sort((a, b) => b.share - a.share)
}
