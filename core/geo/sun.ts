/** Where the sun stands, to aim by it where a compass cannot be trusted. */
import * as SunCalc from 'suncalc'
import type { Position } from './geodesic'
import { normalise360, turn } from './angles'

/**
 * @returns azimuth, degrees true 0…360, and altitude, degrees; refraction is left out (0.5° at the
 *   horizon, under 0.1° above 10°; it moves the altitude only, not the azimuth)
 * @source suncalc, after J. Meeus, Astronomical Algorithms
 */
export function sunPosition(at: Position, when: Date): { azimuthDeg: number; altitudeDeg: number } {
  const p = SunCalc.getPosition(when, at.latDeg, at.lonDeg)
  return { azimuthDeg: normalise360(p.azimuth), altitudeDeg: p.altitude }
}

/**
 * The bearing given relative to the sun: `turnDeg` clockwise (right) of it.
 * @returns null while the sun is below 1°, or above 75°, where its azimuth moves too fast to aim by
 */
export function relativeToSun(
  at: Position,
  when: Date,
  bearingDeg: number,
): { turnDeg: number; sunAzimuthDeg: number; sunAltitudeDeg: number } | null {
  const sun = sunPosition(at, when)
  if (sun.altitudeDeg < 1 || sun.altitudeDeg > 75) return null
  return { turnDeg: turn(sun.azimuthDeg, bearingDeg), sunAzimuthDeg: sun.azimuthDeg, sunAltitudeDeg: sun.altitudeDeg }
}
