/** Whether two sets of readings differ by more than chance, by a test that is named, with the interval of the difference. */
import { median, NINE_IN_TEN, quantileOfSorted } from './stats'

export interface Difference {
  /** after less before: dB, or of speeds the natural logarithm of the ratio */
  by: number
  /** holds the true difference nine times in ten */
  low: number
  high: number
  test: 'usual spread' | 'rank sum'
  /** two-sided, of the rank sum; null where the usual spread was taken */
  p: number | null
  beyondChance: boolean
  counts: [before: number, after: number]
}

/** From so many on each side their own spread is used. */
const LEAST_RANKED = 4
/** Of the rank test: what its nine in ten leave. */
const LEVEL = 0.1
/** A median of normal values wanders by so much more than their mean. @source √(π/2), large samples */
const MEDIAN_FACTOR = 1.2533
/** Pooled repeats until a crew's own are known: one reading, dB; one speed test, of its logarithm. Assumed. */
export const USUAL_SPREAD = { db: 2, speed: 0.2 } as const
/** A test that did not load counts as so little, Mbit/s. Assumed. */
const NOTHING_MBPS = 0.02
/** Speeds are compared by their logarithms; that of nothing is wanted too. */
export const logSpeed = (mbps: number): number => Math.log(Math.max(NOTHING_MBPS, mbps))

/**
 * @param before, after  values, readings of one dwell already made one
 * @param usual  spread of one value where there are too few to show their own
 * @returns null where either side is empty
 * @source Wilcoxon 1945, Mann and Whitney 1947; shift and its interval by Hodges and Lehmann 1963
 */
export function differenceOf(before: readonly number[], after: readonly number[], usual: number): Difference | null {
  const [n, m] = [before.length, after.length]
  if (!n || !m) return null
  const counts: Difference['counts'] = [n, m]
  if (n < LEAST_RANKED || m < LEAST_RANKED) {
    const by = median(after) - median(before)
    // One value has no median of its own to wander.
    const sigma = (k: number) => (usual * (k > 2 ? MEDIAN_FACTOR : 1)) / Math.sqrt(k)
    const half = NINE_IN_TEN * Math.hypot(sigma(n), sigma(m))
    const [low, high] = [by - half, by + half]
    return { by, low, high, test: 'usual spread', p: null, beyondChance: low > 0 || high < 0, counts }
  }
  const differences = Float64Array.from(after.flatMap(a => before.map(b => a - b))).sort()
  const u = rankSumU(before, after)
  const p = rankSumP(u, before, after)
  // As many of the ordered differences are cut off at each end as the test at its level leaves.
  const cut = criticalU(n, m)
  return {
    by: quantileOfSorted(differences, 0.5),
    low: differences[cut]!,
    high: differences[differences.length - 1 - cut]!,
    test: 'rank sum',
    p,
    beyondChance: p <= LEVEL,
    counts,
  }
}

/** @returns two-sided probability of a difference as large by chance: the test's own, or by the normal curve of the interval */
export function probabilityOf(d: Difference): number {
  if (d.p !== null) return d.p
  const sigma = (d.high - d.low) / (2 * NINE_IN_TEN)
  return sigma ? 2 * (1 - normalCdf(Math.abs(d.by) / sigma)) : 1
}

/** Mann and Whitney's U of the second sample: pairs in which it is the higher, ties as halves. */
export function rankSumU(before: readonly number[], after: readonly number[]): number {
  let u = 0
  for (const a of after) for (const b of before) u += a > b ? 1 : a === b ? 0.5 : 0
  return u
}

/** Ways in which U comes out at each value, by n and m. @source recurrence of Mann and Whitney 1947 */
function countsOfU(n: number, m: number): Float64Array {
  const table: Float64Array[][] = []
  for (let i = 0; i <= n; i++) {
    table[i] = []
    for (let j = 0; j <= m; j++) {
      const row = new Float64Array(i * j + 1)
      if (!i || !j) row[0] = 1
      else {
        const [less, fewer] = [table[i - 1]![j]!, table[i]![j - 1]!]
        for (let u = 0; u <= i * j; u++) row[u] = (u >= j ? (less[u - j] ?? 0) : 0) + (fewer[u] ?? 0)
      }
      table[i]![j] = row
    }
  }
  return table[n]![m]!
}

/** Up to so many on a side without ties the exact distribution is used. */
const MOST_EXACT = 30

/** Two-sided probability of a U as far from its middle. */
export function rankSumP(u: number, before: readonly number[], after: readonly number[]): number {
  const [n, m] = [before.length, after.length]
  const all = [...before, ...after]
  const ties = new Map<number, number>()
  for (const v of all) ties.set(v, (ties.get(v) ?? 0) + 1)
  const tied = [...ties.values()].some(t => t > 1)
  const low = Math.min(u, n * m - u)
  if (!tied && n <= MOST_EXACT && m <= MOST_EXACT) {
    const counts = countsOfU(n, m)
    const total = counts.reduce((a, b) => a + b, 0)
    let below = 0
    for (let k = 0; k <= low; k++) below += counts[k]!
    return Math.min(1, (2 * below) / total)
  }
  const size = n + m
  const correction = [...ties.values()].reduce((s, t) => s + (t ** 3 - t), 0) / (size * (size - 1))
  const sigma = Math.sqrt(((n * m) / 12) * (size + 1 - correction))
  if (!sigma) return 1
  const z = Math.max(0, (n * m) / 2 - low - 0.5) / sigma
  return Math.min(1, 2 * (1 - normalCdf(z)))
}

/** Largest U that is still beyond chance at the level; the interval cuts so many differences off each end. */
function criticalU(n: number, m: number): number {
  const counts = countsOfU(Math.min(n, MOST_EXACT), Math.min(m, MOST_EXACT))
  const total = counts.reduce((a, b) => a + b, 0)
  let below = 0
  let u = 0
  for (; u < counts.length; u++) {
    below += counts[u]!
    if (2 * below > LEVEL * total) break
  }
  return Math.min(Math.max(0, u - 1), Math.floor((n * m - 1) / 2))
}

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

/** @returns one value for each dwell: readings of a half minute are not many, but one read often */
export function byDwell(rows: readonly { takenAtUtc: string; value: number }[]): number[] {
  const sorted = [...rows].sort((a, b) => a.takenAtUtc.localeCompare(b.takenAtUtc))
  const groups: number[][] = []
  let last = -Infinity
  for (const r of sorted) {
    const at = Date.parse(r.takenAtUtc)
    if (at - last > DWELL_MS || !groups.length) groups.push([])
    groups.at(-1)!.push(r.value)
    last = at
  }
  return groups.map(median)
}
