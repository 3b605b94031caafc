/** Failover tests by their clocks: how long until the other answered, how long until the way back, and what broke. */
import type { Failover } from '../job/schema'
import { median } from '../survey/stats'
import { num } from '../units'

type Clocks = Pick<Failover, 'pulledAtUtc' | 'answeredAtUtc' | 'backInAtUtc' | 'backAtUtc'>
const secondsBetween = (from: string | null, to: string | null): number | null =>
  from === null || to === null ? null : Math.max(0, (Date.parse(to) - Date.parse(from)) / 1000)

/** @returns from taken away to the first answer by another, s; null while none answered */
export const switchedS = (t: Clocks): number | null => secondsBetween(t.pulledAtUtc, t.answeredAtUtc)
/** @returns from its return to the first answer by it again, s; null while none came */
export const returnedS = (t: Clocks): number | null => secondsBetween(t.backInAtUtc, t.backAtUtc)
/** Under way: what is timed next; null once it is over. */
export const waitsFor = (t: Clocks): 'answer' | 'putting back' | 'way back' | null =>
  t.backAtUtc ? null : t.backInAtUtc ? 'way back' : t.answeredAtUtc ? 'putting back' : 'answer'

/** A test left so long is over, whatever it waited for, s. */
const GIVEN_UP_S = 3600
export const isUnderWay = (t: Clocks & Pick<Failover, 'withdrawn'>, nowUtc: string): boolean =>
  !t.withdrawn && waitsFor(t) !== null && (Date.parse(nowUtc) - Date.parse(t.backInAtUtc ?? t.pulledAtUtc)) / 1000 < GIVEN_UP_S

export interface FailoverSummary {
  connectionId: string
  tests: Failover[]
  last: Failover
  /** of those in which another answered, s */
  switchS: { low: number; median: number; high: number; count: number } | null
  /** nothing answered at the last one */
  failed: boolean
}

/** @returns what the tests of each connection say, those under way and withdrawn left out */
export function failoversOf(rows: readonly Failover[], nowUtc: string): FailoverSummary[] {
  const over = rows.filter(t => !t.withdrawn && !isUnderWay(t, nowUtc))
  const ids = [...new Set(over.map(t => t.connectionId))]
  return ids.map(connectionId => {
    const tests = over
      .filter(t => t.connectionId === connectionId)
      .sort((a, b) => a.pulledAtUtc.localeCompare(b.pulledAtUtc) || a.id.localeCompare(b.id))
    const last = tests[tests.length - 1]!
    const times = tests.flatMap(t => switchedS(t) ?? [])
    return {
      connectionId,
      tests,
      last,
      switchS: times.length
        ? { low: Math.min(...times), median: median(times), high: Math.max(...times), count: times.length }
        : null,
      failed: last.answeredAtUtc === null,
    }
  })
}

/** @returns one test in words, by its clocks alone */
export function failoverWords(t: Failover, name: string): string {
  const [s, back] = [switchedS(t), returnedS(t)]
  if (s === null) return `${name}, ${t.how}: nothing took over`
  const returned = back === null ? 'the way back was not waited for' : `back on it ${num(back)} s after its return`
  return `${name}, ${t.how}: the other answered after ${num(s)} s, ${returned}${t.broke ? `; broke: ${t.broke}` : ''}`
}
