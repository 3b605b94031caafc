/** Reading of files that others made: it runs in a worker, since a file may be built to keep its reader busy for good. */
import { dxfUnitM } from '#core/site'
import type { DrawnLine } from '#core/site'

/** What a camera wrote into a photograph, as it stands there. */
export interface CameraTags {
  DateTimeOriginal?: unknown
  GPSImgDirection?: unknown
  GPSImgDirectionRef?: unknown
}

/** @source JEITA CP-3451 (EXIF 2.3) */
async function exif(bytes: ArrayBuffer): Promise<CameraTags | null> {
  const { parse } = await import('exifr')
  const pick = ['DateTimeOriginal', 'GPSImgDirection', 'GPSImgDirectionRef']
  return ((await parse(bytes, { pick }).catch(() => null)) as CameraTags | undefined) ?? null
}

interface DxfEntity {
  type: string
  vertices?: { x: number; y: number }[]
  shape?: boolean
}

export interface DxfLines {
  lines: DrawnLine[]
  /** metres in a unit of the drawing; null where it does not say */
  unitM: number | null
}

/** Lines and polylines of a drawing. @throws RangeError where it cannot be read */
async function dxf(text: string): Promise<DxfLines> {
  const { default: DxfParser } = await import('dxf-parser')
  // The reader looks for the end of each polyline and never gives up.
  const entities = (name: string) => text.match(new RegExp(`^\\s*0\\s*\\r?\\n\\s*${name}\\s*$`, 'gm'))?.length ?? 0
  if (entities('POLYLINE') > entities('SEQEND')) throw new RangeError('The DXF is damaged: a polyline has no end (SEQEND).')
  let drawing: { header?: Record<string, unknown>; entities?: unknown[] } | null
  try {
    drawing = new DxfParser().parseSync(text) as typeof drawing
  } catch {
    throw new RangeError('The DXF cannot be read.')
  }
  const lines = (drawing?.entities ?? []).flatMap(e => {
    const entity = e as DxfEntity
    if (!['LINE', 'LWPOLYLINE', 'POLYLINE'].includes(entity.type)) return []
    return chain(entity.vertices ?? [], !!entity.shape)
  })
  const said = drawing?.header?.$INSUNITS as number | undefined
  return { lines, unitM: said ? dxfUnitM(said) : null }
}

/** @returns the lines from point to point, and back to the first where it is closed */
export const chain = (points: readonly { x: number; y: number }[], closed: boolean): DrawnLine[] =>
  points.flatMap((p, i) => {
    const q = points[i + 1] ?? (closed ? points[0] : undefined)
    return q ? [{ x1: p.x, y1: p.y, x2: q.x, y2: q.y }] : []
  })

export const READERS = { exif, dxf }
export type Readers = typeof READERS
