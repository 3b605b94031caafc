/** Masts from a table of cells: one row a cell, whatever the table calls its columns. */
import { UNKNOWN_BAND, bandFromEntry, bandByName, nrarfcnToMHz, earfcnToMHz } from '../radio/bands'
import type { Technology } from '../radio/bands'
import { lteSiteOf, nrSiteOf } from '../radio/cell-id'
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
  return m && m[1] ? { word: m[1].trim(), unit: m[2]!.toLowerCase() } : { word: clean, unit: '' }
}

/** @returns the column proposed for each field by the header's words */
export function proposeMapping(header: readonly string[]): MastMapping {
  const used = new Set<number>()
  const words = header.map(h => splitUnit(h).word)
  return Object.fromEntries(
    MAST_FIELDS.map(f => {
      const i = words.findIndex((h, k) => !used.has(k) && (NAMES[f].test(h) || NAMES[f].test(header[k]!.trim())))
      if (i >= 0) used.add(i)
      return [f, i]
    }),
  ) as MastMapping
}

export const proposeRules = (header: readonly string[], listedOn: string | null = null): MastRules => {
  const mapping = proposeMapping(header)
  const unit = mapping.height >= 0 ? splitUnit(header[mapping.height]!).unit : ''
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

export interface MastRow {
  /** what gathers rows to one mast, and tells one cell from another; the same in every list */
  mastKey: string
  cellKey: string
  name: string
  latDeg: number
  lonDeg: number
  heightM: number | null
  groundM: number | null
  carrier: string
  technology: Technology
  band: string
  channel: number | null
  cellId: string | null
  azimuthDeg: number | null
  beamwidthDeg: number | null
  powerDbm: number | null
  accuracyM: number | null
  /** ISO day */
  seenOn: string | null
}

const FEET_M = 0.3048

/** A number as the list gave it, no decimal less. */
const told = (v: number): string => String(v).replace('-', '−')

/** A number with or without its unit behind it. @returns metres for lengths told in feet */
function withUnit(text: string, unit: 'm' | 'ft'): number | null {
  const m = /^(.*?)\s*(m|ft|feet|′|')?$/i.exec(text.trim())!
  const v = parseNumber(m[1]!)
  if (v === null) return null
  const said = m[2]?.toLowerCase()
  return (said ? said !== 'm' : unit === 'ft') ? v * FEET_M : v
}

let dayRead = { text: '', day: '' }

/** Days as lists write them: ISO, day.month.year, or seconds since 1970. @throws RangeError otherwise */
export function readDay(text: string): string | null {
  const t = text.trim()
  if (!t) return null
  if (t === dayRead.text) return dayRead.day
  const iso = /^(\d{4})-(\d{2})-(\d{2})/.exec(t) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(t)
  const dmy = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(t)
  let ms = NaN
  if (iso) ms = Date.UTC(+iso[1]!, +iso[2]! - 1, +iso[3]!)
  else if (dmy) ms = Date.UTC(+dmy[3]!, +dmy[2]! - 1, +dmy[1]!)
  else if (/^\d{9,10}$/.test(t)) ms = Number(t) * 1000
  else if (/^\d{12,13}$/.test(t)) ms = Number(t)
  const parts = iso ? [iso[1], iso[2], iso[3]] : dmy ? [dmy[3], dmy[2], dmy[1]] : null
  // 31 February is no day, though a calendar would carry it over into March.
  if (
    parts &&
    ms === ms &&
    new Date(ms).toISOString().slice(0, 10) !== `${parts[0]}-${parts[1]!.padStart(2, '0')}-${parts[2]!.padStart(2, '0')}`
  )
    ms = NaN
  if (!(ms >= 0 && ms < 4e12)) throw new RangeError(`seen “${t}” is not a date: 2026-03-24, 24.03.2026 or seconds since 1970`)
  dayRead = { text: t, day: new Date(ms).toISOString().slice(0, 10) }
  return dayRead.day
}

const TECHNOLOGIES: [RegExp, Technology | null][] = [
  [/^(LTE|4G.*|E-?UTRA|)$/, 'LTE'],
  [/^(NR|5G.*)$/, 'NR'],
  [/^(GSM|2G|UMTS|WCDMA|3G|CDMA)$/, null],
]

/**
 * Reads one row by the rules.
 * @param carrierOf  the crew's name for a network code
 * @throws RangeError that names the column and what is wrong with it
 */
export function readMastRow(
  cells: readonly string[],
  rules: MastRules,
  carrierOf: (code: string) => string | undefined = () => undefined,
): MastRow {
  const { mapping } = rules
  const raw = (f: MastField): string => {
    const i = mapping[f]
    return i >= 0 ? (cells[i] ?? '').trim() : ''
  }
  const number = (
    f: MastField,
    low: number,
    high: number,
    unit: string,
    read: (t: string) => number | null = parseNumber,
  ): number | null => {
    const text = raw(f)
    if (text === '') return null
    let v: number | null
    try {
      v = read(text)
    } catch {
      throw new RangeError(`${f} “${text}” is not a number`)
    }
    if (v !== null && (v < low || v > high)) throw new RangeError(`${f} ${told(v)} is outside ${told(low)}…${told(high)} ${unit}`)
    return v
  }
  const both = placeOf(raw('place'), rules.swapped)
  const latDeg = both ? both.latDeg : number(rules.swapped ? 'lon' : 'lat', -90, 90, '°', t => parseCoordinate(t, 'lat'))
  const lonDeg = both ? both.lonDeg : number(rules.swapped ? 'lat' : 'lon', -180, 180, '°', t => parseCoordinate(t, 'lon'))
  if (latDeg === null || lonDeg === null) throw new RangeError(`${latDeg === null ? 'lat' : 'lon'} is missing`)
  if (latDeg === 0 && lonDeg === 0) throw new RangeError('position is 0, 0: a placeholder, not a place')
  const tech = raw('technology').toUpperCase()
  const technology = tech === 'LTE' || tech === 'NR' ? tech : TECHNOLOGIES.find(([r]) => r.test(tech))?.[1]
  if (technology === undefined) throw new RangeError(`technology “${raw('technology')}” is neither LTE nor NR`)
  if (technology === null) throw new RangeError(`technology “${raw('technology')}” is older than LTE: not used here`)
  const { band, channel } = bandOfRow(raw('band'), raw('channel'), technology, rules.fallbackBand)
  const carrier = carrierOfRow(raw('carrier') || (rules.wholeCarrier ?? ''), raw('mcc'), raw('mnc'), carrierOf)
  const cellId = raw('cell').slice(0, 40) || null
  const named = raw('name')
  if (named.length > 120) throw new RangeError('name is longer than 120 characters')
  if (!named && !cellId) throw new RangeError('name is missing')
  const gathered = named ? null : siteOfCell(cellId!, technology, raw('area'))
  const name = named || gathered!.name
  const mastKey = named ? `n|${carrier}|${named}|${latDeg.toFixed(3)}|${lonDeg.toFixed(3)}` : `${gathered!.key}|${carrier}`
  const azimuthDeg = number('azimuth', 0, 360, '°')
  return {
    mastKey,
    cellKey: `${mastKey}|${technology}|${band}|${cellId ?? ''}|${azimuthDeg ?? ''}`,
    name,
    latDeg,
    lonDeg,
    carrier,
    technology,
    band,
    channel,
    cellId,
    azimuthDeg,
    heightM: number('height', 0, 700, 'm', t => withUnit(t, rules.heightUnit)),
    groundM: number('ground', -450, 9000, 'm', t => withUnit(t, rules.heightUnit)),
    beamwidthDeg: number('beamwidth', 1, 360, '°'),
    powerDbm: powerOf(raw('power')),
    accuracyM: number('accuracy', 0, 100_000, 'm', t => withUnit(t, 'm')),
    seenOn: readDay(raw('seen')) ?? rules.listedOn,
  }
}

/** One cell with both coordinates. @throws RangeError where it does not read */
function placeOf(text: string, swapped: boolean): { latDeg: number; lonDeg: number } | null {
  if (!text) return null
  try {
    const p = parsePosition(text)
    return swapped ? { latDeg: p.lonDeg, lonDeg: p.latDeg } : p
  } catch (e) {
    throw new RangeError(`place: ${e instanceof Error ? e.message : String(e)}`)
  }
}

/** Bands by the frequency people call them by, MHz: in a column of bands these are no channel numbers. @source common practice */
const CALLED_BY_MHZ: Record<Technology, Record<string, string>> = {
  LTE: {
    '700': 'B28',
    '800': 'B20',
    '850': 'B5',
    '900': 'B8',
    '1700': 'B66',
    '1800': 'B3',
    '1900': 'B2',
    '2100': 'B1',
    '2300': 'B40',
    '2600': 'B7',
    '3500': 'B42',
  },
  NR: {
    '600': 'n71',
    '700': 'n28',
    '800': 'n20',
    '900': 'n8',
    '1800': 'n3',
    '2100': 'n1',
    '2600': 'n7',
    '3500': 'n78',
    '3600': 'n78',
  },
}

const bandsRead = new Map<string, { band: string; channel: number | null }>()

/** A list names a few dozen bands in millions of rows: each is worked out once. */
function bandOfRow(
  bandText: string,
  channelText: string,
  technology: Technology,
  fallback: string | null,
): { band: string; channel: number | null } {
  const key = `${technology}|${bandText}|${channelText}|${fallback}`
  const known = bandsRead.get(key)
  if (known) return known
  const found = workOutBand(bandText, channelText, technology, fallback)
  if (bandsRead.size > 5000) bandsRead.clear()
  bandsRead.set(key, found)
  return found
}

function workOutBand(
  bandText: string,
  channelText: string,
  technology: Technology,
  fallback: string | null,
): { band: string; channel: number | null } {
  const called = CALLED_BY_MHZ[technology][bandText.replace(/\s*MHz$/i, '')]
  if (called) return { band: called, channel: /^\d+$/.test(channelText) ? Number(channelText) : null }
  const entry = bandText || channelText
  if (!entry && !fallback) return { band: UNKNOWN_BAND, channel: null }
  const band = entry ? bandFromEntry(entry, technology) : fallback ? bandByName(fallback) : undefined
  if (!band) throw new RangeError(entry ? `band “${entry}” is no ${technology} band or channel held` : 'band is missing')
  const text = /^\d+$/.test(channelText) ? channelText : /^\d{3,}$/.test(bandText) ? bandText : ''
  return { band: band.name, channel: text ? Number(text) : null }
}

function carrierOfRow(carrier: string, mcc: string, mnc: string, carrierOf: (code: string) => string | undefined): string {
  if (carrier) return (carrierOf(carrier.replace(/[\s-]/g, '')) ?? carrier).slice(0, 60)
  if (!/^\d{3}$/.test(mcc) || !/^\d{1,3}$/.test(mnc)) throw new RangeError('carrier is missing')
  const code = mcc + mnc.padStart(2, '0')
  return carrierOf(code) ?? code
}

/** Cells without a site's name are gathered by the mast's own number inside their identity. */
function siteOfCell(cellId: string, technology: Technology, area: string): { key: string; name: string } {
  const site = technology === 'LTE' ? lteSiteOf(cellId) : nrSiteOf(cellId)
  if (site !== null) return { key: `${technology === 'LTE' ? 'e' : 'g'}|${site}`, name: `${technology} site ${site}` }
  return { key: `c|${technology}|${area}|${cellId}`, name: `Cell ${cellId}` }
}

/** dBm, or watts told as such. @throws RangeError outside −30…70 dBm */
function powerOf(text: string): number | null {
  if (!text) return null
  const watts = /^([\d.,]+)\s*W$/i.exec(text)
  let v: number | null
  try {
    v = watts ? 10 * Math.log10(parseNumber(watts[1]!)! * 1000) : parseNumber(text.replace(/\s*dBm$/i, ''))
  } catch {
    throw new RangeError(`power “${text}” is not a number`)
  }
  if (v !== null && !(v >= -30 && v <= 70)) throw new RangeError(`power ${told(v)} is outside −30…70 dBm`)
  return v
}

/** @returns the frequency a channel number stands for and the bands that hold it, as a modem's page shows it; null where none does */
export function channelMeans(channel: number, technology: Technology): { frequencyMHz: number; bands: string[] } | null {
  try {
    if (technology === 'LTE') {
      const { frequencyMHz, band } = earfcnToMHz(channel)
      return { frequencyMHz, bands: [band.name] }
    }
    const { frequencyMHz, bands } = nrarfcnToMHz(channel)
    return { frequencyMHz, bands: bands.map(b => b.name) }
  } catch {
    return null
  }
}
