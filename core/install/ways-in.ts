/** Ways by which cables come in, ranked for a site: what is reversible first where nothing may be drilled, and what is never used. */
import { sure } from '../sure'
import { bitFor, holeMm } from './ducts'
import type { Passing } from './ducts'
import type { Entry } from '../job/fixing'
import type { Job, JobKind } from '../job/schema'

export interface WayIn {
  id: Entry
  words: string
  /** it can be undone without a trace */
  reversible: boolean
  /** it makes a hole that was not there */
  drills: boolean
  /** what is looked at first, and what is done so that it stays dry and safe */
  how: string
  caution: string | null
  kinds: readonly JobKind[]
}

export interface RankedWay extends WayIn {
  /** `go`, with somebody's consent, or never here */
  verdict: 'go' | 'ask' | 'never'
  why: string
  /** of the hole that the plugs need, mm; null where none is made */
  holeMm: number | null
  bitMm: number | null
}

const ALL: readonly JobKind[] = ['home', 'building', 'vehicle', 'boat']
const ASHORE: readonly JobKind[] = ['home', 'building']

/** From what disturbs least to what disturbs most. @source common practice (no source) */
const WAYS: readonly WayIn[] = [
  {
    id: 'port',
    words: 'a port or gland that is there',
    reversible: true,
    drills: false,
    how: 'Trace it and label it first; a plug larger than its gland goes on afterwards.',
    caution: null,
    kinds: ALL,
  },
  {
    id: 'old-cable',
    words: 'an old cable as draw line',
    reversible: true,
    drills: false,
    how: 'Look for its slack first; pull a spare line in with the new cable.',
    caution: null,
    kinds: ALL,
  },
  {
    id: 'window',
    words: 'a flat lead under a window or hatch',
    reversible: true,
    drills: false,
    how: 'The seal closes over it; drip loop outside; it takes about a decibel more than the cable it replaces.',
    caution: null,
    kinds: ALL,
  },
  {
    id: 'grommet',
    words: 'a grommet in the bulkhead',
    reversible: true,
    drills: false,
    how: 'Taped end, silicone lubricant, then along the factory looms in split loom.',
    caution: 'Away from exhaust, belts, fans and airbags.',
    kinds: ['vehicle', 'boat'],
  },
  {
    id: 'vent',
    words: 'an attic vent, or a plumbing vent’s flashing',
    reversible: true,
    drills: false,
    how: 'Behind the insect screen, which is closed again; drip loop below.',
    caution: 'Be sure it is no flue: a flue is hot, and carries carbon monoxide.',
    kinds: ASHORE,
  },
  {
    id: 'garage',
    words: 'beside the garage door',
    reversible: true,
    drills: false,
    how: 'Along the frame where the seal is soft, clear of the door’s way.',
    caution: null,
    kinds: ['home'],
  },
  {
    id: 'fridge-vent',
    words: 'the fridge vent',
    reversible: true,
    drills: false,
    how: 'Clear of the burner; its seal toward the living space is made good again.',
    caution: 'Gas off and cold. A seal left open lets carbon monoxide in.',
    kinds: ['vehicle'],
  },
  {
    id: 'hatch',
    words: 'a hole in a hatch, which can be replaced, rather than in the body',
    reversible: false,
    drills: true,
    how: 'Gland with sleeve, slack for opening it, closed to insects.',
    caution: null,
    kinds: ['vehicle', 'boat'],
  },
  {
    id: 'wall',
    words: 'a hole through the wall, falling outward',
    reversible: false,
    drills: true,
    how: 'Pilot from the cramped side; plate sealed on three edges, its lower edge open; drip loop below.',
    caution: 'What is behind is known or looked at first: a line, a pipe, gas, a fire wall.',
    kinds: ASHORE,
  },
  {
    id: 'deck',
    words: 'a deck gland',
    reversible: false,
    drills: true,
    how: 'Core over-drilled, filled, drilled again; gland by the jacket.',
    caution: 'A wet core rots: no hole stays raw.',
    kinds: ['boat'],
  },
  {
    id: 'roof',
    words: 'a gland in the roof',
    reversible: false,
    drills: true,
    how: 'Pilot from inside, saw from outside, dry fit, clean, dry, peel, press; an inner rim against water.',
    caution: 'A roof’s warranty often ends here; rafters, solar wiring and airbags are looked for first.',
    kinds: ['home', 'building', 'vehicle'],
  },
]

/** Never, whatever is agreed. */
const NEVER: readonly Omit<WayIn, 'kinds'>[] = [
  {
    id: 'flue',
    words: 'a flue, or a dryer’s outlet',
    reversible: true,
    drills: false,
    how: '',
    caution: 'Hot gas and carbon monoxide: never.',
  },
]

export const wayInById = (id: Entry): Omit<WayIn, 'kinds'> => sure([...WAYS, ...NEVER].find(w => w.id === id))

/**
 * @param mayDrill  as agreed with who owns it
 * @param cables  what passes there: jackets and plugs
 */
export function waysIn(kind: JobKind, mayDrill: Job['mayDrill'], cables: readonly Passing[]): RankedWay[] {
  const hole = cables.length ? holeMm(cables) : null
  const ranked = WAYS.filter(w => w.kinds.includes(kind)).map((w): RankedWay => {
    const made = w.drills ? { holeMm: hole, bitMm: hole === null ? null : bitFor(hole) } : { holeMm: null, bitMm: null }
    if (w.drills && mayDrill === 'no') return { ...w, ...made, verdict: 'never', why: 'nothing may be drilled here' }
    if (w.drills && mayDrill === 'ask') return { ...w, ...made, verdict: 'ask', why: 'the owner is asked first' }
    return { ...w, ...made, verdict: 'go', why: w.reversible ? 'leaves no trace' : 'agreed' }
  })
  const order = { go: 0, ask: 1, never: 2 }
  return [
    ...ranked.sort((a, b) => order[a.verdict] - order[b.verdict] || Number(b.reversible) - Number(a.reversible)),
    ...NEVER.map((w): RankedWay => ({ ...w, kinds: ALL, verdict: 'never', why: w.caution!, holeMm: null, bitMm: null })),
  ]
}
