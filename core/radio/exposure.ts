/** How near to an antenna people may be. */
import { finite, positive } from '../check'

export type ExposureRule = 'ICNIRP 2020' | 'FCC OET 65'

/**
 * Power density that the general public may stand in for long, W/m².
 *
 * @source ICNIRP 2020, table 5: f/200 from 400 to 2000 MHz, 10 above; FCC OET 65, table 1(B): f/1500 mW/cm² from 300 to
 *   1500 MHz, 1 mW/cm² above; both from memory. They differ between 300 and 2000 MHz.
 * @throws RangeError below 400 MHz and above 100 GHz, where neither formula holds
 */
export function publicLimitWm2(rule: ExposureRule, frequencyMHz: number): number {
  const f = positive('frequencyMHz', frequencyMHz)
  if (f < 400 || f > 100_000) throw new RangeError(`frequencyMHz must be within 400…100000, got ${f}`)
  if (rule === 'ICNIRP 2020') return f < 2000 ? f / 200 : 10
  return f < 1500 ? (f / 1500) * 10 : 10
}

/** @returns power density at a distance in the beam, W/m². @source EIRP/(4πd²), free space, far field */
export const densityWm2 = (eirpDbm: number, distanceM: number): number =>
  10 ** ((finite('eirpDbm', eirpDbm) - 30) / 10) / (4 * Math.PI * positive('distanceM', distanceM) ** 2)

export interface Radiated {
  eirpDbm: number
  frequencyMHz: number
}

/**
 * Distance at which all that an antenna sends together just keeps the limit, m: the shares of each band's limit add.
 * @source ICNIRP 2020, simultaneous exposure: Σ S_i/S_limit,i <= 1, from memory
 */
export const keepAwayM = (rule: ExposureRule, sent: readonly Radiated[]): number =>
  Math.sqrt(sent.reduce((sum, r) => sum + densityWm2(r.eirpDbm, 1) / publicLimitWm2(rule, r.frequencyMHz), 0))
