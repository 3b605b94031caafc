import { limited, readAll } from '../../utils/limited'
import { importHgt, storeLayer } from '../../services/terrain'
import { openRaster, rasterBlocks, rasterClasses, sideOf } from '../../services/raster'

const HGT_LIMIT = 30_000_000
const RASTER_LIMIT = 250_000_000

/**
 * One tile as the body, its name in the address: an SRTM `.hgt`, or a GeoTIFF of heights.
 * With `kind=cover` a GeoTIFF of land-cover classes: without `classes` they are listed, with
 * `classes={"10":15,…}` (class → height in metres) they are taken.
 */
export default defineEventHandler(async (event) => {
  const me = await requireMember(event, 'installer')
  const q = getQuery(event)
  const name = String(q.name ?? '')
  const raster = /\.tiff?$/i.test(name)
  if (!raster && !/\.hgt$/i.test(name)) problem(415, `“${name.slice(0, 80)}” is neither an SRTM height tile (.hgt) nor a GeoTIFF (.tif).`, [{ field: 'file', message: 'must be .hgt or .tif' }])
  const bytes = await readAll(limited(event, raster ? RASTER_LIMIT : HGT_LIMIT))
  try {
    if (!raster) return await importHgt(useDb(), me.crewId, name, bytes)
    const r = await openRaster(bytes)
    const tile = { name: name.replace(/\.tiff?$/i, '').slice(0, 120), side: sideOf(r) }
    if (q.kind !== 'cover') return await storeLayer(useDb(), me.crewId, { ...tile, kind: 'ground' }, rasterBlocks(r, { kind: 'ground' }))
    if (q.classes === undefined) return { classes: await rasterClasses(r) }
    const heights = readClasses(String(q.classes))
    return await storeLayer(useDb(), me.crewId, { ...tile, kind: 'cover' }, rasterBlocks(r, { kind: 'cover', heightOf: v => heights.get(v) ?? null }))
  }
  catch (e) {
    if (e instanceof RangeError) problem(422, e.message, [{ field: 'file', message: e.message }])
    throw e
  }
})

function readClasses(text: string): Map<number, number> {
  let found: unknown
  try {
    found = JSON.parse(text)
  }
  catch {
    throw new RangeError('classes is not JSON')
  }
  const pairs = Object.entries(found as Record<string, unknown>).map(([k, v]) => [Number(k), Number(v)] as const)
  if (!pairs.length || pairs.some(([k, v]) => !Number.isFinite(k) || !(v >= 0 && v <= 200))) throw new RangeError('each class wants a height within 0…200 m')
  return new Map(pairs)
}
