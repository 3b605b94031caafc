/** A modem listened to on the roof: figures by themselves, few readings, the network gone in the middle. */
import type { Page } from '@playwright/test'
import { database, expect, KILN, openJob, sent, test } from './support/fixtures'
import { climb, listen, ROOF } from './support/roof'

const figure = async (page: Page) => Number((await page.locator('[data-test=aim-value]').inputValue()).replace('−', '-'))

test('on the roof: the modem is heard, steps are kept by themselves, with the network off in the middle', async ({
  demoPage: page,
  app,
  quiet,
}) => {
  test.setTimeout(180_000)
  await page.setViewportSize(ROOF)
  await openJob(page, KILN, 'aim')
  await climb(page)
  await listen(page)
  await page.locator('[data-test=how]').click()
  await page.locator('[data-test=quantity]').selectOption('RSRP')
  await page.locator('[data-test=dwell]').selectOption('10')
  await page.locator('[data-test=sweep-few]').click()
  await expect.poll(() => figure(page)).toBeLessThan(-50)
  await page.locator('[data-test=by-itself]').check()
  const kept = page.getByText(/\d+ kept/)
  await expect(kept).toContainText('2 kept', { timeout: 40_000 })
  // The server is out of reach; the bridge, on the device itself, is not.
  await page.context().route('**/api/**', route => route.abort('internetdisconnected'))
  await expect(kept).toContainText('4 kept', { timeout: 40_000 })
  await page.context().unroute('**/api/**')
  await page.locator('[data-test=by-itself]').uncheck()
  await expect(page.locator('[data-test=link]')).toHaveText('all sent', { timeout: 30_000 })
  const sql = database(app)
  const rows = await sql`
    select s.value, s.heading_deg from steps s join sweeps w on w.crew_id = s.crew_id and w.id = s.sweep_id
    where w.job_id = ${KILN} and w.quantity = 'RSRP' and w.step_deg is null`
  expect(rows.length).toBeGreaterThanOrEqual(4)
  expect(rows.every(r => r.value < -50 && r.value > -140)).toBe(true)
  expect(new Set(rows.map(r => r.heading_deg)).size).toBe(rows.length)
  await sql.end()
  quiet.splice(0)
})

test('a wrong code, a bridge that is gone and a browser without ports are told in words', async ({ demoPage: page, quiet }) => {
  await openJob(page, KILN, 'aim')
  await page.locator('[data-test=listen]').click()
  await page.locator('[data-test=pair-code] input').fill('000000')
  await page.locator('[data-test=modem-bridge]').click()
  await expect(page.locator('[data-test=modem-trouble]')).toContainText('not the pairing code')
  await page
    .locator('[data-test=modem-replay]')
    .setInputFiles({ name: 'x.txt', mimeType: 'text/plain', buffer: Buffer.from('nothing') })
  await expect(page.locator('[data-test=modem-trouble]')).toContainText('no recording of a modem')
  await page.locator('[data-test=modem-replay]').setInputFiles({
    name: 'talk.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('0 OK\n20 +CESQ: 99,99,255,255,20,46\n40 OK\n9000 OK\n'),
  })
  await expect(page.locator('[data-test=listen]')).toContainText('hears talk.txt')
  await sent(page)
  quiet.splice(0)
})

test('half a minute at a spot becomes a reading; a page that is pasted fills the fields', async ({ demoPage: page, app }) => {
  test.setTimeout(120_000)
  await openJob(page, KILN, 'survey')
  await page.locator('[data-test=more]').click()
  await page.locator('[data-test=paste]').click()
  await page.locator('[data-test=page]').fill('Uptime 3 days')
  await page.locator('[data-test=take-page]').click()
  await expect(page.getByRole('alert').filter({ hasText: 'No RSRP' })).toBeVisible()
  await page.locator('[data-test=page]').fill('Band: B20\nRSRP: −93 dBm, SINR: 6,5 dB\nRSRP: −99 dBm')
  await page.locator('[data-test=take-page]').click()
  await expect(page.locator('[data-test=rsrp] input')).toHaveValue('−93')
  await expect(page.locator('[data-test=sinr] input')).toHaveValue('6.5')
  await expect(page.getByText('several carriers are named')).toBeVisible()

  await listen(page)
  await page.locator('[data-test=dwell]').click()
  // Whether it settles before is the air's; after half a minute it is kept by itself.
  await expect(page.getByRole('timer')).toBeVisible()
  await expect(page.getByText(/answers over \d+ s/)).toBeVisible({ timeout: 45_000 })
  await sent(page)
  const sql = database(app)
  const [row] = await sql`select rsrp_dbm, cell_id from readings where job_id = ${KILN} order by taken_at_utc desc limit 1`
  expect(row!.rsrp_dbm).toBeLessThan(-50)
  expect(row!.cell_id).toMatch(/^[0-9A-F]+$/)
  await sql.end()
})

