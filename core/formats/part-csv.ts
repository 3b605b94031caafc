/**
 * Parts as a table, in and out: one row a part, one column a figure. Lists stand in one cell:
 * modems `1 2 / 2 | 3 4 / 2` (ports and slots), bands `B3 B20`, ranges `617-960 8dBi 70x80 | …`, ports `donor:donor:N:socket:50 | …`.
 */
import { sure } from '../sure'
import type { AntennaPart, Part, Port } from '../job/part'
import { csvLine, parseNumber } from './csv'

const YES = /^(yes|true|1)$/i
const TEXT = [
  'id',
  'kind',
  'name',
  'use',
  'shape',
  'ends',
  'mount',
  'supply',
  'grade',
  'jacket',
  'class',
  'simSize',
  'tailCoax',
  'medium',
  'gives',
  'takes',
  'wire',
  'service',
  'does',
] as const
const NUMBERS = [
  'frontToBackDb',
  'sizeM',
  'gainDb',
  'lowestGainDb',
  'noiseFigureDb',
  'outputDbm',
  'uplinkOutputDbm',
  'inputLimitDbm',
  'shutDownDbm',
  'lossDb',
  'excessDb',
  'couplingDb',
  'portLimitMbps',
  'impedanceOhm',
  'spreadPercent',
  'diameterMm',
  'bendMm',
  'plugMm',
  'massKg',
  'windM2',
  'tailM',
  'powerW',
  'priceClass',
  'lanPorts',
  'wifiMbps',
  'simSlots',
  'givesW',
  'volts',
  'mostW',
  'batteryWh',
  'lowMHz',
  'highMHz',
] as const
/** Cells of several numbers, or of several words parted by `|`. */
const NUMBER_LISTS = ['sizeMm', 'clampMm', 'temperatureC', 'drumM'] as const
const WORD_LISTS = ['inBox', 'apart', 'wifiBands'] as const
const LISTS = [
  'outdoors',
  'overMetal',
  'perBand',
  'separation',
  'foot',
  'modems',
  'bands',
  'ranges',
  'constants',
  'stockM',
  'ports',
] as const
export const PART_COLUMNS = [...TEXT, ...NUMBERS, ...NUMBER_LISTS, ...WORD_LISTS, ...LISTS] as const

/** Figures of an amplifier on one band, as a cell names them. */
const BAND_FIGURES = ['gainDb', 'outputDbm', 'uplinkGainDb', 'uplinkOutputDbm'] as const
const SEPARATION = ['upM', 'alongM', 'boxM'] as const
const FOOT = ['holeMm', 'leastMm', 'mostMm'] as const

const portText = (p: Port): string => [p.id, p.role, p.connector, p.gender, p.impedanceOhm].join(':')
const rangeText = (r: AntennaPart['ranges'][number]): string =>
  `${r.lowMHz}-${r.highMHz} ${r.gainDbi}dBi ${r.beamwidthDeg}x${r.verticalBeamwidthDeg}`

/** `gainDb=77 outputDbm=20` */
const named = (of: object, names: readonly string[]): string =>
  names
    .filter(n => (of as Record<string, unknown>)[n] !== undefined)
    .map(n => `${n}=${(of as Record<string, number>)[n]}`)
    .join(' ')

function readNamed(words: readonly string[], names: readonly string[]): Record<string, number> {
  return Object.fromEntries(
    words.map(w => {
      const [name, value] = w.split('=')
      if (!names.includes(name!)) throw new RangeError(`“${w}” is none of ${names.join(', ')}`)
      return [name!, needed(value)]
    }),
  )
}

/** @returns the table, its heading first */
export function writeParts(parts: readonly Part[]): string {
  return (
    csvLine(PART_COLUMNS) +
    parts
      .map(p => {
        const row = p as unknown as Record<string, unknown>
        return csvLine([
          ...[...TEXT, ...NUMBERS].map(c => (row[c] as string | number | undefined) ?? null),
          ...NUMBER_LISTS.map(c => (row[c] as number[] | undefined)?.join(' ') ?? null),
          ...WORD_LISTS.map(c => (row[c] as string[] | undefined)?.join(' | ') ?? null),
          p.outdoors === undefined ? null : p.outdoors ? 'yes' : 'no',
          p.kind === 'antenna' && p.overMetal ? 'yes' : null,
          p.kind === 'amplifier' && p.perBand ? p.perBand.map(b => `${b.band} ${named(b, BAND_FIGURES)}`).join(' | ') : null,
          p.kind === 'amplifier' && p.separation ? named(p.separation, SEPARATION) : null,
          p.foot ? named(p.foot, FOOT) : null,
          p.kind === 'router' && p.modems ? p.modems.map(m => `${m.ports.join(' ')} / ${m.slots}`).join(' | ') : null,
          'bands' in p ? p.bands.join(' ') : null,
          p.kind === 'antenna' ? p.ranges.map(rangeText).join(' | ') : null,
          p.kind === 'line' ? `${p.constants.k1} ${p.constants.k2}` : null,
          p.kind === 'line' ? p.stockM.join(' ') : null,
          p.kind === 'line' ? null : p.ports.map(portText).join(' | '),
        ])
      })
      .join('')
  )
}

