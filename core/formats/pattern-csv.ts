/** A measured antenna pattern as a table: angle, and how far below the peak across and upright. */
import { entryOf, lastOf, nth, sure } from '../sure'
import { parseNumber } from './csv'

export interface MeasuredPattern {
  azimuthDb: number[]
  elevationDb: number[]
}

/** Degrees between two samples that a plane is kept at, and a gap that is no pattern any more. */
const STEP_DEG = 5
const WIDEST_GAP_DEG = 15

/**
 * Reads rows of angle, azimuth and elevation; a level is how far under the peak, signed either way.
 * Angles run all round, from 0 to 360 or −180 to 180, in elevation upward from the axis.
 *
 * @param rows  cells of a table, headings left out
 * @throws RangeError where an angle is missing for more than 15°, or a figure cannot be read
 */
export function readPattern(rows: readonly (readonly string[])[]): MeasuredPattern {
  const azimuth = new Map<number, number>()
  const elevation = new Map<number, number>()
  rows.forEach((cells, i) => {
    const [angle, across, upright] = cells.map(c => (c.trim() === '' ? null : read(c, i)))
    if (angle === null || angle === undefined) return
    const at = ((angle % 360) + 360) % 360
    if (across !== null && across !== undefined) azimuth.set(at, Math.abs(across))
    if (upright !== null && upright !== undefined) elevation.set(at, Math.abs(upright))
  })
  return { azimuthDb: resampled(azimuth, 'azimuth'), elevationDb: resampled(elevation, 'elevation') }
}

function read(cell: string, row: number): number {
  try {
    return sure(parseNumber(cell))
  } catch (e) {
    throw new RangeError(`row ${row + 1}: ${e instanceof Error ? e.message : String(e)}`)
  }
}

/** Even steps all round, in a straight line between the samples; the peak is 0. */
function resampled(samples: ReadonlyMap<number, number>, plane: string): number[] {
  const angles = [...samples.keys()].sort((a, b) => a - b)
  if (angles.length < 2) throw new RangeError(`the ${plane} has no samples`)
  angles.forEach((a, i) => {
    const next = angles[i + 1] ?? nth(angles, 0) + 360
    if (next - a > WIDEST_GAP_DEG)
      throw new RangeError(`the ${plane} has a hole from ${a}° to ${next % 360}°: ${WIDEST_GAP_DEG}° at most`)
  })
  const least = Math.min(...samples.values())
  return Array.from({ length: 360 / STEP_DEG }, (_, k) => {
    const at = k * STEP_DEG
    const after = angles.findIndex(a => a >= at)
    const high = after < 0 ? nth(angles, 0) + 360 : nth(angles, after)
    const low = after === 0 ? lastOf(angles) - 360 : nth(angles, (after < 0 ? angles.length : after) - 1)
    const [from, to] = [entryOf(samples, ((low % 360) + 360) % 360), entryOf(samples, high % 360)]
    const share = high === low ? 0 : (at - low) / (high - low)
    return Math.round((from + share * (to - from) - least) * 100) / 100
  })
}
