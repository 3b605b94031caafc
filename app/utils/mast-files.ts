/** Lists of masts as people have them: CSV plain or gzipped, UTF-8 or UTF-16, GeoJSON, GPX and KML; and back out. */
import { nth } from '#core/sure'
import { parse } from 'csv-parse/browser/esm/sync'
import type { FeatureCollection } from 'geojson'
import { csvLine, guessDelimiter, markStrays, MAST_FIELDS, recordCuts } from '#core/formats'
import type { MastField } from '#core/formats'
import type { Cell, Mast } from '#core/job'

/** A list that can be read piece by piece, as often as wanted. */
export interface MastTable {
  header: string[]
  sample: string[][]
  delimiter: string
  /** bytes of the file as it lies on the disk */
  bytes: number
  /** the text from the start; `onBytes` tells how much of the file was read for it */
  pieces: (onBytes: (read: number) => void) => AsyncGenerator<string>
}

/** Characters of a piece: about a second's work for the server. */
const PIECE = 2_000_000
const SAMPLE_ROWS = 200

const countBytes = (on: (n: number) => void) =>
  new TransformStream<Uint8Array<ArrayBuffer>, Uint8Array<ArrayBuffer>>({
    transform(chunk, out) {
      on(chunk.byteLength)
      out.enqueue(chunk)
    },
  })

async function firstBytes(stream: ReadableStream<Uint8Array>, most: number): Promise<Uint8Array> {
  const reader = stream.getReader()
  const parts: Uint8Array[] = []
  let n = 0
  while (n < most) {
    const { done, value } = await reader.read()
    if (done) break
    parts.push(value)
    n += value.byteLength
  }
  await reader.cancel().catch(() => {})
  const out = new Uint8Array(n)
  parts.reduce((at, p) => (out.set(p, at), at + p.byteLength), 0)
  return out
}

/** @returns the name a TextDecoder knows the encoding by */
function encodingOf(head: Uint8Array): string {
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le'
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be'
  const part = head.subarray(0, 2000)
  const zeros = (odd: number) => part.reduce((n, b, i) => n + Number(b === 0 && i % 2 === odd), 0)
  if (zeros(1) > part.length / 4) return 'utf-16le'
  if (zeros(0) > part.length / 4) return 'utf-16be'
  try {
    // A letter cut at the end is no fault.
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true })
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}

