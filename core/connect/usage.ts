/** A file of what went over a connection: read by its columns, gathered by day and by hour. */
import { parseNumber } from '../formats/csv'
import { nth } from '../sure'

export interface UsageMapping {
  /** columns, from 0: the day or instant, and those whose data are added up, down and up */
  when: number
  data: number[]
  /** MB in a unit of those columns */
  mbOf: number
}
export interface UsageDayRead {
  onDay: string
  mb: number
  /** MB in each hour; null where its rows have no time of day */
  hours: number[] | null
}
export interface UsageRead {
  days: UsageDayRead[]
  /** rows that could not be read, with the first reason */
  left: number
  why: string | null
}

const UNITS: [RegExp, number][] = [
  [/\b(gb|gigabytes?)\b/i, 1000],
  [/\bgib\b/i, 1073.741_824],
  [/\bmib\b/i, 1.048_576],
  [/\b(kb|kilobytes?)\b/i, 0.001],
  [/\b(bytes?|b)\b/i, 1e-6],
  [/\b(mb|megabytes?)\b/i, 1],
]
const words = (header: string): string => header.replace(/[_()[\]./-]+/g, ' ')

/** @returns columns proposed by the header's words; null where none says a day or none says data */
export function proposeUsage(header: readonly string[]): UsageMapping | null {
  const when = header.findIndex(h => /\b(date|day|time|start|from|timestamp|hour)\b/i.test(words(h)))
  const isData = (h: string) =>
    /\b(down|up|download|upload|received|sent|rx|tx|data|usage|used|total|volume|traffic|bytes|mb|gb|kb|mib|gib)\b/i.test(
      words(h),
    )
  const all = header.flatMap((h, i) => (i !== when && isData(h) ? [i] : []))
  // A total counts both ways already.
  const totals = all.filter(i => /\b(total|volume|usage|used)\b/i.test(words(nth(header, i))))
  const data = totals.length ? totals.slice(0, 1) : all
  if (when < 0 || !data.length) return null
  const unit = UNITS.find(([r]) => data.some(i => r.test(words(nth(header, i)))))
  return { when, data, mbOf: unit?.[1] ?? 1 }
}

/** `2026-11-03`, `2026-11-03 14:00`, `03.11.2026`, `03/11/2026 14:05`: the day first where it is not the year. */
const YEAR_FIRST = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ](\d{1,2})(?::\d{2}){0,2}.*)?$/
const DAY_FIRST = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4})(?:[T ](\d{1,2})(?::\d{2}){0,2}.*)?$/

/** @throws RangeError where it is no day */
function dayOf(text: string): { onDay: string; hour: number | null } {
  const clean = text.trim()
  const a = YEAR_FIRST.exec(clean)
  const b = a ? null : DAY_FIRST.exec(clean)
  const [y, m, d, h] = a ? [a[1], a[2], a[3], a[4]] : b ? [b[3], b[2], b[1], b[4]] : []
  if (!y || !m || !d) throw new RangeError(`“${clean.slice(0, 40)}” is no day`)
  const onDay = `${y}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`
  const at = new Date(`${onDay}T00:00:00Z`)
  if (Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== onDay)
    throw new RangeError(`“${clean.slice(0, 40)}” is no day`)
  const hour = h === undefined ? null : Number(h)
  if (hour !== null && hour > 23) throw new RangeError(`“${clean.slice(0, 40)}” is no time of day`)
  return { onDay, hour }
}

/** @returns days in order, each with its hours where every row of it has a time; rows that say nothing are counted, not guessed */
export function usageFrom(rows: readonly (readonly string[])[], mapping: UsageMapping): UsageRead {
  const days = new Map<string, { mb: number; hours: number[] | null }>()
  let [left, why] = [0, null as string | null]
  for (const r of rows) {
    try {
      const { onDay, hour } = dayOf(r[mapping.when] ?? '')
      const mb = mapping.data.reduce((s, i) => s + (parseNumber(r[i] ?? '') ?? 0), 0) * mapping.mbOf
      if (!(mb >= 0) || mb > 1e8) throw new RangeError(`${mb} MB is no amount of data`)
      const day = days.get(onDay) ?? { mb: 0, hours: Array.from({ length: 24 }, () => 0) }
      day.mb += mb
      if (hour === null) day.hours = null
      else if (day.hours) day.hours[hour] = nth(day.hours, hour) + mb
      days.set(onDay, day)
    } catch (e) {
      left++
      why ??= e instanceof Error ? e.message : String(e)
    }
  }
  const round = (v: number): number => Math.round(v * 1000) / 1000
  return {
    days: [...days]
      .map(([onDay, { mb, hours }]) => ({ onDay, mb: round(mb), hours: hours?.map(round) ?? null }))
      .sort((a, b) => a.onDay.localeCompare(b.onDay)),
    left,
    why,
  }
}
