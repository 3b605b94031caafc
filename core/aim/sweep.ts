/** What a turn of the antenna says about where to leave it. */
import { nth, sure } from '../sure'
import type { JobDocument, Sweep } from '../job/schema'
import { angleBetween, normalise360, turn } from '../geo/angles'
import { asNegative, parseNumber } from '../formats/csv'
import { median } from '../survey/stats'
import { inRange, positive } from '../check'
import { ofStop } from '../survey/place'

/** What may be read while turning, and the limits of what makes sense. */
export const SWEPT: Record<Sweep['quantity'], { unit: string; low: number; high: number; words: string; decimals: 0 | 1 }> = {
  SINR: { unit: 'dB', low: -30, high: 60, words: 'SINR', decimals: 1 },
  RSRP: { unit: 'dBm', low: -160, high: -20, words: 'RSRP', decimals: 1 },
  RSRQ: { unit: 'dB', low: -50, high: 10, words: 'RSRQ', decimals: 1 },
  down: { unit: 'Mbit/s', low: 0, high: 10_000, words: 'download', decimals: 1 },
  up: { unit: 'Mbit/s', low: 0, high: 10_000, words: 'upload', decimals: 1 },
  lamps: { unit: 'of 5', low: 0, high: 5, words: 'lamps', decimals: 0 },
}

/**
 * What was typed of a quantity; where only negative makes sense, 95 is −95.
 * @throws RangeError in words: nothing, no number, or out of what makes sense
 */
export function readSwept(text: string, quantity: Sweep['quantity']): number {
  const { low, high, unit } = SWEPT[quantity]
  const typed = parseNumber(text)
  if (typed === null) throw new RangeError('what does it read?')
  const value = high < 0 ? sure(asNegative(typed)) : typed
  if (value < low || value > high) throw new RangeError(`${low} to ${high} ${unit}`.replace(/-/g, '−'))
  return value
}

export interface SweepStep {
  headingDeg: number
  value: number
}

export interface SweepResult {
  /** best heading, degrees true */
  headingDeg: number
  /** half-width that holds the best in 9 of 10 cases, degrees */
  plusMinusDeg: number
  /** median at the best measured heading */
  best: number
  /** medians by heading, ascending */
  byHeading: { headingDeg: number; value: number; count: number }[]
  /** standard deviation of one reading, from repeats; null before the second pass */
  noise: number | null
  /** a second rise at least 60° away that stands out of the noise: a reflection, or another mast */
  second: { headingDeg: number; value: number } | null
  /** true where best and worst differ by less than the noise explains */
  flat: boolean
}

/** Reading-to-reading noise taken before a second pass has shown it, dB. @source common practice (no source) */
const ASSUMED_NOISE_DB = 1.5

/**
 * Best heading of one or several passes: a parabola through the best median and its neighbours,
 * with an uncertainty drawn from the noise between passes and the curvature at the top.
 *
 * @param steps  headings true, values where more is better
 * @param o.pins  the bracket stands at fixed positions only: the answer is one of them
 * @param o.noise  of one reading, until a second pass has shown it; 1.5 dB where left out
 * @throws RangeError for fewer than three headings
 */