test('a speed test of our own is asked for, stopped, run, and kept; one that went another way counts in no median', async ({
  demoPage: page,
  app,
  quiet,
}) => {
  test.setTimeout(120_000)
  await openJob(page, KILN, 'survey')
  await page.getByRole('button', { name: 'speed', exact: true }).click()
  const run = async () => {
    await page.locator('[data-test=speed-run]').click()
    await page.locator('[data-test=speed-go]').click()
  }
  await run()
  await page.locator('[data-test=speed-stop]').click()
  await expect(page.getByRole('alert').filter({ hasText: 'stopped' })).toBeVisible()
  await run()
  await expect(page.locator('[data-test=speed-said]')).toContainText('ms idle', { timeout: 40_000 })
  await sent(page)
  const sql = database(app)
  const kept = () => sql`
    select down_mbps, up_mbps, ping_ms, via, doubted from speed_runs where job_id = ${KILN} and via is not null order by taken_at_utc`
  const [first] = await kept()
  expect(first!.down_mbps).toBeGreaterThan(1)
  expect(first!.up_mbps).toBeGreaterThan(0.5)
  expect(first!.doubted).toBe(false)
  // As if the device had gone over to another line.
  await page.route('**/api/speed/ping', route => route.fulfill({ json: { via: 'elsewhere' } }))
  await run()
  await expect(page.getByText('counts in no median').first()).toBeVisible({ timeout: 40_000 })
  await sent(page)
  expect((await kept()).map(r => r.doubted)).toEqual([false, true])
  await sql.end()
  quiet.splice(0)
})

test('the practice range: turned by keys, read, locked, scored with what was missed', async ({ demoPage: page }) => {
  await page.goto('/')
  await page.locator('[data-test=practice]').click()
  await page.locator('[data-test=exercise-1]').click()
  const figureNow = () => page.locator('[data-test=practice-figure]').innerText()
  await expect.poll(async () => Number((await figureNow()).replace('−', '-'))).toBeLessThan(-30)
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 read')).toBeVisible()
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('l')
  const score = page.locator('[data-test=practice-score]')
  await expect(score).toContainText('of 100')
  await expect(score).toContainText('under the best')
  await page.locator('[data-test=all-exercises]').click()
  await expect(page.locator('[data-test=exercise-1]')).toContainText('of 100')
})

test('the heading follows the phone’s own compass, and one that has none says so', async ({ demoPage: page }) => {
  await page.setViewportSize(ROOF)
  await openJob(page, KILN, 'aim')
  await climb(page)
  await page.context().grantPermissions(['accelerometer', 'gyroscope', 'magnetometer'])
  const compass = page.locator('[data-test=compass]')
  await compass.click()
  await expect(page.getByText('no compass in this device')).toBeVisible()
  await compass.click()
  const point = (alpha: number) =>
    page.evaluate(
      a => window.dispatchEvent(new DeviceOrientationEvent('deviceorientationabsolute', { alpha: a, absolute: true })),
      alpha,
    )
  // It listens once it has been allowed to.
  await expect(compass).toContainText('turned by this phone')
  await point(360 - 77)
  await expect(page.locator('.tell')).toContainText('077°')
  // A hand that trembles does not begin the reading anew.
  await point(360 - 78)
  await expect(page.locator('.tell')).toContainText('077°')
  await point(360 - 120)
  await expect(page.locator('.tell')).toContainText('120°')
})
