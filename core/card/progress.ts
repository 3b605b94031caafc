/** How far a card is, in the few words of its act. */
import type { JobDocument } from '../job/schema'
import type { ActState } from '../judge/acts'
import { lastChecks } from '../judge/ticks'
import { isDone } from './card'
import { byOne } from './order'
import type { Step } from './step'

export interface Progress {
  done: number
  of: number
  /** steps of which somebody said that they are not so */
  stopped: number
  /** likely minutes of what is open, by one person */
  leftMin: number
}

/** @returns null where there is no step */
export function progressOf(
  steps: readonly Pick<Step, 'id' | 'minutes' | 'shown'>[],
  doc: Pick<JobDocument, 'checks'>,
): Progress | null {
  if (!steps.length) return null
  const marks = lastChecks(doc, 'step')
  const open = steps.filter(s => !isDone(s, marks.get(s.id) ?? null))
  return {
    done: steps.length - open.length,
    of: steps.length,
    stopped: open.filter(s => marks.get(s.id)?.reason).length,
    leftMin: byOne(open).likely,
  }
}

/** @returns what stands under Fit: steps done and hours left, sooner than the aim alone */
export function fitState({ done, of, stopped, leftMin }: Progress): ActState {
  const hours = leftMin < 60 ? `${Math.ceil(leftMin / 5) * 5} min` : `${Math.round(leftMin / 30) / 2} h`
  const words =
    done === of
      ? of === 1
        ? 'its step is done'
        : `all ${of} steps done`
      : stopped
        ? `${stopped === 1 ? 'one step' : `${stopped} steps`} not so`
        : done
          ? `${done} of ${of} steps, ${hours} left`
          : `${of === 1 ? 'one step' : `${of} steps`}, about ${hours}`
  const left = of - done
  return {
    words,
    done: done / of,
    state: done === of ? 'done' : stopped ? 'trouble' : done ? 'open' : 'empty',
    open: left ? [`${left === 1 ? 'one step is' : `${left} steps are`} open on the card`] : [],
  }
}
