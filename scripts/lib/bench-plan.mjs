/** Figures of planning: the map of a floor against the same sums in C, the tree of 24 antennas, the search for a kit. */
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import { compiled, FOLDER, round } from './bench-scout.mjs'

const ROUNDS = 8

/** Best of some rounds, ms; the first two warm up. */
function bestMs(/** @type {() => unknown} */ work) {
  let best = Infinity
  for (let i = 0; i < ROUNDS + 2; i++) {
    const t = performance.now()
    work()
    if (i > 1) best = Math.min(best, performance.now() - t)
  }
  return best
}

/** @param {(row: any) => void} add  @param {any} k  the core */
export function benchPlan(add, k) {
  const program = compiled('coverage')
  for (const [name, stepM] of /** @type {const} */ ([
    ['coverage map coarse', 1],
    ['coverage map', 0.25],
  ])) {
    const floor = k.floor60(stepM)
    const senders = floor.domes.map((/** @type {any} */ d) => ({
      ...d,
      peak: 10 ** (d.gainDbi / 10),
      gainToward: k.linearGain({ pattern: { gainDbi: d.gainDbi, aboutAxisDb: k.coneDb(d) }, tiltDeg: -90 }, 0),
    }))
    let sum = 0
    const ms = bestMs(() => {
      const { rsrpDbm } = k.coverageMap({ ...floor, senders, coefficient: 20 })
      sum = rsrpDbm.reduce((/** @type {number} */ a, /** @type {number} */ b) => a + b, 0)
    })
    const c = program ? plainC(program, floor) : null
    if (c && Math.abs(c.sum - sum) > 1e-4 * Math.abs(sum)) process.stderr.write(`C and TypeScript differ: ${c.sum} ${sum}\n`)
    add({ name, value: round(ms), unit: 'ms', ...(c ? { ratio: round(ms / c.ms), against: 'the same sums in C, -O2' } : {}) })
  }
  add({ name: 'solve tree 24', value: round(bestMs(() => k.distribute(branches24(), k.STOCK, -28))), unit: 'ms' })
}

/** @param {string} program  @param {any} floor */
function plainC(program, floor) {
  const { grid, walls, domes } = floor
  const head = new Int32Array([grid.columns, grid.rows, walls.length, domes.length])
  const place = new Float64Array([grid.x0, grid.y0, grid.stepM, grid.upM, floor.frequencyMHz, floor.phoneDbi])
  const ofWalls = walls.flatMap((/** @type {any} */ w) => [w.x1, w.y1, w.x2, w.y2, w.lossDb, w.fromM, w.toM])
  const ofDomes = domes.flatMap((/** @type {any} */ d) => [
    d.x,
    d.y,
    d.upM,
    d.fedRsrpDbm,
    d.slabsDb,
    d.gainDbi,
    d.widthDeg,
    d.floorDb,
  ])
  const path = join(FOLDER, 'floor.bin')
  const bytes = [head, place, new Float64Array(ofWalls), new Float64Array(ofDomes)].map(a => Buffer.from(a.buffer))
  writeFileSync(path, Buffer.concat(bytes))
  const [ns, sum] = execFileSync(program, [path, String(ROUNDS)], { encoding: 'utf8' })
    .trim()
    .split(' ')
    .map(Number)
  return { ms: /** @type {number} */ (ns) / 1e6, sum: /** @type {number} */ (sum) }
}

/** Twenty-four antennas on cables of 3 to 11 dB, six on a floor. */
const branches24 = () =>
  [0, 1, 2, 3].map(f => ({
    id: String(f),
    riserLossDb: 0.4 + 0.7 * f,
    outlets: [3, 4.2, 5.5, 7, 9, 11].map((cableLossDb, i) => ({ id: `${f}.${i}`, cableLossDb, targetDbm: -52 })),
  }))