/** @throws Error that says in words why the file is no list of masts */
export async function openMastFile(file: File): Promise<MastTable> {
  if (!file.size) throw new Error(`“${file.name}” is empty.`)
  const lower = file.name.toLowerCase()
  if (/\.(geojson|json|gpx|kml)$/.test(lower)) return tableOfText(await geoToCsv(file), file.size, ',')
  const start = new Uint8Array(await file.slice(0, 2).arrayBuffer())
  const packed = start[0] === 0x1f && start[1] === 0x8b
  const bytes = (on: (n: number) => void) => {
    const counted = (file.stream() as ReadableStream<Uint8Array<ArrayBuffer>>).pipeThrough(countBytes(on))
    return packed ? counted.pipeThrough(new DecompressionStream('gzip')) : counted
  }
  let head: Uint8Array
  try {
    head = await firstBytes(
      bytes(() => {}),
      256_000,
    )
  } catch {
    throw new Error(`“${file.name}” does not unpack: the gzip is cut short.`)
  }
  const encoding = encodingOf(head)
  const text = new TextDecoder(encoding).decode(head, { stream: true }).replace(/^\uFEFF/, '')
  if (!text.trim()) throw new Error(`“${file.name}” is empty.`)
  if (text.includes('\0') || /^\s*[<{]/.test(text))
    throw new Error(`“${file.name}” is not a table: CSV text with a header line is wanted.`)
  const delimiter = guessDelimiter(nth(text.split('\n'), 0))
  const { header, sample } = readHead(text, delimiter, file.name)
  return {
    header,
    sample,
    delimiter,
    bytes: file.size,
    async *pieces(onBytes) {
      let read = 0
      const reader = bytes(n => (read += n))
        .pipeThrough(new TextDecoderStream(encoding))
        .getReader()
      let buffer = ''
      for (;;) {
        const { done, value } = await reader.read()
        if (value) buffer += value
        while (buffer.length >= PIECE || (done && buffer)) {
          onBytes(read)
          yield buffer.slice(0, PIECE)
          buffer = buffer.slice(PIECE)
        }
        if (done) return
      }
    },
  }
}

function readHead(text: string, delimiter: string, name: string): { header: string[]; sample: string[][] } {
  const cut = recordCuts(text, delimiter, text.length, text.length < 200_000).at(-1) ?? text.length
  let rows: string[][]
  try {
    rows = parse(markStrays(text.slice(0, cut), delimiter), {
      delimiter,
      bom: true,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
      trim: true,
      to: SAMPLE_ROWS + 1,
    }) as string[][]
  } catch (e) {
    throw new Error(`“${name}” does not read as CSV: ${messageOf(e)}`, { cause: e })
  }
  const header = rows[0] ?? []
  if (header.length < 3)
    throw new Error(`“${name}” does not read as CSV: one column only: the separator is not a comma, semicolon, tab or bar`)
  return { header, sample: rows.slice(1) }
}

function tableOfText(text: string, bytes: number, delimiter: string): MastTable {
  return {
    ...readHead(text, delimiter, 'the list'),
    delimiter,
    bytes,
    async *pieces(onBytes) {
      for (let i = 0; i < text.length; i += PIECE) {
        onBytes(Math.min(bytes, Math.round(((i + PIECE) / text.length) * bytes)))
        yield text.slice(i, i + PIECE)
      }
    },
  }
}

/** A point carries its place as two figures and its network by name. */
type NotOurs = 'place' | 'mcc' | 'mnc' | 'area'
const NOT_OURS: ReadonlySet<MastField> = new Set<NotOurs>(['place', 'mcc', 'mnc', 'area'])
const COLUMNS = MAST_FIELDS.filter((f): f is Exclude<MastField, NotOurs> => !NOT_OURS.has(f))
const OTHER_WORDS: Record<string, string> = {
  operator: 'carrier',
  network: 'carrier',
  radio: 'technology',
  rat: 'technology',
  earfcn: 'channel',
  ele: 'ground',
  heightm: 'height',
  azimuthdeg: 'azimuth',
  time: 'seen',
}

/** What stands in a waypoint's extensions, whatever their namespace and depth: each value under its own name. */
function readExtensions(feature: import('ol/Feature').default, extensions?: Node): void {
  if (!(extensions instanceof Element)) return
  for (const e of extensions.getElementsByTagName('*'))
    if (!e.children.length && e.textContent.trim() && feature.get(e.localName) === undefined)
      feature.set(e.localName, e.textContent.trim())
}

/** Points of a GeoJSON, GPX or KML become rows; what they carry becomes columns, whatever it is called. */
async function geoToCsv(file: File): Promise<string> {
  const text = await file.text()
  const lower = file.name.toLowerCase()
  const { default: GeoJSON } = await import('ol/format/GeoJSON')
  let features
  try {
    if (lower.endsWith('.gpx')) features = new (await import('ol/format/GPX')).default({ readExtensions }).readFeatures(text)
    else if (lower.endsWith('.kml'))
      features = new (await import('ol/format/KML')).default({ extractStyles: false }).readFeatures(text)
    else features = new GeoJSON().readFeatures(JSON.parse(text) as object)
  } catch (e) {
    throw new Error(`“${file.name}” does not read: ${messageOf(e)}`, { cause: e })
  }
  const rows: string[] = []
  for (const f of features) {
    const g = f.getGeometry()
    if (g?.getType() !== 'Point') continue
    const at = (g as import('ol/geom/Point').default).getCoordinates()
    const given: Record<string, unknown> = { lon: at[0], lat: at[1] }
    for (const [k, v] of Object.entries(f.getProperties())) {
      const key = k.toLowerCase().replace(/[\s_-]/g, '')
      if (v === null || typeof v === 'object') continue
      given[OTHER_WORDS[key] ?? key] = v
    }
    // Waypoints have no columns of their own: what we wrote stands in their description.
    for (const [, k, v] of plainText(String(given.desc ?? given.description ?? '')).matchAll(/(\w+)=([^;]*)/g)) given[k!] ??= v
    rows.push(
      csvLine(
        COLUMNS.map(c => {
          const v = given[c]
          return v === undefined || v === null ? null : typeof v === 'number' ? v : String(v)
        }),
      ),
    )
  }
  if (!rows.length) throw new Error(`“${file.name}” holds no points: masts are points.`)
  return csvLine([...COLUMNS]) + rows.join('')
}

const SIGNS: readonly [string, string][] = [
  ['&', '&amp;'],
  ['<', '&lt;'],
  ['>', '&gt;'],
  ['"', '&quot;'],
]

/** Programs show a KML description as HTML: what stands in a list is text there, never markup. */
export const asHtml = (text: string): string => SIGNS.reduce((t, [sign, name]) => t.replaceAll(sign, name), text)
export const plainText = (html: string): string =>
  [...SIGNS].reverse().reduce((t, [sign, name]) => t.replaceAll(name, sign), html)

/** One row, point or waypoint a cell, as the same program reads it back. */
export async function writeMasts(
  kind: 'csv' | 'geojson' | 'gpx' | 'kml',
  masts: readonly Mast[],
  cells: readonly Cell[],
): Promise<string> {
  const rows = masts.flatMap(m =>
    cells
      .filter(c => c.mastId === m.id)
      .map(c => ({
        name: m.name,
        lat: m.latDeg,
        lon: m.lonDeg,
        carrier: m.carrier,
        technology: c.technology,
        band: c.band,
        channel: c.channel,
        cell: c.cellId,
        azimuth: c.azimuthDeg,
        beamwidth: c.beamwidthDeg,
        height: m.heightM,
        ground: m.groundM,
        power: c.powerDbm,
        accuracy: m.accuracyM,
        seen: m.seenOn,
      })),
  )
  if (kind === 'csv') return csvLine([...COLUMNS]) + rows.map(r => csvLine(COLUMNS.map(c => r[c] ?? null))).join('')
  const [{ default: Feature }, { default: Point }] = await Promise.all([import('ol/Feature'), import('ol/geom/Point')])
  const described = (r: (typeof rows)[number]) =>
    COLUMNS.slice(3)
      .flatMap(c => (r[c] === null || r[c] === undefined ? [] : [`${c}=${r[c]}`]))
      .join('; ')
  if (kind === 'geojson') {
    const collection: FeatureCollection = {
      type: 'FeatureCollection',
      features: rows.map(({ lat, lon, ...properties }) => ({
        type: 'Feature',
        geometry: { type: 'Point', coordinates: [lon, lat] },
        properties,
      })),
    }
    return JSON.stringify(collection)
  }
  const features = rows.map(
    r =>
      new Feature({
        geometry: new Point([r.lon, r.lat]),
        name: r.name,
        [kind === 'gpx' ? 'desc' : 'description']: kind === 'kml' ? asHtml(described(r)) : described(r),
      }),
  )
  const format =
    kind === 'gpx'
      ? new (await import('ol/format/GPX')).default()
      : new (await import('ol/format/KML')).default({ writeStyles: false })
  return format.writeFeatures(features)
}
