/**
 * What the simulated world is made of. The planner knows nothing of it: other formulas, other shapes of pattern and
 * other rates than those it plans by, so that a prediction is never right by construction.
 */
import { nth } from '../sure'

export const milliwatts = (dbm: number): number => 10 ** (dbm / 10)
export const decibels = (mw: number): number => 10 * Math.log10(mw)

/** kTB of 15 kHz at 290 K, dBm. */
export const THERMAL_DBM = -132.2

/**
 * bit/s/Hz of one layer by CQI, and the SINR from which each holds at one block in ten lost.
 * @source efficiencies 3GPP TS 36.213 table 7.2.3-1; thresholds about 1.9 dB a step from −6.9 dB, from memory of link simulations
 */
const CQI = [0.1523, 0.2344, 0.377, 0.6016, 0.877, 1.1758, 1.4766, 1.9141, 2.4063, 2.7305, 3.3223, 3.9023, 4.5234, 5.1152, 5.5547]
/** Of a carrier's elements, what control and reference signals leave. @source about a quarter, common practice (no source) */
const USABLE = 0.75 * 0.9

/** Mbit/s of a whole carrier; two layers share the power and pay 2 dB for leaking into each other. */
export function linkMbps(sinrDb: number, widthMHz: number, layers: 1 | 2): number {
  const one = (db: number) => {
    const at = Math.min((db + 6.9) / 1.9, CQI.length - 1)
    if (at < 0) return 0
    const low = Math.floor(at)
    return nth(CQI, low) + ((CQI[low + 1] ?? nth(CQI, low)) - nth(CQI, low)) * (at - low)
  }
  const best = layers === 2 ? Math.max(one(sinrDb), 2 * one(sinrDb - 5)) : one(sinrDb)
  return best * USABLE * widthMHz
}

/**
 * Gain toward an angle less that ahead, dB.
 * @source a power of the cosine through its half-power width, floor at the front-to-back ratio, antenna handbooks
 */
export function lobeDb(offDeg: number, widthDeg: number, frontToBackDb: number): number {
  if (widthDeg >= 180) return 0
  const exponent = -3 / (10 * Math.log10(Math.cos((widthDeg * Math.PI) / 360)))
  const c = Math.cos((offDeg * Math.PI) / 180)
  return c <= 0 ? -frontToBackDb : Math.max(-frontToBackDb, 10 * exponent * Math.log10(c))
}
