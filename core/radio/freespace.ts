import { positive } from '../check'

/** Speed of light, m/s (exact). */
export const LIGHT_M_S = 299_792_458

/** @returns wavelength, m */
export const wavelengthM = (frequencyMHz: number): number => LIGHT_M_S / (positive('frequencyMHz', frequencyMHz) * 1e6)

/**
 * Free-space loss between isotropic antennas, dB.
 * @source 20·log10(4πd/λ); ITU-R P.525 prints 32.4 + 20·log f + 20·log d, 0.05 dB lower
 */
export function freeSpaceLossDb(distanceM: number, frequencyMHz: number): number {
  return 20 * Math.log10((4 * Math.PI * positive('distanceM', distanceM)) / wavelengthM(frequencyMHz))
}
