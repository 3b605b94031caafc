/** Fit in the browser: a card of 120 steps by thumb without a network, a week of 200 visits dragged. */
import { quantile, round } from './bench-scout.mjs'
import { withClient } from './cluster.mjs'

const STEPS = 120
const VISITS = 200
const WORKS = '0192f000-0060-7000-8000-000000000001'

/** @param {number} i  @param {string} series */
const uuid = (i, series) => `0192f0ff-${series}-7000-8000-${String(i).padStart(12, '0')}`

/** @param {string} url  steps by hand beside the plan's own, and a full week @returns {Promise<void>} */
async function fill(url) {
  await withClient(url, async client => {
    const { rows } = await client.query('select crew_id from jobs where id = $1', [WORKS])
    const crew = rows[0].crew_id
    for (let i = 0; i < STEPS; i++)
      await client.query(
        `insert into own_steps (crew_id, id, job_id, version, words, stand, minutes) values ($1, $2, $3, 1, $4, $5, 10)`,
        [crew, uuid(i, '0001'), WORKS, `Step ${i} by hand`, i % 4 ? 'ground' : 'up'],
      )
    const monday = new Date()
    monday.setUTCDate(monday.getUTCDate() - ((monday.getUTCDay() + 6) % 7))
    for (let i = 0; i < VISITS; i++) {
      const day = new Date(monday.getTime() + (i % 7) * 86_400_000).toISOString().slice(0, 10)
      await client.query(
        `insert into visits (crew_id, id, job_id, version, on_day, starts_at, hours, team, people, weather, state)
        values ($1, $2, $3, 1, $4, $5, 1, $6, 2, 'any', 'planned')`,
        [crew, uuid(i, '0002'), WORKS, day, `${String(7 + (i % 12)).padStart(2, '0')}:00`, `Team ${i % 5}`],
      )
    }
  })
}

/** @param {import('@playwright/test').Page} page  @returns {Promise<number>} from the press to the frame that shows it, ms */
const tick = page =>
  page.evaluate(
    () =>
      new Promise((done, fail) => {
        const press = /** @type {HTMLButtonElement} */ (document.querySelector('[data-test=step-done]'))
        if (press.disabled) return fail(new Error('the step cannot be done'))
        const words = /** @type {HTMLElement} */ (document.querySelector('[data-test=step-words]'))
        const start = performance.now()
        const seen = new MutationObserver(() => {
          seen.disconnect()
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - start)))
        })
        seen.observe(words, { childList: true, characterData: true, subtree: true })
        press.click()
      }),
  )

/** @param {import('@playwright/test').Page} page  a drag over the whole week @returns {Promise<number[]>} lengths of its frames, ms */
async function dragFrames(page) {
  const visit = page.locator('.board .grid .visit').first()
  const from = await visit.boundingBox()
  const to = await page.locator('.board .grid .cell').nth(6).boundingBox()
  if (!from || !to) throw new Error('nothing to drag')
  await page.evaluate(() => {
    const frames = /** @type {number[]} */ ([])
    let last = performance.now()
    const look = (/** @type {number} */ now) => {
      frames.push(now - last)
      last = now
      requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
    Object.assign(window, { frames })
  })
  await page.mouse.move(from.x + 20, from.y + 10)
  await page.mouse.down()
  for (let i = 0; i <= 90; i++)
    await page.mouse.move(from.x + 20 + ((to.x - from.x) * i) / 90, from.y + 10 + 30 * Math.sin(i / 9))
  const frames = await page.evaluate(() => /** @type {any} */ (window).frames)
  await page.mouse.up()
  return frames.slice(5)
}

/**
 * @param {(row: { name: string, value: number, unit: string, ratio?: number, against?: string }) => void} add
 * @param {{ page: import('@playwright/test').Page, origin: string, url: string }} o
 */
export async function benchFit(add, { page, origin, url }) {
  await fill(url)
  const card = `${origin}/job/${WORKS}/card`
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(card)
  await page.locator('[data-test=step-words]').waitFor()
  await page.waitForTimeout(2000)
  await page.context().route('**/api/**', route => route.abort('internetdisconnected'))
  const opened = []
  for (let i = 0; i < 5; i++) {
    await page.goto(card, { waitUntil: 'commit' })
    const seen = await page.waitForFunction(() => document.querySelector('[data-test=step-words]') && performance.now())
    opened.push(Number(await seen.jsonValue()))
    await page.waitForTimeout(1000)
  }
  add({
    name: 'job card',
    value: round(quantile(opened, 0.5), 0),
    unit: 'ms',
    against: 'opened without a network, 120 steps and more',
  })
  const ticks = []
  for (let i = 0; i < 20; i++) {
    await page.locator('[data-test=all-steps]').click()
    await page.locator('[data-test=step-own]:not(.done)').first().click()
    ticks.push(await tick(page))
    await page.waitForTimeout(800)
  }
  const median = round(quantile(ticks, 0.5), 0)
  add({ name: 'job card tick', value: round(quantile(ticks, 0.95), 1), unit: 'ms p95', against: `${median} ms at the median` })
  await page.context().unroute('**/api/**')
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(`${origin}/board`)
  await page
    .locator('.board .grid .visit')
    .nth(VISITS - 1)
    .waitFor()
  const frames = await dragFrames(page)
  add({
    name: 'board drag',
    value: round(quantile(frames, 0.95), 1),
    unit: 'ms p95',
    against: `a frame of ${round(quantile(frames, 0.5), 1)} ms at the median, 200 visits`,
  })
}
