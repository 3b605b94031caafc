import { inRange, positive } from '../check'

/**
 * Distance power loss coefficient of a home, by frequency.
 * @source ITU-R P.1238 table 2, from memory: residential 28 at 1.8–2 GHz; 900 MHz office 33, taken as 28 here (no residential entry)
 */
export const RESIDENTIAL_N = 28
/** Where the inside walls are drawn, each is counted by itself. @source ITU-R P.1238 table 2, open plan 18–22, from memory */
export const OPEN_N = 21

/**
 * Loss from an inside antenna to a phone in the same building, isotropic to isotropic, but for the surfaces between.
 *
 * Below 1 m the formula is held at 1 m. Where inside walls are not drawn they are within the coefficient; shadowing of
 * about 8 dB (one standard deviation) is left out here and carried as the figure's width.
 *
 * @param crossedDb  slabs and drawn walls on the straight line, >= 0
 * @returns loss, dB, >= 0
 * @source ITU-R P.1238: 20·log f + N·log d − 28, its floor term replaced by the slabs of the building
 */
export function indoorLossDb(distanceM: number, frequencyMHz: number, crossedDb: number, n = RESIDENTIAL_N): number {
  positive('frequencyMHz', frequencyMHz)
  inRange('crossedDb', crossedDb, 0, 1000)
  const d = Math.max(positive('distanceM', distanceM), 1)
  return 20 * Math.log10(frequencyMHz) + n * Math.log10(d) + crossedDb - 28
}

/** One standard deviation of indoor levels about the formula, dB. @source ITU-R P.1238, residential 1.8–2 GHz: 8 dB, from memory */
export const INDOOR_SIGMA_DB = 8
