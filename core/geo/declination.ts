/** Magnetic declination: what turns a true bearing into the one on the roof's compass. */
import geomagnetism from 'geomagnetism'
import { normalise360 } from './angles'
import type { Position } from './geodesic'
import { inRange } from '../check'

export interface Declination {
  /** degrees, east positive */
  declinationDeg: number
  /** one standard deviation, degrees */
  uncertaintyDeg: number
  /** horizontal field, nT */
  horizontalNt: number
  /** `unsure` below 6,000 nT, `useless` below 2,000 nT */
  compass: 'good' | 'unsure' | 'useless'
}

const FIRST = Date.UTC(2024, 10, 13)
const LAST = Date.UTC(2029, 10, 13)

/**
 * @throws RangeError for a date outside the model the library holds, or a position off the globe
 * @source World Magnetic Model 2025 through the geomagnetism library; uncertainty √(0.26² + (5417/H)²)
 *   and the 6,000 and 2,000 nT zones from memory of the model's report
 */
export function declination(at: Position, date: Date): Declination {
  inRange('latitudeDeg', at.latDeg, -90, 90)
  inRange('longitudeDeg', at.lonDeg, -180, 180)
  const t = date.getTime()
  if (!(t >= FIRST && t < LAST)) {
    throw new RangeError(
      `date must be within 2024-11-13…2029-11-12, the magnetic model's span, got ` +
        `${Number.isNaN(t) ? 'no date' : date.toISOString().slice(0, 10)}`,
    )
  }
  const field = geomagnetism.model(date).point([at.latDeg, at.lonDeg])
  return {
    declinationDeg: field.decl,
    uncertaintyDeg: Math.hypot(0.26, 5417 / field.h),
    horizontalNt: field.h,
    compass: field.h < 2000 ? 'useless' : field.h < 6000 ? 'unsure' : 'good',
  }
}

/** @returns magnetic bearing = true − declination, 0…360 */
export const trueToMagnetic = (trueDeg: number, declinationDeg: number): number => normalise360(trueDeg - declinationDeg)

/** @returns true bearing = magnetic + declination, 0…360 */
export const magneticToTrue = (magneticDeg: number, declinationDeg: number): number => normalise360(magneticDeg + declinationDeg)