/**
 * One row of a table as a part; what is left out stays out, and is found by the part's schema.
 *
 * @param cell  the row's cell under a heading, `undefined` where the table has none
 * @throws RangeError with the column, where a cell cannot be read
 */
export function readPart(cell: (column: string) => string | undefined): Record<string, unknown> {
  // A cell that begins with a sign is written with an apostrophe before it, so that no table takes it for a formula.
  const text = (c: string) =>
    cell(c)
      ?.trim()
      .replace(/^'(?=[-+=@])/, '') || undefined
  const out: Record<string, unknown> = {}
  for (const c of TEXT) if (text(c)) out[c] = text(c)
  for (const c of NUMBERS) {
    const value = read(c, () => (text(c) === undefined ? null : parseNumber(sure(text(c)))))
    if (value !== null) out[c] = value
  }
  const list = (c: string, separator: RegExp) =>
    text(c)
      ?.split(separator)
      .map(s => s.trim())
      .filter(Boolean)
  for (const c of NUMBER_LISTS) {
    const numbers = list(c, /\s+/)
    if (numbers) out[c] = numbers.map(n => read(c, () => needed(n)))
  }
  for (const c of WORD_LISTS) {
    const words = list(c, /\|/)
    if (words) out[c] = words
  }
  const outdoors = text('outdoors')
  if (outdoors) out.outdoors = YES.test(outdoors)
  const overMetal = text('overMetal')
  if (overMetal) out.overMetal = YES.test(overMetal)
  const perBand = list('perBand', /\|/)
  if (perBand)
    out.perBand = perBand.map(b => {
      const [band, ...figures] = b.split(/\s+/)
      return { band, ...read('perBand', () => readNamed(figures, BAND_FIGURES)) }
    })
  const separation = list('separation', /\s+/)
  if (separation) out.separation = read('separation', () => readNamed(separation, SEPARATION))
  const foot = list('foot', /\s+/)
  if (foot) out.foot = read('foot', () => readNamed(foot, FOOT))
  const modems = list('modems', /\|/)
  if (modems)
    out.modems = modems.map(m => {
      const [ports = '', slots] = m.split('/')
      return { ports: ports.trim().split(/\s+/).filter(Boolean), slots: read('modems', () => needed(slots?.trim())) }
    })
  const bands = list('bands', /[\s,;]+/)
  if (bands) out.bands = bands
  const ranges = list('ranges', /\|/)
  if (ranges) out.ranges = ranges.map(r => read('ranges', () => readRange(r)))
  const constants = list('constants', /\s+/)
  if (constants) out.constants = read('constants', () => ({ k1: needed(constants[0]), k2: needed(constants[1]) }))
  const stock = list('stockM', /\s+/)
  if (stock) out.stockM = stock.map(s => read('stockM', () => needed(s)))
  else if (out.kind === 'line') out.stockM = []
  const ports = list('ports', /\|/)
  if (ports) out.ports = ports.map(p => read('ports', () => readPort(p)))
  return out
}

function read<T>(column: string, work: () => T): T {
  try {
    return work()
  } catch (e) {
    throw new RangeError(`${column}: ${e instanceof Error ? e.message : String(e)}`)
  }
}

function needed(text: string | undefined): number {
  const value = text === undefined ? null : parseNumber(text)
  if (value === null) throw new RangeError('a number is missing')
  return value
}

function readRange(text: string): AntennaPart['ranges'][number] {
  const m = /^([\d.,]+)\s*-\s*([\d.,]+)\s+(-?[\d.,]+)\s*dBi\s+([\d.,]+)\s*x\s*([\d.,]+)$/i.exec(text)
  if (!m) throw new RangeError(`“${text}” is not like 617-960 8dBi 70x80`)
  const [lowMHz, highMHz, gainDbi, beamwidthDeg, verticalBeamwidthDeg] = m.slice(1).map(s => needed(s)) as [
    number,
    number,
    number,
    number,
    number,
  ]
  if (lowMHz >= highMHz) throw new RangeError(`“${text}” ends below where it begins`)
  return { lowMHz, highMHz, gainDbi, beamwidthDeg, verticalBeamwidthDeg }
}

function readPort(text: string): Record<string, unknown> {
  const [id, role, connector, gender, ohm] = text.split(':').map(s => s.trim())
  if (!id || !role || !connector || !gender || !ohm) throw new RangeError(`“${text}” is not like 1:feed:N:socket:50`)
  return { id, role, connector, gender, impedanceOhm: needed(ohm) }
}
