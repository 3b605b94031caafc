/** How freely the straight ray passes the ground. */
import type { Profile } from './profile'
import { positive } from '../check'

const EARTH_RADIUS_M = 6_371_000

/** @returns first Fresnel zone radius, m. @source √(λ·d1·d2/(d1+d2)), common geometry */
export const fresnelRadiusM = (wavelengthM: number, d1M: number, d2M: number): number =>
  Math.sqrt((wavelengthM * d1M * d2M) / (d1M + d2M))

/** @returns earth bulge above the chord, m. @source d1·d2/(2·k·Re), Re 6371 km */
export const earthBulgeM = (d1M: number, d2M: number, k = 4 / 3): number => (d1M * d2M) / (2 * k * EARTH_RADIUS_M)

/** @returns radio horizon, km, of two antennas over a smooth 4/3 earth, heights in m. @source 4.12(√h1+√h2), common practice */
export const radioHorizonKm = (h1M: number, h2M: number): number => 4.12 * (Math.sqrt(h1M) + Math.sqrt(h2M))

export interface Clearance {
  /** smallest clearance as a share of the first Fresnel radius; negative where ground stands above the ray */
  ratio: number
  /** metres between ray and ground there; negative where blocked */
  clearM: number
  /** metres from the first point */
  atM: number
}

/**
 * The tightest place along the ray, by share of the first Fresnel radius. 0.6 and more is clear enough.
 * @param fromM, toM  antenna heights above sea level at the ends, m
 * @source ITU-R P.526-15 §2 (60 % of the first zone), from memory
 */
export function tightestClearance(
  profile: Profile,
  fromM: number,
  { toM, frequencyMHz, k = 4 / 3 }: { toM: number; frequencyMHz: number; k?: number },
): Clearance {
  const wavelengthM = 299.792458 / positive('frequencyMHz', frequencyMHz)
  const total = profile.totalM
  let best: Clearance = { ratio: Infinity, clearM: Infinity, atM: 0 }
  for (let i = 1; i < profile.distanceM.length - 1; i++) {
    const d1 = profile.distanceM[i]!
    const d2 = total - d1
    const ray = fromM + ((toM - fromM) * d1) / total
    const clearM = ray - profile.groundM[i]! - earthBulgeM(d1, d2, k)
    const ratio = clearM / fresnelRadiusM(wavelengthM, d1, d2)
    if (ratio < best.ratio) best = { ratio, clearM, atM: d1 }
  }
  return best
}
