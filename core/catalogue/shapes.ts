/** How parts of a kind radiate where no plane of theirs was measured. */
import { onLine } from '../interpolate'

/**
 * A vertical element under a disk below 1 GHz: a doughnut, its hole straight down and up. Decibels under the peak from
 * straight down to straight up, each 15°.
 * @source method of moments, wire models: 1.4 dBi level, 0.5 at 30° up, −0.8 at 45°, −3.4 at 60°, −8.8 at 75°; −3 at 30°
 *   off straight down, −8.5 at 15°; what lies between is drawn through them, and cable and clamp fill
 *   the hole itself to −10 dBi (both assumed)
 */
export const DOME_LOW_DB: readonly number[] = [11.4, 9.9, 4.4, 1.8, 0.7, 0.15, 0, 0.25, 0.9, 2.2, 4.8, 10.2, 11.4]

/**
 * The same element above 1.3 GHz, where the disk is wide enough to throw downward.
 * @source method of moments: peak at 45° down, 4.5 dB less level; the rest assumed
 */
export const DOME_MID_DB: readonly number[] = [9, 4.5, 1.2, 0, 0.8, 2.4, 4.5, 7, 9, 10, 11, 12, 13]
export const DOME_TURNS_MHZ = 1300

/** An antenna on a metal roof, by elevation: degrees above the horizon, decibels under its peak. */
const OVER_METAL: readonly (readonly [deg: number, db: number])[] = [
  [-90, 25],
  [-45, 20],
  [-20, 13],
  [-10, 9],
  [0, 5],
  [10, 1.6],
  [20, 0],
  [30, 0.6],
  [45, 2.5],
  [60, 5.5],
  [75, 10],
  [90, 18],
]

/**
 * The same as a plane, each 5° from the horizon upward and on round the back, alike on both sides.
 * @source method of moments: at the horizon its peak less 5 dB, the peak at 15–25° up; the rest assumed
 */
export const OVER_METAL_DB: readonly number[] = Array.from({ length: 72 }, (_, i) => {
  const round = i * 5
  const deg = round <= 90 ? round : round <= 270 ? 180 - round : round - 360
  return onLine(OVER_METAL, deg)
})

/**
 * The most that a panel's back lies under its front below 1 GHz, where it is hardly wider than a wavelength.
 * @param widthM  of its reflector
 * @source 18.8 + 23.9·log10(width/λ), fitted to method-of-moments models of panels
 */
export const panelBackDb = (widthM: number, wavelengthM: number): number =>
  Math.max(0, 18.8 + 23.9 * Math.log10(widthM / wavelengthM))
