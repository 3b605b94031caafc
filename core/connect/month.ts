/** What a month takes of a plan: expected of what hangs on it, told by what was counted so far, and the day it runs out. */
import { finite } from '../check'
import type { Appliance, Connection } from '../job/schema'

/** Typical of an hour's use, MB, both ways. The data of a stream is 0.45 GB an hour for each Mbit/s. */
export const MB_HOUR: Record<NonNullable<Appliance['usage']>, { mb: number; source: string }> = {
  'films': { mb: 2250, source: 'at 5 Mbit/s; common practice (no source)' },
  'calls with picture': { mb: 1350, source: '1.5 Mbit/s each way; common practice (no source)' },
  'calls': { mb: 72, source: '80 kbit/s each way, as G.711 in packets of 20 ms' },
  'work': { mb: 150, source: 'common practice (no source)' },
  'camera': { mb: 450, source: 'at 1 Mbit/s while it sends; common practice (no source)' },
  'music': { mb: 72, source: 'at 160 kbit/s; common practice (no source)' },
  'updates': { mb: 400, source: 'common practice (no source)' },
  'little': { mb: 10, source: 'common practice (no source)' },
}
/** Of whom nobody said for how long. Assumed. */
const HOURS_DAY = 2

/** @returns MB a day of one; 0 where nothing was said of what it does */
export const mbDayOf = (a: Pick<Appliance, 'usage' | 'hoursDay' | 'mbHour'>): number =>
  a.mbHour === null && a.usage === null ? 0 : (a.mbHour ?? MB_HOUR[a.usage!].mb) * (a.hoursDay ?? HOURS_DAY)

/** @returns GB that a stream takes, of its rate and hours */
export const streamGb = (mbps: number, hours: number): number => finite('stream', 0.45 * mbps * hours)

/** @returns MB a day of what hangs on the networks, as far as a connection may carry it */
export function mbDayCarried(rows: readonly Appliance[], carries: Connection['carries']): number {
  if (carries === 'only its check') return 0
  return rows
    .filter(a => carries === 'everything' || !a.tunnel)
    .filter(a => carries !== 'calls and mail' || a.usage === 'calls' || a.usage === 'little' || a.usage === 'work')
    .reduce((s, a) => s + mbDayOf(a), 0)
}

export interface DayUse {
  /** of the period, from 1 */
  day: number
  mb: number
}
export interface MonthView {
  allowanceGb: number
  days: number
  /** used so far, and until which day of the period that was counted; 0 where nothing was */
  usedGb: number
  countedTo: number
  /** at the end of the period: the middle, and eight times in ten within */
  endGb: { low: number; mid: number; high: number }
  /** 0…1 that the allowance does not last */
  runsOutChance: number
  /** of the period, as things go: null where it lasts */
  runsOutDay: number | null
}

/** Days' use scatters by so much of its mean where too few were counted to tell. Assumed. */
const SCATTER = 0.6
const FEW = 5
const EIGHT_IN_TEN = 1.2816

