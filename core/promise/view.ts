/** The promise as it stands at the foot of every screen. */
import type { Job } from '../job/schema'
import { given, num } from '../units'
import { draw, measureNext, metOf, sayExpected } from './promise'
import type { Drawn, MeasureNext, Met } from './promise'
import { promiseInputs } from './inputs'
import type { Assumption, PromiseGround } from './inputs'

export interface PromiseView extends Drawn {
  where: string
  /** the carriers it is reckoned on, `B20` or `B20 + n78` */
  on: string
  agreedDown: number | null
  agreedUp: number | null
  met: Met | null
  words: string
  upWords: string
  next: MeasureNext | null
  measured: number | null
  assumptions: Assumption[]
}

/** @returns null where the tree leads to neither a modem nor a room */
export function promiseOf(ground: PromiseGround): PromiseView | null {
  const found = promiseInputs(ground)
  if (!found) return null
  const { inputs, room, spotName, on, assumptions, done } = found
  const { job, levels } = ground
  const drawn = draw(inputs)
  const start = levels.sources[0]!.start
  return {
    ...drawn,
    agreedDown: job.agreedDownMbps,
    agreedUp: job.agreedUpMbps,
    met: metBoth(drawn, job),
    words: wordsOf(drawn, job),
    assumptions,
    on,
    where: spotName ? `in ${spotName}` : room,
    upWords: `upload ${sayExpected(drawn.up)}${job.agreedUpMbps !== null ? `, agreed ${given(job.agreedUpMbps)}` : ''}`,
    next: measureNext(inputs, drawn, { mount: start.spot?.name ?? 'the mount', room, unread: !start.spot }, done),
    measured: null,
  }
}

/** The worse of what was agreed down and up. */
function metBoth(drawn: Drawn, job: Job): Met | null {
  const { agreedDownMbps: down, agreedUpMbps: up } = job
  const all = [down === null ? null : metOf(drawn.down, down), up === null ? null : metOf(drawn.up, up)]
  return (['unlikely', 'open', 'likely'] as const).find(m => all.includes(m)) ?? null
}

function wordsOf(drawn: Drawn, job: Job): string {
  const agreed = job.agreedDownMbps
  if (agreed === null) return 'nothing agreed yet'
  const shortMbps = agreed - drawn.down.median
  if (shortMbps > 0)
    return num(shortMbps, 1) === num(0, 1)
      ? `agreed ${given(agreed)}: as likely met as not`
      : `agreed ${given(agreed)}: download short by ${num(shortMbps, shortMbps < 10 ? 1 : 0)}`
  const likely = metOf(drawn.down, agreed) === 'likely'
  // What is met down and short up is not met.
  const shortUp = job.agreedUpMbps === null ? 0 : job.agreedUpMbps - drawn.up.median
  if (shortUp > 0) return `agreed ${given(agreed)}: met down, upload short by ${num(shortUp, shortUp < 10 ? 1 : 0)}`
  return `agreed ${given(agreed)}: ${likely ? 'met, nine times in ten' : 'met, if it comes out as expected'}`
}
