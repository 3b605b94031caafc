/** Masts from a table of cells: one row a cell, whatever the table calls its columns. */
import { nth, sure } from '../sure'
import { UNKNOWN_BAND, bandCalled, bandFromEntry, bandByName, nrarfcnToMHz, earfcnToMHz } from '../radio/bands'
import type { Technology } from '../radio/bands'
import { lteSiteOf, nrSiteOf } from '../radio/cell-id'
import { parseCoordinate, parsePosition } from '../geo/coordinates'
import { parseNumber, STRAY_MARK } from './csv'
import type { MastField, MastRules } from './mast-columns'

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
  const m = sure(/^(.*?)\s*(m|ft|feet|′|')?$/i.exec(text.trim()))
  const v = parseNumber(nth(m, 1))
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
  if (iso) ms = Date.UTC(+nth(iso, 1), +nth(iso, 2) - 1, +nth(iso, 3))
  else if (dmy) ms = Date.UTC(+nth(dmy, 3), +nth(dmy, 2) - 1, +nth(dmy, 1))
  else if (/^\d{9,10}$/.test(t)) ms = Number(t) * 1000
  else if (/^\d{12,13}$/.test(t)) ms = Number(t)
  const parts = iso ? [nth(iso, 1), nth(iso, 2), nth(iso, 3)] : dmy ? [nth(dmy, 3), nth(dmy, 2), nth(dmy, 1)] : null
  // 31 February is no day, though a calendar would carry it over into March.
  if (
    parts &&
    ms === ms &&
    new Date(ms).toISOString().slice(0, 10) !== `${parts[0]}-${nth(parts, 1).padStart(2, '0')}-${nth(parts, 2).padStart(2, '0')}`
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
  if (cells.some(c => c.startsWith(STRAY_MARK))) throw new RangeError('a quote is opened and never closed')
  const raw = (f: MastField): string => {
    const i = mapping[f]
    return i >= 0 ? (cells[i] ?? '').trim() : ''
  }
  const number = (
    f: MastField,
    { low, high, unit, read = parseNumber }: { low: number; high: number; unit: string; read?: (t: string) => number | null },
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
  const latDeg = both
    ? both.latDeg
    : number(rules.swapped ? 'lon' : 'lat', { low: -90, high: 90, unit: '°', read: t => parseCoordinate(t, 'lat') })
  const lonDeg = both
    ? both.lonDeg
    : number(rules.swapped ? 'lat' : 'lon', { low: -180, high: 180, unit: '°', read: t => parseCoordinate(t, 'lon') })
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
  const azimuthDeg = number('azimuth', { low: 0, high: 360, unit: '°' })
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
    heightM: number('height', { low: 0, high: 700, unit: 'm', read: t => withUnit(t, rules.heightUnit) }),
    groundM: number('ground', { low: -450, high: 9000, unit: 'm', read: t => withUnit(t, rules.heightUnit) }),
    beamwidthDeg: number('beamwidth', { low: 1, high: 360, unit: '°' }),
    powerDbm: powerOf(raw('power')),
    accuracyM: number('accuracy', { low: 0, high: 100_000, unit: 'm', read: t => withUnit(t, 'm') }),
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
  const called = bandCalled(bandText, technology)
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
    v = watts ? 10 * Math.log10(sure(parseNumber(nth(watts, 1))) * 1000) : parseNumber(text.replace(/\s*dBm$/i, ''))
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
