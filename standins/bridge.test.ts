import { createServer } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { WebSocket } from 'ws'
import { LineCutter, readAnswer } from '../core/formats/at'
import { bestOf, worldOf } from '../core/world/world'
import { serveBridge } from './bridge'
import type { BridgeOptions } from './bridge'
import { modemStandin } from './modem'
import { tcpPort } from './serial'

const ORIGIN = 'http://localhost:4310'
const open = () => modemStandin({ world: worldOf(4), operator: 'Tern', technology: 'LTE', now: () => 3 })
const running: { close: () => Promise<void> }[] = []
afterEach(async () => {
  for (const r of running.splice(0)) await r.close()
})
async function bridge(o: Partial<BridgeOptions> = {}) {
  const b = await serveBridge({ port: 0, host: '127.0.0.1', code: '428913', origins: [ORIGIN], open, ...o })
  running.push(b)
  return b.port
}

/** A page that connects. */
function page(port: number, origin = ORIGIN) {
  const socket = new WebSocket(`ws://127.0.0.1:${port}`, { origin })
  const got: string[] = []
  socket.on('message', d => got.push(String(d)))
  socket.on('error', () => {})
  const opened = new Promise<boolean>(done => {
    socket.once('open', () => done(true))
    socket.once('close', () => done(false))
  })
  const until = async (test: (all: string) => boolean) => {
    for (let i = 0; i < 200 && !test(got.join('')); i++) await new Promise(r => setTimeout(r, 10))
    return got.join('')
  }
  return { socket, got, opened, until, pair: (code: string) => socket.send(JSON.stringify({ pair: code })) }
}

describe('a bridge', () => {
  it('waits for a modem that is not plugged in, and says so', async () => {
    let plugged = false
    const port = await bridge({
      lookMs: 20,
      open: () => {
        if (!plugged) throw new RangeError('There is no /dev/ttyUSB2.')
        return open()
      },
    })
    const p = page(port)
    await p.opened
    p.pair('428913')
    expect(await p.until(t => t.includes('waiting'))).toContain('There is no /dev/ttyUSB2.')
    plugged = true
    expect(await p.until(t => t.includes('"ready"'))).toContain('"ready"')
  })
  it('answers pages of its origins alone', async () => {
    const port = await bridge()
    expect(await page(port, 'http://elsewhere.example').opened).toBe(false)
    expect(await page(port).opened).toBe(true)
  })
  it('says nothing before the code, and shuts out who guesses', async () => {
    const port = await bridge()
    const first = page(port)
    await first.opened
    first.socket.send('AT+CESQ\r')
    expect(await first.until(t => t.includes('refused'))).toContain('not the pairing code')
    for (let i = 0; i < 5; i++) {
      const p = page(port)
      await p.opened
      p.pair(String(100_000 + i))
      await p.until(t => t.includes('refused'))
    }
    const last = page(port)
    await last.opened
    last.pair('428913')
    expect(await last.until(t => t.includes('refused'))).toContain('wait a minute')
  })
  it('paired, a modem answers through it by the standard, torn as a port tears', async () => {
    const port = await bridge()
    const p = page(port)
    await p.opened
    p.pair('428913')
    expect(await p.until(t => t.includes('ready'))).toContain('"ready":"stand-in"')
    p.got.length = 0
    p.socket.send('AT+CESQ\r')
    const lines = new LineCutter().add(await p.until(t => t.includes('OK\r\n')))
    const level = lines.map(readAnswer).find(a => a?.rsrpDbm)!.rsrpDbm!
    expect(level.value).toBeGreaterThan(-130)
    expect(level.high - level.low).toBe(1)
  })
  it('a stand-in hears more when its antenna is turned to where the mast is', async () => {
    const port = await bridge()
    const p = page(port)
    await p.opened
    p.pair('428913')
    await p.until(t => t.includes('ready'))
    const level = async (headingDeg: number) => {
      p.got.length = 0
      p.socket.send(JSON.stringify({ turn: { headingDeg, gainDbi: 10, beamwidthDeg: 40, frontToBackDb: 22 } }))
      p.socket.send('AT+CESQ\r')
      const lines = new LineCutter().add(await p.until(t => t.includes('OK\r\n')))
      return lines.map(readAnswer).find(a => a?.rsrpDbm)!.rsrpDbm!.value
    }
    const { headingDeg, lostDb } = bestOf(worldOf(4), { gainDbi: 10, beamwidthDeg: 40, frontToBackDb: 22 })
    const worst = Array.from({ length: 72 }, (_, i) => i * 5).reduce((a, b) => (lostDb(b) > lostDb(a) ? b : a))
    expect(await level(headingDeg)).toBeGreaterThan((await level(worst)) + 5)
  })
  it('a second page looks on and does not command', async () => {
    const port = await bridge()
    const [a, b] = [page(port), page(port)]
    await Promise.all([a.opened, b.opened])
    a.pair('428913')
    await a.until(t => t.includes('ready'))
    b.pair('428913')
    expect(await b.until(t => t.includes('ready'))).toContain('"turns":false')
    a.got.length = b.got.length = 0
    b.socket.send('AT+CSQ\r')
    a.socket.send('AT+CESQ\r')
    expect(await b.until(t => t.includes('OK'))).toContain('+CESQ')
    expect(b.got.join('')).not.toContain('+CSQ')
  })
  it('a port that goes is told', async () => {
    const modem = createServer(s => setTimeout(() => s.destroy(), 50))
    await new Promise<void>(done => modem.listen(0, '127.0.0.1', () => done()))
    const { port: at } = modem.address() as { port: number }
    const port = await bridge({ open: () => tcpPort('127.0.0.1', at) })
    const p = page(port)
    await p.opened
    p.pair('428913')
    expect(await p.until(t => t.includes('gone'))).toContain('connection was closed')
    modem.close()
  })
})
