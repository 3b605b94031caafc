/**
 * A modem's port over a WebSocket, for a browser on another machine: it asks for the pairing code first and answers only
 * pages of the origins named. One page at a time has the port; another may look on, and hears what the first one hears.
 */
import { timingSafeEqual } from 'node:crypto'
import { createServer as plainServer } from 'node:http'
import { createServer as sealedServer } from 'node:https'
import { WebSocketServer } from 'ws'
import type { WebSocket } from 'ws'
import type { ModemPort, TurnedAntenna } from '../shared/modem'

export interface BridgeOptions {
  port: number
  /** loopback unless a certificate makes it `wss` */
  host: string
  code: string
  /** origins whose pages may connect, `https://crew.example` */
  origins: readonly string[]
  tls?: { cert: string; key: string } | null
  /** @throws Error in words where the modem is not there */
  open: () => ModemPort
  /** how often a modem that is not there is looked for, ms */
  lookMs?: number
}

const LOOK_MS = 2000

/** Codes guessed from one address before it is shut out, for a minute. */
const MOST_GUESSES = 5
const SHUT_MS = 60_000
/** A page that connects and says nothing is let go, ms. */
const PAIR_WITHIN_MS = 10_000
/** WebSocket close codes of our own. */
export const CLOSED = { code: 4001, busy: 4002, gone: 4003 } as const

const same = (a: string, b: string): boolean => a.length === b.length && timingSafeEqual(Buffer.from(a), Buffer.from(b))

/** @returns what ends it, once it listens */
export async function serveBridge(o: BridgeOptions): Promise<{ port: number; close: () => Promise<void> }> {
  const http = o.tls ? sealedServer(o.tls) : plainServer()
  const guesses = new Map<string, { count: number; until: number }>()
  const sockets = new WebSocketServer({
    server: http,
    maxPayload: 4096,
    verifyClient: ({ origin }: { origin: string }) => o.origins.includes(origin),
  })
  let port: ModemPort | null = null
  let owner: WebSocket | null = null
  const watchers = new Set<WebSocket>()
  const tell = (socket: WebSocket, what: object) => socket.send(JSON.stringify(what))

  function letGo(why: string): void {
    for (const w of watchers) {
      tell(w, { gone: why })
      w.close(CLOSED.gone, why)
    }
    watchers.clear()
    owner = null
    port = null
  }
  /** A modem that is not plugged in is waited for as long as the page stays. */
  function attach(socket: WebSocket): void {
    if (!port) {
      try {
        port = o.open()
      } catch (e) {
        tell(socket, { waiting: e instanceof Error ? e.message : String(e) })
        const again = setTimeout(() => socket.readyState === socket.OPEN && attach(socket), o.lookMs ?? LOOK_MS)
        socket.once('close', () => clearTimeout(again))
        return
      }
      port.onText(text => watchers.forEach(w => w.send(text)))
      port.onGone(letGo)
    }
    watchers.add(socket)
    owner ??= socket
    tell(socket, { ready: port.kind, name: port.name, turns: owner === socket })
  }
  function command(socket: WebSocket, text: string): void {
    if (!port || socket !== owner) return
    if (!text.startsWith('{')) return port.write(text)
    const turned = turnedOf(text)
    if (!turned) return
    port.turn?.(turned)
    for (const w of watchers) if (w !== socket) tell(w, { turned: turned.headingDeg })
  }
  function pair(socket: WebSocket, text: string, from: string): boolean {
    const shut = guesses.get(from)
    const now = Date.now()
    const held = shut && shut.until > now ? shut : { count: 0, until: now + SHUT_MS }
    if (held.count >= MOST_GUESSES) {
      tell(socket, { refused: 'too many wrong codes: wait a minute' })
      return false
    }
    if (!same(codeOf(text), o.code)) {
      guesses.set(from, { ...held, count: held.count + 1 })
      tell(socket, { refused: 'that is not the pairing code' })
      return false
    }
    guesses.delete(from)
    return true
  }

  sockets.on('connection', (socket, request) => {
    const from = request.socket.remoteAddress ?? ''
    const late = setTimeout(() => socket.close(CLOSED.code, 'no pairing code'), PAIR_WITHIN_MS)
    let paired = false
    socket.on('message', data => {
      const text = String(data)
      if (paired) return command(socket, text)
      clearTimeout(late)
      paired = pair(socket, text, from)
      if (paired) attach(socket)
      else socket.close(CLOSED.code, 'wrong pairing code')
    })
    socket.on('close', () => {
      clearTimeout(late)
      watchers.delete(socket)
      if (owner === socket) owner = [...watchers][0] ?? null
      if (!watchers.size) {
        port?.close()
        port = null
      }
    })
    socket.on('error', () => socket.terminate())
  })
  await new Promise<void>((done, failed) => {
    http.once('error', failed)
    http.listen(o.port, o.host, () => done())
  })
  const address = http.address()
  return {
    port: typeof address === 'object' && address ? address.port : o.port,
    close: () =>
      new Promise(done => {
        port?.close()
        for (const s of sockets.clients) s.terminate()
        sockets.close(() => http.close(() => done()))
      }),
  }
}

function parsed(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text)
    return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {}
  } catch {
    return {}
  }
}

const codeOf = (text: string): string => {
  const { pair } = parsed(text)
  return typeof pair === 'string' ? pair : ''
}

function turnedOf(text: string): TurnedAntenna | null {
  const t = parsed(text).turn as Partial<TurnedAntenna> | undefined
  const all = [t?.headingDeg, t?.gainDbi, t?.beamwidthDeg, t?.frontToBackDb, t?.tiltDeg ?? 0]
  return all.every(v => typeof v === 'number' && Number.isFinite(v)) ? (t as TurnedAntenna) : null
}
