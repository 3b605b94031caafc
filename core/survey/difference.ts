/**
 * Whether two set-ups differ by more than chance, with the interval of the difference. The load of a cell wanders from
 * one block of back-to-back tests to the next, so that ten tests in a row say little more of it than three: what differs
 * is told by blocks, each as sure as the spread of its tests and the wander of the load let it be.
 */
import { lastOf, nth, sure } from '../sure'
import { median } from './stats'

export interface Difference {
  /** after less before: dB, or of speeds the natural logarithm of the ratio */
  by: number
  /** holds the true difference nineteen times in twenty */
  low: number
  high: number
  /** two-sided probability of as much by chance */
  p: number
  beyondChance: boolean
  /** tests, or dwells, on each side */
  counts: [before: number, after: number]
  /** so many more of each, alternating, would settle it; null where it is settled, or where that would take too many */
  settledBy: number | null
}

/** A value on the scale that is compared, and when it was taken. */
export interface Taken {
  takenAtUtc: string
  value: number
}

/** Standard deviations: of one test within its block, and of one block. */
export interface Spread {
  one: number
  block: number
}

/** What is told as more than chance: one in twenty by chance alone. */
export const BEYOND = 0.05
/**
 * Spreads are drawn from what is assumed toward what repeats show (`spread.ts`): with as many of these as the assumed
 * weighs they wander most, and then by as much as those of 48 degrees of freedom do.
 */
const FREEDOM = 48
/** Student's t of 48 degrees, 0.975. @source tables of the distribution */
const BEYOND_T = 2.0106
/** A median of normal values wanders by so much more than their mean. @source √(π/2), large samples */
const MEDIAN_FACTOR = 1.2533
/** A test that did not load counts as so little, Mbit/s. Assumed. */
const NOTHING_MBPS = 0.02
/** Speeds are compared by their logarithms; that of nothing is wanted too. */
export const logSpeed = (mbps: number): number => Math.log(Math.max(NOTHING_MBPS, mbps))

/** Tests further apart than this are of another load, ms. Assumed. */
const BLOCK_MS = 15 * 60_000

/**
 * @param sides  what is compared, each in any order
 * @returns each side's blocks: tests of it alone, one after another
 */
export function blocksOf(sides: readonly (readonly Taken[])[]): number[][][] {
  const all = sides.flatMap((rows, side) => rows.map(r => ({ side, value: r.value, at: Date.parse(r.takenAtUtc) })))
  all.sort((a, b) => a.at - b.at)
  const out: number[][][] = sides.map(() => [])
  let last: { side: number; at: number } | null = null
  for (const r of all) {
    if (!last || last.side !== r.side || r.at - last.at > BLOCK_MS) nth(out, r.side).push([])
    lastOf(nth(out, r.side)).push(r.value)
    last = r
  }
  return out
}

/** One side by its blocks, each weighed by how sure it is. */
function sideOf(blocks: readonly (readonly number[])[], s: Spread): { mean: number; weight: number; count: number } {
  let weight = 0
  let sum = 0
  let count = 0
  for (const b of blocks) {
    const own = (s.one * (b.length > 2 ? MEDIAN_FACTOR : 1)) ** 2 / b.length
    const w = 1 / (s.block ** 2 + own)
    weight += w
    sum += w * median(b)
    count += b.length
  }
  return { mean: sum / weight, weight, count }
}

/** @returns null where either side is empty */
export function differenceOf(
  before: readonly (readonly number[])[],
  after: readonly (readonly number[])[],
  s: Spread,
): Difference | null {
  if (!before.length || !after.length) return null
  const [a, b] = [sideOf(before, s), sideOf(after, s)]
  const by = b.mean - a.mean
  const sigma = Math.sqrt(1 / a.weight + 1 / b.weight)
  const half = BEYOND_T * sigma
  const p = 2 * (1 - normalCdf(normalOf(Math.abs(by) / sigma)))
  const beyondChance = p <= BEYOND
  return {
    by,
    low: by - half,
    high: by + half,
    p,
    beyondChance,
    counts: [a.count, b.count],
    settledBy: beyondChance ? null : toSettle(by, a.weight, b.weight, s),
  }
}

export interface Behind {
  difference: Difference
  /** two-sided, after Holm's correction for all pairs that the best was picked from */
  p: number
  beyondChance: boolean
}

