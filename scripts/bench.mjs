/**
 * `npm run bench`: figures and ratios (ours/theirs). `-- --json` prints one JSON object a line.
 * `-- --big` brings in five million rows as well.
 * `edit to paint` and `page weight first` are taken in the browser against the built demo database.
 */
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import {
  DATA,
  CHROMIUM_ARGS,
  chromium as browserPath,
  ensureBuild,
  ensureNodeModules,
  ensurePackages,
  freePort,
  startServer,
} from './lib/system.mjs'

const json = process.argv.includes('--json')
ensurePackages({ browser: true })
ensureNodeModules()
const build = await ensureBuild()
const { startCluster, dropDatabase, ensureDatabase } = await import('./lib/cluster.mjs')
const { importTs, migrate } = await import('./lib/database.mjs')
const { benchLoad } = await import('./lib/bench-load.mjs')
const { benchFit } = await import('./lib/bench-fit.mjs')
const { benchLive } = await import('./lib/bench-live.mjs')
const { benchPlan } = await import('./lib/bench-plan.mjs')
const { benchGround, benchMasts, benchPage, compiled, quantile, round } = await import('./lib/bench-scout.mjs')
/** @type {{ name: string, value: number, unit: string, ratio?: number, against?: string }[]} */
const rows = []
const add = (/** @type {typeof rows[number]} */ row) => {
  rows.push(row)
  if (json) process.stdout.write(`${JSON.stringify(row)}\n`)
}

// Kernels
const k = await importTs('bench/kernels.ts')
const n = 2001
const distanceKm = Float64Array.from({ length: n }, (_, i) => (60 * i) / (n - 1))
const groundM = Float64Array.from({ length: n }, (_, i) => 60 + 50 * Math.sin(i * 0.013) + 30 * Math.cos(i * 0.031))
const rounds = 2000
let sum = 0
const kernel = () => {
  sum = 0
  for (let r = 0; r < rounds; r++)
    sum += k.deltaBullington({ distanceKm, groundM, txHeightM: 5 + (r % 7), rxHeightM: 30, frequencyMHz: 806 }).lossDb
}
kernel()
let best = Infinity
for (let i = 0; i < 5; i++) {
  const t = performance.now()
  kernel()
  best = Math.min(best, (performance.now() - t) / rounds)
}
const c = plainC()
add({
  name: 'profile 60 km',
  value: round(best * 1000, 1),
  unit: 'µs',
  ...(c ? { ratio: round((best * 1e6) / c.ns), against: 'the same sum in C, -O2' } : {}),
})
if (c && Math.abs(c.loss - sum / rounds) > 1e-6) process.stderr.write(`C and TypeScript differ: ${c.loss} ${sum / rounds}\n`)

function plainC() {
  const out = compiled('bullington')
  if (!out) return null
  let ns = Infinity
  let loss = 0
  for (let i = 0; i < 5; i++) {
    const [t, l] = execFileSync(out, [String(n), String(rounds)], { encoding: 'utf8' })
      .trim()
      .split(' ')
      .map(Number)
    ns = Math.min(ns, /** @type {number} */ (t))
    loss = /** @type {number} */ (l)
  }
  return { ns, loss }
}

