/** Two set-ups of one place that more tests would tell apart: led through them in turns, A B B A. */
import { nth } from '../sure'
import type { JobDocument } from '../job/schema'
import { settlingOrder } from './difference'
import { rankTried } from './rank'
import { changedBetween, traitsOf } from './setups'
import type { SetUp } from './setups'
import type { LogIndex } from './spots'
import type { Turn } from './walk'

export interface Close {
  spotId: string
  a: SetUp
  b: SetUp
  /** the tests that are to be made, in their order */
  order: readonly ('a' | 'b')[]
  sinceUtc: string
}

/** @returns the best at a place and the first that may be as good, where some more tests would settle it; null where none would */
export function closePair(doc: JobDocument, log: LogIndex, spotId: string, sinceUtc: string): Close | null {
  const ranking = rankTried(doc, log, { by: 'down', spotId })
  const a = ranking?.tried[0]?.setup
  const other = ranking?.tried.find(t => t.behind?.difference.settledBy && t.setup)
  if (!a || !other) return null
  return { spotId, a, b: other.setup!, order: settlingOrder(other.behind!.difference.settledBy!), sinceUtc }
}

/** @returns each test that is to be made, with the set-up it is of and whether it was made since they were begun */
export function closeTurns(close: Close, log: LogIndex): Turn[] {
  const { a, b, order, spotId, sinceUtc } = close
  const made = log.runs
    .filter(r => r.spotId === spotId && r.takenAtUtc >= sinceUtc)
    .sort((x, y) => x.takenAtUtc.localeCompare(y.takenAtUtc))
  const sides = { a, b }
  let done = 0
  // A test of another set-up, or one more of the same, is none of the turns.
  for (const r of made) if (done < order.length && r.setupId === sides[nth(order, done)].row.id) done++
  const differing = new Set(changedBetween(a, b))
  return order.map((side, i) => {
    const words = traitsOf(sides[side])
      .filter(([t]) => differing.has(t))
      .map(([, w]) => w)
      .join(', ')
    return {
      key: String(i),
      words: side.toUpperCase(),
      task: `${words || sides[side].row.name || 'the same again'}: make it so, then test once.`,
      changed: {},
      taken: i < done ? 1 : 0,
      now: i === done,
      setupId: sides[side].row.id,
    }
  })
}
