/**
 * The promise: what the finished job will deliver, and how sure that is.
 *
 * What was read is split into interference and receiver noise. An outside antenna raises the level
 * by its gain less cable; interference rises by the same less what the beam keeps out; the receiver's
 * own noise stays. A booster repeats: it adds its own noise and cannot better the donor's SINR.
 * Rate = min(cap, port limits, bandwidth · efficiency(SINR) · share), share calibrated by the
 * baseline's own speed and SINR over every carrier that was read with it; each of those that the kit carries adds
 * its own rate. Up never uses the downlink's SINR: the device's power by what it hears, what of that arrives, and what
 * a measured upload tells of the mast where it was measured (`upload.ts`). Width by Monte Carlo with a fixed seed; every
 * constant is marked assumed until measured.
 *
 * @source model of this project; efficiency 3GPP TR 36.942 annex A
 */
import { nth } from '../sure'
import { carrierRateMbps, DOWNLINK } from '../radio/rate'
import { noisePerElementDbm, toDb, toLinear } from '../radio/levels'
import { normals, seeded } from '../random'
import { NINE_IN_TEN, quantileOfSorted, sigmaOfMedian } from '../survey/stats'
import type { Summary } from '../survey/stats'
import { INDOOR_SIGMA_DB } from '../coverage/indoor'
import { num } from '../units'
import { betterThanUsual, CONTROL_SIGMA, sends, shareUp, USUAL_CONTROL } from './upload'
import type { WayUp } from './upload'

/** An uncertain input: what is believed, and one standard deviation. */
export interface Belief {
  mean: number
  sigma: number
}

export interface PromiseInputs {
  /** RSRP at an isotropic antenna at the mount, dBm */
  mountRsrpDbm: Belief
  /** RSRP and SINR as the device read them where the baseline's SINR was taken */
  readRsrpDbm: Belief
  readSinrDb: Belief
  /** antenna gain less every loss to the port, dB */
  netGainDb: Belief
  /** what the beam keeps out of the interference, dB: 0 omni, 3–6 beam */
  discriminationDb: Belief
  /** share of the carrier this user gets, 0…1 */
  share: Belief
  /** SINR at which the share was measured, dB; null where it is assumed */
  shareSinrDb: number | null
  /** an upload as it was measured, with the level there and then; null where none was, or no level with it */
  measuredUp: { mbps: Belief; rsrpDbm: Belief } | null
  bandwidthMHz: number
  layers: 1 | 2
  capMbps: number | null
  capUpMbps: number | null
  portLimitMbps: number | null
  noiseFigureDb: number
  /** the mast's reference power per resource element, dBm: less a level, the loss on the way to it */
  mastElementDbm: number
  /** set for a booster: from the donor antenna's port to a phone in the hardest room */
  booster: Repeated | null
  /** carriers used beside the anchor: aggregated LTE, or NR on its LTE anchor */
  added: AddedCarrier[]
}

/** The way through a booster. */
export interface Repeated {
  /** to the inside antenna's port, dB, and what noise the way there adds, per resource element, dBm */
  gainDb: number
  noiseDbm: number
  /** from there to the phone, dB */
  toPhoneDb: Belief
  /** from the phone's antenna to the air before the donor, dB, and the EIRP that is held there, dBm */
  upGainDb: number
  upMostDbm: number
  /** what a phone hears there without it, dBm; null where no room was read */
  directRsrpDbm: number | null
}

/** A carrier beside the anchor, down only. What is unsure of it moves with the anchor's: one mast, one way, one weather. */
export interface AddedCarrier {
  band: string
  bandwidthMHz: number
  /** as in the inputs of the anchor */
  mountRsrpDbm: number
  readRsrpDbm: number
  readSinrDb: number
  netGainDb: number
  booster: Repeated | null
}

export interface Expected {
  median: number
  low: number
  high: number
  plusMinus: number
  /** where it was measured just so: by so many tests */
  tests?: number
}

/** Speed tests from which a median is one. @source three or more, common practice (no source) */
export const LEAST_TESTS = 3

/** What tests made just so tell of the next ones. @param single  of one test, one standard deviation as a part of it */
export function byTests(s: Summary, single: number): Expected {
  const plusMinus = NINE_IN_TEN * sigmaOfMedian(s, s.median * single)
  return { median: s.median, low: Math.max(0, s.median - plusMinus), high: s.median + plusMinus, plusMinus, tests: s.count }
}

