/**
 * Gates: what must be true *now* before anyone climbs, drills, raises, energises or transmits. Each fact has a person and a
 * time, and lapses; a gate with one fact missing stays shut, and none can be argued open.
 */
import type { Check, JobDocument, JobKind } from '../job/schema'
import { lastCheck } from '../judge/ticks'
import { presentStop } from '../survey/place'
import { BEHIND_SAYS } from '../fitting/behind'
import { LINE_CLEAR_M } from '../fitting/mounts'
import type { Behind } from '../job/fixing'

export const GATES = ['climb', 'drill', 'raise', 'energise', 'transmit'] as const
export type GateId = (typeof GATES)[number]

export interface Fact {
  key: string
  gates: readonly GateId[]
  words: string
  /** how long it is true once somebody said so, minutes */
  holdsMin: number
  /** it is a figure: its unit, and between what it opens */
  figure?: { unit: string; most?: number; least?: number }
  kinds?: readonly JobKind[]
}

/** A working day, minutes. @source common practice (no source) */
const DAY_MIN = 12 * 60
/** Gust at which a ladder is left, m/s. @source common practice (no source) */
export const LADDER_GUST_MS = 10

const ASHORE: readonly JobKind[] = ['home', 'building']

/** @source common practice; national rules and licensed people decide */
export const FACTS: readonly Fact[] = [
  {
    key: 'wind',
    gates: ['climb', 'raise'],
    words: 'Gust now, by a meter or the nearest report',
    holdsMin: 60,
    figure: { unit: 'm/s', most: LADDER_GUST_MS },
  },
  { key: 'thunder', gates: ['climb', 'raise'], words: 'No thunder heard for half an hour', holdsMin: 30 },
  { key: 'ice', gates: ['climb'], words: 'No ice, frost or wet moss where a foot goes', holdsMin: 120 },
  {
    key: 'fragile',
    gates: ['climb'],
    words: 'The roof bears: no skylight, sheet or rotten board is stepped on',
    holdsMin: DAY_MIN,
    kinds: ['home', 'building', 'vehicle'],
  },
  {
    key: 'foot',
    gates: ['climb'],
    words: 'Ladder footed and tied, someone at its foot',
    holdsMin: 240,
    kinds: ['home', 'building', 'vehicle'],
  },
  {
    key: 'halyards',
    gates: ['climb'],
    words: 'Two halyards, a trusted hand at the winch, nobody under it, radar off',
    holdsMin: 240,
    kinds: ['boat'],
  },
  { key: 'behind', gates: ['drill'], words: 'No cable, pipe or gas behind it: known, or looked at', holdsMin: DAY_MIN },
  { key: 'asbestos', gates: ['drill'], words: 'No fire wall, no asbestos, no wet core', holdsMin: DAY_MIN },
  { key: 'owner', gates: ['drill'], words: 'The owner said yes to this hole', holdsMin: 30 * 24 * 60 },
  { key: 'tried', gates: ['drill'], words: 'The dry run read what it should', holdsMin: DAY_MIN },
  { key: 'eyes', gates: ['drill'], words: 'Eyes, dust, a hand free', holdsMin: 240 },
  { key: 'lines', gates: ['raise'], words: 'Nearest overhead line is away', holdsMin: DAY_MIN, figure: { unit: 'm' } },
  { key: 'under', gates: ['raise'], words: 'Nobody under it, wherever it can fall', holdsMin: 60 },
  {
    key: 'dead',
    gates: ['energise'],
    words: 'Fuse out and proven dead while wired; solar, charger, shore and inverter off',
    holdsMin: 240,
    kinds: ['vehicle', 'boat'],
  },
  {
    key: 'plug',
    gates: ['energise'],
    words: 'By a plug that is there; beyond it an electrician',
    holdsMin: DAY_MIN,
    kinds: ASHORE,
  },
  { key: 'antennas', gates: ['energise', 'transmit'], words: 'Every antenna is on its port before power', holdsMin: 240 },
  {
    key: 'registered',
    gates: ['transmit'],
    words: 'Registered, or consent is there, where the rule asks for it',
    holdsMin: 365 * 24 * 60,
  },
  { key: 'rf', gates: ['transmit'], words: 'People are 20 cm and more from every antenna', holdsMin: 240 },
]

