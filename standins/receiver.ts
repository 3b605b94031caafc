/** A position receiver with a compass on a pole that turns slowly right round, as a rotator would. */
import { sayNmea } from '../core/formats'
import { normals, seeded } from '../core/random'
import type { ModemPort } from '../shared/modem'

const EVERY_MS = 250
/** Degrees a second. */
const TURNS = 4
/** What a compass of its kind wavers by, degrees. Assumed. */
const WAVERS_DEG = 1.2

export interface ReceiverOptions {
  at: { latDeg: number; lonDeg: number; heightM: number }
  seed: number
  /** seconds since it began */
  now: () => number
}

export function receiverStandin(o: ReceiverOptions): ModemPort {
  const noise = normals(seeded(o.seed))
  let take: (text: string) => void = () => {}
  let gone: (why: string) => void = () => {}
  const timer = setInterval(() => {
    const trueDeg = (((o.now() * TURNS + WAVERS_DEG * noise()) % 360) + 360) % 360
    for (const line of sayNmea({ ...o.at, trueDeg, time: new Date() })) take(`${line}\r\n`)
  }, EVERY_MS)
  return {
    name: 'simulated receiver on a turning pole',
    kind: 'stand-in',
    write: () => {},
    onText: t => (take = t),
    onGone: g => (gone = g),
    close() {
      clearInterval(timer)
      gone('closed')
    },
  }
}
