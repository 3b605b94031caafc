/** The card: the plan's steps in their order, what of them is done, the next one with its gate, how long is left. */
import { jobOf } from '../job/schema'
import { entryOf, nth, sure } from '../sure'
import { behindWords } from '../install/behind'
import type { Check, JobDocument } from '../job/schema'
import { lastChecks } from '../judge/ticks'
import { waitingOn } from './late'
import type { Waiting } from './late'
import type { ListLine } from './list'
import { gateState } from './gates'
import type { GateNeed, GateState, Known } from './gates'
import { byOne, climbsOf, orderSteps, runsOf } from './order'
import type { Span } from './order'
import { stepsOf } from './steps'
import { tally } from './step'
import type { Planned, Step } from './step'
import type { Words } from '../words'

export interface CardStep extends Step {
  /** the last mark made on it; null while there is none */
  mark: Check | null
  done: boolean
  /** done as the plan then was: it has changed since */
  changed: boolean
  /** it was ticked, and the job itself shows otherwise: what it lacks; null where nothing speaks against the tick */
  against: string | null
  /** somebody said that it is not so, and why */
  notSo: string | null
  /** a thing it takes is not there that day; null where nothing holds it up */
  waits: Waiting | null
  /** UTC until which something before it hardens; null where it need not wait for that */
  hardensUntil: string | null
}

export interface Card {
  /** done ones in the order in which they were done, then the open ones as they are to be done */
  steps: CardStep[]
  next: CardStep | null
  left: Span
  climbsLeft: number
}

/** The list as it stands, and the day on which somebody is there. */
export interface Supplied {
  lines: readonly ListLine[]
  onDay: string
  /** what was filled or glued before has hardened by then, or not */
  atUtc?: string
}

/** A step is done once somebody said so, or once the job itself shows it; taken back by hand it is open again. */
export const isDone = (step: Pick<Step, 'shown'>, mark: Pick<Check, 'done'> | null): boolean =>
  mark ? mark.done : step.shown === true

/** What a tick lacks where the job itself shows otherwise. */
const NOT_SHOWN: Record<string, string> = {
  aim: 'ticked, and no aim is locked: lock it in Aim',
  prove: 'ticked, and a room that must be proved is not tested yet',
}

export const cardOf = (doc: JobDocument, a: Planned, supplied?: Supplied): Card => cardFrom(stepsOf(doc, a), doc, supplied)

/** The same of steps that were made before: they last as long as the plan does. */
export function cardFrom(
  steps: readonly Step[],
  doc: Pick<JobDocument, 'checks'>,
  { lines, onDay, atUtc }: Supplied = { lines: [], onDay: '' },
): Card {
  const marks = lastChecks(doc, 'step')
  const said = steps.map(step => {
    const mark = marks.get(step.id) ?? null
    const done = isDone(step, mark)
    return {
      ...step,
      mark,
      done,
      changed: !!mark?.done && mark.about !== null && mark.about !== step.about,
      against: mark?.done && step.shown === false ? NOT_SHOWN[nth(step.id.split(':'), 0)]! : null,
      notSo: !done && mark?.reason ? mark.reason : null,
    }
  })
  const waiting = waitingOn(said, lines, onDay)
  const hard = hardening(said, atUtc)
  const marked = said.map((s): CardStep => ({ ...s, waits: waiting.get(s.id) ?? null, hardensUntil: hard.get(s.id) ?? null }))
  const done = marked.filter(s => s.done).sort((x, y) => (x.mark?.atUtc ?? '').localeCompare(y.mark?.atUtc ?? ''))
  const open = orderSteps(marked.filter(s => !s.done))
  return {
    steps: [...done, ...open],
    // What somebody found not to be so waits until it is looked at again; what needs it waits with it.
    next:
      open.find(s => !s.notSo && !s.waits && !s.hardensUntil && s.needs.every(n => sure(marked.find(m => m.id === n)).done)) ??
      null,
    left: byOne(open),
    climbsLeft: climbsOf(open),
  }
}

/** @returns open steps for which something still hardens, and all that needs those, with until when */
function hardening(steps: readonly Omit<CardStep, 'waits' | 'hardensUntil'>[], atUtc: string | undefined): Map<string, string> {
  const until = new Map<string, string>()
  if (!atUtc) return until
  const byId = new Map(steps.map(s => [s.id, s]))
  for (const step of orderSteps(steps.filter(s => !s.done))) {
    const waits = step.needs.flatMap(n => {
      const before = entryOf(byId, n)
      if (!before.done) return until.get(n) ?? []
      if (!before.hardensMin || !before.mark?.atUtc) return []
      const hard = new Date(Date.parse(before.mark.atUtc) + before.hardensMin * 60_000).toISOString()
      return hard > atUtc ? hard : []
    })
    const last = waits.sort().at(-1)
    if (last) until.set(step.id, last)
  }
  return until
}

/** Steps that are done on one climb, and all that goes up for them. */
export interface Climb {
  steps: CardStep[]
  takes: Words[]
}

/** @returns the climb on which an open step is done; null where it is done from the ground, or already */
export function climbOf(steps: readonly CardStep[], step: CardStep): Climb | null {
  const isUp = (s: CardStep) => s.stand === 'up' && !s.done
  const climb = isUp(step) ? runsOf(steps, isUp).find(run => run.includes(step)) : undefined
  if (!climb) return null
  const parts = tally(climb.flatMap(s => s.parts))
  // What a step has built on the ground goes up as one thing.
  const raised = climb.filter(s => s.id.startsWith('raise:')).map(s => s.words.replace(/^Raise /, ''))
  return { steps: climb, takes: [...raised, ...parts, ...new Set(climb.flatMap(s => s.tools))] }
}

/** What the job itself knows of the facts of a gate. */
export function knownFor(doc: JobDocument, need: GateNeed, steps: readonly Pick<CardStep, 'id' | 'done'>[]): Known {
  const dryRun = steps.find(s => s.id === 'dry-run')
  const way = need.gate === 'drill' ? doc.fixtures.find(f => f.id === need.of) : undefined
  return {
    behind: way?.behindFound ? { found: way.behindFound, words: behindWords(way) } : null,
    mayDrill: jobOf(doc).mayDrill,
    registered: steps.some(s => s.id === 'register' && s.done),
    dryRun: !dryRun ? 'none' : dryRun.done ? 'done' : 'open',
  }
}

/** @returns the gates before a step as they stand at a moment, shut ones first; none before a step that is done */
export function gatesBefore(doc: JobDocument, step: CardStep, steps: readonly CardStep[], atUtc: string): GateState[] {
  if (step.done) return []
  const states = step.gates.map(need => gateState(doc, need, knownFor(doc, need, steps), atUtc))
  return states.sort((a, b) => Number(a.open) - Number(b.open))
}