export const factsFor = (gate: GateId, kind: JobKind): Fact[] =>
  FACTS.filter(f => f.gates.includes(gate) && (!f.kinds || f.kinds.includes(kind)))

export interface FactState {
  fact: Fact
  stands: boolean
  /** said by whom and when; null where the job itself says so, or nobody has */
  said: Check | null
  /** as the job itself knows it; null where it does not */
  known: string | null
  /** it was said, and lapsed */
  lapsed: boolean
  /** a figure on the wrong side */
  stop: string | null
}

export interface GateState {
  gate: GateId
  open: boolean
  facts: FactState[]
}

/** What the job knows of facts by itself: where it does, nobody is asked again. */
export interface Known {
  /** assembled length of what is raised, m */
  assembledM: number
  /** what was found behind the hole, as noted on the way in */
  behind: { found: Behind; words: string } | null
  mayDrill: boolean
  /** on this card; none where the plan has nothing to be tried */
  dryRun: 'none' | 'open' | 'done'
}

export function gateState(doc: JobDocument, gate: GateId, known: Known, atUtc: string): GateState {
  const kind = doc.jobs[0]!.kind
  const facts = factsFor(gate, kind).map(fact => factState(doc, fact, known, atUtc))
  return { gate, facts, open: facts.every(f => f.stands) }
}

function factState(doc: JobDocument, fact: Fact, known: Known, atUtc: string): FactState {
  const own = knownOf(fact.key, known)
  const said = lastCheck(doc, 'fact', fact.key)
  const base = { fact, said, known: own, lapsed: false, stop: null }
  // What the plan knows to be wrong, nobody says away.
  const against = againstOf(fact.key, known)
  if (against) return { ...base, known: null, stands: false, stop: against }
  if (own !== null) return { ...base, stands: true }
  if (!said?.done || !said.atUtc) return { ...base, stands: false }
  const ageMin = (Date.parse(atUtc) - Date.parse(said.atUtc)) / 60_000
  const here = (said.stopId ?? null) === (presentStop(doc)?.id ?? null)
  // A clock that runs a little behind must not shut a gate; one that is an hour ahead must not hold it open.
  if (!(ageMin >= -CLOCK_MIN && ageMin <= fact.holdsMin) || !here) return { ...base, stands: false, lapsed: true }
  const stop = wrongFigure(fact, said.value ?? null, known)
  return { ...base, stands: stop === null, stop }
}
const CLOCK_MIN = 6

function knownOf(key: string, known: Known): string | null {
  if (key === 'behind') return known.behind?.words ?? null
  if (key === 'owner' && known.mayDrill) return 'in Ask'
  if (key === 'tried' && known.dryRun === 'done') return 'done on this card'
  return null
}

/** Which fact speaks of what was found. */
const FOUND_BY: Partial<Record<Behind, string>> = {
  'line': 'behind',
  'pipe': 'behind',
  'gas': 'behind',
  'fire wall': 'asbestos',
  'asbestos': 'asbestos',
}

/** @returns what the job itself knows against a fact; null where nothing */
function againstOf(key: string, { behind, dryRun }: Known): string | null {
  if (key === 'tried' && dryRun === 'open') return 'the dry run on this card comes first'
  return behind && FOUND_BY[behind.found] === key ? BEHIND_SAYS[behind.found].stop : null
}

/** @returns why a figure keeps the gate shut; null where it does not */
function wrongFigure(fact: Fact, value: number | null, known: Known): string | null {
  if (!fact.figure) return null
  if (value === null || !Number.isFinite(value)) return 'the figure is missing'
  const least = fact.key === 'lines' ? known.assembledM + LINE_CLEAR_M : fact.figure.least
  if (least !== undefined && value < least)
    return `${value} ${fact.figure.unit}, and ${least.toFixed(1)} ${fact.figure.unit} are kept: stop`
  if (fact.figure.most !== undefined && value > fact.figure.most)
    return `${value} ${fact.figure.unit}, above ${fact.figure.most} ${fact.figure.unit}: stop`
  return null
}