/** Share of the normal curve below z. @source Abramowitz and Stegun 26.2.17, to 7.5e-8 */
export function below(z: number): number {
  const t = 1 / (1 + 0.231_641_9 * Math.abs(z))
  const poly = t * (0.319_381_53 + t * (-0.356_563_782 + t * (1.781_477_937 + t * (-1.821_255_978 + t * 1.330_274_429))))
  const tail = (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * poly
  return z >= 0 ? 1 - tail : tail
}

/**
 * @param expectedMbDay  of what hangs on it and its check; the days not counted yet follow it where nothing was counted
 * @returns null where there is no allowance to run out
 * @throws RangeError where the allowance is not above 0
 */
export function monthOf(
  { allowanceGb, days, expectedMbDay }: { allowanceGb: number | null; days: number; expectedMbDay: number },
  counted: readonly DayUse[],
): MonthView | null {
  if (allowanceGb === null) return null
  if (!(allowanceGb > 0)) throw new RangeError('an allowance is above 0 GB')
  const within = counted.filter(d => d.day >= 1 && d.day <= days)
  const countedTo = Math.max(0, ...within.map(d => d.day))
  const usedMb = within.reduce((s, d) => s + d.mb, 0)
  const mean = countedTo ? usedMb / countedTo : expectedMbDay
  const spread = scatterOf(within, countedTo, mean)
  const left = days - countedTo
  // Days to come scatter, and so does what a day is on average.
  const sd = spread * Math.sqrt(left + (countedTo ? left ** 2 / countedTo : left ** 2 * 0.25))
  const mid = usedMb + mean * left
  const allowanceMb = allowanceGb * 1000
  const runsOutChance =
    usedMb >= allowanceMb ? 1 : left === 0 ? 0 : sd > 0 ? below((mid - allowanceMb) / sd) : mid > allowanceMb ? 1 : 0
  return {
    allowanceGb,
    days,
    usedGb: usedMb / 1000,
    countedTo,
    endGb: {
      low: Math.max(usedMb, mid - EIGHT_IN_TEN * sd) / 1000,
      mid: mid / 1000,
      high: (mid + EIGHT_IN_TEN * sd) / 1000,
    },
    runsOutChance,
    runsOutDay: runsOut(within, { countedTo, usedMb, mean, allowanceMb, days }),
  }
}

/** @returns standard deviation of a day's use, MB: days without a row used nothing */
function scatterOf(counted: readonly DayUse[], countedTo: number, mean: number): number {
  if (countedTo < FEW) return mean * SCATTER
  const mbOn = new Map<number, number>()
  for (const d of counted) mbOn.set(d.day, (mbOn.get(d.day) ?? 0) + d.mb)
  let sum = 0
  for (let day = 1; day <= countedTo; day++) sum += ((mbOn.get(day) ?? 0) - mean) ** 2
  return Math.sqrt(sum / (countedTo - 1))
}

function runsOut(
  counted: readonly DayUse[],
  {
    countedTo,
    usedMb,
    mean,
    allowanceMb,
    days,
  }: { countedTo: number; usedMb: number; mean: number; allowanceMb: number; days: number },
): number | null {
  if (usedMb >= allowanceMb) {
    let sum = 0
    for (const d of [...counted].sort((a, b) => a.day - b.day)) {
      sum += d.mb
      if (sum >= allowanceMb) return d.day
    }
  }
  if (mean <= 0) return null
  const day = countedTo + Math.ceil((allowanceMb - usedMb) / mean)
  return day <= days ? day : null
}

/** @returns the rate that an allowance lasts the days at, day and night, Mbit/s. @source GB = 0.45 · Mbit/s · h */
export const lastingMbps = (gb: number, days: number): number => finite('rate', gb / (0.45 * days * 24))

/**
 * @returns first day of the period that a day lies in, and how many days it has. A reset day that a month does not have is its
 *   last day.
 */
export function periodOf(day: string, resetDay: number | null): { from: string; days: number } {
  const reset = resetDay ?? 1
  const [y, m, d] = day.split('-').map(Number) as [number, number, number]
  const lastOfMonth = (year: number, month: number): number => new Date(Date.UTC(year, month, 0)).getUTCDate()
  const startIn = (year: number, month: number): number => Date.UTC(year, month - 1, Math.min(reset, lastOfMonth(year, month)))
  const at = Date.UTC(y, m - 1, d)
  let [year, month] = [y, m]
  if (startIn(year, month) > at) [year, month] = month === 1 ? [year - 1, 12] : [year, month - 1]
  const from = startIn(year, month)
  const to = month === 12 ? startIn(year + 1, 1) : startIn(year, month + 1)
  return { from: new Date(from).toISOString().slice(0, 10), days: Math.round((to - from) / 86_400_000) }
}
