/** A link of a given speed between a page and a server: one bucket for all its connections, each way by itself. */
import { connect, createServer } from 'node:net'
import type { Socket } from 'node:net'

const TICK_MS = 5
/** What a bucket saves up: as long as a busy machine may keep it waiting, so that its rate holds over a second. */
const SAVED_MS = 250

/** Lets bytes through at a rate, in turn. */
class Bucket {
  private left = 0
  private last = performance.now()
  constructor(private readonly bytesPerMs: number) {}
  take(wanted: number): number {
    const now = performance.now()
    this.left = Math.min(this.bytesPerMs * SAVED_MS, this.left + (now - this.last) * this.bytesPerMs)
    this.last = now
    const given = Math.max(0, Math.min(wanted, Math.floor(this.left)))
    this.left -= given
    return given
  }
}

function pour(from: Socket, to: Socket, bucket: Bucket): void {
  let waiting = Buffer.alloc(0)
  const timer = setInterval(() => {
    const n = bucket.take(waiting.length)
    if (n) to.write(waiting.subarray(0, n))
    waiting = waiting.subarray(n)
    if (waiting.length < 65_536) from.resume()
    if (!waiting.length && from.readableEnded) {
      clearInterval(timer)
      to.end()
    }
  }, TICK_MS)
  from.on('data', chunk => {
    waiting = Buffer.concat([waiting, chunk as Buffer])
    if (waiting.length >= 65_536) from.pause()
  })
  for (const s of [from, to]) s.on('error', () => s.destroy())
  for (const s of [from, to])
    s.on('close', () => {
      clearInterval(timer)
      from.destroy()
      to.destroy()
    })
}

/** @returns its port, and what ends it */
export async function throttled(port: number, mbps: number): Promise<{ port: number; close: () => Promise<void> }> {
  const [down, up] = [new Bucket((mbps * 1e6) / 8 / 1000), new Bucket((mbps * 1e6) / 8 / 1000)]
  const open = new Set<Socket>()
  const server = createServer(page => {
    const far = connect(port, '127.0.0.1')
    open.add(page)
    page.on('close', () => open.delete(page))
    pour(page, far, up)
    pour(far, page, down)
  })
  await new Promise<void>(done => server.listen(0, '127.0.0.1', () => done()))
  const at = server.address() as { port: number }
  return {
    port: at.port,
    close: () =>
      new Promise(done => {
        for (const s of open) s.destroy()
        server.close(() => done())
      }),
  }
}
