/**
 * A modem's status page as text, copied from a browser: the figures that it names are taken, and what was not understood
 * is told. Names differ from page to page; what stands behind a name decides by its unit and its range.
 */
import { nth } from '../sure'
import { cellFromHex } from '../radio/cell-id'
import { parseNumber } from './csv'

export interface PageFigures {
  rsrpDbm: number | null
  rsrqDb: number | null
  sinrDb: number | null
  rssiDbm: number | null
  /** `B20`, `n78`, or a channel number: what a band's field takes */
  band: string | null
  bandwidthMHz: number | null
  cellId: string | null
  technology: 'LTE' | 'NR' | null
}

export interface PageRead {
  figures: PageFigures
  /** lines that hold a number under a name that is not known */
  notUnderstood: string[]
  /** names that stand more than once with other figures: the first was taken */
  several: string[]
}

interface Named {
  field: keyof PageFigures
  names: RegExp
  read: (text: string) => number | string | null
}

const within =
  (low: number, high: number) =>
  (text: string): number | null => {
    const m = /[-−+]?\d+(?:[.,]\d+)?/.exec(text)
    const v = m ? parseNumber(m[0]) : null
    return v !== null && v >= low && v <= high ? v : null
  }

function bandOf(text: string): string | null {
  const named = /\b(?:(?:lte|band|e-utra)\s*)?(b|n)\s?(\d{1,3})\b/i.exec(text)
  if (named) return `${nth(named, 1).toLowerCase() === 'n' ? 'n' : 'B'}${Number(named[2])}`
  const bare = /^\s*(?:band\s*)?(\d{1,3})\b(?!\s*[.,]?\d*\s*mhz)/i.exec(text)
  return bare ? `B${Number(bare[1])}` : null
}

/** A cell's number: with `0x` or a letter in it it is hexadecimal, else decimal as lists have it. */
function cellOf(text: string): string | null {
  const [, prefix, digits] = /\b(0x)?([0-9a-f]{3,11})\b/i.exec(text) ?? []
  if (!digits) return null
  if (prefix || /[a-f]/i.test(digits)) return cellFromHex(digits, 'NR')
  return Number(digits) < 2 ** 36 ? String(Number(digits)) : null
}

/** The order matters: RSRP before RSRQ before RSSI, `cell` before the rest of the line. */
const NAMED: readonly Named[] = [
  { field: 'rsrpDbm', names: /\b(?:ss[-_ ]?)?rsrp\b/i, read: within(-160, -20) },
  { field: 'rsrqDb', names: /\b(?:ss[-_ ]?)?rsrq\b/i, read: within(-50, 20) },
  { field: 'sinrDb', names: /\b(?:ss[-_ ]?)?(?:sinr|snr|rs[-_ ]?sinr)\b/i, read: within(-30, 60) },
  { field: 'rssiDbm', names: /\brssi\b/i, read: within(-125, -20) },
  {
    field: 'cellId',
    names: /\b(?:cell[-_ ]?id(?:entity)?|eci|nci|enb[-_ ]?cell|global[-_ ]?cell[-_ ]?id|cgi)\b/i,
    read: cellOf,
  },
  { field: 'bandwidthMHz', names: /\b(?:band[-_ ]?width|bw|channel width)\b/i, read: within(1.4, 100) },
  { field: 'band', names: /\b(?:band|active band|lte band)\b/i, read: bandOf },
  {
    field: 'technology',
    names: /\b(?:network (?:type|mode)|technology|rat|access)\b/i,
    read: text => (/\b(?:nr|5g)\b/i.test(text) ? 'NR' : /\b(?:lte|4g|e-utra)/i.test(text) ? 'LTE' : null),
  },
]

/** A page is no longer than this, characters. */
const LONGEST = 100_000

/** @throws RangeError where the text is longer than a page */
export function readStatusPage(text: string): PageRead {
  if (text.length > LONGEST) throw new RangeError('That is longer than any status page.')
  const figures: PageFigures = {
    rsrpDbm: null,
    rsrqDb: null,
    sinrDb: null,
    rssiDbm: null,
    band: null,
    bandwidthMHz: null,
    cellId: null,
    technology: null,
  }
  const notUnderstood: string[] = []
  const several = new Set<string>()
  for (const { name, value, line } of pairsOf(text)) {
    const known = NAMED.find(n => n.names.test(name))
    const read = known ? known.read(value) : null
    if (!known || read === null) {
      if (/\d/.test(value)) notUnderstood.push(line.slice(0, 120))
      continue
    }
    const old = figures[known.field]
    if (old === null) (figures[known.field] as number | string | null) = read
    else if (old !== read) several.add(known.field)
  }
  return { figures, notUnderstood, several: [...several] }
}

/** `name: value`, the value to the end, to a comma that parts no decimals, or to the next name. */
const MANY = /([a-z][a-z0-9_ /-]{1,30}?)\s*[:=]\s*([^;|:=]+?)(?=$|,(?!\d)|[;|]|\s+[a-z][a-z0-9_/-]{1,20}\s*[:=])/gi

/** Names with what stands behind them: on one line, parted by a colon, a tab or wide space; or one under the other. */
function pairsOf(text: string): { name: string; value: string; line: string }[] {
  const lines = text
    .split(/\r?\n/)
    .map(l => l.trim())
    .filter(Boolean)
  const out: { name: string; value: string; line: string }[] = []
  for (let i = 0; i < lines.length; i++) {
    const line = nth(lines, i)
    // Several on one line: `RSRP: -97 dBm, SINR: 7 dB` or `RSRP=-97 RSRQ=-11`.
    const many = [...line.matchAll(MANY)]
    if (many.length) {
      for (const m of many) out.push({ name: nth(m, 1), value: nth(m, 2), line })
      continue
    }
    const apart = /^(.*?)(?:\t+| {2,})(.+)$/.exec(line)
    if (apart) out.push({ name: nth(apart, 1), value: nth(apart, 2), line })
    else if (/\d/.test(line) && /[a-z]/i.test(line) && NAMED.some(n => n.names.test(line))) {
      const m = /^(.*?[a-z)])\s+([-−+]?\d.*|[bn]\d+.*)$/i.exec(line)
      if (m) out.push({ name: nth(m, 1), value: nth(m, 2), line })
    } else if (!/\d/.test(line) && lines[i + 1] && /^[-−+]?\d|^(?:0x|b|n)\d/i.test(nth(lines, i + 1))) {
      out.push({ name: line, value: nth(lines, i + 1), line: `${line} ${nth(lines, i + 1)}` })
      i++
    }
  }
  return out
}
