/** One reading is noise: medians and their spread. */
import { nth } from '../sure'
import { finite } from '../check'

/** Standard deviations either way that hold nine in ten of normal values. */
export const NINE_IN_TEN = 1.645

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
  return quantileOfSorted(Float64Array.from(values).sort(), p)
}

/** The same of values already in order, at least one. */
export function quantileOfSorted(s: Float64Array, p: number): number {
  const i = (s.length - 1) * p
  const low = Math.floor(i)
  const high = Math.ceil(i)
  return nth(s, low) + (nth(s, high) - nth(s, low)) * (i - low)
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
  const sigma = s.spread / nth(d2, Math.min(s.count, 10))
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
export function ratioRange(
  before: number,
  after: number,
  step: number,
  stepAfter = step,
): { low: number; mid: number; high: number } | null {
  const h = step / 2
  const k = stepAfter / 2
  if (before - h <= 0) return null
  return { low: Math.max(0, after - k) / (before + h), mid: after / before, high: (after + k) / (before - h) }
}

/** @returns the step a figure was shown to, by its decimals: 0.04 to 0.01, 4.9 to 0.1, 26 to 1 where `coarsest` allows */
export function stepOf(value: number, coarsest = 0.1): number {
  for (const step of [1, 0.1, 0.01]) if (step <= coarsest && Math.abs(value / step - Math.round(value / step)) < 1e-6) return step
  return 0.01
}
