/**
 * Gates: what must be true *now* before anyone climbs, drills, raises, energises or transmits. Each fact belongs to what it was
 * said of, has a person and a time, and lapses with time and when that changes. A gate with one fact missing stays shut, and none
 * can be argued open.
 */
import { jobOf } from '../job/schema'
import type { Check, JobDocument, JobKind } from '../job/schema'
import { lastCheck } from '../judge/ticks'
import { presentStop } from '../survey/place'
import { BEHIND_SAYS } from '../install/behind'
import { LINE_CLEAR_M } from '../install/mounts'
import type { Behind } from '../job/fixing'

export const GATES = ['plan', 'climb', 'ladder', 'drill', 'gas', 'raise', 'energise', 'transmit'] as const
export type GateId = (typeof GATES)[number]

/** What a fact belongs to: the whole job, this visit to the place, or the one thing that the gate is before. */
export type Scope = 'job' | 'visit' | 'one'

export interface Fact {
  key: string
  gates: readonly GateId[]
  scope: Scope
  words: string
  /** how long it is true once somebody said so, minutes */
  holdsMin: number
  /** it is a figure: its unit, and between what it opens */
  figure?: { unit: string; most?: number; least?: number }
  kinds?: readonly JobKind[]
  /** of a box on this supply alone */
  supply?: 'wired' | 'plugged'
  /** of what repeats alone */
  booster?: true
  /** of a hole through the shell or a ceiling; a screw's hole goes through nothing */
  through?: true
}

/**
 * A gate before a step, and what it is about: a hole, a place of the ladder, a box, a pole.
 * Two steps about the same thing share what was said of it.
 */
export interface GateNeed {
  gate: GateId
  /** the one thing that its facts belong to */
  of: string
  /** a short sum of that thing as it is planned: what was said of it lapses when this changes */
  about: string
  /** of `drill`: it goes through the shell or a ceiling, or is for screws alone */
  hole?: 'through' | 'screws'
  supply?: Fact['supply']
  booster?: true
  /** of `raise`: assembled length, m */
  assembledM?: number
  /** of `plan`: what the plan lacks, each to be noted or decided here by a name */
  lacks?: readonly { key: string; words: string }[]
}

/** A working day, minutes. @source common practice (no source) */
const DAY_MIN = 12 * 60
/** Gust at which a ladder is left, m/s. @source common practice (no source) */
export const LADDER_GUST_MS = 10

const NOT_AFLOAT: readonly JobKind[] = ['home', 'building', 'vehicle']

