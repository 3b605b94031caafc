/** Levels of a carrier: what each quantity is of, and how one becomes another. */
import { positive } from '../check'

export const toLinear = (db: number): number => 10 ** (db / 10)
export const toDb = (ratio: number): number => 10 * Math.log10(ratio)

/** @returns the sum of powers, dBm */
export const sumDbm = (levels: readonly number[]): number => toDb(levels.reduce((s, l) => s + toLinear(l), 0))

/**
 * RSRP (one resource element) to the whole carrier's power at full load, one antenna port.
 * Two ports add up to 3 dB; does not hold for beam-formed NR reference signals.
 * @source 12 subcarriers a resource block, 3GPP TS 36.211 §5.2.3 / 36.214 §5.1.1
 */
export const rsrpToTotalDbm = (rsrpDbm: number, resourceBlocks: number): number =>
  rsrpDbm + toDb(12 * positive('resourceBlocks', resourceBlocks))
export const totalToRsrpDbm = (totalDbm: number, resourceBlocks: number): number =>
  totalDbm - toDb(12 * positive('resourceBlocks', resourceBlocks))

/** @returns RSRQ, dB. @source 3GPP TS 36.214 §5.1.3: N·RSRP/RSSI */
export const rsrqDb = (rsrpDbm: number, rssiDbm: number, resourceBlocks: number): number =>
  toDb(positive('resourceBlocks', resourceBlocks)) + rsrpDbm - rssiDbm

/** @returns thermal noise in a bandwidth, dBm. @source −174 dBm/Hz at 290 K */
export const noiseDbm = (bandwidthHz: number, noiseFigureDb: number): number =>
  -174 + toDb(positive('bandwidthHz', bandwidthHz)) + noiseFigureDb

/** Receiver noise figure taken where the part's own is not known, dB. @source 3GPP TR 36.942 table 4.8 (UE 9 dB) */
export const RECEIVER_NF_DB = 9

/** @returns receiver noise in one resource element, dBm: −123.2 at NF 9 dB and 15 kHz */
export const noisePerElementDbm = (noiseFigureDb = RECEIVER_NF_DB, subcarrierKHz = 15): number =>
  noiseDbm(subcarrierKHz * 1000, noiseFigureDb)

/**
 * Splits what was read into the receiver's own noise and everything else.
 * @returns interference per resource element, dBm; −Infinity where the reading leaves none
 */
export function interferenceDbm(rsrpDbm: number, sinrDb: number, noiseDbm_ = noisePerElementDbm()): number {
  const other = toLinear(rsrpDbm - sinrDb) - toLinear(noiseDbm_)
  return other > 0 ? toDb(other) : -Infinity
}

/** @returns SINR, dB, of a level over interference and noise, all per resource element */
export const sinrDb = (rsrpDbm: number, interferenceDbm_: number, noiseDbm_: number): number =>
  rsrpDbm - toDb((interferenceDbm_ === -Infinity ? 0 : toLinear(interferenceDbm_)) + toLinear(noiseDbm_))
