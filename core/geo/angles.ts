/** Angles on a circle, degrees. Bearings run clockwise from north, 0…360. */
import { finite } from '../check'

const RAD = Math.PI / 180

export const toRad = (deg: number): number => deg * RAD
export const toDeg = (rad: number): number => rad / RAD

/** @returns the same direction within 0 ≤ x < 360 */
export function normalise360(deg: number): number {
  const r = finite('angleDeg', deg) % 360
  return r < 0 ? (r + 360) % 360 : r + 0
}

/** @returns how far to turn from `fromDeg` to `toDeg_`, −180 < x ≤ 180, clockwise positive */
export function turn(fromDeg: number, toDeg_: number): number {
  const d = normalise360(toDeg_ - fromDeg)
  return d > 180 ? d - 360 : d
}

/** @returns the angle between two directions, 0…180 */
export const angleBetween = (aDeg: number, bDeg: number): number => Math.abs(turn(aDeg, bDeg))

/**
 * Mean direction and how tightly the directions agree.
 * @param weights  one per direction, >= 0; all equal where left out
 * @returns `resultant` 0 (scattered) … 1 (all the same); `meanDeg` is null where the mean is undefined
 * @source K. V. Mardia, Directional Statistics, ch. 2: resultant of unit vectors
 */
export function circularMean(
  directionsDeg: readonly number[],
  weights?: readonly number[],
): { meanDeg: number | null; resultant: number } {
  let x = 0
  let y = 0
  let total = 0
  directionsDeg.forEach((deg, i) => {
    const w = weights?.[i] ?? 1
    x += w * Math.cos(toRad(deg))
    y += w * Math.sin(toRad(deg))
    total += w
  })
  if (total === 0) return { meanDeg: null, resultant: 0 }
  const resultant = Math.hypot(x, y) / total
  return { meanDeg: resultant < 1e-9 ? null : normalise360(toDeg(Math.atan2(y, x))), resultant }
}

/** @returns bearing less heading, 0…360: 0 dead ahead, 90 to the right */
export const relativeBearing = (bearingDeg: number, headingDeg: number): number => normalise360(bearingDeg - headingDeg)