/** @returns `5.8 ± 2.2`; measured just so `24 (21 to 27)`; where that would reach below nothing, the two ends: `0.1 to 8.5` */
export function sayExpected(e: Expected): string {
  const decimals = e.median < 10 ? 1 : 0
  if (e.tests) return `${num(e.median, decimals)} (${num(e.low, decimals)} to ${num(e.high, decimals)})`
  return e.plusMinus < e.median
    ? `${num(e.median, decimals)} ± ${num(e.plusMinus, decimals)}`
    : `${num(e.low, decimals)} to ${num(e.high, decimals)}`
}

/** How surely a spread reaches what was agreed. */
export type Met = 'likely' | 'open' | 'unlikely'

export const metOf = (got: Pick<Expected, 'low' | 'high' | 'tests'>, agreed: number): Met =>
  got.low >= agreed && (got.tests ?? LEAST_TESTS) >= LEAST_TESTS ? 'likely' : got.high < agreed ? 'unlikely' : 'open'

export interface Drawn {
  down: Expected
  up: Expected
  sinr: Expected
  rsrp: Expected
}

const DRAWS = 320
const SEED = 20_260_401

/** One possible truth, from one set of drawn inputs: Mbit/s down and up at the port or the phone, with SINR and RSRP there. */
export const outcome = (p: PromiseInputs, z: Draw): Outcome => outcomeOf(p)(z)

/** What one draw fixes: each uncertain input at one value. */
export interface Draw {
  mount: number
  readRsrp: number
  readSinr: number
  net: number
  discrimination: number
  share: number
  /** upload measured, Mbit/s, the level there, dBm, and how devices are told to send */
  up: number | null
  upRsrp: number
  p0: number
  alpha: number
  toPhone: number
  /** what the link makes of its SINR, beside what the efficiency says: in standard deviations, and as a factor upward */
  link: number
  linkUp: number
}

export interface Outcome {
  down: number
  up: number
  sinr: number
  rsrp: number
}

/** One carrier, as it was read and as it will be. */
interface CarrierDraw {
  mount: number
  net: number
  readRsrp: number
  readSinr: number
  discrimination: number
  booster: Repeated | null
  toPhone: number
}

/** Losses toward the mast as it will be: a phone behind a booster sends through it, or past it where that is the better way. */
function wayUp(p: PromiseInputs, z: Draw, rsrp: number): WayUp {
  const { booster, mastElementDbm } = p
  if (!booster) return { heardDb: mastElementDbm - rsrp, upDb: mastElementDbm - rsrp }
  const direct = booster.directRsrpDbm ?? -Infinity
  const gainDb = booster.upGainDb + z.toPhone - booster.toPhoneDb.mean
  const heardDb = mastElementDbm - Math.max(rsrp, direct)
  if (direct >= z.mount + gainDb) return { heardDb, upDb: mastElementDbm - direct }
  return { heardDb, upDb: mastElementDbm - z.mount - gainDb, mostDbm: booster.upMostDbm - gainDb }
}

/** What one carrier comes to at the port, or at the phone behind a booster. */
function carrierAfter(c: CarrierDraw, noise: Noise): { rsrp: number; sinr: number } {
  const other = toLinear(c.readRsrp - c.readSinr) - noise.device
  // A reading that leaves no room for interference is noise-limited; the least kept is 20 dB under the noise.
  const interferenceAtDevice = Math.max(other, noise.device / 100)
  const raise = c.mount + c.net - c.readRsrp
  const interference = interferenceAtDevice * toLinear(raise - c.discrimination)
  if (!c.booster) {
    const rsrp = c.mount + c.net
    return { rsrp, sinr: rsrp - toDb(interference + noise.port) }
  }
  const toPhone = toLinear(c.toPhone)
  const through = toLinear(c.booster.gainDb) * toPhone
  const unwanted = (interference + noise.air) * through + toLinear(c.booster.noiseDbm) * toPhone + noise.device
  const rsrp = c.mount + c.net + c.booster.gainDb + c.toPhone
  return { rsrp, sinr: rsrp - toDb(unwanted) }
}

/** Per resource element, mW: of the air, of a phone's receiver, of the receiver at the port. */
interface Noise {
  air: number
  device: number
  port: number
}

