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

/**
 * Median loss between isotropic antennas, dB: Okumura-Hata below 1500 MHz, COST-231 to 2000 MHz
 * (towns only: COST gives no open-area term, so Hata's own is carried on and said).
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
  const mobile =
    i.largeCity && i.surroundings === 'urban'
      ? f >= 300
        ? 3.2 * Math.log10(11.75 * hm) ** 2 - 4.97
        : 8.29 * Math.log10(1.54 * hm) ** 2 - 1.1
      : (1.1 * logF - 0.7) * hm - (1.56 * logF - 0.8)
  const slope = (44.9 - 6.55 * Math.log10(hb)) * Math.log10(d)
  const urban =
    f <= 1500
      ? 69.55 + 26.16 * logF - 13.82 * Math.log10(hb) - mobile + slope
      : 46.3 + 33.9 * logF - 13.82 * Math.log10(hb) - mobile + slope + (i.largeCity && i.surroundings === 'urban' ? 3 : 0)
  if (i.surroundings === 'suburban') return urban - 2 * Math.log10(f / 28) ** 2 - 5.4
  if (i.surroundings === 'open') return urban - 4.78 * logF ** 2 + 18.33 * logF - 40.94
  return urban
}

/** @returns the model's name for a frequency, and whether the formula was made for it */
export const hataName = (frequencyMHz: number): string => (frequencyMHz <= 1500 ? 'Okumura-Hata' : 'COST-231-Hata')
