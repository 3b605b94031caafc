/** What was found behind a hole that is to be made, and what follows: on with it, its own way of drilling, or no hole there. */
import type { Behind } from '../job/fixing'
import type { Fixture } from '../job/schema'

export interface BehindSays {
  words: string
  /** no hole there, whatever is agreed, and why; null where one may go on */
  stop: string | null
  /** how the hole is then made; null where it is as its way in says */
  how: string | null
}

/** @source common practice (no source); local code and licensed people decide */
export const BEHIND_SAYS: Record<Behind, BehindSays> = {
  'clear': { words: 'nothing in the way', stop: null, how: null },
  'line': {
    words: 'a cable',
    stop: 'a cable is there: another place; what is live is for a licensed electrician',
    how: null,
  },
  'pipe': { words: 'a water or waste pipe', stop: 'a pipe is there: another place', how: null },
  'gas': { words: 'a gas pipe', stop: 'gas is there: another place, well off its run', how: null },
  'fire wall': {
    words: 'a fire wall',
    stop: 'it is a fire wall: only whoever answers for it opens it, and seals it as it was rated',
    how: null,
  },
  'asbestos': {
    words: 'asbestos, or what may be it',
    stop: 'its dust kills: no drill; licensed people, or another way in',
    how: null,
  },
  'deck core': {
    words: 'a core between two skins',
    stop: null,
    how: 'Over-drilled from one side, the core scraped back and dry, filled flush; a wet core is no place for a hole.',
  },
}

type Looked = Pick<Fixture, 'behind' | 'behindFound' | 'behindWhat'>

/** @returns whether anybody has said what is behind, or that it is known */
export const isLookedBehind = (f: Pick<Fixture, 'behind' | 'behindFound'>): boolean => f.behind !== null || f.behindFound !== null

/** @returns what was found, how it is known, and what else was written down */
export function behindWords({ behind, behindFound, behindWhat }: Looked): string {
  const found = behindFound ? BEHIND_SAYS[behindFound].words : ''
  const known = [behind, found].filter(Boolean).join(': ')
  return [known, behindWhat].filter(Boolean).join(', ')
}