/** @source common practice; national rules and licensed people decide */
export const FACTS: readonly Fact[] = [
  {
    key: 'wind',
    gates: ['climb', 'raise'],
    scope: 'visit',
    words: 'Gust now, by a meter or the nearest report',
    holdsMin: 60,
    figure: { unit: 'm/s', most: LADDER_GUST_MS },
  },
  { key: 'thunder', gates: ['climb', 'raise'], scope: 'visit', words: 'No thunder heard for half an hour', holdsMin: 30 },
  { key: 'ice', gates: ['climb'], scope: 'visit', words: 'No ice, frost or wet moss where a foot goes', holdsMin: 120 },
  {
    key: 'fragile',
    gates: ['climb'],
    scope: 'one',
    words: 'The roof bears: no skylight, sheet or rotten board is stepped on',
    holdsMin: DAY_MIN,
    kinds: NOT_AFLOAT,
  },
  {
    key: 'foot',
    gates: ['climb'],
    scope: 'one',
    words: 'Ladder footed and tied here, someone at its foot',
    holdsMin: 240,
    kinds: NOT_AFLOAT,
  },
  {
    key: 'halyards',
    gates: ['climb'],
    scope: 'one',
    words: 'Two halyards, a trusted hand at the winch, nobody under it, radar off',
    holdsMin: 240,
    kinds: ['boat'],
  },
  {
    key: 'steps',
    gates: ['ladder'],
    scope: 'one',
    words: 'Stepladder level and locked here; no door opens into it, nobody passes under it',
    holdsMin: 240,
  },
  {
    key: 'behind',
    gates: ['drill'],
    scope: 'one',
    words: 'No cable, pipe or gas behind it: known, or looked at',
    holdsMin: DAY_MIN,
  },
  { key: 'asbestos', gates: ['drill'], scope: 'one', words: 'No fire wall, no asbestos, no wet core', holdsMin: DAY_MIN },
  { key: 'owner', gates: ['drill'], scope: 'one', words: 'The owner said yes to this hole', holdsMin: 30 * 24 * 60 },
  { key: 'tried', gates: ['drill'], scope: 'visit', words: 'The dry run read what it should', holdsMin: DAY_MIN, through: true },
  { key: 'eyes', gates: ['drill'], scope: 'visit', words: 'Eyes, dust, a hand free', holdsMin: 240 },
  {
    key: 'flame',
    gates: ['gas'],
    scope: 'one',
    words: 'Gas off at the bottle, the burner out and cold',
    holdsMin: 240,
  },
  {
    key: 'alarm',
    gates: ['gas'],
    scope: 'one',
    words: 'A carbon monoxide alarm works in the living space, and the seal toward it is made good again today',
    holdsMin: DAY_MIN,
  },
  {
    key: 'lines',
    gates: ['raise'],
    scope: 'one',
    words: 'Nearest overhead line is away',
    holdsMin: DAY_MIN,
    figure: { unit: 'm' },
  },
  { key: 'under', gates: ['raise'], scope: 'one', words: 'Nobody under it, wherever it can fall', holdsMin: 60 },
  {
    key: 'dead',
    gates: ['energise'],
    scope: 'one',
    words: 'Fuse out and proven dead while wired; solar, charger, shore and inverter off',
    holdsMin: 240,
    supply: 'wired',
  },
  {
    key: 'plug',
    gates: ['energise'],
    scope: 'one',
    words: 'By a plug that is there; beyond it an electrician',
    holdsMin: DAY_MIN,
    supply: 'plugged',
  },
  {
    key: 'antennas',
    gates: ['energise', 'transmit'],
    scope: 'one',
    words: 'Every antenna is on its port before power',
    holdsMin: 240,
  },
  {
    key: 'registered',
    gates: ['transmit'],
    scope: 'job',
    words: 'Registered, or consent is there, where the rule asks for it',
    holdsMin: 365 * 24 * 60,
    booster: true,
  },
  { key: 'rf', gates: ['transmit'], scope: 'one', words: 'People are 20 cm and more from every antenna', holdsMin: 240 },
]

/** Gates that open only with a second person there: at the ladder's foot, at the winch, at the guys. */
export const SECOND_PERSON: ReadonlySet<GateId> = new Set(['climb', 'raise'])

/** @returns the facts that a gate asks for, of the thing it is about */
export function factsFor(need: Omit<GateNeed, 'of' | 'about'>, kind: JobKind): Fact[] {
  if (need.gate === 'plan') return (need.lacks ?? []).map(decided)
  return FACTS.filter(
    f =>
      f.gates.includes(need.gate) &&
      (!f.kinds || f.kinds.includes(kind)) &&
      (!f.supply || f.supply === (need.supply ?? 'plugged')) &&
      (!f.booster || !!need.booster) &&
      (!f.through || need.hole !== 'screws'),
  )
}

/** What the plan lacks may be decided on site: by a name, for this day. */
const decided = ({ key, words }: { key: string; words: string }): Fact => ({
  key: `decided ${key}`,
  gates: ['plan'],
  scope: 'visit',
  words: `Decided here: ${words}`,
  holdsMin: DAY_MIN,
})

/** Under which key a fact of a gate stands in the log of checks. */
export const factKey = (fact: Fact, need: Pick<GateNeed, 'of'>): string =>
  fact.scope === 'one' ? `${fact.key}:${need.of}` : fact.key

