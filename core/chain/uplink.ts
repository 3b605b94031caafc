/** What a booster sends toward the mast: for a phone, and of its own noise; and what a consumer booster may. */
import { positive } from '../check'
import type { AmplifierPart } from '../job/part'
import type { AmplifierState, Carrier, Levels, Source } from './levels'

/** Thermal noise, dBm a MHz at 290 K. @source kTB, −174 dBm/Hz + 60 dB */
const NOISE_DBM_PER_MHZ = -114

export interface Uplink {
  amplifier: AmplifierState
  /** from its donor port into the air toward the mast: antenna less cable, dB */
  toAirDb: number
  /** its own noise at the donor port, and as sent toward the mast, dBm a MHz */
  noiseDbmPerMHz: number
  noiseEirpDbmPerMHz: number
}

export function uplinksOf(levels: Levels): Uplink[] {
  return levels.amplifiers.flatMap((amplifier): Uplink[] => {
    const toAirDb = toAirOf(levels, amplifier)
    if (toAirDb === null) return []
    const part = amplifier.at.part
    const own = part.perBand?.find(b => b.band === levels.carrier.band.name)?.uplinkGainDb
    const heldDb = part.gainDb - amplifier.gainDb
    // Gain toward the mast: alike both ways unless the part says otherwise (assumed).
    const gainDb = Math.max(0, (own ?? part.gainDb) - heldDb)
    const silent = amplifier.gainDb <= 0
    const noise = silent ? -Infinity : NOISE_DBM_PER_MHZ + part.noiseFigureDb + gainDb
    return [{ amplifier, toAirDb, noiseDbmPerMHz: noise, noiseEirpDbmPerMHz: noise + toAirDb }]
  })
}

/** @returns from an amplifier's donor port into the air toward the mast, dB; null where no donor feeds it */
export function toAirOf(levels: Levels, a: AmplifierState): number | null {
  const source = sourceOf(levels, a)
  return source ? a.inputRsrpDbm - source.start.rsrpDbm : null
}

/** The donor that its strongest signal comes from. */
function sourceOf(levels: Levels, a: AmplifierState): Source | null {
  const arrival = levels.ports
    .filter(p => p.visit.at.node.id === a.at.node.id && p.visit.entry?.role === 'donor')
    .reduce<(typeof levels.ports)[number] | null>((x, y) => (!x || y.entryRsrpDbm > x.entryRsrpDbm ? y : x), null)
  return levels.sources.find(s => s.donor.node.id === arrival?.visit.donor.node.id) ?? null
}

export interface ConsumerLimits {
  gainDb: number
  outputDbm: number
  uplinkOutputDbm: number
  noiseDbmPerMHz: number
}

/**
 * What a consumer booster of the United States may do on a band.
 *
 * @param inputAllDbm  total at its donor port, which lowers the noise it may send
 * @source 47 CFR 20.21(e)(8), from memory: fixed gain <= 6.5 + 20·log10 f, mobile 50 dB with an inside antenna; 17 dBm
 *   down, 30 up, conducted and as EIRP; noise <= −103 − RSSI, at most −102.5 + 20·log10 f fixed, −59 mobile, dBm/MHz
 */
export function consumerLimits(
  part: Pick<AmplifierPart, 'use'>,
  carrier: Pick<Carrier, 'uplinkMHz'>,
  inputAllDbm: number,
): ConsumerLimits {
  const f20 = 20 * Math.log10(positive('uplinkMHz', carrier.uplinkMHz))
  const fixed = part.use === 'fixed'
  return {
    gainDb: fixed ? 6.5 + f20 : 50,
    outputDbm: 17,
    uplinkOutputDbm: 30,
    noiseDbmPerMHz: Math.min(-103 - inputAllDbm, fixed ? -102.5 + f20 : -59),
  }
}
