/** One reading is noise: medians and their spread. */
import { finite } from '../check'

export interface Summary {
  count: number
  median: number
  low: number
  high: number
  spread: number
}

/** @returns the p-quantile, 0…1, linear between order statistics. @source R's type 7, Hyndman and Fan 1996 */
export function quantile(values: readonly number[], p: number): number {
  if (!values.length) throw new RangeError('quantile needs at least one value')
  const s = [...values].sort((a, b) => a - b)
  const i = (s.length - 1) * p
  const low = Math.floor(i)
  const high = Math.ceil(i)
  return s[low]! + (s[high]! - s[low]!) * (i - low)
}

export const median = (values: readonly number[]): number => quantile(values, 0.5)

/** @returns median with the full range; null where there is nothing */
export function summarise(values: readonly (number | null | undefined)[]): Summary | null {
  const real = values.filter((v): v is number => typeof v === 'number' && Number.isFinite(v))
  if (!real.length) return null
  const low = Math.min(...real)
  const high = Math.max(...real)
  return { count: real.length, median: median(real), low, high, spread: high - low }
}

/**
 * Standard deviation of a median from few values, by the range; where only one was taken, `single`.
 * @source range / d2, d2 of Shewhart's control-chart constants (ASTM E2587): 1.128, 1.693, 2.059, 2.326, 2.534 …
 */
export function sigmaOfMedian(s: Summary | null, single: number): number {
  if (!s) return single
  const d2 = [0, 0, 1.128, 1.693, 2.059, 2.326, 2.534, 2.704, 2.847, 2.97, 3.078]
  if (s.count < 2) return single
  const sigma = s.spread / d2[Math.min(s.count, 10)]!
  return (Math.max(sigma, single / 3) * 1.2533) / Math.sqrt(s.count)
}

/** @returns change in percent; null where there is no before. @source (after/before − 1)·100 */
export const changePercent = (before: number, after: number): number | null =>
  finite('before', before) === 0 ? null : (finite('after', after) / before - 1) * 100

/**
 * The ratio of two figures each shown to a step, as the range it can truly be.
 * @param step  smallest step the display shows, so that 0.1 at step 0.1 may be 0.05…0.15
 * @returns null where the before may have been nothing
 */
export function ratioRange(before: number, after: number, step: number): { low: number; mid: number; high: number } | null {
  const h = step / 2
  if (before - h <= 0) return null
  return { low: Math.max(0, after - h) / (before + h), mid: after / before, high: (after + h) / (before - h) }
}

/**
 * Whether speeds look like the plan's cap rather than the radio: the best of each side within 6 % of
 * the same round figure in both directions.
 * @returns the figure, Mbit/s, or null
 */
export function looksCapped(downMbps: readonly number[], upMbps: readonly number[]): number | null {
  if (downMbps.length < 2 || upMbps.length < 2) return null
  const d = Math.max(...downMbps)
  const u = Math.max(...upMbps)
  for (const cap of [1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 100]) {
    if (Math.abs(d / cap - 1) < 0.06 && Math.abs(u / cap - 1) < 0.06) return cap
  }
  return null
}