// Assessment of the demo home, and of a building with three amplifiers, 24 inside antennas and 12 bands
const terrain = new k.Terrain(k.cutTile(k.demoTile()))
const NOW = '2026-04-03T12:00:00.000Z'
/** A quantile of `rounds` after as many as half of them to warm up. */
const timedMs = (/** @type {number} */ rounds, /** @type {() => unknown} */ work, q = 0.5) => {
  const times = Array.from({ length: Math.round(rounds * 1.5) }, () => {
    const t = performance.now()
    work()
    return performance.now() - t
  })
  return round(quantile(times.slice(-rounds), q))
}
const medianMs = (/** @type {number} */ rounds, /** @type {() => unknown} */ work) => timedMs(rounds, work)
const p95Ms = (/** @type {number} */ rounds, /** @type {() => unknown} */ work) => timedMs(rounds, work, 0.95)
const home = k.demoScenario().jobs[1].document
const building = k.building24()
const evidenceOf = (/** @type {any} */ doc) => ({ paths: k.computePaths(terrain, k.pathInputs(doc)) })
const [ofHome, ofBuilding] = [evidenceOf(home), evidenceOf(building)]
add({ name: 'assess demo home', value: medianMs(100, () => k.assess(home, ofHome, { atUtc: NOW })), unit: 'ms' })
add({ name: 'assess building 24', value: medianMs(100, () => k.assess(building, ofBuilding, { atUtc: NOW })), unit: 'ms' })
const edit = k.editRoute(building, ofBuilding, NOW)
let step = 0
add({ name: 'route edit', value: p95Ms(100, () => edit(++step)), unit: 'ms p95' })
add({ name: 'ways in', value: p95Ms(200, k.rankWays(building, k.assess(building, ofBuilding, { atUtc: NOW }))), unit: 'ms p95' })
const work = k.steps120(7)
const { climbs, bound } = k.orderAgainstBound(work)
add({
  name: 'order 120',
  value: p95Ms(40, () => k.orderAgainstBound(work)),
  unit: 'ms p95',
  ratio: round(climbs / bound, 2),
  against: `${climbs} climbs, no order has fewer than ${bound}`,
})
const judged = k.assess(building, ofBuilding, { atUtc: NOW })
add({ name: 'card of a building', value: p95Ms(100, () => k.cardOf(building, judged)), unit: 'ms p95' })
const day = k.dayAgainstBound(work)
add({
  name: 'day of two, 120',
  value: p95Ms(20, () => k.dayAgainstBound(work)),
  unit: 'ms p95',
  ratio: round(day.lengthMin / day.boundMin, 2),
  against: `${round(day.lengthMin, 0)} min, no day is under ${round(day.boundMin, 0)}`,
})
add({ name: 'advisor', value: medianMs(10, () => k.advise(home, ofHome, NOW)), unit: 'ms' })

add({ name: 'kit search', value: medianMs(10, () => k.proposeKits(home, ofHome, NOW, 'booster')), unit: 'ms' })
benchPlan(add, k)
benchLive(add, k)
benchGround(add, k)

/**
 * From an arrow key to the last repaint that follows it, the one with the new sum included.
 * @param {import('@playwright/test').Page} page  @param {string} watched  what is repainted
 */
async function editToPaint(page, watched) {
  const taken = []
  for (let i = 0; i < 40; i++) {
    taken.push(
      await page.evaluate(
        ([key, selector]) =>
          new Promise(done => {
            const start = performance.now()
            let last = start
            let idle = setTimeout(() => done(last - start), 400)
            const seen = new MutationObserver(() =>
              requestAnimationFrame(() => {
                last = performance.now()
                clearTimeout(idle)
                idle = setTimeout(() => {
                  seen.disconnect()
                  done(last - start)
                }, 250)
              }),
            )
            const picture = document.querySelector(selector)
            if (picture) seen.observe(picture, { subtree: true, childList: true, characterData: true, attributes: true })
            document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
          }),
        /** @type {[string, string]} */ ([i % 8 < 4 ? 'ArrowUp' : 'ArrowDown', watched]),
      ),
    )
    await page.waitForTimeout(60)
  }
  return round(quantile(taken.slice(5), 0.95), 1)
}

/**
 * From a move of the finger with a part under it to the frame that shows it, on the plan.
 * @param {import('@playwright/test').Page} page
 */
async function dragToPaint(page) {
  const taken = await page.evaluate(async () => {
    const part = /** @type {SVGElement} */ (document.querySelector('.beside [data-test^=plan-node-inside]'))
    const box = part.getBoundingClientRect()
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
    const send = (/** @type {EventTarget} */ to, /** @type {string} */ kind, /** @type {number} */ dx) =>
      to.dispatchEvent(new PointerEvent(kind, { bubbles: true, clientX: x + dx, clientY: y, pointerId: 1 }))
    send(part, 'pointerdown', 0)
    const times = []
    for (let i = 0; i < 60; i++) {
      const start = performance.now()
      send(window, 'pointermove', 8 + (i % 30))
      await new Promise(done => requestAnimationFrame(() => setTimeout(() => done(null))))
      times.push(performance.now() - start)
    }
    send(window, 'pointerup', 0)
    return times
  })
  return round(quantile(taken.slice(5), 0.95), 1)
}

