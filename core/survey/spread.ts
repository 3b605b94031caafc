/** What a reading or a test wanders by when it is only repeated: pooled over a job's own repeats, where there are enough. */
import { byDwell, logSpeed, USUAL_SPREAD } from './difference'
import type { Made } from './setups'
import type { Reading, SpeedRun } from '../job/schema'
import { num } from '../units'

export interface Usual {
  /** of one dwell, dB */
  db: number
  /** of one test, of its logarithm */
  speed: number
  /** where each is from */
  from: { db: 'repeats' | 'assumed'; speed: 'repeats' | 'assumed' }
}

/** So many values beyond the first of each group before their own spread is believed. Assumed. */
const LEAST_FREEDOM = 10
/** Never less than what a device rounds to, dB, and what a link does by itself. Assumed. */
const LEAST = { db: 0.7, speed: 0.05 }

/**
 * Standard deviation within groups, pooled by their degrees of freedom.
 * @returns null where there are too few
 */
export function pooled(groups: readonly (readonly number[])[]): number | null {
  let squares = 0
  let freedom = 0
  for (const g of groups) {
    const mean = g.reduce((s, v) => s + v, 0) / g.length
    for (const v of g) squares += (v - mean) ** 2
    freedom += Math.max(0, g.length - 1)
  }
  return freedom >= LEAST_FREEDOM ? Math.sqrt(squares / freedom) : null
}

function grouped<T>(rows: readonly T[], key: (r: T) => string): T[][] {
  const out = new Map<string, T[]>()
  for (const r of rows) {
    const group = out.get(key(r))
    if (group) group.push(r)
    else out.set(key(r), [r])
  }
  return [...out.values()]
}

export function usualSpread(readings: readonly Made<Reading>[], runs: readonly Made<SpeedRun>[]): Usual {
  const levels = grouped(
    readings.filter(r => r.rsrpDbm !== null),
    r => `${r.spotId} ${r.setupId} ${r.band} ${r.cellId}`,
  ).map(g => byDwell(g.map(r => ({ takenAtUtc: r.takenAtUtc, value: r.rsrpDbm! }))))
  const speeds = grouped(
    runs.filter(r => !r.wouldNotLoad && r.downMbps !== null),
    r => `${r.spotId} ${r.setupId}`,
  ).map(g => g.map(r => logSpeed(r.downMbps!)))
  const [db, speed] = [pooled(levels), pooled(speeds)]
  return {
    db: db === null ? USUAL_SPREAD.db : Math.max(LEAST.db, db),
    speed: speed === null ? USUAL_SPREAD.speed : Math.max(LEAST.speed, speed),
    from: { db: db === null ? 'assumed' : 'repeats', speed: speed === null ? 'assumed' : 'repeats' },
  }
}

/** @returns `the usual spread of 20 %`, or with `2 dB`, and whose it is */
export function spreadWords(u: Usual, of: 'db' | 'speed'): string {
  const size = of === 'speed' ? `${num(100 * u.speed)} %` : `${num(u.db, 1)} dB`
  return u.from[of] === 'repeats' ? `the spread of this place’s own repeats, ${size}` : `the usual spread of ${size}`
}
