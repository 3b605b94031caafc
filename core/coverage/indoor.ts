import { inRange, positive } from '../check'

/**
 * Distance power loss coefficient of a home, by frequency.
 * @source ITU-R P.1238 table 2, from memory: residential 28 at 1.8–2 GHz; 900 MHz office 33, taken as 28 here (no residential entry)
 */
export const RESIDENTIAL_N = 28

/** @source ITU-R P.1238 table 3, from memory: floor penetration, residential, 4 dB a floor at 1.8–2 GHz */
export const FLOOR_LOSS_DB = 4

/**
 * Loss from an inside antenna to a phone in the same building, isotropic to isotropic.
 *
 * Below 1 m the formula is held at 1 m. Walls are inside the coefficient; shadowing of about 8 dB
 * (one standard deviation) is left out here and carried as the figure's width.
 *
 * @param floors  floors between, >= 0
 * @returns loss, dB, >= 0
 * @source ITU-R P.1238: 20·log f + N·log d + Lf(n) − 28
 */
export function indoorLossDb(distanceM: number, frequencyMHz: number, floors: number): number {
  positive('frequencyMHz', frequencyMHz)
  inRange('floors', floors, 0, 50)
  const d = Math.max(positive('distanceM', distanceM), 1)
  return 20 * Math.log10(frequencyMHz) + RESIDENTIAL_N * Math.log10(d) + FLOOR_LOSS_DB * floors - 28
}

/** One standard deviation of indoor levels about the formula, dB. @source ITU-R P.1238, residential 1.8–2 GHz: 8 dB, from memory */
export const INDOOR_SIGMA_DB = 8

/** Loss through an outside wall and window, dB. Assumed until inside and outside are both read. @source common practice (no source) */
export const ENTRY_LOSS_DB = 12
