/**
 * What a test wanders by when it is only repeated, and what the load of the cell wanders by between blocks of tests:
 * assumed first, and drawn toward what a job's own repeats show, the more the more there are.
 */
import { blocksOf, byDwell, logSpeed } from './difference'
import type { Spread } from './difference'
import type { Made } from './setups'
import type { Reading, SpeedRun } from '../job/schema'
import { num } from '../units'

export interface Usual {
  /** of one dwell, dB */
  db: number
  /** of one speed test within its block, of its logarithm */
  speed: number
  /** of the load between blocks, of the logarithm of a speed: two tests of one block are alike by load² / (load² + speed²) */
  load: number
  /** where each is from */
  from: { db: 'repeats' | 'assumed'; speed: 'repeats' | 'assumed' }
}

/** Until a place has repeats of its own: one dwell, dB; one test and one block, of the logarithm. Assumed. */
export const USUAL_SPREAD = { db: 2, speed: 0.2, load: 0.25 } as const
/** What is assumed weighs as much as so many repeats, and is called the place's own from as many on. Assumed. */
const PRIOR_FREEDOM = 12
/** Never less than what a device rounds to, dB, and what a link and a cell do by themselves. Assumed. */
const LEAST = { db: 0.7, speed: 0.05, load: 0.05 }

/**
 * Readings of one set-up at one place that lie further apart are no fading: a slip of the finger, or something else read.
 * @source Rayleigh fading goes 30 dB under its mean once in a thousand, and a shown level is averaged; assumed
 */
export const DEEPEST_FADE_DB = 30
export const rangeOf = (values: readonly number[]): number =>
  values.reduce((m, v) => Math.max(m, v), -Infinity) - values.reduce((m, v) => Math.min(m, v), Infinity)

export interface Repeats {
  squares: number
  freedom: number
}

/** Squares about the means of their groups, with the degrees of freedom. */
export function repeatsOf(groups: readonly (readonly number[])[]): Repeats {
  let squares = 0
  let freedom = 0
  for (const g of groups) {
    const mean = g.reduce((s, v) => s + v, 0) / g.length
    for (const v of g) squares += (v - mean) ** 2
    freedom += Math.max(0, g.length - 1)
  }
  return { squares, freedom }
}

const drawnToward = (assumed: number, r: Repeats): number =>
  Math.sqrt(Math.max(0, PRIOR_FREEDOM * assumed ** 2 + r.squares) / (PRIOR_FREEDOM + r.freedom))

export function grouped<T>(rows: readonly T[], key: (r: T) => string): T[][] {
  const out = new Map<string, T[]>()
  for (const r of rows) {
    const group = out.get(key(r))
    if (group) group.push(r)
    else out.set(key(r), [r])
  }
  return [...out.values()]
}

export function usualSpread(readings: readonly Made<Reading>[], runs: readonly Made<SpeedRun>[]): Usual {
  const levels = repeatsOf(
    grouped(
      readings.filter(r => r.rsrpDbm !== null),
      r => `${r.spotId} ${r.setupId} ${r.band} ${r.cellId}`,
    )
      .filter(g => rangeOf(g.map(r => r.rsrpDbm!)) <= DEEPEST_FADE_DB)
      .map(g => byDwell(g.map(r => ({ takenAtUtc: r.takenAtUtc, value: r.rsrpDbm! })))),
  )
  const sides = grouped(
    runs.filter(r => !r.wouldNotLoad && r.downMbps !== null),
    r => `${r.spotId} ${r.setupId}`,
  ).map(g => g.map(r => ({ takenAtUtc: r.takenAtUtc, value: logSpeed(r.downMbps!) })))
  const blocks = blocksOf(sides)
  const within = repeatsOf(blocks.flat())
  const speed = Math.max(LEAST.speed, drawnToward(USUAL_SPREAD.speed, within))
  const load = drawnToward(USUAL_SPREAD.load, betweenBlocks(blocks, speed))
  return {
    db: Math.max(LEAST.db, drawnToward(USUAL_SPREAD.db, levels)),
    speed,
    load: Math.max(LEAST.load, load),
    from: { db: fromOf(levels), speed: fromOf(within) },
  }
}

const fromOf = (r: Repeats): 'repeats' | 'assumed' => (r.freedom >= PRIOR_FREEDOM ? 'repeats' : 'assumed')

/** What means of blocks of one set-up at one place wander by, less what their own tests do. */
function betweenBlocks(sides: readonly (readonly (readonly number[])[])[], speed: number): Repeats {
  let squares = 0
  let freedom = 0
  for (const blocks of sides) {
    if (blocks.length < 2) continue
    const r = repeatsOf([blocks.map(b => b.reduce((s, v) => s + v, 0) / b.length)])
    const own = blocks.reduce((s, b) => s + speed ** 2 / b.length, 0) / blocks.length
    squares += r.squares - r.freedom * own
    freedom += r.freedom
  }
  return { squares, freedom }
}

export const spreadOf = (u: Usual, of: 'db' | 'speed'): Spread =>
  of === 'speed' ? { one: u.speed, block: u.load } : { one: 0, block: u.db }

/** @returns by what it was judged: `20 % of a test and 25 % of load between blocks (assumed)`, or of dwells, `2.0 dB of a dwell` */
export function spreadWords(u: Usual, of: 'db' | 'speed'): string {
  const size =
    of === 'speed'
      ? `${num(100 * u.speed)} % of a test and ${num(100 * u.load)} % of load between blocks`
      : `${num(u.db, 1)} dB of a dwell`
  return `${size} (${u.from[of] === 'repeats' ? 'this place’s own repeats' : 'assumed'})`
}