// In the browser
const { chromium } = await import('@playwright/test')
const cluster = await startCluster(join(DATA, 'bench'), { passing: true })
const name = `bench_${Date.now()}`
await ensureDatabase(cluster, name)
await migrate(cluster.url(name))
const { seedDemo } = await importTs('server/services/seed.ts')
await seedDemo(cluster.url(name), true)
const port = await freePort()
const server = await startServer({
  build,
  port,
  quiet: true,
  env: {
    NUXT_DATABASE_URL: cluster.url(name),
    NUXT_SESSION_PASSWORD: 'a password of the bench, long enough for sealing',
    NUXT_SESSION_COOKIE_SECURE: 'false',
    NUXT_DEMO: '1',
  },
})
const browser = await chromium.launch({
  executablePath: browserPath() ?? undefined,
  args: CHROMIUM_ARGS,
})
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' })).newPage()
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Network.enable')
  let bytes = 0
  const scripts = new Set()
  cdp.on('Network.responseReceived', e => e.type === 'Script' && scripts.add(e.requestId))
  cdp.on('Network.loadingFinished', e => scripts.has(e.requestId) && (bytes += e.encodedDataLength))
  await page.goto(`http://localhost:${port}/`)
  await page.waitForLoadState('networkidle')
  add({ name: 'page weight first', value: round(bytes / 1000, 1), unit: 'kB gz' })
  await page.request.post(`http://localhost:${port}/api/auth/demo`, { data: {} })
  await page.goto(`http://localhost:${port}/job/0192f000-0020-7000-8000-000000000001/level`)
  await page.locator('svg text').filter({ hasText: 'isolation' }).waitFor()
  await page.waitForTimeout(3000)
  await page.keyboard.press('p')
  add({ name: 'edit to paint', value: await editToPaint(page, '.picture svg'), unit: 'ms p95' })
  await page.goto(`http://localhost:${port}/job/0192f000-0020-7000-8000-000000000001/place`)
  await page.locator('.beside svg text').first().waitFor()
  await page.waitForTimeout(3000)
  await page.keyboard.press('p')
  add({ name: 'edit to paint, plan', value: await editToPaint(page, '.main'), unit: 'ms p95' })
  add({ name: 'drag to paint, plan', value: await dragToPaint(page), unit: 'ms p95' })
  await benchPage(add, {
    page,
    origin: `http://localhost:${port}`,
    url: cluster.url(name),
    job: '0192f000-0010-7000-8000-000000000001',
  })
  await benchFit(add, { page, origin: `http://localhost:${port}`, url: cluster.url(name) })
  const [session] = await page.context().cookies()
  const [, cookie] = await Promise.all([browser.close(), `${session?.name}=${session?.value}`])
  await benchLoad(add, {
    url: cluster.url(name),
    origin: `http://localhost:${port}`,
    cookie,
    job: '0192f000-0010-7000-8000-000000000001',
  })
  for (const rows of process.argv.includes('--big') ? [500_000, 5_000_000] : [500_000]) {
    await benchMasts(add, {
      url: cluster.url(name),
      origin: `http://localhost:${port}`,
      cookie,
      pid: server.child.pid ?? 0,
      bin: cluster.bin,
      rows,
    })
  }
} finally {
  await browser.close()
  await server.stop()
  await dropDatabase(cluster, name)
  await cluster.stop()
}
if (!json) {
  process.stdout.write(`${'what'.padEnd(22)}${'value'.padStart(10)}  ${'unit'.padEnd(10)}${'ratio'.padStart(6)}  against\n`)
  for (const r of rows)
    process.stdout.write(
      `${r.name.padEnd(22)}${String(r.value).padStart(10)}  ${r.unit.padEnd(10)}${String(r.ratio ?? '').padStart(6)}  ${r.against ?? ''}\n`,
    )
}
process.exit(0)
