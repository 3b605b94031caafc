import { inRange, positive } from '../check'

/** Free space: what a way without any wall falls by. */
const FREE_N = 20
/** Wi-Fi among the walls of a home, each counted by itself. @source ITU-R P.1238 table 2, open plan 18–22, from memory */
export const OPEN_N = 21

export interface IndoorWay {
  distanceM: number
  frequencyMHz: number
  /** distance power loss coefficient with ordinary walls in it, 20 and more */
  n: number
  /** slabs, the roof and outside walls on the straight line, dB */
  slabsDb?: number
  /** walls drawn inside on the straight line, dB */
  wallsDb?: number
}

/**
 * Loss from an inside antenna to a phone in the same building, isotropic to isotropic.
 *
 * Ordinary walls are allowed for as the coefficient has them, over free space: (n − 20)·log d. Walls that are drawn stand
 * in the place of that allowance as soon as they take more: a wall drawn never makes a room better, and the first one
 * drawn changes nothing at once. Below 1 m the formula is held at 1 m. Shadowing of about 8 dB (one standard deviation)
 * is left out here and carried as the figure's width.
 *
 * @returns loss, dB, >= 0
 * @source ITU-R P.1238: 20·log f + N·log d − 28, its floor term replaced by the slabs of the building; with walls drawn
 *   free space and each wall by itself (P.1238, P.2040), from memory; the larger of the two is our own
 */
export function indoorLossDb({ distanceM, frequencyMHz, n, slabsDb = 0, wallsDb = 0 }: IndoorWay): number {
  positive('frequencyMHz', frequencyMHz)
  inRange('slabsDb', slabsDb, 0, 1000)
  inRange('wallsDb', wallsDb, 0, 1000)
  inRange('n', n, FREE_N, 60)
  const decades = Math.log10(Math.max(positive('distanceM', distanceM), 1))
  return 20 * Math.log10(frequencyMHz) - 28 + FREE_N * decades + slabsDb + Math.max(wallsDb, (n - FREE_N) * decades)
}

/** One standard deviation of indoor levels about the formula, dB. @source ITU-R P.1238, residential 1.8–2 GHz: 8 dB, from memory */
export const INDOOR_SIGMA_DB = 8
