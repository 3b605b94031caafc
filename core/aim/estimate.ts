/**
 * Where to leave the antenna, and where to read next, from few noisy readings: the antenna's own pattern is fitted to
 * them, and the next heading is the one whose reading would part the headings still possible the most.
 */
import { angleBetween, normalise360 } from '../geo/angles'
import { inRange, positive } from '../check'
import type { SweepStep } from './sweep'

export interface EstimateOptions {
  /** half-power width of the antenna, degrees */
  beamwidthDeg: number
  /** a heading that is likely from the map, and how well it is known; none where the sweep is to stand by itself */
  prior?: { headingDeg: number; sigmaDeg: number } | null
  /** headings that can be taken; all round where left out */
  reachable?: readonly number[]
}

export interface Estimate {
  /** best heading, degrees */
  headingDeg: number
  /** half-width that holds the best in 9 of 10 cases, degrees; 180 while nothing is known */
  plusMinusDeg: number
  /** rises that are still possible, the likeliest first, each with its share of the belief, 0…1 */
  peaks: { headingDeg: number; share: number }[]
  /** spread of one reading about the pattern, dB, as the readings say */
  noiseDb: number
  /** the heading whose reading would tell most; null where none is left to take */
  next: number | null
}

const STEP_DEG = 2
const HEADINGS = 360 / STEP_DEG
/** How far the level falls off the beam at most: reflections fill what the pattern would leave empty. Assumed, dB. */
const DEPTHS_DB = [6, 9, 12, 16, 21] as const
/** Spread of one reading, dB; beforehand alike. Assumed. */
const NOISES_DB = [1, 1.6, 2.4, 3.4, 4.8] as const
/** Nine in ten. */
const HOLDS = 0.9
/** A pattern is not as printed: what it is off by about its peak, as a share of the spread of one reading. Assumed. */
const MISFIT_DB = 0.8

/** Loss off the axis: 12·(φ/φ3dB)², no more than its depth. @source 3GPP TR 36.814 table A.2.1.1-2, both ways */
const lossDb = (offDeg: number, beamwidthDeg: number, depthDb: number): number =>
  Math.min(12 * (offDeg / beamwidthDeg) ** 2, depthDb)

/**
 * Bayes' rule over headings, depths of the pattern and spreads of a reading; the level at the peak is integrated out.
 *
 * @param steps  headings as turned, values in dB (of a speed: its logarithm, see `inDecibels`)
 * @throws RangeError where the width is no angle, or a reading no number
 */
export function estimateHeading(steps: readonly SweepStep[], o: EstimateOptions): Estimate {
  const width = Math.min(180, positive('beamwidthDeg', o.beamwidthDeg))
  for (const s of steps) inRange('value', s.value, -1e6, 1e6)
  const belief = beliefOf(steps, width, o.prior ?? null)
  const headingDeg = refined(belief.heading, likeliest(belief.heading))
  const candidates = o.reachable ?? Array.from({ length: 72 }, (_, i) => i * 5)
  return {
    headingDeg,
    plusMinusDeg: steps.length ? widthOf(belief.heading, headingDeg) : 180,
    peaks: peaksOf(belief.heading, width),
    noiseDb: belief.noiseDb,
    next: nextToTake(belief, steps, candidates, width),
  }
}

interface Belief {
  /** share of each heading of the grid */
  heading: Float64Array
  /** share of each heading with each depth, depth by depth, and the peak's level that goes with it */
  joint: Float64Array
  peakDb: Float64Array
  noiseDb: number
}

