/** The card: the plan's steps in their order, what of them is done, the next one with its gate, how long is left. */
import type { Check, JobDocument } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { gateState } from './gates'
import type { GateState, Known } from './gates'
import { byOne, climbsOf, orderSteps } from './order'
import type { Span } from './order'
import { stepsOf } from './steps'
import type { Step } from './steps'

export interface CardStep extends Step {
  /** the last mark made on it; null while there is none */
  mark: Check | null
  done: boolean
  /** done as the plan then was: it has changed since */
  changed: boolean
  /** somebody said that it is not so, and why */
  notSo: string | null
  /** the gate before it, as it stands now; null where there is none, and of a step that is done */
  gate: Step['gate']
}

export interface Card {
  /** done ones in the order in which they were done, then the open ones as they are to be done */
  steps: CardStep[]
  next: CardStep | null
  left: Span
  climbsLeft: number
}

const lastMark = (doc: Pick<JobDocument, 'checks'>, id: string): Check | null =>
  doc.checks
    .filter(c => c.kind === 'step' && c.key === id)
    .reduce<Check | null>((a, b) => (!a || (b.atUtc ?? '') >= (a.atUtc ?? '') ? b : a), null)

export function cardOf(doc: JobDocument, a: Pick<Assessment, 'tree' | 'lengths' | 'drill' | 'levels'>): Card {
  const marked = stepsOf(doc, a).map((step): CardStep => {
    const mark = lastMark(doc, step.id)
    const done = mark?.done ?? false
    return {
      ...step,
      mark,
      done,
      changed: done && mark!.about !== null && mark!.about !== step.about,
      notSo: !done && mark?.reason ? mark.reason : null,
    }
  })
  const done = marked.filter(s => s.done).sort((x, y) => (x.mark!.atUtc ?? '').localeCompare(y.mark!.atUtc ?? ''))
  const open = orderSteps(marked.filter(s => !s.done))
  return {
    steps: [...done, ...open],
    // What somebody found not to be so waits until it is looked at again; what needs it waits with it.
    next: open.find(s => !s.notSo && s.needs.every(n => marked.find(m => m.id === n)!.done)) ?? null,
    left: byOne(open),
    climbsLeft: climbsOf(open),
  }
}

/** What the job itself knows of the facts before a step. */
export function knownFor(doc: JobDocument, step: Pick<Step, 'id'>, steps: readonly Pick<CardStep, 'id' | 'done'>[]): Known {
  const [kind, id] = step.id.split(':')
  const way = kind === 'way' ? doc.fixtures.find(f => f.id === id) : undefined
  const fixing = doc.nodes.find(n => n.id === id)?.fixing
  return {
    assembledM: (fixing?.sections ?? []).reduce((s, x) => s + x.lengthM, 0),
    behind: way?.behind ? `${way.behind}${way.behindWhat ? `: ${way.behindWhat}` : ''}` : null,
    mayDrill: doc.jobs[0]!.mayDrill === 'yes',
    dryRunDone: steps.some(s => s.id === 'dry-run' && s.done),
  }
}

/** @returns the gate before a step as it stands at a moment; null where there is none */
export function gateBefore(doc: JobDocument, step: CardStep, steps: readonly CardStep[], atUtc: string): GateState | null {
  return step.gate && !step.done ? gateState(doc, step.gate, knownFor(doc, step, steps), atUtc) : null
}
