/**
 * How fast a device sends: its power by what it hears, what arrives at the mast, and the rate of that. A device far off
 * is at its limit, and every dB of a better antenna counts; one that is near sends less power instead, and hardly gains.
 *
 * @source power of the shared channel 3GPP TS 36.213 §5.1.1.1, from memory; rate 3GPP TR 36.942 annex A
 */
import { noiseDbm, toDb } from '../radio/levels'
import { carrierRateMbps, UPLINK } from '../radio/rate'

/** Of the sending device: power wanted at the mast for one block, dBm, and the part of the path loss that is made up for. */
export interface PowerControl {
  p0Dbm: number
  alpha: number
}

/** As usual, with one standard deviation. Assumed: networks set it and tell nobody. */
export const USUAL_CONTROL: PowerControl = { p0Dbm: -95, alpha: 0.9 }
export const CONTROL_SIGMA: PowerControl = { p0Dbm: 4, alpha: 0.03 }

/** Fewer send than load: of the cell, what is left for one more sender, where so much is left for one more who loads. Assumed. */
export const shareUp = (share: number): number => 0.5 + 0.5 * share

/** Losses between device and mast, dB: by what the device hears, and on the way up. They differ behind a booster. */
export interface WayUp {
  heardDb: number
  upDb: number
  /** what a booster's ceiling lets the device send at most, dBm; left out where there is none */
  mostDbm?: number
}

/** Device at its limit, dBm. @source power class 3, 3GPP TS 36.101 */
const DEVICE_DBM = 23
/** Rise of the noise at the mast by its other users, and its receiver's noise figure, dB. Assumed. */
const NOISE_RISE_DB = 3
const MAST_NF_DB = 5
const BLOCK_MHZ = 0.18
const NOISE_DBM = noiseDbm(BLOCK_MHZ * 1e6, MAST_NF_DB) + NOISE_RISE_DB
/** A mast gives a weak device fewer blocks, so that its power is spread less thin: so many halvings of the whole carrier. */
const HALVINGS = 6

/** Of the way up: what does not arrive is sent again, so that nothing is cut off at a level. Floor assumed. */
const LINK = { ...UPLINK, floorDb: -20 }

/** SINR at the mast where the device has so many blocks, dB. */
function sinrOf(way: WayUp, control: PowerControl, blocks: number): number {
  const wanted = control.p0Dbm + control.alpha * way.heardDb
  const most = Math.min(DEVICE_DBM, way.mostDbm ?? Infinity)
  return Math.min(most - toDb(blocks), wanted) - way.upDb - NOISE_DBM
}

const blocksOf = (bandwidthMHz: number): number => Math.max(1, (bandwidthMHz * 0.9) / BLOCK_MHZ)

/**
 * @param betterDb  what this place's mast is better than usual by, as a measured upload tells
 * @returns Mbit/s where nobody else sends, of the number of blocks that gives most
 */
export function sends(way: WayUp, control: PowerControl, bandwidthMHz: number, betterDb = 0): number {
  const all = blocksOf(bandwidthMHz)
  let best = 0
  for (let k = 0; k <= HALVINGS; k++) {
    const blocks = all / 2 ** k
    if (blocks < 1) break
    best = Math.max(best, carrierRateMbps(sinrOf(way, control, blocks) + betterDb, bandwidthMHz / 2 ** k, 1, LINK))
  }
  return best
}

/** Under the ceiling by so little, bit/s/Hz, that the efficiency can be turned round. */
const UNDER_CEILING = 0.01

/** @returns what the mast must be better than usual by, dB, for a device on that way to send so many Mbit/s */
export function betterThanUsual(mbps: number, way: WayUp, control: PowerControl, bandwidthMHz: number): number {
  const all = blocksOf(bandwidthMHz)
  let least = Infinity
  for (let k = 0; k <= HALVINGS; k++) {
    const blocks = all / 2 ** k
    if (blocks < 1) break
    const perHz = (mbps * 2 ** k) / bandwidthMHz
    // More than the ceiling of so few blocks is no way to send it.
    if (k && perHz > LINK.ceilingBitPerHz) break
    const asked = Math.max(LINK.floorDb, toDb(2 ** (Math.min(perHz, LINK.ceilingBitPerHz - UNDER_CEILING) / LINK.alpha) - 1))
    least = Math.min(least, asked - sinrOf(way, control, blocks))
  }
  return least
}