function beliefOf(steps: readonly SweepStep[], width: number, prior: EstimateOptions['prior']): Belief {
  const n = steps.length
  const log = new Float64Array(HEADINGS * DEPTHS_DB.length * NOISES_DB.length)
  const peakDb = new Float64Array(HEADINGS * DEPTHS_DB.length)
  let top = -Infinity
  for (let h = 0; h < HEADINGS; h++) {
    const at = h * STEP_DEG
    const before = prior ? -((angleBetween(at, prior.headingDeg) / prior.sigmaDeg) ** 2) / 2 : 0
    DEPTHS_DB.forEach((depth, d) => {
      let sum = 0
      let squares = 0
      for (const s of steps) {
        const r = s.value + lossDb(angleBetween(s.headingDeg, at), width, depth)
        sum += r
        squares += r * r
      }
      const mean = n ? sum / n : 0
      const rest = Math.max(0, squares - n * mean * mean)
      peakDb[h * DEPTHS_DB.length + d] = mean
      NOISES_DB.forEach((noise, k) => {
        const variance = noise * noise + MISFIT_DB * MISFIT_DB
        const l = before - rest / (2 * variance) - ((n - 1) / 2) * Math.log(variance)
        log[(h * DEPTHS_DB.length + d) * NOISES_DB.length + k] = l
        if (l > top) top = l
      })
    })
  }
  const heading = new Float64Array(HEADINGS)
  const joint = new Float64Array(HEADINGS * DEPTHS_DB.length)
  let all = 0
  let noise = 0
  for (let i = 0; i < log.length; i++) {
    const p = Math.exp(log[i]! - top)
    const at = Math.floor(i / NOISES_DB.length)
    joint[at]! += p
    heading[Math.floor(at / DEPTHS_DB.length)]! += p
    noise += p * NOISES_DB[i % NOISES_DB.length]!
    all += p
  }
  for (let i = 0; i < joint.length; i++) joint[i]! /= all
  for (let i = 0; i < HEADINGS; i++) heading[i]! /= all
  return { heading, joint, peakDb, noiseDb: noise / all }
}

/** Mean of the belief about its top, one beam's neighbourhood: finer than the grid. */
function refined(belief: Float64Array, top: number): number {
  const reach = Math.round(24 / STEP_DEG)
  let sum = 0
  let weight = 0
  for (let k = -reach; k <= reach; k++) {
    const p = belief[(top + k + HEADINGS) % HEADINGS]!
    sum += k * p
    weight += p
  }
  return normalise360((top + sum / weight) * STEP_DEG)
}

/** Half-width about a heading that holds nine tenths of the belief. */
function widthOf(belief: Float64Array, headingDeg: number): number {
  const by = Array.from(belief, (p, i) => ({ off: angleBetween(i * STEP_DEG, headingDeg), p })).sort((a, b) => a.off - b.off)
  let held = 0
  for (const { off, p } of by) {
    held += p
    if (held >= HOLDS) return off + STEP_DEG / 2
  }
  return 180
}

/** A rise with less than this share of the belief is not named. Assumed. */
const NAMED_SHARE = 0.08

function peaksOf(belief: Float64Array, width: number): Estimate['peaks'] {
  const apart = Math.max(20, width / 2)
  const out: Estimate['peaks'] = []
  for (const [i] of [...belief].map((p, i) => [i, p] as const).sort((a, b) => b[1] - a[1])) {
    const headingDeg = i * STEP_DEG
    if (out.some(x => angleBetween(x.headingDeg, headingDeg) < apart)) continue
    const share = belief.reduce((s, p, j) => (angleBetween(j * STEP_DEG, headingDeg) < apart ? s + p : s), 0)
    if (share < NAMED_SHARE) break
    out.push({ headingDeg, share })
    if (out.length === 4) break
  }
  return out
}

/** A heading just read says less the second time: its own reading already counts. As shares of the spread. Assumed. */
const AGAIN_DEG = 4

/** The heading where what would be read differs most between what is still possible, for one more reading of the spread. */
function nextToTake(b: Belief, steps: readonly SweepStep[], candidates: readonly number[], width: number): number | null {
  if (!candidates.length) return null
  if (!steps.length) return nearest(candidates, likeliest(b.heading) * STEP_DEG)
  let best: { at: number; worth: number } | null = null
  for (const at of candidates) {
    let mean = 0
    let squares = 0
    for (let h = 0; h < HEADINGS; h++) {
      const off = angleBetween(h * STEP_DEG, at)
      DEPTHS_DB.forEach((depth, d) => {
        const i = h * DEPTHS_DB.length + d
        const p = b.joint[i]!
        if (p < 1e-7) return
        const v = b.peakDb[i]! - lossDb(off, width, depth)
        mean += p * v
        squares += p * v * v
      })
    }
    const again = steps.filter(s => angleBetween(s.headingDeg, at) < AGAIN_DEG).length
    const worth = (squares - mean * mean) / (1 + again)
    if (!best || worth > best.worth) best = { at, worth }
  }
  return best!.at
}

const nearest = (list: readonly number[], to: number): number =>
  list.reduce((best, h) => (angleBetween(h, to) < angleBetween(best, to) ? h : best))

/** Index of the heading most believed in. */
const likeliest = (belief: Float64Array): number => belief.reduce((best, p, i) => (p > belief[best]! ? i : best), 0)

/** A speed as decibels: twice as fast is 3 dB, and nothing at all is 20 dB under one Mbit/s. */
export const inDecibels = (mbps: number): number => 10 * Math.log10(Math.max(0.01, mbps))
