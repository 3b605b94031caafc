/** How an antenna is turned about its own axis, and what two that are turned differently keep from each other. */

import { onLine } from '../interpolate'
import type { Polarisation } from '../job/part'

/** Crossed at right angles: degrees off the axis, decibels that part them. */
const CROSSED: readonly (readonly [deg: number, db: number])[] = [
  [0, 20],
  [30, 20],
  [45, 15],
  [60, 9.5],
  [90, 0],
]
/** What 45° between two of them takes. */
const HALF_DB = 3

/**
 * What two antennas keep from each other by how they are fitted, dB.
 *
 * @param offDeg  how far off the axis of the one that is farther off, 0…180; nothing is left from 90° on
 * @source method of moments: 20 dB and more on the axis, 3.0 at 45° between them, 23, 15, 9.5 dB at 30, 45, 60° off it;
 *   20 is taken for the 23, and nothing behind (assumed)
 */
export function crossedPolarDb(a: Polarisation, b: Polarisation, offDeg: number): number {
  if (a === b) return 0
  const crossed = onLine(CROSSED, offDeg)
  return a === 'slant' || b === 'slant' ? Math.min(HALF_DB, crossed) : crossed
}
