/** What was tried side by side, antenna × place × SIM × band: ranked, each against the best by a test that is named. */
import { entryOf, nth } from '../sure'
import type { JobDocument, Spot } from '../job/schema'
import { behindBest, blocksOf, byDwell, dwellBlocks, logSpeed, pairsOf } from './difference'
import type { Behind as BehindBest, Taken } from './difference'
import { clockAt, hourWords, likeWithLike } from './hours'
import { changedBetween } from './setups'
import type { SetUp, Trait } from './setups'
import type { LogIndex } from './spots'
import type { Summary } from './stats'
import { spreadOf, spreadWords } from './spread'
import { summarise } from './stats'

export type RankedBy = 'down' | 'up' | 'SINR' | 'RSRP'

export interface Tried {
  setup: SetUp | null
  spot: Spot
  /** of levels, the band they are of; of speeds, the one that answered where all agree */
  band: string | null
  /** over what counts: tests, or dwells */
  summary: Summary
  /** against the first; null for the first itself */
  behind: Behind | null
}

export interface Behind extends BehindBest {
  /** in what it differs from the best; a place too */
  traits: (Trait | 'place' | 'band')[]
}

export interface Ranking {
  by: RankedBy
  tried: Tried[]
  /** hours that all of it was read in, in words; null where they differ, or for levels */
  hours: string | null
  /** how it was compared, in words */
  test: string
  /** what a rank of these does not allow for */
  reserve: string | null
}

const LEVEL_FIELD = { SINR: 'sinrDb', RSRP: 'rsrpDbm' } as const

interface Candidate {
  setup: SetUp | null
  spot: Spot
  band: string | null
  rows: Taken[]
}

/**
 * @param o.spotId  one place; all places where left out
 * @param o.by  speeds are compared by their logarithms and within the same hours, levels as they are, a dwell as one
 * @returns null where fewer than two were tried
 */
export function rankTried(doc: JobDocument, log: LogIndex, o: { by: RankedBy; spotId?: string }): Ranking | null {
  const speed = o.by === 'down' || o.by === 'up'
  const all = candidatesOf(doc, log, o)
  if (all.length < 2) return null
  const alike = speed
    ? likeWithLike(
        all.map(c => c.rows),
        clockAt(doc),
      )
    : null
  const lines = all.flatMap((c, i) => {
    const rows = alike ? nth(alike.rows, i) : c.rows
    const values = speed ? rows.map(r => r.value) : byDwell(rows)
    const summary = summarise(values)
    return summary ? [{ ...c, rows, summary }] : []
  })
  if (lines.length < 2) return null
  lines.sort((a, b) => b.summary.median - a.summary.median)
  const [best, ...rest] = lines as [(typeof lines)[number], ...typeof lines]
  const spread = spreadOf(log.usual, speed ? 'speed' : 'db')
  const [bestBlocks, ...blocks] = speed
    ? blocksOf([best, ...rest].map(l => l.rows.map(r => ({ ...r, value: logSpeed(r.value) }))))
    : [best, ...rest].map(l => dwellBlocks(l.rows))
  const behind = behindBest(bestBlocks!, blocks, spread)
  const pairs = pairsOf(lines.length)
  const shown = (l: (typeof lines)[number]) => ({ setup: l.setup, spot: l.spot, band: l.band, summary: l.summary })
  return {
    by: o.by,
    tried: [
      { ...shown(best), behind: null },
      ...rest.map((l, i) => ({
        ...shown(l),
        behind: { ...nth(behind, i), traits: differsFrom(best, l) },
      })),
    ],
    hours: alike?.hours ? hourWords(alike.hours, clockAt(doc)) : null,
    test: `by ${spreadWords(log.usual, speed ? 'speed' : 'db')}${pairs > 1 ? `; Holm’s correction for ${pairs} pairs` : ''}`,
    reserve: alike?.mixed ? 'read at different hours of the day: the load may differ, not the set-up' : null,
  }
}

/** @returns `all by day, 6 to 17 h`, or nothing where hours do not count */
export const hoursWords = (r: Ranking): string => (r.hours ? `all ${r.hours}` : '')

function candidatesOf(doc: JobDocument, log: LogIndex, o: { by: RankedBy; spotId?: string }): Candidate[] {
  const spots = doc.spots.filter(s => !o.spotId || s.id === o.spotId)
  const groups = new Map<string, Candidate>()
  const add = (spot: Spot, setup: SetUp | null, band: string | null, row: Taken) => {
    const key = `${spot.id} ${setup?.row.id ?? ''} ${band ?? ''}`
    if (!groups.has(key)) groups.set(key, { spot, setup, band, rows: [] })
    entryOf(groups, key).rows.push(row)
  }
  for (const spot of spots) {
    if (o.by === 'down' || o.by === 'up') {
      const field = o.by === 'down' ? 'downMbps' : 'upMbps'
      for (const r of log.runs) {
        const value = r.wouldNotLoad ? 0 : r[field]
        // Which band a speed came by is a set-up's lock: what it is between two tests is the device's own choice.
        if (r.spotId === spot.id && value !== null)
          add(spot, r.setup, r.setup?.row.bandLock ?? null, { takenAtUtc: r.takenAtUtc, value })
      }
    } else {
      const field = LEVEL_FIELD[o.by]
      for (const r of log.readings) {
        const value = r[field]
        if (r.spotId === spot.id && value !== null && r.carrierRole === 'anchor')
          add(spot, r.setup, r.band, { takenAtUtc: r.takenAtUtc, value })
      }
    }
  }
  return [...groups.values()]
}

function differsFrom(best: Omit<Candidate, 'rows'>, other: Omit<Candidate, 'rows'>): Behind['traits'] {
  const traits: Behind['traits'] = best.setup && other.setup ? changedBetween(best.setup, other.setup) : []
  if (best.spot.id !== other.spot.id) traits.push('place')
  if (best.band !== other.band && !traits.includes('band lock')) traits.push('band')
  return traits
}