/** Each of the rest against the best, which was picked by these very tests: every pair might have been the one looked at. */
export function behindBest(
  best: readonly (readonly number[])[],
  rest: readonly (readonly (readonly number[])[])[],
  s: Spread,
): Behind[] {
  const differences = rest.map(r => sure(differenceOf(r, best, s)))
  const p = holm(
    differences.map(d => d.p),
    pairsOf(rest.length + 1),
  )
  return differences.map((difference, i) => ({ difference, p: nth(p, i), beyondChance: nth(p, i) <= BEYOND }))
}

export const pairsOf = (sides: number): number => (sides * (sides - 1)) / 2

/**
 * Several comparisons at once: the smallest of k is held against a k-th of the level, and so on.
 * @param of  comparisons that these were picked from; as many as there are where left out
 * @returns corrected p, in the order given
 * @source Holm 1979
 */
export function holm(p: readonly number[], of = p.length): number[] {
  const order = p.map((_, i) => i).sort((a, b) => nth(p, a) - nth(p, b))
  const out = new Array<number>(p.length)
  let last = 0
  order.forEach((i, k) => {
    last = Math.max(last, Math.min(1, nth(p, i) * (of - k)))
    out[i] = last
  })
  return out
}

/** More than so many tests nobody makes for one question. Assumed. */
const MOST_MORE = 6

/** Tests of each side that alternate are blocks of one each. */
function toSettle(by: number, before: number, after: number, s: Spread): number | null {
  const each = 1 / (s.block ** 2 + s.one ** 2)
  for (let n = 1; n <= MOST_MORE; n++) {
    const sigma = Math.sqrt(1 / (before + n * each) + 1 / (after + n * each))
    if (Math.abs(by) >= BEYOND_T * sigma) return n
  }
  return null
}

const COUNTS = ['', 'one', 'two', 'three', 'four', 'five', 'six']

/** @returns `two more of each, alternating: A B B A`; empty where nothing is to be settled, or not by so few */
export function settledWords(d: Difference): string {
  if (d.settledBy === null) return ''
  const order = settlingOrder(d.settledBy).join(' ').toUpperCase()
  return `${COUNTS[d.settledBy]} more of each would settle it, alternating: ${order}`
}

/** @returns so many of each in turns, A B B A: what drifts meanwhile falls on both alike */
export const settlingOrder = (each: number): ('a' | 'b')[] =>
  Array.from({ length: each }, (_, i) => (i % 2 ? (['b', 'a'] as const) : (['a', 'b'] as const))).flat()

/** Student's t as the normal value of the same probability. @source Wallace 1959 */
const normalOf = (t: number): number =>
  ((8 * FREEDOM + 1) / (8 * FREEDOM + 3)) * Math.sqrt(FREEDOM * Math.log(1 + t ** 2 / FREEDOM))

/** @source Abramowitz and Stegun 7.1.26, error under 1.5e-7 */
function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  const t = 1 / (1 + 0.3275911 * x)
  const erf =
    1 - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x)
  return z >= 0 ? (1 + erf) / 2 : (1 - erf) / 2
}

/** Readings this near one another in time, of one spot and set-up, are one dwell, ms. */
const DWELL_MS = 60_000

/** @returns rows in the order they were taken, parted where nothing was taken for longer than `pauseMs` */
export function inOneGo<T extends { takenAtUtc: string }>(rows: readonly T[], pauseMs: number): T[][] {
  const timed = rows.map(row => ({ row, at: Date.parse(row.takenAtUtc) })).sort((a, b) => a.at - b.at)
  const out: T[][] = []
  let last = -Infinity
  for (const { row, at } of timed) {
    if (at - last > pauseMs) out.push([])
    lastOf(out).push(row)
    last = at
  }
  return out
}

/** @returns one value for each dwell: readings of a half minute are not many, but one read often */
export const byDwell = (rows: readonly Taken[]): number[] => inOneGo(rows, DWELL_MS).map(g => median(g.map(r => r.value)))

/** Dwells are blocks of one: what a level wanders by from one to the next is all there is of it. */
export const dwellBlocks = (rows: readonly Taken[]): number[][] => byDwell(rows).map(v => [v])
