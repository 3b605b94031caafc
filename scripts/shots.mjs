/**
 * `npm run shots`: pictures of each main view from the running demo into docs/screenshots/.
 * `-- NAME…` takes only those; `--to FOLDER` elsewhere.
 */
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_ARGS, DATA, ROOT, chromium as browserPath } from './lib/system.mjs'

const { chromium } = await import('@playwright/test')
const args = process.argv.slice(2)
const to = args.includes('--to')
  ? /** @type {string} */ (args.splice(args.indexOf('--to'), 2)[1])
  : join(ROOT, 'docs/screenshots')
mkdirSync(to, { recursive: true })
const base = `http://localhost:${readFileSync(join(DATA, 'demo', 'port'), 'utf8').trim()}`
const job = (/** @type {number} */ n) => `0192f000-00${n}0-7000-8000-000000000001`
/** What is asked before anyone climbs is ticked. */
const tick = async (/** @type {import('@playwright/test').Page} */ page) => {
  for (const key of ['falls', 'overhead', 'storm']) {
    const box = page.locator(`[data-test=tick-${key}]`)
    if (await box.count()) await box.click()
  }
}
const KILN = job(1)
const LOFT = job(2)
const TRAILER = '0192f000-0100-7000-8000-000000000001'
const CLINIC = '0192f000-0110-7000-8000-000000000001'

/** The second SIM is on its way up. */
const powerOn = async (/** @type {import('@playwright/test').Page} */ page) => {
  await page.locator('[data-test=power-on]').click()
  await page.waitForTimeout(2000)
}
/** A link made, and opened as its holder does. */
const customersPage = async (/** @type {import('@playwright/test').Page} */ page) => {
  await page.locator('[data-test=page-make]').click()
  const link = await page.locator('[data-test=page-link]').textContent()
  await page.goto((link ?? '').trim())
}
/** The modem of the demo listened to, and a few readings kept by themselves. */
const listen = async (/** @type {import('@playwright/test').Page} */ page) => {
  await tick(page)
  await page.locator('[data-test=listen]').click()
  await page.waitForTimeout(800)
  await page.locator('[data-test=modem-bridge]').click()
  await page.waitForTimeout(1500)
  await page.locator('[data-test=how]').click()
  await page.locator('[data-test=quantity]').selectOption('RSRP')
  await page.locator('[data-test=dwell]').selectOption('10')
  await page.locator('[data-test=sweep-few]').click()
  await page.locator('[data-test=by-itself]').check()
  await page.waitForTimeout(76_000)
}

/**
 * name, width, height, path, and what is done before the picture
 * @type {[string, number, number, string, ((page: import('@playwright/test').Page) => Promise<unknown>)?][]}
 */
const VIEWS = [
  ['jobs', 1280, 800, '/'],
  ['ask', 1280, 800, `/job/${KILN}/ask`],
  ['survey', 1280, 800, `/job/${job(3)}/survey`, page => page.locator('[data-test=one-by-one-open]').click()],
  ['bearings', 1280, 800, `/job/${KILN}/bearings`],
  ['choose', 1280, 800, `/job/${job(3)}/choose`, page => page.locator('[data-test=advice-router]').waitFor({ timeout: 60_000 })],
  ['place', 1280, 800, `/job/${LOFT}/place`],
  ['level', 1280, 800, `/job/${LOFT}/level`],
  [
    'route',
    1280,
    800,
    `/job/${KILN}/route`,
    page =>
      page
        .locator('[data-test=add-corner]')
        .waitFor()
        .then(() => page.waitForTimeout(600)),
  ],
  ['roof-card', 390, 844, `/job/${LOFT}/card`],
  ['card', 1280, 800, `/job/${job(5)}/card`, page => page.locator('[data-test=step-mount]').first().click()],
  ['list', 1280, 800, `/job/${job(5)}/list`],
  ['board', 1280, 800, '/board'],
  ['aim', 1280, 800, `/job/${KILN}/aim`],
  ['proof', 1280, 800, `/job/${KILN}/proof`],
  ['handover', 1280, 800, `/job/${KILN}/handover`],
  [
    'zones',
    1280,
    800,
    `/job/${CLINIC}/choose`,
    page =>
      page
        .locator('[data-test=zones]')
        .click()
        .then(() => page.waitForTimeout(1200)),
  ],
  ['commission', 1280, 800, `/job/${TRAILER}/commission`, powerOn],
  ['customer', 390, 844, `/job/${KILN}/handover`, customersPage],
  ['roof-aim', 390, 844, `/job/${KILN}/aim`, listen],
]

const browser = await chromium.launch({
  executablePath: browserPath() ?? undefined,
  args: CHROMIUM_ARGS,
})
for (const [name, width, height, path, before] of VIEWS) {
  if (args.length && !args.includes(name)) continue
  const context = await browser.newContext({ viewport: { width, height }, serviceWorkers: 'block', hasTouch: width < 600 })
  const page = await context.newPage()
  page.on('console', m => m.type() === 'error' && process.stderr.write(`${name}: ${m.text()}\n`))
  page.on('pageerror', e => process.stderr.write(`${name}: ${e.message}\n`))
  await page.request.post(`${base}/api/auth/demo`, { data: {} })
  await page.goto(base + path)
  await page.waitForLoadState('networkidle')
  await page.locator('[data-test=opening]').waitFor({ state: 'detached' })
  await page.waitForTimeout(700)
  if (before) await before(page)
  await page.waitForTimeout(900)
  await page.screenshot({ path: join(to, `${name}.png`) })
  await context.close()
}
await browser.close()
