/**
 * A speed test against our own server: several transfers at once, the first second left out, down, then up; and how long
 * an answer takes, idle and under load. Bounded by time and by data.
 */
import { median } from '#core/survey'

export interface TestedSpeed {
  downMbps: number
  upMbps: number
  /** of an answer while nothing else goes on, and while the link is full, ms */
  pingMs: number
  loadedMs: number
  /** mark of the public address that it came from */
  via: string
  /** it went another way than the set-up's earlier tests */
  doubted: boolean
  bytes: number
}

export interface SpeedOptions {
  seconds: number
  /** no more data than this in each direction, bytes */
  mostBytes: number
  signal: AbortSignal
  progress: (doing: 'idle' | 'down' | 'up', share: number, mbps: number) => void
}

const STREAMS = 4
/** A transfer begins slowly: so long is left out, ms. */
const WARM_UP_MS = 1000
const CHUNK_BYTES = 8_000_000
const UP_BYTES = 1_000_000
const PINGS = 8
const PATH = '/api/speed'

/** @throws Error in words where it was stopped or the connection went */
export async function testSpeed(o: SpeedOptions): Promise<Omit<TestedSpeed, 'doubted'>> {
  return measured(o).catch((e: unknown) => {
    if (o.signal.aborted) throw new Error('The test was stopped.', { cause: e })
    throw e instanceof TypeError ? new Error('The connection went in the middle of the test.', { cause: e }) : e
  })
}

async function measured(o: SpeedOptions): Promise<Omit<TestedSpeed, 'doubted'>> {
  o.progress('idle', 0, 0)
  const idle = await pings(PINGS, o.signal)
  const down = await direction('down', o)
  const up = await direction('up', o)
  return {
    downMbps: down.mbps,
    upMbps: up.mbps,
    pingMs: Math.round(median(idle.times)),
    loadedMs: Math.round(median([...down.times, ...up.times, ...idle.times.slice(0, 1)])),
    via: idle.via,
    bytes: down.bytes + up.bytes,
  }
}

async function pings(count: number, signal: AbortSignal): Promise<{ times: number[]; via: string }> {
  const times: number[] = []
  let via = ''
  for (let i = 0; i < count; i++) {
    const from = performance.now()
    const response = await fetch(`${PATH}/ping`, { signal, cache: 'no-store' })
    if (!response.ok) throw new Error(`The server answered ${response.status}.`)
    via = ((await response.json()) as { via: string }).via
    times.push(performance.now() - from)
  }
  // The first one opens the connection.
  return { times: times.slice(1), via }
}

/** What crossed, by the clock: bytes after the warm-up over the time after it. */
class Meter {
  private readonly from = performance.now()
  private warmAt: number | null = null
  private counted = 0
  all = 0

  add(bytes: number): void {
    const now = performance.now()
    this.all += bytes
    if (now - this.from < WARM_UP_MS) return
    // The chunk that ends the warm-up fell into it for the most part.
    if (this.warmAt === null) this.warmAt = now
    else this.counted += bytes
  }

  mbps(): number {
    const now = performance.now()
    const [bytes, ms] = this.warmAt !== null && this.counted ? [this.counted, now - this.warmAt] : [this.all, now - this.from]
    return ms > 0 ? (bytes * 8) / 1000 / ms : 0
  }
}

async function direction(way: 'down' | 'up', o: SpeedOptions): Promise<{ mbps: number; bytes: number; times: number[] }> {
  const meter = new Meter()
  const stop = new AbortController()
  const end = () => stop.abort()
  o.signal.addEventListener('abort', end)
  const began = performance.now()
  const over = () => performance.now() - began >= o.seconds * 1000 || meter.all >= o.mostBytes
  const tick = setInterval(() => {
    o.progress(way, Math.min(1, (performance.now() - began) / (o.seconds * 1000)), meter.mbps())
    if (over()) end()
  }, 100)
  const times: number[] = []
  try {
    const work = Array.from({ length: STREAMS }, () => (way === 'down' ? pull(meter, stop.signal) : push(meter, stop.signal)))
    const loaded = (async () => {
      while (!stop.signal.aborted) times.push(...(await pings(2, stop.signal)).times)
    })()
    const failed = await Promise.all(
      [...work, loaded].map(w =>
        w.then(
          () => null,
          (e: unknown) => e,
        ),
      ),
    )
    if (o.signal.aborted || !over() || !meter.all) throw failed.find(Boolean) ?? new Error('Nothing came through.')
    return { mbps: meter.mbps(), bytes: meter.all, times }
  } finally {
    clearInterval(tick)
    o.signal.removeEventListener('abort', end)
  }
}

async function pull(meter: Meter, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    const response = await fetch(`${PATH}/down?bytes=${CHUNK_BYTES}`, { signal, cache: 'no-store' })
    if (!response.ok || !response.body) throw new Error(`The server answered ${response.status}.`)
    const reader = response.body.getReader()
    for (;;) {
      const { done, value } = await reader.read()
      if (done) break
      meter.add(value.length)
    }
  }
}

/** An upload tells nothing on its way, so that it goes in pieces of its own size: more where the link is fast. */
async function push(meter: Meter, signal: AbortSignal): Promise<void> {
  let bytes = 64_000
  while (!signal.aborted) {
    const body = noise(bytes)
    const from = performance.now()
    const response = await fetch(`${PATH}/up`, {
      method: 'POST',
      body,
      signal,
      headers: { 'content-type': 'application/octet-stream' },
    })
    if (!response.ok) throw new Error(`The server answered ${response.status}.`)
    meter.add(bytes)
    if (performance.now() - from < 150) bytes = Math.min(UP_BYTES, bytes * 2)
  }
}

let block: Uint8Array<ArrayBuffer> | null = null
/** Bytes that nothing on the way can press together. */
function noise(bytes: number): Uint8Array<ArrayBuffer> {
  if (!block) {
    block = new Uint8Array(UP_BYTES)
    for (let i = 0; i < UP_BYTES; i += 65_536) crypto.getRandomValues(block.subarray(i, Math.min(UP_BYTES, i + 65_536)))
  }
  return block.subarray(0, bytes)
}
