import { terrainClasses, withTerrainFile } from '../../services/terrain-file'
import { Busy } from '../../services/thread'
import { storeLayer, tileName } from '../../services/terrain'
import { withUpload } from '../../http/upload'
import { queryText, queryWord } from '../../http/validate'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

const HGT_LIMIT = 30_000_000
const RASTER_LIMIT = 250_000_000
const HIGHEST_M = 200

/**
 * One tile as the body, its name in the address: an SRTM `.hgt`, or a GeoTIFF of heights.
 * With `kind=cover` a GeoTIFF of land-cover classes: without `classes` they are listed, with
 * `classes={"10":15,…}` (class → height in metres) they are taken.
 */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const name = queryText(event, 'name', 200) ?? ''
  const kind = queryWord(event, 'kind', ['ground', 'cover'] as const) ?? 'ground'
  const classes = queryText(event, 'classes', 20_000)
  const raster = /\.tiff?$/i.test(name)
  if (!raster && !/\.hgt$/i.test(name)) {
    problem(415, `“${name.slice(0, 80)}” is neither an SRTM height tile (.hgt) nor a GeoTIFF (.tif).`, [
      { field: 'file', message: 'must be .hgt or .tif' },
    ])
  }
  const heights = raster && kind === 'cover' && classes !== null ? readClasses(classes) : undefined
  return withUpload(event, raster ? RASTER_LIMIT : HGT_LIMIT, async path => {
    try {
      if (raster && kind === 'cover' && !heights) return { classes: await terrainClasses({ path, name, as: 'classes' }) }
      const as = !raster ? ('hgt' as const) : kind
      return await withTerrainFile({ path, name, as, heights }, async file => {
        const called = raster ? name.replace(/\.tiff?$/i, '').slice(0, 120) : tileName(file.southDeg!, file.westDeg!)
        return await storeLayer(
          useDb(),
          me.crewId,
          { name: called, kind: as === 'cover' ? 'cover' : 'ground', side: file.side, voids: file.voids },
          file.blocks,
        )
      })
    } catch (e) {
      if (e instanceof RangeError) problem(422, e.message, [{ field: 'file', message: e.message }])
      if (e instanceof Busy) problem(503, 'Other files of ground are being read just now. Try again in a minute.')
      throw e
    }
  })
})

function readClasses(text: string): [number, number][] {
  let found: unknown
  try {
    found = JSON.parse(text)
  } catch {
    found = null
  }
  const pairs =
    found !== null && typeof found === 'object' && !Array.isArray(found)
      ? Object.entries(found).map(([k, v]) => [Number(k), typeof v === 'number' ? v : NaN] as [number, number])
      : []
  if (!pairs.length || pairs.some(([k, v]) => !Number.isFinite(k) || !(v >= 0 && v <= HIGHEST_M))) {
    problem(422, `classes must give each class a height within 0…${HIGHEST_M} m.`, [
      { field: 'classes', message: `wants {"class": metres}, 0…${HIGHEST_M}` },
    ])
  }
  return pairs
}
