/** Positions as people type and paste them. */
import { nth } from '../sure'
import type { Position } from './geodesic'
import { inRange } from '../check'

/** True minus signs and typographic degree, minute and second marks as plain ones. */
const plainMarks = (text: string): string =>
  text
    .replace(/[−–]/g, '-')
    .replace(/[º˚]/g, '°')
    .replace(/[’′ʹ]|''(?!')/g, m => (m === "''" ? '"' : "'"))
    .replace(/[”″]/g, '"')

const NUMBER = /[+\-−]?\d+(?:[.,]\d+)?/

/**
 * Reads one position: decimal degrees, degrees and minutes, or degrees, minutes and seconds;
 * hemisphere letters before or after; a comma, semicolon, slash, line break or spaces between.
 *
 * `46.812, -41.377` · `46,812; −41,377` · `46°48.72′N 41°22.62′W` · `N46 48 43.2 W41 22 37.2` · `geo:46.8,-41.4`
 *
 * @throws RangeError that says what could not be read, or which coordinate is off the globe
 */
export function parsePosition(text: string): Position {
  if (/^geo:/i.test(text.trim())) return fromGeoUri(text.trim())
  const clean = plainMarks(text.trim())
  if (!clean) throw new RangeError('position is empty: type latitude and longitude')
  refuseO(clean)
  const letters = clean.match(/[NSEW](?![a-z])/gi) ?? []
  const parts = letters.length === 2 ? splitAtLetters(clean) : letters.length === 1 ? splitAtOneLetter(clean) : splitPlain(clean)
  if (!parts) throw new RangeError(`position “${text.trim()}” does not read as latitude and longitude`)
  const values = parts.map(p => ({ value: angle(p, text), axis: axisOf(p) }))
  let [lat, lon] = values as [(typeof values)[0], (typeof values)[0]]
  if (lat.axis === 'lon' && lon.axis !== 'lon') [lat, lon] = [lon, lat]
  if (lat.axis && lat.axis === lon.axis) throw new RangeError(`position “${text.trim()}” names the same axis twice`)
  return { latDeg: inRange('latitude', lat.value, -90, 90), lonDeg: inRange('longitude', lon.value, -180, 180) }
}

/** Latitude, longitude, perhaps a height, then parameters. @source RFC 5870 */
function fromGeoUri(text: string): Position {
  const found = /^geo:(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)(?:,-?\d+(?:\.\d+)?)?((?:;[^;]+)*)$/i.exec(text)
  if (!found) throw new RangeError(`“${text}” does not read as geo:latitude,longitude`)
  const crs = /;crs=([^;]+)/i.exec(nth(found, 3))?.[1]
  if (crs && crs.toLowerCase() !== 'wgs84') throw new RangeError(`“${crs}” is another reference than WGS84`)
  return { latDeg: inRange('latitude', Number(found[1]), -90, 90), lonDeg: inRange('longitude', Number(found[2]), -180, 180) }
}

/**
 * Reads one coordinate alone, as a column of a table holds it: decimal degrees, degrees and minutes,
 * or degrees, minutes and seconds, with a hemisphere's letter or a sign.
 * @throws RangeError where it does not read, or its letter belongs to the other axis
 */
export function parseCoordinate(text: string, axis: 'lat' | 'lon'): number {
  const plain = Number(text)
  if (text && !Number.isNaN(plain)) return plain
  const clean = plainMarks(text.trim())
  refuseO(clean)
  const said = axisOf(clean)
  if (said && said !== axis) throw new RangeError(`“${text}” is a ${said === 'lat' ? 'latitude' : 'longitude'}`)
  if (!clean) throw new RangeError('is empty')
  return angle(clean, text)
}

/** O is Ost in one language and ouest in another. @throws RangeError that asks which */
function refuseO(text: string): void {
  if (/(^|[^a-z])O(?![a-z])/i.test(text)) throw new RangeError('O is east in German and west in French: write E or W')
}

/** One hemisphere's letter only: it stays with the number it stands at, the other number has its sign. */
function splitAtOneLetter(s: string): string[] | null {
  const found = s.match(/(?:[NSEW]\s*)?[+-]?\d+(?:[.,]\d+)?\s*°?\s*(?:[NSEW](?![a-z]))?/gi)
  return found?.length === 2 ? found : splitPlain(s)
}

function splitAtLetters(s: string): string[] | null {
  const trimmed = s
    .replace(/[;/\n]/g, ' ')
    .replace(/,(?!\d)/g, ' ')
    .trim()
  const prefix = /^[NSEW]/i.test(trimmed)
  const found = prefix ? /^([NSEW][^NSEW]+)([NSEW][^NSEW]+)$/i.exec(trimmed) : /^([^NSEW]+[NSEW])([^NSEW]+[NSEW])$/i.exec(trimmed)
  return found ? [nth(found, 1).replace(/,\s*$/, ''), nth(found, 2).replace(/^\s*,/, '')] : null
}

function splitPlain(s: string): string[] | null {
  for (const cut of [/\s*[;/\n]\s*/, /,\s+/, /\s*,\s*/]) {
    const parts = s.split(cut).filter(Boolean)
    if (parts.length === 2) return parts
  }
  const numbers = s.match(new RegExp(NUMBER, 'g')) ?? []
  if (numbers.length === 2) return numbers
  if (numbers.length === 4 && /[,]/.test(s)) {
    const halves = /^(\S+,\d+)[\s,]+(\S+,\d+)$/.exec(s)
    if (halves) return [nth(halves, 1), nth(halves, 2)]
  }
  const comma = /^([+-]?\d+,\d+)\s*,\s*([+-]?\d+,\d+)$/.exec(s)
  if (comma) return [nth(comma, 1), nth(comma, 2)]
  if (numbers.length === 6) return [numbers.slice(0, 3).join(' '), numbers.slice(3).join(' ')]
  return null
}

function angle(part: string, whole: string): number {
  const numbers = (part.match(new RegExp(NUMBER, 'g')) ?? []).map(n => Number(n.replace(',', '.')))
  if (numbers.length < 1 || numbers.length > 3 || /[a-df-mp-rt-vx-z]/i.test(part.replace(/deg|min|sec/gi, ''))) {
    throw new RangeError(`position “${whole.trim()}” does not read as latitude and longitude`)
  }
  const [deg = 0, min = 0, sec = 0] = numbers
  if (numbers.length > 1) inRange('minutes', min, 0, 59.999999)
  if (numbers.length > 2) inRange('seconds', sec, 0, 59.999999)
  const size = Math.abs(deg) + min / 60 + sec / 3600
  const negative = /^\s*-/.test(part) || /[SW]/i.test(part)
  return negative ? -size : size
}

const axisOf = (part: string): 'lat' | 'lon' | null => (/[NS]/i.test(part) ? 'lat' : /[EW]/i.test(part) ? 'lon' : null)

/** @returns `46.8120° N 41.3770° W` */
export function formatPosition(p: Position, decimals = 4): string {
  const lat = `${Math.abs(p.latDeg).toFixed(decimals)}° ${p.latDeg < 0 ? 'S' : 'N'}`
  return `${lat} ${Math.abs(p.lonDeg).toFixed(decimals)}° ${p.lonDeg < 0 ? 'W' : 'E'}`
}