/** The sum for one set of inputs; what no draw changes is worked out once. */
function outcomeOf(p: PromiseInputs): (z: Draw) => Outcome {
  const noise: Noise = {
    air: toLinear(noisePerElementDbm(0)),
    device: toLinear(noisePerElementDbm()),
    port: toLinear(noisePerElementDbm(p.noiseFigureDb)),
  }
  const limit = Math.min(p.capMbps ?? Infinity, p.portLimitMbps ?? Infinity)
  const limitUp = Math.min(p.capUpMbps ?? Infinity, p.portLimitMbps ?? Infinity)
  const layers = p.booster ? 1 : p.layers
  return z => {
    const { rsrp, sinr } = carrierAfter({ ...z, booster: p.booster }, noise)
    let rate = carrierRateMbps(sinr, p.bandwidthMHz, layers, DOWNLINK)
    for (const c of p.added) {
      const moved = {
        mount: c.mountRsrpDbm + z.mount - p.mountRsrpDbm.mean,
        net: c.netGainDb + z.net - p.netGainDb.mean,
        readRsrp: c.readRsrpDbm + z.readRsrp - p.readRsrpDbm.mean,
        readSinr: c.readSinrDb + z.readSinr - p.readSinrDb.mean,
        discrimination: z.discrimination,
        booster: c.booster,
        toPhone: c.booster && p.booster ? c.booster.toPhoneDb.mean + z.toPhone - p.booster.toPhoneDb.mean : 0,
      }
      rate += carrierRateMbps(carrierAfter(moved, noise).sinr, c.bandwidthMHz, layers, DOWNLINK)
    }
    const share = Math.min(1, Math.max(0.02, z.share))
    const awayDb = p.shareSinrDb === null ? 0 : Math.abs(sinr - p.shareSinrDb)
    const link = Math.exp(z.link * Math.hypot(LINK_SIGMA, LINK_SIGMA_PER_DB * awayDb))
    const down = Math.min(limit, link * share * rate)
    const control = { p0Dbm: z.p0, alpha: z.alpha }
    const thenDb = p.mastElementDbm - z.upRsrp
    const sendShare = shareUp(share)
    const better =
      z.up === null
        ? 0
        : betterThanUsual(Math.max(z.up, 0.01) / sendShare, { heardDb: thenDb, upDb: thenDb }, control, p.bandwidthMHz)
    const up = Math.min(limitUp, z.linkUp * sendShare * sends(wayUp(p, z, rsrp), control, p.bandwidthMHz, better))
    return { down, up, sinr, rsrp }
  }
}

/** One standard deviation of the logarithm of a link's rate about the efficiency, when SINR changes. @source seeded places, assumed */
const LINK_SIGMA = 0.18
/** More of it for each dB between the SINR that the share was measured at and the SINR that comes. Assumed. */
const LINK_SIGMA_PER_DB = 0.015
/** The same of the way up, where a measured upload or the usual control has told the rest. Assumed by seeded places. */
const LINK_SIGMA_UP = 0.05
/** Behind a booster: its gain upward is held by what else is in its band downward, of which little is known. */
const REPEATED_SIGMA_UP = 0.12
const PER_DRAW = 9

/** Standard normal numbers of the fixed seeds: the same for every promise, so that two differ by their inputs alone. */
const drawn = (seed: number, each: number): Float64Array => {
  const normal = normals(seeded(seed))
  return Float64Array.from({ length: each * DRAWS }, normal)
}
const Z = drawn(SEED, PER_DRAW)
/** Of the way up: the level there, what devices are told to send, and what its link makes of it. */
const PER_DRAW_UP = 4
const Z_UP = drawn(SEED + 1, PER_DRAW_UP)

/** What each draw comes to, in the order of the fixed seed. */
function outcomes(p: PromiseInputs, draws: number): Outcome[] {
  const of = outcomeOf(p)
  return Array.from({ length: draws }, (_, i) => {
    const at = (b: Belief, k: number) => b.mean + b.sigma * nth(Z, PER_DRAW * i + k)
    const up = (k: number) => nth(Z_UP, PER_DRAW_UP * i + k)
    return of({
      mount: at(p.mountRsrpDbm, 0),
      readRsrp: at(p.readRsrpDbm, 1),
      readSinr: at(p.readSinrDb, 2),
      net: at(p.netGainDb, 3),
      discrimination: Math.max(0, at(p.discriminationDb, 4)),
      share: at(p.share, 5),
      up: p.measuredUp ? at(p.measuredUp.mbps, 6) : null,
      upRsrp: p.measuredUp ? p.measuredUp.rsrpDbm.mean + p.measuredUp.rsrpDbm.sigma * up(0) : 0,
      p0: USUAL_CONTROL.p0Dbm + CONTROL_SIGMA.p0Dbm * up(1),
      alpha: Math.min(1, USUAL_CONTROL.alpha + CONTROL_SIGMA.alpha * up(2)),
      toPhone: p.booster ? at(p.booster.toPhoneDb, 7) : 0,
      link: nth(Z, PER_DRAW * i + 8),
      linkUp: Math.exp((p.booster ? REPEATED_SIGMA_UP : LINK_SIGMA_UP) * up(3)),
    })
  })
}

