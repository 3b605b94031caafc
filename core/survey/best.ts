/** The best spot so far, by how much, and whether that is more than chance. */
import { inOneGo } from './difference'
import type { SpotSummary } from './spots'
import type { Summary } from './stats'
import { median, NINE_IN_TEN, sigmaOfMedian, summarise } from './stats'

export interface BestSpot {
  best: SpotSummary
  next: SpotSummary
  quantity: 'SINR' | 'RSRP'
  byDb: number
  /** the difference is outside what nine in ten repeats would bring by chance */
  beyondNoise: boolean
}

/** Readings so far apart are of two visits, ms: what shades one reading of a visit shades them all. */
const VISIT_MS = 15 * 60_000

export const visitsOf = <T extends { takenAtUtc: string }>(readings: readonly T[]): T[][] => inOneGo(readings, VISIT_MS)

/** One figure of each visit: its median. */
const ofVisits = (readings: SpotSummary['readings'], figure: 'sinrDb' | 'rsrpDbm'): Summary | null =>
  summarise(visitsOf(readings.filter(r => r[figure] !== null)).map(v => median(v.map(r => r[figure]!))))

/** Spread of one visit where it was not repeated, dB. @source common practice (no source) */
const ONE_READING_DB = 2

/**
 * Compares the spots read on one band, by SINR where both have it, else by RSRP.
 * @returns null where fewer than two were read
 */
export function bestSpot(summaries: readonly SpotSummary[], band: string | null): BestSpot | null {
  const read = summaries.filter(s => s.rsrp && (band === null || s.band === band))
  if (read.length < 2) return null
  const bySinr = read.every(s => s.sinr)
  const of = (s: SpotSummary): Summary => (bySinr ? s.sinr! : s.rsrp!)
  const [best, next] = [...read].sort((a, b) => of(b).median - of(a).median) as [SpotSummary, SpotSummary]
  const byDb = of(best).median - of(next).median
  const sigmaOf = (s: SpotSummary) => sigmaOfMedian(ofVisits(s.readings, bySinr ? 'sinrDb' : 'rsrpDbm'), ONE_READING_DB)
  const sigma = Math.hypot(sigmaOf(best), sigmaOf(next))
  return { best, next, quantity: bySinr ? 'SINR' : 'RSRP', byDb, beyondNoise: byDb > NINE_IN_TEN * sigma }
}

/** Thirds of a dwell whose medians differ by less than this have settled, dB. Assumed. */
const SETTLED_DB = 0.7

/** @returns whether what is heard at one place has stopped drifting: its last third against the one before */
export function hasSettled(values: readonly number[]): boolean {
  const third = Math.floor(values.length / 3)
  if (third < 3) return false
  return Math.abs(median(values.slice(-third)) - median(values.slice(-2 * third, -third))) < SETTLED_DB
}
