/** A modem that answers AT commands out of the simulated world, torn, echoed and interrupted like a real one. */
import { answerTo, LineCutter } from '../core/formats'
import { cellAsHex } from '../core/radio'
import { heardNow } from '../core/world'
import type { World } from '../core/world'
import { seeded } from '../core/random'
import type { ModemPort, TurnedAntenna } from '../shared/modem'

/** A modem takes so long to answer, ms. */
const ANSWER_MS = 40
/** Unasked, a registration is told about each so many answers. */
const UNASKED_EACH = 40
const OMNI: TurnedAntenna = { headingDeg: 0, gainDbi: 0, beamwidthDeg: 360, frontToBackDb: 0 }

export interface ModemOptions {
  world: World
  operator: string
  technology: 'LTE' | 'NR'
  /** seconds since the world began */
  now: () => number
}

export function modemStandin(o: ModemOptions): ModemPort {
  const lines = new LineCutter()
  const random = seeded(o.world.seed)
  let take: (text: string) => void = () => {}
  let gone: (why: string) => void = () => {}
  let stance = OMNI
  let echo = true
  let answers = 0
  let open = true

  const heard = () => {
    const { headingDeg, tiltDeg, ...antenna } = stance
    return {
      ...heardNow(o.world, { headingDeg, tiltDeg, antenna, atS: o.now() }),
      technology: o.technology,
      operator: o.operator,
    }
  }
  /** In two pieces, cut anywhere. */
  function send(text: string): void {
    if (!open) return
    const cut = Math.floor(random() * text.length)
    take(text.slice(0, cut))
    take(text.slice(cut))
  }
  function answer(command: string): void {
    if (/^ATE[01]$/i.test(command)) echo = command.endsWith('1')
    const text = answerTo(command, heard())
    if (++answers % UNASKED_EACH === 0) send(`\r\n+CEREG: 1,"00A1","${cellAsHex(o.world.cellId)}",7\r\n`)
    send(text === null ? '\r\nERROR\r\n' : `${text ? `\r\n${text}\r\n` : ''}\r\nOK\r\n`)
  }
  return {
    name: `simulated modem, place ${o.world.seed}`,
    kind: 'stand-in',
    write(text) {
      for (const line of lines.add(text)) {
        if (echo) send(`${line}\r`)
        setTimeout(() => open && answer(line), ANSWER_MS)
      }
    },
    onText: t => (take = t),
    onGone: g => (gone = g),
    turn: t => (stance = t),
    close() {
      open = false
      gone('closed')
    },
  }
}
