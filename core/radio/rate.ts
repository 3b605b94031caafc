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
 * Mbit/s of a whole carrier nobody else uses. A second layer adds where two feeds bring it:
 * both then share the power, so each runs at 3 dB less.
 * @source layer split: equal-power MIMO without water-filling, common practice (no source)
 */
export function carrierRateMbps(sinrDb: number, bandwidthMHz: number, layers: 1 | 2, link: LinkAbstraction = DOWNLINK): number {
  positive('bandwidthMHz', bandwidthMHz)
  const one = spectralEfficiency(sinrDb, link)
  const best = layers === 2 ? Math.max(one, 2 * spectralEfficiency(sinrDb - 3.01, link)) : one
  return best * bandwidthMHz
}
