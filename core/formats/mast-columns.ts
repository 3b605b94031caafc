/** Which column of a list of masts holds what: by its heading, and where that says nothing by what stands in it. */
import { nth } from '../sure'
import { bandCalled, bandFromEntry } from '../radio/bands'
import { parseCoordinate, parsePosition } from '../geo/coordinates'
import { parseNumber } from './csv'

export const MAST_FIELDS = [
  'name',
  'place',
  'lat',
  'lon',
  'carrier',
  'mcc',
  'mnc',
  'technology',
  'band',
  'channel',
  'cell',
  'area',
  'azimuth',
  'beamwidth',
  'height',
  'ground',
  'power',
  'accuracy',
  'seen',
] as const
export type MastField = (typeof MAST_FIELDS)[number]
/** field → column index; −1 where the table has none */
export type MastMapping = Record<MastField, number>

/** How a table is to be read, beyond its columns. */
export interface MastRules {
  mapping: MastMapping
  /** unit of heights that carry none themselves */
  heightUnit: 'm' | 'ft'
  /** the columns named latitude and longitude hold each other's values */
  swapped: boolean
  /** band taken for rows that name none; null leaves it unknown, until a reading of the cell tells it */
  fallbackBand: string | null
  /** carrier of the whole list, where no column names it */
  wholeCarrier?: string | null
  /** the day the list is of, for rows without a date of their own */
  listedOn: string | null
}

const NAMES: Record<MastField, RegExp> = {
  name: /^(site|mast|name|site.?name|mast.?name|station)$/i,
  place: /^(position|place|coordinates?|lat.?lon|lat.?lng|latitude.?longitude|location)$/i,
  lat: /^(lat|latitude|lat.?deg|y)$/i,
  lon: /^(lon|lng|long|longitude|lon.?deg|x)$/i,
  carrier: /^(carrier|operator|network|plmn|mccmnc|mcc.?mnc)$/i,
  mcc: /^mcc$/i,
  mnc: /^(mnc|net)$/i,
  technology: /^(tech|technology|rat|radio|system)$/i,
  band: /^(band|bands?.?or.?channel)$/i,
  channel: /^(earfcn|arfcn|channel|nrarfcn|uarfcn)$/i,
  cell: /^(cell|cell.?id|cid|eci|nci)$/i,
  area: /^(area|tac|lac)$/i,
  azimuth: /^(azimuth|direction|bearing|az|sector.?azimuth)$/i,
  beamwidth: /^(beamwidth|hpbw|width|beam)$/i,
  height: /^(height|agl|antenna.?height|mast.?height|h)$/i,
  ground: /^(ground|elevation|amsl|site.?elevation)$/i,
  power: /^(power|eirp|tx.?power)$/i,
  accuracy: /^(accuracy|range|radius|uncertainty)$/i,
  seen: /^(seen|date|updated|last.?seen|as.?of|valid)$/i,
}

/** `height (ft)`, `lat_deg`, `power_dbm` without the unit, and the unit */
const splitUnit = (header: string): { word: string; unit: string } => {
  const clean = header.trim().replace(/^\uFEFF/, '')
  const m = /^(.*?)[\s_.]*[([]?\b(m|ft|feet|metres?|meters?|deg|°|dbm|mhz)[)\]]?$/i.exec(clean.replace(/_/g, ' '))
  return m && m[1] ? { word: m[1].trim(), unit: nth(m, 2).toLowerCase() } : { word: clean, unit: '' }
}

/** @returns the column proposed for each field by the header's words */
export function proposeMapping(header: readonly string[]): MastMapping {
  const used = new Set<number>()
  const words = header.map(h => splitUnit(h).word)
  return Object.fromEntries(
    MAST_FIELDS.map(f => {
      const i = words.findIndex((h, k) => !used.has(k) && (NAMES[f].test(h) || NAMES[f].test(nth(header, k).trim())))
      if (i >= 0) used.add(i)
      return [f, i]
    }),
  ) as MastMapping
}

/** Rows that must speak for a meaning before a column is proposed for it. */
const SHARE = 0.9
const FEWEST_ROWS = 2
/** Numbers of a size that many things have say little in a few rows. */
const MORE_ROWS = 5

interface Column {
  index: number
  filled: string[]
  different: number
  numbers: number[]
}

const whole = (v: number): boolean => Number.isInteger(v)
const eachNumber = (c: Column, of: (v: number) => boolean): boolean =>
  c.numbers.length >= c.filled.length * SHARE && c.numbers.every(of)
/** What a reader makes of it; null where it refuses. */
const tried = <T>(read: () => T | null): T | null => {
  try {
    return read()
  } catch {
    return null
  }
}
const isPlace = (t: string): boolean => tried(() => parsePosition(t)) !== null
/** Degrees with decimals, or with a hemisphere: whole numbers are anything. */
function isDegrees(t: string, as: 'lat' | 'lon'): boolean {
  const deg = /[.,]\d{2}/.test(t) || /[°NSEW]/i.test(t) ? tried(() => parseCoordinate(t, as)) : null
  return deg !== null && Math.abs(deg) <= (as === 'lat' ? 90 : 180)
}
const isBand = (t: string): boolean =>
  /^(B|n|band)\s?\d+$/i.test(t)
    ? !!(bandFromEntry(t, 'LTE') ?? bandFromEntry(t, 'NR'))
    : !!bandCalled(t, 'LTE') || /^\d+\s*MHz$/i.test(t)

