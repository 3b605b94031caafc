/** A day on site: who does which step from when to when, by one or by two, and what of it is after dark. */
import { climbsOf, graphOf, orderSteps, spanOf } from './order'
import type { Crewed } from './order'

export interface Slot<T> {
  step: T
  /** minutes after the beginning */
  fromMin: number
  toMin: number
}

export interface DayPlan<T> {
  slots: Slot<T>[]
  /** minutes from the beginning to the last step's end */
  lengthMin: number
  /** no plan with as few climbs is shorter */
  exact: boolean
  /** no plan whatever is shorter than this, minutes */
  boundMin: number
}

/** Up to so many steps every order is tried. */
const TRIED_WHOLE = 9

/**
 * Puts every step at its earliest, in the order of a list, so that no more people are busy than there are.
 * @source serial schedule generation for one renewable resource: one of its lists gives the shortest plan there is
 */
export function placed<T extends Crewed>(list: readonly T[], people: number): Slot<T>[] {
  const ends = new Map<string, number>()
  const slots: Slot<T>[] = []
  for (const step of list) {
    const takes = Math.min(step.people, people)
    const minutes = spanOf(step.minutes).likely
    const ready = Math.max(0, ...step.needs.map(n => ends.get(n) ?? 0))
    const fromMin = earliest(slots, people, { ready, minutes, takes })
    ends.set(step.id, fromMin + minutes)
    slots.push({ step, fromMin, toMin: fromMin + minutes })
  }
  return slots
}

function earliest<T extends Crewed>(
  slots: readonly Slot<T>[],
  people: number,
  { ready, minutes, takes }: { ready: number; minutes: number; takes: number },
): number {
  const starts = [ready, ...slots.map(s => s.toMin).filter(t => t > ready)].sort((a, b) => a - b)
  const free = (from: number) => {
    const during = slots.filter(s => s.fromMin < from + minutes - EPSILON && s.toMin > from + EPSILON)
    // Busiest moment while it lasts: it begins with it, or when another of them begins.
    return [from, ...during.map(s => s.fromMin).filter(t => t > from)].every(
      t =>
        during.filter(s => s.fromMin <= t && s.toMin > t + EPSILON).reduce((n, s) => n + Math.min(s.step.people, people), 0) <=
        people - takes,
    )
  }
  return starts.find(free)!
}
const EPSILON = 1e-9

const lengthOf = (slots: readonly { toMin: number }[]): number => Math.max(0, ...slots.map(s => s.toMin))

/** Half of all work, or the longest chain of steps that wait for each other. @returns minutes */
export function boundOf(steps: readonly Crewed[], people: number): number {
  const work = steps.reduce((t, s) => t + Math.min(s.people, people) * spanOf(s.minutes).likely, 0)
  const longest = tails(steps)
  return Math.max(work / people, 0, ...longest.values())
}

/** From the beginning of a step to the end of all that waits for it, minutes. */
function tails(steps: readonly Crewed[]): Map<string, number> {
  const graph = graphOf(steps)
  const out = new Map<string, number>()
  const of = (id: string): number => {
    const held = out.get(id)
    if (held !== undefined) return held
    const step = graph.getNodeAttribute(id, 'step')
    const tail = spanOf(step.minutes).likely + Math.max(0, ...graph.outNeighbors(id).map(of))
    out.set(id, tail)
    return tail
  }
  for (const s of steps) of(s.id)
  return out
}

/** The shortest day with the fewest climbs. For one it is all work, one after another. */
export function planDay<T extends Crewed>(steps: readonly T[], people: 1 | 2): DayPlan<T> {
  const order = orderSteps(steps)
  const boundMin = boundOf(steps, people)
  const plain = placed(order, people)
  if (people === 1) return { slots: plain, lengthMin: lengthOf(plain), exact: true, boundMin }
  const exact = steps.length <= TRIED_WHOLE
  const lists = exact ? everyOrder(steps, climbsOf(order)) : [order, byTail(order, tails(steps))]
  const best = lists.map(l => placed(l, people)).reduce((a, b) => (lengthOf(b) < lengthOf(a) ? b : a), plain)
  return { slots: best, lengthMin: lengthOf(best), exact: exact || lengthOf(best) <= boundMin + EPSILON, boundMin }
}

/** Within each climb, and between two, what most waits for goes first. */
function byTail<T extends Crewed>(order: readonly T[], tail: ReadonlyMap<string, number>): T[] {
  const batches: T[][] = []
  for (const s of order) {
    const last = batches.at(-1)
    if (last && (last[0]!.stand === 'up') === (s.stand === 'up')) last.push(s)
    else batches.push([s])
  }
  // A step's tail is longer than that of whatever needs it: so sorted, none stands before what it needs.
  return batches.flatMap(b => [...b].sort((x, y) => tail.get(y.id)! - tail.get(x.id)!))
}

function everyOrder<T extends Crewed>(steps: readonly T[], climbs: number): T[][] {
  const known = new Set(steps.map(s => s.id))
  const out: T[][] = []
  const grow = (list: T[], left: readonly T[]): void => {
    if (climbsOf(list) > climbs) return
    if (!left.length) out.push(list)
    for (const s of left)
      if (s.needs.every(n => !known.has(n) || list.some(l => l.id === n)))
        grow(
          [...list, s],
          left.filter(x => x !== s),
        )
  }
  grow([], steps)
  return out
}

/** @returns steps that are done up there or outdoors and end after dark; `darkMin` counted from the beginning */
export const afterDark = <T extends Crewed>(plan: Pick<DayPlan<T>, 'slots'>, darkMin: number | null): T[] =>
  darkMin === null ? [] : plan.slots.filter(s => s.step.stand === 'up' && s.toMin > darkMin).map(s => s.step)

/** @returns what is not through when the people go */
export const notThrough = <T extends Crewed>(plan: Pick<DayPlan<T>, 'slots'>, hours: number): T[] =>
  plan.slots.filter(s => s.toMin > hours * 60 + EPSILON).map(s => s.step)
