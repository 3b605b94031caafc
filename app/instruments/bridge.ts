import type { ModemPort } from '../../shared/modem'

const OPEN_WITHIN_MS = 6000
/** A modem that is not plugged in yet is waited for so long. */
const PLUGGED_WITHIN_MS = 60_000

/**
 * Connects to a bridge with its pairing code.
 * @throws Error in words: no bridge there, another code, its port gone
 */
export function openBridge(url: string, code: string): Promise<ModemPort> {
  return new Promise((done, failed) => {
    let socket: WebSocket
    try {
      socket = new WebSocket(url)
    } catch {
      return failed(new Error('That address is not one of this installation’s bridges.'))
    }
    let take: (t: string) => void = () => {}
    let gone: ((why: string) => void) | null = null
    let turned: (headingDeg: number) => void = () => {}
    let said = ''
    const fail = (why: string) => {
      clearTimeout(late)
      if (gone) gone(why)
      else failed(new Error(why))
    }
    const giveUp = (why: string) => () => {
      fail(why)
      socket.close()
    }
    let late = setTimeout(giveUp(`No bridge answers at ${url}.`), OPEN_WITHIN_MS)
    const waits = (why: string) => {
      if (said) return
      said = `The bridge waited for its modem: ${why}`
      clearTimeout(late)
      late = setTimeout(giveUp(said), PLUGGED_WITHIN_MS)
    }
    socket.onopen = () => socket.send(JSON.stringify({ pair: code.trim() }))
    socket.onclose = () => fail(said || (gone ? 'The bridge is gone.' : `No bridge answers at ${url}.`))
    socket.onmessage = e => {
      const text = String(e.data)
      const told = text.startsWith('{') ? control(text) : null
      if (!told) return take(text)
      if (typeof told.turned === 'number') return turned(told.turned)
      if (told.refused) said = `The bridge says: ${told.refused}.`
      if (told.waiting) waits(String(told.waiting))
      if (told.gone) said = `The modem is gone: ${told.gone}.`
      if (!told.ready) return
      said = ''
      clearTimeout(late)
      const standIn = told.ready === 'stand-in'
      gone = () => {}
      done({
        // Another page had it first: this one hears what that one asks.
        name: `${String(told.name ?? 'modem')}${told.turns === false ? ', looking on' : ''}`,
        kind: standIn ? 'stand-in' : 'modem',
        write: t => socket.readyState === WebSocket.OPEN && socket.send(t),
        onText: t => (take = t),
        onGone: g => (gone = g),
        ...(told.turns === false
          ? { looksOn: true, onTurned: t => (turned = t) }
          : { turn: stance => socket.readyState === WebSocket.OPEN && socket.send(JSON.stringify({ turn: stance })) }),
        close: () => socket.close(),
      })
    }
  })
}

function control(text: string): Record<string, unknown> | null {
  try {
    return JSON.parse(text) as Record<string, unknown>
  } catch {
    return null
  }
}