export interface FactState {
  fact: Fact
  /** under which it is said */
  key: string
  /** of what, as it is planned: to be said with it */
  about: string | null
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
  need: GateNeed
  gate: GateId
  open: boolean
  facts: FactState[]
}

/** What the job knows of facts by itself: where it does, nobody is asked again. */
export interface Known {
  /** what was found behind the hole, as noted on the way in */
  behind: { found: Behind; words: string } | null
  mayDrill: 'yes' | 'no' | 'ask'
  /** the step of this card is done */
  registered?: boolean
  /** on this card; none where the plan has nothing to be tried */
  dryRun: 'none' | 'open' | 'done'
}

export function gateState(doc: JobDocument, need: GateNeed, known: Known, atUtc: string): GateState {
  const kind = jobOf(doc).kind
  const facts = factsFor(need, kind).map(fact => factState(doc, fact, need, { known, atUtc }))
  return { need, gate: need.gate, facts, open: facts.every(f => f.stands) }
}

function factState(doc: JobDocument, fact: Fact, need: GateNeed, { known, atUtc }: { known: Known; atUtc: string }): FactState {
  const key = factKey(fact, need)
  const about = fact.scope === 'one' ? need.about : null
  const own = knownOf(fact.key, need, known)
  const said = lastCheck(doc, 'fact', key)
  const base = { fact, key, about, said, known: own, lapsed: false, stop: null }
  // What the plan knows to be wrong, nobody says away.
  const against = againstOf(fact.key, known)
  if (against) return { ...base, known: null, stands: false, stop: against }
  if (own !== null) return { ...base, stands: true }
  if (!said?.done || !said.atUtc) return { ...base, stands: false }
  const ageMin = (Date.parse(atUtc) - Date.parse(said.atUtc)) / 60_000
  const here = (said.stopId ?? null) === (presentStop(doc)?.id ?? null)
  const same = about === null || said.about === about
  // A clock that runs a little behind must not shut a gate; one that is an hour ahead must not hold it open.
  if (!(ageMin >= -CLOCK_MIN && ageMin <= fact.holdsMin) || !here || !same) return { ...base, stands: false, lapsed: true }
  const stop = wrongFigure(fact, said.value ?? null, need)
  return { ...base, stands: stop === null, stop }
}
const CLOCK_MIN = 6

function knownOf(key: string, need: GateNeed, known: Known): string | null {
  if (key === 'behind') return known.behind?.words ?? null
  // A general yes is no yes to this hole through a wall; for the screws of a box it is enough.
  if (key === 'owner' && need.hole === 'screws' && known.mayDrill === 'yes') return 'in Ask'
  if (key === 'registered' && known.registered) return 'its step is done'
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
function againstOf(key: string, { behind, dryRun, mayDrill }: Known): string | null {
  if (key === 'tried' && dryRun === 'open') return 'the dry run on this card comes first'
  if (key === 'owner' && mayDrill === 'no') return 'nothing may be drilled here: agreed in Ask'
  return behind && FOUND_BY[behind.found] === key ? BEHIND_SAYS[behind.found].stop : null
}

/** @returns why a figure keeps the gate shut; null where it does not */
function wrongFigure(fact: Fact, value: number | null, need: GateNeed): string | null {
  if (!fact.figure) return null
  if (value === null || !Number.isFinite(value)) return 'the figure is missing'
  const least = fact.key === 'lines' ? (need.assembledM ?? Infinity) + LINE_CLEAR_M : fact.figure.least
  if (least !== undefined && value < least)
    return `${value} ${fact.figure.unit}, and ${least.toFixed(1)} ${fact.figure.unit} are kept: stop`
  if (fact.figure.most !== undefined && value > fact.figure.most)
    return `${value} ${fact.figure.unit}, above ${fact.figure.most} ${fact.figure.unit}: stop`
  return null
}