export function bestHeading(steps: readonly SweepStep[], o: { pins?: boolean; noise?: number } = {}): SweepResult {
  const assumed = o.noise ?? ASSUMED_NOISE_DB
  const groups = new Map<number, number[]>()
  for (const s of steps) {
    const key = (Math.round(normalise360(inRange('headingDeg', s.headingDeg, -360, 720)) * 10) / 10) % 360
    groups.set(key, [...(groups.get(key) ?? []), s.value])
  }
  const byHeading = [...groups]
    .map(([headingDeg, v]) => ({ headingDeg, value: median(v), count: v.length }))
    .sort((a, b) => a.headingDeg - b.headingDeg)
  if (byHeading.length < 3) throw new RangeError(`a sweep needs at least 3 headings, got ${byHeading.length}`)
  const top = byHeading.reduce((a, b) => (b.value > a.value ? b : a))
  const worst = Math.min(...byHeading.map(h => h.value))
  const noise = noiseOf(groups)
  const sigma = (noise ?? assumed) / Math.sqrt(top.count)
  const i = byHeading.indexOf(top)
  const left = nth(byHeading, (i + byHeading.length - 1) % byHeading.length)
  const right = nth(byHeading, (i + 1) % byHeading.length)
  const a = angleBetween(left.headingDeg, top.headingDeg)
  const b = angleBetween(top.headingDeg, right.headingDeg)
  const slopeLeft = (top.value - left.value) / a
  const slopeRight = (right.value - top.value) / b
  const curvature = (slopeRight - slopeLeft) / ((a + b) / 2)
  let offset = 0
  let plusMinusDeg = Math.max(a, b)
  if (!o.pins && curvature < 0 && a < 120 && b < 120) {
    const slopeAtTop = (slopeLeft * b + slopeRight * a) / (a + b)
    offset = Math.min(b / 2, Math.max(-a / 2, -slopeAtTop / curvature))
    const slopeSigma = (sigma * Math.SQRT2) / ((a + b) / 2)
    // 2 rather than 1.645: the noise itself is known from few repeats (Student’s t at about 20 degrees of freedom, with a tenth over).
    plusMinusDeg = Math.min(90, Math.hypot((2 * slopeSigma) / -curvature, 0.12 * Math.max(a, b)))
  }
  const second = byHeading
    .filter(
      h =>
        angleBetween(h.headingDeg, top.headingDeg) >= 60 &&
        h.value >= worst + Math.max(3, 3 * (noise ?? assumed)) &&
        isPeak(byHeading, h.headingDeg),
    )
    .reduce<SweepResult['second']>((m, h) => (!m || h.value > m.value ? { headingDeg: h.headingDeg, value: h.value } : m), null)
  return {
    headingDeg: normalise360(top.headingDeg + offset),
    plusMinusDeg,
    best: top.value,
    byHeading,
    noise,
    second,
    flat: top.value - worst < 3 * (noise ?? assumed),
  }
}

function noiseOf(groups: Map<number, number[]>): number | null {
  let sum = 0
  let freedom = 0
  for (const v of groups.values()) {
    if (v.length < 2) continue
    const mean = v.reduce((s, x) => s + x, 0) / v.length
    sum += v.reduce((s, x) => s + (x - mean) ** 2, 0)
    freedom += v.length - 1
  }
  return freedom ? Math.sqrt(sum / freedom) : null
}

function isPeak(list: readonly { headingDeg: number; value: number }[], headingDeg: number): boolean {
  const i = list.findIndex(h => h.headingDeg === headingDeg)
  const v = nth(list, i).value
  return v > nth(list, (i + list.length - 1) % list.length).value && v > nth(list, (i + 1) % list.length).value
}

/** Headings of a full turn: 15° or 30° steps, or the eight positions of a bracket. */
export function sweepHeadings(stepDeg: number, startDeg = 0): number[] {
  const n = Math.round(360 / positive('stepDeg', stepDeg))
  return Array.from({ length: n }, (_, i) => normalise360(startDeg + i * stepDeg))
}

/** @returns the heading of the list not yet taken in this pass and nearest by turning, or null when the turn is full */
export function nextHeading(plan: readonly number[], taken: readonly number[], nowDeg: number): number | null {
  const open = plan.filter(h => !taken.some(t => angleBetween(t, h) < 1))
  if (!open.length) return null
  return open.reduce((a, b) => (cost(nowDeg, b) < cost(nowDeg, a) ? b : a))
}

/** Turning on in the same sense costs less than turning back. */
const cost = (fromDeg: number, toDeg: number): number => {
  const t = turn(fromDeg, toDeg)
  return t >= 0 ? t : 180 - t
}

/** How long a sweep takes, minutes, at so many seconds a position, moving included. */
export const sweepMinutes = (positions: number, secondsEach: number): number => (positions * (secondsEach + 15)) / 60

/** @returns the last sweep all round at the present stop; null where none was begun */
export const lastRound = (doc: JobDocument): Sweep | null =>
  ofStop(doc, doc.sweeps)
    .filter(s => s.axis === 'heading')
    .reduce<Sweep | null>((a, b) => (a && a.startedAtUtc >= b.startedAtUtc ? a : b), null)
