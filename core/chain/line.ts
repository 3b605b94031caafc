import { finite, inRange, positive } from '../check'

export interface LineConstants {
  /** conductor loss, dB per 100 m at 1 MHz; grows with √f */
  k1: number
  /** dielectric loss, dB per 100 m per MHz */
  k2: number
}

/**
 * Attenuation of a coaxial line, matched at both ends.
 *
 * Conductor loss grows with the root of frequency, dielectric loss with frequency itself;
 * connectors are counted separately.
 *
 * @param line  the line's two loss constants, dB/100 m at 1 MHz (`k1`) and per MHz (`k2`)
 * @param lengthM  physical length, m, >= 0
 * @param frequencyMHz  carrier, MHz, > 0
 * @returns loss, dB, >= 0
 * @throws RangeError  where a number is not finite or out of range
 * @source two-term line model, common practice; constants per line in `catalogue/parts.ts`
 */
export function lineLossDb(line: LineConstants, lengthM: number, frequencyMHz: number): number {
  inRange('lengthM', lengthM, 0, 10_000)
  inRange('k1', line.k1, 0, 100)
  inRange('k2', line.k2, 0, 10)
  positive('frequencyMHz', frequencyMHz)
  return ((line.k1 * Math.sqrt(frequencyMHz) + line.k2 * frequencyMHz) * lengthM) / 100
}

/** @returns loss by reflection at a mismatch, dB. @source −10·log10(1 − |Γ|²), |Γ| = (VSWR − 1)/(VSWR + 1) */
export function mismatchLossDb(vswr: number): number {
  inRange('VSWR', vswr, 1, 1e6)
  const gamma = (vswr - 1) / (vswr + 1)
  return -10 * Math.log10(1 - gamma * gamma)
}

/** @returns VSWR where two impedances meet, >= 1 */
export function vswrOf(aOhm: number, bOhm: number): number {
  positive('impedance', aOhm)
  positive('impedance', bOhm)
  return Math.max(aOhm / bOhm, bOhm / aOhm)
}

/**
 * @returns an ideal splitter's loss to each of n ports, dB, plus what real parts add.
 * @source 10·log10 n; excess 0.2–1 dB, common practice
 */
export const splitterLossDb = (ports: number, excessDb = 0.5): number =>
  10 * Math.log10(inRange('ports', ports, 1, 64)) + finite('excessDb', excessDb)

/**
 * Loss straight through a tap, and down its side, dB.
 * @source lossless −10·log10(1 − 10^(−C/10)) through and C down the side; real parts add 0.1–0.5 dB, common practice
 */
export function tapLossDb(couplingDb: number, excessDb = 0.3): { throughDb: number; tapDb: number } {
  inRange('couplingDb', couplingDb, 0.5, 60)
  return {
    throughDb: -10 * Math.log10(1 - 10 ** (-couplingDb / 10)) + finite('excessDb', excessDb),
    tapDb: couplingDb + excessDb,
  }
}

export interface Stage {
  gainDb: number
  noiseFigureDb: number
}

/**
 * Noise figure of a cascade, dB, first stage first. A matched loss at room temperature is a stage
 * of negative gain whose noise figure equals its loss.
 * @source H. T. Friis, Noise figures of radio receivers, Proc. IRE 32 (1944)
 */
export function cascadeNoiseFigureDb(stages: readonly Stage[]): number {
  let factor = 1
  let gain = 1
  for (const s of stages) {
    factor += (10 ** (finite('noiseFigureDb', s.noiseFigureDb) / 10) - 1) / gain
    gain *= 10 ** (finite('gainDb', s.gainDb) / 10)
  }
  return 10 * Math.log10(factor)
}

/** Noise figure of a passive loss. */
export const lossStage = (lossDb: number): Stage => ({ gainDb: -lossDb, noiseFigureDb: lossDb })