/** What a column may hold, the surest first; each is proposed for a field that no heading named. */
const SIGNS: readonly (readonly [MastField, (c: Column, all: (of: (t: string) => boolean) => boolean) => boolean])[] = [
  ['technology', (_, all) => all(t => /^(LTE|NR|4G|5G|E-?UTRA|GSM|UMTS|2G|3G)$/i.test(t))],
  ['band', (_, all) => all(isBand)],
  ['place', (_, all) => all(isPlace)],
  ['lat', (_, all) => all(t => isDegrees(t, 'lat'))],
  ['lon', (_, all) => all(t => isDegrees(t, 'lon'))],
  ['seen', (_, all) => all(t => /^(19|20)\d{2}-\d{2}-\d{2}|^\d{1,2}\.\d{1,2}\.(19|20)\d{2}$/.test(t))],
  // Identities are long and hardly two alike; directions are whole degrees that go round.
  ['cell', c => eachNumber(c, v => whole(v) && v > 9999) && c.different > c.filled.length * 0.8],
  ['azimuth', c => eachNumber(c, v => whole(v) && v >= 0 && v <= 360) && Math.max(...c.numbers) > 180 && c.different > 2],
  ['height', c => c.filled.length >= MORE_ROWS && eachNumber(c, v => v >= 3 && v <= 150) && c.different > 1],
  ['carrier', c => !c.numbers.length && c.different <= Math.max(1, c.filled.length / 3)],
  ['name', c => !c.numbers.length && c.different > 1],
]

function columnOf(sample: readonly (readonly string[])[], index: number): Column {
  const filled = sample.map(r => (r[index] ?? '').trim()).filter(Boolean)
  const numbers = filled.flatMap(t => tried(() => parseNumber(t)) ?? [])
  return { index, filled, different: new Set(filled).size, numbers }
}

/**
 * Proposes columns for what no heading named, as in a list with headings of another language, by what stands
 * in those that no heading placed.
 *
 * @param sample  rows of the list, without its header
 */
export function proposeByContent(
  named: MastMapping,
  header: readonly string[],
  sample: readonly (readonly string[])[],
): MastMapping {
  if (sample.length < FEWEST_ROWS) return named
  const out = { ...named }
  const used = new Set(Object.values(named))
  const free = header.map((_, i) => columnOf(sample, i)).filter(c => !used.has(c.index) && c.filled.length >= sample.length / 2)
  for (const [field, holds] of SIGNS) {
    if (out[field] >= 0 || ((field === 'lat' || field === 'lon') && out.place >= 0)) continue
    const found = free.find(c => {
      if (used.has(c.index)) return false
      // A column of numbers with a word among them is none.
      const mostly = c.numbers.length === 0 || c.numbers.length >= c.filled.length * SHARE
      return mostly && holds(c, of => c.filled.filter(of).length >= c.filled.length * SHARE)
    })
    if (!found) continue
    out[field] = found.index
    used.add(found.index)
  }
  return out
}

export const proposeRules = (
  header: readonly string[],
  listedOn: string | null = null,
  sample: readonly (readonly string[])[] = [],
): MastRules => {
  const mapping = proposeByContent(proposeMapping(header), header, sample)
  const unit = mapping.height >= 0 ? splitUnit(nth(header, mapping.height)).unit : ''
  return { mapping, heightUnit: /^f/.test(unit) ? 'ft' : 'm', swapped: false, fallbackBand: null, wholeCarrier: null, listedOn }
}

/** What a crew's mapping is remembered by: the header's words, whatever their case and spaces. */
export const headerSignature = (header: readonly string[]): string =>
  header
    .map(h =>
      h
        .trim()
        .replace(/^\uFEFF/, '')
        .toLowerCase()
        .replace(/\s+/g, ' '),
    )
    .join('|')

/** @returns why the columns do not do yet, in words; empty where they do */
export function lackingFields(m: MastMapping, wholeCarrier: string | null = null): string[] {
  const out: string[] = []
  if (m.place < 0) for (const f of ['lat', 'lon'] as const) if (m[f] < 0) out.push(f)
  if (m.carrier < 0 && (m.mcc < 0 || m.mnc < 0) && !wholeCarrier) out.push('carrier (or mcc and mnc, or one for the whole list)')
  if (m.name < 0 && m.cell < 0) out.push('name (or cell)')
  return out
}

/**
 * Latitude and longitude stand in each other's columns: most rows leave the globe as told and not
 * when exchanged, or all lie far from where the crew works as told and near when exchanged.
 */
export function looksSwapped(
  pairs: readonly (readonly [lat: number, lon: number])[],
  near: { latDeg: number; lonDeg: number } | null = null,
): boolean {
  const beyond = pairs.filter(([la, lo]) => Math.abs(la) > 90 && Math.abs(lo) <= 90).length
  if (beyond > pairs.length / 2) return true
  if (!near || !pairs.length) return false
  const far = (la: number, lo: number) => Math.hypot(la - near.latDeg, lo - near.lonDeg)
  return pairs.every(([la, lo]) => far(la, lo) > 10 && far(lo, la) < 3)
}
