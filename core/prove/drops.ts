/** Drop-outs of a link watched for a while: how many an hour, and how sure that is; and what a failover drill showed. */
import type { LogIndex } from '../survey/spots'
import type { Made, Phase } from '../survey/setups'
import type { Watch } from '../job/schema'
import { finite, inRange } from '../check'
import { num } from '../units'

export interface DropsProof {
  watchedH: number
  drops: number
  perHour: number
  /** the true rate is below this nine times in ten */
  atMostPerHour: number
  longestS: number
  /** share of the time that the link was there, 0…1 */
  up: number
  words: string
}

/** What is left above it: nine in ten. */
const ABOVE = 0.1
const HOUR_S = 3600

/** Probability of so many events or fewer where `mean` are expected. */
function poissonCdf(count: number, mean: number): number {
  let term = Math.exp(-mean)
  let sum = term
  for (let k = 1; k <= count; k++) {
    term *= mean / k
    sum += term
  }
  return sum
}

/**
 * @returns the mean at which so few events or fewer come one time in ten
 * @source exact limits of a Poisson count, Garwood 1936
 */
export function mostExpected(count: number): number {
  inRange('count', count, 0, 100_000)
  // For very many the normal curve serves, and nothing overflows.
  if (count > 400) return count + 1.2816 * Math.sqrt(count) + 1
  let [low, high] = [0, count + 10 + 5 * Math.sqrt(count)]
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (poissonCdf(count, mid) > ABOVE) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** @returns null where nothing was watched in that phase */
export function dropsOf(log: Pick<LogIndex, 'watches'>, phase: Phase): DropsProof | null {
  const rows = log.watches.filter(w => w.kind === 'watch' && w.phase === phase && w.seconds > 0)
  if (!rows.length) return null
  const seconds = rows.reduce((s, w) => s + w.seconds, 0)
  const drops = rows.reduce((s, w) => s + w.drops, 0)
  const lostS = rows.reduce((s, w) => s + w.lostS, 0)
  const watchedH = finite('watched', seconds / HOUR_S)
  const atMostPerHour = mostExpected(drops) / watchedH
  const longestS = Math.max(...rows.map(w => w.longestS))
  return {
    watchedH,
    drops,
    perHour: drops / watchedH,
    atMostPerHour,
    longestS,
    up: Math.max(0, 1 - lostS / seconds),
    words:
      `${countWords(drops)} in ${spanWords(seconds)}${drops ? `, the longest ${num(longestS)} s` : ''}: ` +
      `fewer than ${num(atMostPerHour, atMostPerHour < 10 ? 1 : 0)} an hour, nine in ten`,
  }
}

/** @returns `no drop-out`, `one drop-out`, `7 drop-outs` */
export const countWords = (drops: number): string => (drops === 1 ? 'one drop-out' : drops ? `${drops} drop-outs` : 'no drop-out')

/** @returns `40 s`, `12 min`, `3.5 h` */
export function spanWords(seconds: number): string {
  if (seconds < 100) return `${num(seconds)} s`
  return seconds < 2 * HOUR_S ? `${num(seconds / 60)} min` : `${num(seconds / HOUR_S, 1)} h`
}

/** @returns what the last failover drill showed, in words; null where none was made */
export function drillWords(log: Pick<LogIndex, 'watches'>): string | null {
  const last = log.watches.filter(w => w.kind === 'drill').at(-1)
  return last ? wordsOfDrill(last) : null
}

export function wordsOfDrill(d: Pick<Made<Watch>, 'switchS' | 'backS' | 'broke'>): string {
  if (d.switchS === null) return 'main line pulled: no way took over'
  const back = d.backS === null ? 'the way back was not waited for' : `back on the main line ${num(d.backS)} s after its return`
  return `main line pulled: the other way answered after ${num(d.switchS)} s, ${back}${d.broke ? `; ${d.broke}` : ''}`
}
