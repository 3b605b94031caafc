/** Okumura-Hata and COST-231-Hata: a second opinion from measured towns, where the terrain method has only ground. */
import { inRange } from '../check'

export type Surroundings = 'urban' | 'suburban' | 'open'

export interface HataInput {
  frequencyMHz: number
  /** antenna of the mast above the mean ground 3 to 15 km out, m, 30…200 */
  baseM: number
  /** antenna at the site above its ground, m, 1…10 */
  mobileM: number
  distanceKm: number
  surroundings: Surroundings
  /** a large city has its own term for the mobile's height */
  largeCity?: boolean
}

/** Above this the formula is COST 231's, MHz. */
const COST_FROM_MHZ = 1500

/**
 * Median loss between isotropic antennas, dB: Okumura-Hata to 1500 MHz, COST-231 to 2000 MHz.
 *
 * COST-231 knows two cases, each with the small and medium city's term for the mobile's height: medium
 * cities and suburbs (C = 0), metropolitan centres (C = 3). It has no term for open country: there its
 * suburban figure is given, and `hataCase` says so.
 *
 * Left out: the ridges of this very path, entry loss, trees.
 *
 * @throws RangeError outside 150…2000 MHz, base 30…200 m, mobile 1…10 m, 1…20 km
 * @source M. Hata, IEEE Trans. VT-29 (1980); COST 231 final report §4.4; from memory. Large-city
 *   switch at 300 MHz (another text: 200/400); open-area constant 40.94
 */
export function hataLossDb(i: HataInput): number {
  const f = inRange('frequencyMHz', i.frequencyMHz, 150, 2000)
  const hb = inRange('baseM', i.baseM, 30, 200)
  const hm = inRange('mobileM', i.mobileM, 1, 10)
  const d = inRange('distanceKm', i.distanceKm, 1, 20)
  const logF = Math.log10(f)
  const medium = (1.1 * logF - 0.7) * hm - (1.56 * logF - 0.8)
  const large = f >= 300 ? 3.2 * Math.log10(11.75 * hm) ** 2 - 4.97 : 8.29 * Math.log10(1.54 * hm) ** 2 - 1.1
  const metropolitan = i.largeCity === true && i.surroundings === 'urban'
  const slope = (44.9 - 6.55 * Math.log10(hb)) * Math.log10(d)
  const height = 13.82 * Math.log10(hb)
  if (f > COST_FROM_MHZ) return 46.3 + 33.9 * logF - height - medium + slope + (metropolitan ? 3 : 0)
  const urban = 69.55 + 26.16 * logF - height - (metropolitan ? large : medium) + slope
  if (i.surroundings === 'suburban') return urban - 2 * Math.log10(f / 28) ** 2 - 5.4
  if (i.surroundings === 'open') return urban - 4.78 * logF ** 2 + 18.33 * logF - 40.94
  return urban
}

/** @returns the surroundings that the formula really speaks of at a frequency */
export const hataCase = (frequencyMHz: number, surroundings: Surroundings): Surroundings =>
  frequencyMHz > COST_FROM_MHZ && surroundings === 'open' ? 'suburban' : surroundings

/** @returns the model's name for a frequency */
export const hataName = (frequencyMHz: number): string => (frequencyMHz <= COST_FROM_MHZ ? 'Okumura-Hata' : 'COST-231-Hata')
