/** How much of what an inside antenna sends comes back to a donor. */
import { RULE_OF_THUMB } from './rule-of-thumb'
import { finite, inRange, positive } from '../check'
import { freeSpaceLossDb, wavelengthM } from '../radio/freespace'
import { toRad } from '../geo/angles'
import { toDb, toLinear } from '../radio/levels'

/**
 * Isolation of two antennas side by side, by the quick rule.
 * @param gainTowardSumDb  gains of both antennas toward each other, added, dBi
 * @source 22 + 20·log10(d/λ) − (G1 + G2), the far field of two antennas, common practice
 */
export const horizontalIsolationDb = (distanceM: number, frequencyMHz: number, gainTowardSumDb: number): number =>
  22 + 20 * Math.log10(positive('distanceM', distanceM) / wavelengthM(frequencyMHz)) - finite('gainTowardSumDb', gainTowardSumDb)

/** Isolation of two antennas one above the other, on one axis. @source 28 + 40·log10(d/λ), common practice */
export const verticalIsolationDb = (distanceM: number, frequencyMHz: number): number =>
  28 + 40 * Math.log10(positive('distanceM', distanceM) / wavelengthM(frequencyMHz))

/** The quick rule between the two. @source slant (Iv − Ih)·θ/90° + Ih, common practice */
export function slantIsolationDb(alongM: number, upM: number, frequencyMHz: number, gainTowardSumDb: number): number {
  const lambda = wavelengthM(frequencyMHz)
  // Each rule takes its own component, held at its nearest valid distance so that a small one cannot run to −∞.
  const horizontalDb = horizontalIsolationDb(
    Math.max(inRange('alongM', alongM, 0, 1e5), lambda / 2),
    frequencyMHz,
    gainTowardSumDb,
  )
  const verticalDb = verticalIsolationDb(Math.max(Math.abs(finite('upM', upM)), lambda / 2), frequencyMHz)
  const angleDeg = (Math.atan2(Math.abs(upM), alongM) * 180) / Math.PI
  return ((verticalDb - horizontalDb) * angleDeg) / 90 + horizontalDb
}

/** By ways that no line of sight shows: walls, trees, people, the ground. Assumed. */
export const SCATTER_DB = 25
/** Share of what the straight line crosses that a scattered way must cross too. Assumed. */
const SCATTER_CROSSES = 0.5

export interface IsolationInput {
  distanceM: number
  frequencyMHz: number
  /** each antenna's gain toward the other, dBi */
  gainTowardDbi: readonly [number, number]
  /** every surface that the straight line crosses, dB */
  crossedDb: number
  /** of sheets hung on that line, dB: they do nothing for the scattered way */
  sheetsDb?: number
  /** by how the two are fitted, dB: it does nothing for the scattered way, which turns as it goes */
  crossedPolarDb?: number
  /** of two that stand upright: degrees of one above the other; null where one is fitted otherwise */
  uprightElevationDeg?: number | null
}

export interface Isolation {
  isolationDb: number
  /** by the straight line alone: free space, both patterns, what stands between, dB */
  directDb: number
  /** by scattered ways, dB */
  scatteredDb: number
  /** by the near field along their axis, dB; null where they do not both stand upright */
  axialDb: number | null
}

/**
 * Two half-wave dipoles on one axis, end to end: their near field along it, where each pattern has its hole.
 * @source 31.5 + 40·log10(d/λ), method of moments, within 0.25 dB from 1.5 λ
 */
export const endToEndIsolationDb = (distanceM: number, frequencyMHz: number): number =>
  31.5 + 40 * Math.log10(positive('distanceM', distanceM) / wavelengthM(frequencyMHz))

/**
 * The same off the axis: the field along one rod falls with the square of the cosine on both.
 * @source near field of a short dipole, E ∥ z ∝ 2·cos²θ/(kr)²
 */
const axial = (distanceM: number, frequencyMHz: number, elevationDeg: number): number =>
  endToEndIsolationDb(distanceM, frequencyMHz) - 40 * Math.log10(Math.max(1e-6, Math.abs(Math.sin(toRad(elevationDeg)))))

/**
 * Free space with both patterns and every surface between, joined as powers with a scattered way and, of two that
 * stand upright, the near field along their axis.
 *
 * @throws RangeError where the antennas are in the same place
 * @source free space ITU-R P.525; the scattered way: free space at the same distance between isotropic
 *   antennas, 25 dB more, and half the dB that the straight line crosses (assumed)
 */
