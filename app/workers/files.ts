/** Reading of files that others made: it runs in a worker, since a file may be built to keep its reader busy for good. */
import { proposeUsage, usageFrom } from '#core/connect'
import type { UsageMapping, UsageRead } from '#core/connect'
import { guessDelimiter } from '#core/formats'
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

export interface UsageFile {
  header: string[]
  mapping: UsageMapping
  read: UsageRead
}
const MOST_ROWS = 1_000_000

/** A table of what went over a connection, gathered by day. @throws RangeError where it is none, or its columns say nothing */
async function usage({ text, mapping }: { text: string; mapping?: UsageMapping }): Promise<UsageFile> {
  const { parse } = await import('csv-parse/browser/esm/sync')
  const first = text.slice(0, text.search(/[\r\n]|$/))
  let rows: string[][]
  try {
    rows = parse(text, {
      bom: true,
      delimiter: guessDelimiter(first),
      relax_column_count: true,
      skip_empty_lines: true,
      to: MOST_ROWS,
    })
  } catch {
    throw new RangeError('This is no table: a CSV file with a line of headings is wanted.')
  }
  const [header, ...body] = rows
  if (!header || !body.length) throw new RangeError('The file holds no rows under its headings.')
  const taken = mapping ?? proposeUsage(header)
  if (!taken) throw new RangeError('No column of it says a day and how much data: “Date” and “Download MB” are understood.')
  const read = usageFrom(body, taken)
  if (!read.days.length) throw new RangeError(`No row could be read: ${read.why}.`)
  return { header, mapping: taken, read }
}

export const READERS = { exif, dxf, usage }
export type Readers = typeof READERS
