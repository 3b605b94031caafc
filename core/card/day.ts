/** A day on site: who does which step from when to when, by one or by two, and what of it is after dark. */
import { entryOf, nth } from '../sure'
import { climbsOf, graphOf, orderSteps, runsOf, spanOf } from './order'
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
  const free = new Map<string, number>()
  const busy = new Busy(people)
  return list.map(step => {
    const takes = Math.min(step.people, people)
    const minutes = spanOf(step.minutes).likely
    const ready = Math.max(0, ...step.needs.map(n => free.get(n) ?? 0))
    const fromMin = busy.take(ready, minutes, takes)
    free.set(step.id, fromMin + minutes + (step.hardensMin ?? 0))
    return { step, fromMin, toMin: fromMin + minutes }
  })
}

/** How many people are busy when: a number from each of these times until the next, none after the last. */
class Busy {
  private readonly times = [0]
  private readonly used = [0]
  constructor(private readonly people: number) {}

  /** Takes people for so long, as early as there are as many. @returns from when, minutes */
  take(ready: number, minutes: number, takes: number): number {
    let from = ready
    for (let i = this.at(from); i < this.times.length && nth(this.times, i) < from + minutes - EPSILON; i++) {
      if (nth(this.used, i) <= this.people - takes) continue
      from = Math.max(ready, nth(this.times, i + 1))
    }
    const [a, b] = [this.split(from), this.split(from + minutes)]
    for (let i = a; i < b; i++) this.used[i]! += takes
    return from
  }

  /** @returns index of the last time that is not after a moment */
  private at(minute: number): number {
    let i = this.times.length - 1
    while (i > 0 && nth(this.times, i) > minute + EPSILON) i--
    return i
  }

  private split(minute: number): number {
    const i = this.at(minute)
    if (Math.abs(nth(this.times, i) - minute) <= EPSILON) return i
    this.times.splice(i + 1, 0, minute)
    this.used.splice(i + 1, 0, nth(this.used, i))
    return i + 1
  }
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
    const after = graph.outNeighbors(id)
    const hardens = after.length ? (step.hardensMin ?? 0) : 0
    const tail = spanOf(step.minutes).likely + hardens + Math.max(0, ...after.map(of))
    out.set(id, tail)
    return tail
  }
  for (const s of steps) of(s.id)
  return out
}

/** The shortest day with the fewest climbs. For one it is all work, one after another, where nothing has to harden. */
export function planDay<T extends Crewed>(steps: readonly T[], people: 1 | 2): DayPlan<T> {
  const order = orderSteps(steps)
  const boundMin = boundOf(steps, people)
  const plain = placed(order, people)
  const hardens = steps.some(s => s.hardensMin)
  if (people === 1 && !hardens) return { slots: plain, lengthMin: lengthOf(plain), exact: true, boundMin }
  const whole = steps.length <= TRIED_WHOLE
  const lists = whole ? everyOrder(steps, climbsOf(order)) : [order, byTail(order, tails(steps))]
  const best = lists.map(l => placed(l, people)).reduce((a, b) => (lengthOf(b) < lengthOf(a) ? b : a), plain)
  const lengthMin = lengthOf(best)
  // Where a climb is not to be broken, or something hardens, to wait can be better than to begin: no list says that.
  const exact = (whole && !hardens && climbsOf(order) === 0) || lengthMin <= boundMin + EPSILON
  return { slots: best, lengthMin, exact, boundMin }
}

/** Within each climb, and between two, what most waits for goes first. */
function byTail<T extends Crewed>(order: readonly T[], tail: ReadonlyMap<string, number>): T[] {
  const batches = runsOf(order, s => s.stand === 'up')
  // A step's tail is longer than that of whatever needs it: so sorted, none stands before what it needs.
  return batches.flatMap(b => [...b].sort((x, y) => entryOf(tail, y.id) - entryOf(tail, x.id)))
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

/** Nobody is there for longer, minutes: what hardens overnight is gone on with another day. */
const LONGEST_MIN = 14 * 60

/** @returns the plan of the first day alone, and the steps that are left for another */
export function firstDay<T extends Crewed>(plan: DayPlan<T>): DayPlan<T> & { later: T[] } {
  const slots = plan.slots.filter(s => s.toMin <= LONGEST_MIN)
  const later = plan.slots.filter(s => s.toMin > LONGEST_MIN).map(s => s.step)
  return { ...plan, slots, later, lengthMin: lengthOf(slots) }
}

/** @returns steps that are done up there or outdoors and end after dark; `darkMin` counted from the beginning */
export const afterDark = <T extends Crewed>(plan: Pick<DayPlan<T>, 'slots'>, darkMin: number | null): T[] =>
  darkMin === null ? [] : plan.slots.filter(s => s.step.stand === 'up' && s.toMin > darkMin).map(s => s.step)

/** @returns what is not through when the people go */
export const notThrough = <T extends Crewed>(plan: Pick<DayPlan<T>, 'slots'>, hours: number): T[] =>
  plan.slots.filter(s => s.toMin > hours * 60 + EPSILON).map(s => s.step)
