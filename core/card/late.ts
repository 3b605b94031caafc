/** What is not there yet, and what it holds up: the steps that take it, and all that needs those. */
import { entryOf } from '../sure'
import { isThere } from './list'
import type { ListLine } from './list'
import type { Step } from './step'

export interface Waiting {
  /** the thing that is late; where it is another step that waits, that step's thing */
  line: ListLine
  /** it takes the thing itself; false where it only comes after one that does */
  itself: boolean
}

const takes = (step: Pick<Step, 'takes'>, key: string): boolean => step.takes.some(t => key === t || key.startsWith(`${t}:`))

/** @returns whether a thing will be missing on a day: bought for after it, or for no day that anybody knows */
export const isLate = (l: Pick<ListLine, 'state' | 'wanted' | 'dueOn'>, onDay: string): boolean =>
  !isThere(l.state) && l.wanted > 0 && l.state === 'ordered' && (l.dueOn === null || l.dueOn > onDay)

/**
 * @param steps  in any order
 * @param onDay  ISO day on which somebody is there
 * @returns the steps that cannot be done that day, each with what it waits for
 */
export function waitingOn(
  steps: readonly (Pick<Step, 'id' | 'needs' | 'takes'> & { done: boolean })[],
  lines: readonly ListLine[],
  onDay: string,
): Map<string, Waiting> {
  const late = lines.filter(l => isLate(l, onDay))
  const out = new Map<string, Waiting>()
  for (const s of steps) {
    const line = s.done ? undefined : late.find(l => takes(s, l.key))
    if (line) out.set(s.id, { line, itself: true })
  }
  // What needs a step that waits, waits too; as long as one more is found.
  for (let grew = out.size > 0; grew;) {
    grew = false
    for (const s of steps) {
      const before = s.done || out.has(s.id) ? undefined : s.needs.find(n => out.has(n))
      if (!before) continue
      out.set(s.id, { line: entryOf(out, before).line, itself: false })
      grew = true
    }
  }
  return out
}
