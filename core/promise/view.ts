/** The promise as it stands at the foot of every screen. */
import { nth } from '../sure'
import { given, num } from '../units'
import { byTests, draw, LEAST_TESTS, measureNext, metOf, sayExpected } from './promise'
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
  const modelled = draw(inputs)
  const drawn = ruledByTests(modelled, ground)
  const start = nth(levels.sources, 0).start
  return {
    ...drawn,
    agreedDown: job.agreedDownMbps,
    agreedUp: job.agreedUpMbps,
    met: metAll(drawn, ground),
    words: wordsOf(drawn, ground),
    assumptions: drawn.down.tests ? [] : assumptions,
    on,
    where: spotName ? `in ${spotName}` : room,
    upWords: `upload ${sayExpected(drawn.up)}${job.agreedUpMbps !== null ? `, agreed ${given(job.agreedUpMbps)}` : ''}`,
    next: drawn.down.tests
      ? null
      : measureNext(inputs, drawn, { mount: start.spot?.name ?? 'the mount', room, unread: !start.spot }, done),
    measured: null,
  }
}

/** What was tested with the very plan rules over what is reckoned. */
function ruledByTests(drawn: Drawn, { asPlanned, log }: PromiseGround): Drawn {
  const { down, up } = asPlanned ?? {}
  return {
    ...drawn,
    ...(down ? { down: byTests(down, log.usual.speed) } : {}),
    ...(up ? { up: byTests(up, log.usual.speed) } : {}),
  }
}

/** Rooms to be proved that the plan does not serve. */
const unserved = ({ rooms }: PromiseGround): string[] => rooms.filter(r => r.spot.needed && !r.met).map(r => r.spot.name)
const callsFail = ({ job, calls }: PromiseGround): boolean => job.agreedCalls && calls === false

/** The worst of what was agreed: down, up, the rooms that must be served, calls. */
function metAll(drawn: Drawn, ground: PromiseGround): Met | null {
  const { agreedDownMbps: down, agreedUpMbps: up } = ground.job
  const all: (Met | null)[] = [down === null ? null : metOf(drawn.down, down), up === null ? null : metOf(drawn.up, up)]
  if (callsFail(ground)) all.push('unlikely')
  if (down !== null || up !== null) all.push(unserved(ground).length ? 'open' : null)
  return (['unlikely', 'open', 'likely'] as const).find(m => all.includes(m)) ?? null
}

/** The one figure that limits it is named, the worst first. */
function wordsOf(drawn: Drawn, ground: PromiseGround): string {
  const { job } = ground
  const agreed = job.agreedDownMbps
  if (agreed === null) return 'nothing agreed yet'
  const shortMbps = agreed - drawn.down.median
  const by = (mbps: number): string => `short by ${num(mbps, mbps < 10 ? 1 : 0)}`
  if (shortMbps > 0)
    return num(shortMbps, 1) === num(0, 1)
      ? `agreed ${given(agreed)}: as likely met as not`
      : `agreed ${given(agreed)}: download ${by(shortMbps)}`
  // What is met down and short in anything else is not met.
  const shortUp = job.agreedUpMbps === null ? 0 : job.agreedUpMbps - drawn.up.median
  if (shortUp > 0) return `agreed ${given(agreed)}: met down, upload ${by(shortUp)}`
  if (callsFail(ground)) return `agreed ${given(agreed)}: met down, no calls by it`
  const rooms = unserved(ground)
  if (rooms.length)
    return `agreed ${given(agreed)}: met down, ${rooms.length > 2 ? `${rooms.length} rooms` : rooms.join(', ')} short of level`
  const { low, tests } = drawn.down
  if (tests) {
    const met =
      tests < LEAST_TESTS ? `so far, by ${tests} of ${LEAST_TESTS} tests` : low >= agreed ? 'as tested' : 'if it stays so'
    return `agreed ${given(agreed)}: met ${met}`
  }
  const likely = metOf(drawn.down, agreed) === 'likely'
  return `agreed ${given(agreed)}: ${likely ? 'met, nine times in ten' : 'met, if it comes out as expected'}`
}
