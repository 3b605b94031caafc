/** Floor plans as people have them: pictures, a page of a PDF, or a drawing whose lines are walls. */
import { sure } from '#core/sure'
import type { DrawnLine } from '#core/site'
import { inverse, toRad } from '#core/geo'
import { chain } from '../workers/files'
import { LONGEST_MS, parsed } from './parsed'

export const LARGEST_PLAN = 12_000_000
const MOST_PX = 20_000
/** A page of a PDF is painted about so wide, px. */
const PAGE_PX = 2000

export interface PlanPicture {
  kind: 'picture'
  blob: Blob
  widthPx: number
  heightPx: number
}
export interface PlanLines {
  kind: 'lines'
  lines: DrawnLine[]
  /** metres in a unit of the drawing; null where it does not say */
  unitM: number | null
}

/** @throws RangeError with what is wrong with the file */
export async function readFloorPlan(
  file: File,
  site: { latDeg: number | null; lonDeg: number | null },
): Promise<PlanPicture | PlanLines> {
  if (file.size > LARGEST_PLAN)
    throw new RangeError(`The file has ${Math.round(file.size / 1e6)} MB; a plan may have ${LARGEST_PLAN / 1e6}.`)
  const name = file.name.toLowerCase()
  if (name.endsWith('.dxf')) return { kind: 'lines', ...(await parsed('dxf', await file.text())) }
  if (name.endsWith('.geojson') || name.endsWith('.json')) return readGeoJson(await file.text(), site)
  if (name.endsWith('.pdf') || file.type === 'application/pdf') return pictureOf(await pageOf(file))
  if (/\.(png|jpe?g|webp)$/.test(name) || file.type.startsWith('image/')) return pictureOf(file)
  throw new RangeError('A floor plan is a picture (PNG, JPEG), a page of a PDF, a DXF or a GeoJSON.')
}

async function pictureOf(blob: Blob): Promise<PlanPicture> {
  const bitmap = await createImageBitmap(blob).catch(() => {
    throw new RangeError('The picture cannot be read.')
  })
  const { width, height } = bitmap
  bitmap.close()
  if (width > MOST_PX || height > MOST_PX)
    throw new RangeError(`The picture is ${width} × ${height} pixels; ${MOST_PX} either way at most.`)
  return { kind: 'picture', blob, widthPx: width, heightPx: height }
}

/** The first page of a PDF, painted. It is read in a worker of its own, and both are stopped where they take too long. */
async function pageOf(file: File): Promise<Blob> {
  const pdf = await import('pdfjs-dist')
  pdf.GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default
  const task = pdf.getDocument({ data: await file.arrayBuffer(), isEvalSupported: false })
  let late = false
  const stop = setTimeout(() => {
    late = true
    void task.destroy()
  }, LONGEST_MS)
  try {
    const page = await (await task.promise).getPage(1)
    const base = page.getViewport({ scale: 1 })
    const viewport = page.getViewport({ scale: PAGE_PX / Math.max(base.width, base.height) })
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(viewport.width)
    canvas.height = Math.round(viewport.height)
    await page.render({ canvasContext: sure(canvas.getContext('2d')), viewport }).promise
    return await new Promise((done, fail) =>
      canvas.toBlob(b => (b ? done(b) : fail(new RangeError('The page cannot be painted.'))), 'image/png'),
    )
  } catch {
    throw new RangeError(
      late
        ? `The PDF took more than ${LONGEST_MS / 1000} s to read and was stopped: it may be damaged.`
        : 'The PDF cannot be read.',
    )
  } finally {
    clearTimeout(stop)
    await task.destroy()
  }
}

/** Lines in degrees about the site, as metres east and north of it. */
function readGeoJson(text: string, site: { latDeg: number | null; lonDeg: number | null }): PlanLines {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new RangeError('The GeoJSON cannot be read.')
  }
  const here = site.latDeg !== null && site.lonDeg !== null ? { latDeg: site.latDeg, lonDeg: site.lonDeg } : null
  if (!here) throw new RangeError('A GeoJSON lies in degrees: give the site’s position in Ask first.')
  const rings: number[][][] = []
  const walk = (
    g: { type?: string; coordinates?: unknown; geometries?: unknown[]; geometry?: unknown; features?: unknown[] } | null,
  ): void => {
    if (!g) return
    if (g.type === 'FeatureCollection') for (const f of g.features ?? []) walk(f as never)
    else if (g.type === 'Feature') walk(g.geometry as never)
    else if (g.type === 'GeometryCollection') for (const x of g.geometries ?? []) walk(x as never)
    else if (g.type === 'LineString') rings.push(g.coordinates as number[][])
    else if (g.type === 'MultiLineString' || g.type === 'Polygon') rings.push(...(g.coordinates as number[][][]))
    else if (g.type === 'MultiPolygon') rings.push(...(g.coordinates as number[][][][]).flat())
  }
  walk(json as never)
  const lines = rings.flatMap(ring =>
    chain(
      ring.map(([lonDeg, latDeg]) => {
        if (!Number.isFinite(lonDeg) || !Number.isFinite(latDeg) || Math.abs(latDeg!) > 90 || Math.abs(lonDeg!) > 360)
          throw new RangeError('A coordinate of the GeoJSON is no longitude and latitude in degrees.')
        const { distanceM, bearingDeg } = inverse(here, { latDeg: latDeg!, lonDeg: lonDeg! })
        return { x: distanceM * Math.sin(toRad(bearingDeg)), y: distanceM * Math.cos(toRad(bearingDeg)) }
      }),
      false,
    ),
  )
  return { kind: 'lines', lines, unitM: 1 }
}