export function isolation(o: IsolationInput): Isolation {
  const { distanceM, frequencyMHz, gainTowardDbi, crossedDb, sheetsDb = 0, crossedPolarDb = 0, uprightElevationDeg = null } = o
  const air = freeSpaceLossDb(positive('distance between the antennas', distanceM), frequencyMHz)
  inRange('crossedDb', crossedDb, 0, 500)
  const directDb =
    air -
    finite('gain', gainTowardDbi[0]) -
    finite('gain', gainTowardDbi[1]) +
    crossedDb +
    finite('sheetsDb', sheetsDb) +
    crossedPolarDb
  const scatteredDb = air + SCATTER_DB + SCATTER_CROSSES * crossedDb
  const axialDb = uprightElevationDeg === null ? null : axial(distanceM, frequencyMHz, uprightElevationDeg) + crossedDb + sheetsDb
  const ways = [directDb, scatteredDb, ...(axialDb === null ? [] : [axialDb])]
  return { isolationDb: -toDb(ways.reduce((sum, db) => sum + toLinear(-db), 0)), directDb, scatteredDb, axialDb }
}

/** What the sum is good to until it is measured, dB, one standard deviation. @source ±6 dB, 1σ about 4, assumed */
export const ISOLATION_SIGMA_DB = 4

/** @returns whether they stand far enough apart for far-field sums: 3 wavelengths along or one up, and 2D²/λ */
export function inFarField(alongM: number, upM: number, sizeM: number, frequencyMHz: number): boolean {
  const lambda = wavelengthM(frequencyMHz)
  const distanceM = Math.hypot(alongM, upM)
  return (alongM >= 3 * lambda || Math.abs(upM) >= lambda) && distanceM >= (2 * sizeM ** 2) / lambda
}

/**
 * Gain left unused so that people and doors moving do not start an oscillation: 10 dB for an amplifier
 * that watches itself and lowers its gain, 15 for one that does not.
 * @source 10–20 dB in use, common practice (no source)
 */
export const marginFor = (part: { gainDb: number; lowestGainDb: number }): number => (part.lowestGainDb < part.gainDb ? 10 : 15)

export const meetsRuleOfThumb = (alongM: number, upM: number): boolean =>
  Math.abs(upM) >= RULE_OF_THUMB.upM || alongM >= RULE_OF_THUMB.alongM

export type LoopState = 'stable' | 'held back' | 'oscillating'

/**
 * What the amplifier does at this isolation.
 *
 * Stable where isolation covers gain and margin; held back where an amplifier that measures its own
 * loop lowers its gain until it does; oscillating where its gain cannot come down that far.
 *
 * @param lowestGainDb  the least gain it can set itself to; equal to `gainDb` for one with no control
 * @returns gain left, dB, and what is held back, dB
 */
export function willOscillate(
  isolationDb: number,
  gainDb: number,
  marginDb: number,
  lowestGainDb: number,
): { state: LoopState; gainDb: number; heldBackDb: number } {
  finite('isolationDb', isolationDb)
  inRange('marginDb', marginDb, 0, 60)
  inRange('lowestGainDb', lowestGainDb, 0, Math.max(gainDb, 0))
  const allowed = isolationDb - marginDb
  if (allowed >= gainDb) return { state: 'stable', gainDb, heldBackDb: 0 }
  if (allowed >= lowestGainDb) return { state: 'held back', gainDb: allowed, heldBackDb: gainDb - allowed }
  return { state: 'oscillating', gainDb: 0, heldBackDb: gainDb }
}

/**
 * The least move of one antenna, in one direction, at which isolation reaches what is needed.
 *
 * @param isolationAt  isolation after moving by x metres; it must not fall as x grows beyond the answer
 * @param limitM  as far as is worth looking
 * @returns metres, to 0.1, or null where no move within the limit is enough
 */
export function leastMove(isolationAt: (xM: number) => number, neededDb: number, limitM: number): number | null {
  let low = 0
  let high = -1
  for (let x = 0; x <= limitM + 1e-9; x += 0.25) {
    if (isolationAt(x) >= neededDb) {
      high = x
      break
    }
    low = x
  }
  if (high < 0) return null
  while (high - low > 0.02) {
    const mid = (low + high) / 2
    if (isolationAt(mid) >= neededDb) high = mid
    else low = mid
  }
  return Math.max(0, Math.ceil(high * 10 - 1e-6)) / 10
}

/** Distance power coefficient by which a lost dB shrinks the area that is served. @source ITU-R P.1238, residential, from memory */
const AREA_N = 28
/**
 * @returns the share of the area that is still served with so many dB less, 0…1
 * @source 10^(−2Δ/(10n)), n = 2.8; only while isolation, not output power, is the limit
 */
export const servedShare = (lostDb: number): number => 10 ** ((-2 * Math.max(0, lostDb)) / AREA_N)
