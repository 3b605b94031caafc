/** Figures of listening: a step of the estimator, an hour of readings, and from a modem's text to the tone. */
import { performance } from 'node:perf_hooks'
import { round } from './bench-scout.mjs'

const ROUNDS = 200
const HOUR = 36_000

/** @param {(row: any) => void} add  @param {any} k  the core and the interface's own parts without a screen */
export function benchLive(add, k) {
  const steps = Array.from({ length: 10 }, (_, i) => ({ headingDeg: i * 33, value: -90 - ((i * 7) % 9) }))
  add({
    name: 'estimator step',
    value: round(medianMs(() => k.estimateHeading(steps, { beamwidthDeg: 50 }))),
    unit: 'ms',
  })
  // Ten a second for an hour, looked at as the screen does: what it takes at the end, and whether anything has grown.
  const ring = new k.Ring()
  const sample = (/** @type {number} */ i) => ({
    ...k.unknownState(),
    atMs: i * 100,
    rsrpDbm: { value: -90 - (i % 7), low: 0, high: 0 },
  })
  for (let i = 0; i < HOUR / 10; i++) ring.push(sample(i))
  const before = heap()
  for (let i = HOUR / 10; i < HOUR; i++) ring.push(sample(i))
  const grown = (heap() - before) / 1e6
  add({
    name: 'hour of readings',
    value: round(medianMs(() => ring.median('rsrpDbm', HOUR * 100 - 2000)) * 1000),
    unit: 'µs a look',
  })
  add({ name: 'hour of readings, heap', value: round(Math.max(0, grown), 1), unit: 'MB grown' })
  add({ name: 'reading to tone', value: round(textToTone(k) * 1000), unit: 'µs' })
}

function heap() {
  globalThis.gc?.()
  return process.memoryUsage().heapUsed
}

function medianMs(/** @type {() => unknown} */ work) {
  const times = Array.from({ length: ROUNDS }, () => {
    const t = performance.now()
    work()
    return performance.now() - t
  }).sort((a, b) => a - b)
  return /** @type {number} */ (times[ROUNDS / 2])
}

/** From the text of an answer to the pitch that is heard; what lies before it is the modem's own time. */
function textToTone(/** @type {any} */ k) {
  /** @type {(text: string) => void} */
  let take = () => {}
  const link = {
    name: 'bench',
    kind: 'recording',
    write: () => {},
    onText: (/** @type {(text: string) => void} */ t) => (take = t),
    onGone: () => {},
    close: () => {},
  }
  let heard = 0
  const ring = new k.Ring()
  const session = new k.ModemSession(link, {
    sample: (/** @type {any} */ s) => {
      ring.push(s)
      heard = k.pitchHz(k.earShare('RSRP', ring.median('rsrpDbm', s.atMs - 2000)))
    },
    trouble: () => {},
    gone: () => {},
  })
  void session.run()
  let i = 0
  const ms = medianMs(() => take(`+CESQ: 99,99,255,255,20,${30 + (i++ % 20)}\r\nOK\r\n`))
  if (!heard) throw new Error('nothing was heard')
  return ms
}