function expected(out: readonly Outcome[], quantity: keyof Outcome): Expected {
  const sorted = Float64Array.from(out, o => o[quantity]).sort()
  const low = quantileOfSorted(sorted, 0.05)
  const high = quantileOfSorted(sorted, 0.95)
  return { median: quantileOfSorted(sorted, 0.5), low, high, plusMinus: (high - low) / 2 }
}

/** @returns median and the interval that holds the truth in 9 of 10 cases */
export function draw(p: PromiseInputs): Drawn {
  const out = outcomes(p, DRAWS)
  return { down: expected(out, 'down'), up: expected(out, 'up'), sinr: expected(out, 'sinr'), rsrp: expected(out, 'rsrp') }
}

export interface MeasureNext {
  id: 'sinr' | 'mount' | 'share' | 'rooms' | 'width'
  words: string
  from: number
  to: number
}

/** Draws for comparing widths: the ratio of two is steady long before either is. */
const FEWER = 128

/**
 * @param done  what was measured already, as often as it would be asked for
 * @returns the one measurement that would narrow the promise most, with both widths; null where none would by 5 %
 */
export function measureNext(
  p: PromiseInputs,
  now: Drawn,
  where: { mount: string; room: string; unread?: boolean },
  done: ReadonlySet<MeasureNext['id']> = new Set(),
): MeasureNext | null {
  const tries: [MeasureNext['id'], string, PromiseInputs][] = [
    [
      'sinr',
      `read SINR at ${where.mount}, three times`,
      {
        ...p,
        readSinrDb: less(p.readSinrDb, 0.8),
        discriminationDb: less(p.discriminationDb, 1),
        readRsrpDbm: less(p.readRsrpDbm, 1),
      },
    ],
    [
      'mount',
      `read RSRP at the mount's height at ${where.mount}${where.unread ? ', with its cell' : ''}`,
      { ...p, mountRsrpDbm: less(p.mountRsrpDbm, 1.5) },
    ],
    ['share', 'run the speed test three times at this hour', { ...p, share: less(p.share, p.share.mean * 0.12) }],
  ]
  if (p.booster)
    tries.push([
      'rooms',
      `read the level in ${where.room} once the kit lies loose`,
      { ...p, booster: { ...p.booster, toPhoneDb: less(p.booster.toPhoneDb, 2) } },
    ])
  let best: MeasureNext | null = null
  const width = (of: PromiseInputs): number => expected(outcomes(of, FEWER), 'down').plusMinus
  const base = width(p)
  for (const [id, words, q] of tries.filter(([id]) => !done.has(id))) {
    const to = base > 0 ? (now.down.plusMinus * width(q)) / base : now.down.plusMinus
    if (!best || to < best.to) best = { id, words, from: now.down.plusMinus, to }
  }
  return best && best.to < now.down.plusMinus * 0.95 ? best : null
}

const less = (b: Belief, sigma: number): Belief => ({ ...b, sigma: Math.min(b.sigma, sigma) })

/**
 * What the beam keeps out, dB, and its spread: much of what disturbs comes from the same mast, and some of all from all round.
 * @source 0 dB omni, 3–6 dB beam, common practice (no source); spread by the seeded places of `core/world/place.ts`
 */
export const discriminationOf = (beamwidthDeg: number): Belief =>
  beamwidthDeg >= 360 ? { mean: 0, sigma: 0.5 } : { mean: 3.5, sigma: 2.5 }

/** Share of a carrier where no speed was measured. Assumed. */
export const ASSUMED_SHARE: Belief = { mean: 0.4, sigma: 0.18 }

/** A carrier that was in use while the speed was measured. */
export interface MeasuredCarrier {
  /** read where the speed was measured, with how well it is known */
  sinrDb: Belief
  bandwidthMHz: number
}

/**
 * @param relativeSigma  of the speed measured
 * @param carriers  of the link then, the anchor first
 * @returns the share that makes the model give the speed measured at the SINR read
 */
export function calibrateShare(
  downMbps: number,
  relativeSigma: number,
  carriers: readonly [MeasuredCarrier, ...MeasuredCarrier[]],
  layers: 1 | 2,
): Belief {
  const at = (sigmas: number) =>
    carriers.reduce((sum, c) => sum + carrierRateMbps(c.sinrDb.mean + sigmas * c.sinrDb.sigma, c.bandwidthMHz, layers), 0)
  const full = at(0)
  if (full <= 0) return ASSUMED_SHARE
  const mean = Math.min(1, Math.max(0.02, downMbps / full))
  const bySinr = (at(1) - at(-1)) / 2 / full
  return { mean, sigma: mean * Math.hypot(relativeSigma, bySinr) }
}

/** Room-to-room scatter about the indoor formula, dB. */
export const ROOM_SIGMA_DB = INDOOR_SIGMA_DB
