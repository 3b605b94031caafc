/**
 * Rate from SINR: Shannon's bound, attenuated and cut off.
 * @source 3GPP TR 36.942 annex A.1: α 0.6 down and 0.4 up, 4.4 and 2.0 bit/s/Hz at most, nothing below −10 dB
 */
import { positive } from '../check'
import { toLinear } from './levels'

export interface LinkAbstraction {
  alpha: number
  ceilingBitPerHz: number
  floorDb: number
}

export const DOWNLINK: LinkAbstraction = { alpha: 0.6, ceilingBitPerHz: 4.4, floorDb: -10 }
export const UPLINK: LinkAbstraction = { alpha: 0.4, ceilingBitPerHz: 2.0, floorDb: -10 }

/** @returns bit/s/Hz of one layer, >= 0 */
export function spectralEfficiency(sinrDb: number, link: LinkAbstraction = DOWNLINK): number {
  if (sinrDb < link.floorDb) return 0
  return Math.min(link.ceilingBitPerHz, link.alpha * Math.log2(1 + toLinear(sinrDb)))
}

/**
 * Each of two layers runs at this much less than one alone: 3 dB for the power they share and 3 for what they leak
 * into each other, so that the second begins to pay at 9 dB of SINR.
 * @source modems go over to two layers at some 8–12 dB, common practice (no source)
 */
const TWO_LAYERS_DB = 6.02

/** Mbit/s of a whole carrier nobody else uses. A second layer adds where two feeds bring it and the SINR carries it. */
export function carrierRateMbps(sinrDb: number, bandwidthMHz: number, layers: 1 | 2, link: LinkAbstraction = DOWNLINK): number {
  positive('bandwidthMHz', bandwidthMHz)
  const one = spectralEfficiency(sinrDb, link)
  const best = layers === 2 ? Math.max(one, 2 * spectralEfficiency(sinrDb - TWO_LAYERS_DB, link)) : one
  return best * bandwidthMHz
}
