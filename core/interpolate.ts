/**
 * A value between points of a table, by straight lines.
 *
 * @param points  in rising order of their first figure, at least one; others after the second are not read
 * @returns the value at `x`; that of the first or last point outside them
 */
import { lastOf } from './sure'
export function onLine(points: readonly (readonly [x: number, y: number, ...rest: number[]])[], x: number): number {
  const above = points.findIndex(([at]) => at >= x)
  if (above < 0) return lastOf(points)[1]
  const [to, high] = points[above]!
  const [from, low] = points[Math.max(0, above - 1)]!
  return to === from ? high : low + (Math.max(0, x - from) / (to - from)) * (high - low)
}
