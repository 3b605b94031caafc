/** No network, a server that stops, a session that ends: the work goes on and nothing is lost. */
import { CROFT, database, expect, KILN, openJob, sent, test } from './support/fixtures'

test('the network goes in mid-job, the page is reloaded, and the work is sent when it is back', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, KILN, 'level')
  await page.evaluate(() => navigator.serviceWorker.ready)
  // A second load puts the page under the service worker, as any later visit is.
  await page.reload()
  await expect(page.locator('[data-test=opening]')).toHaveCount(0)
  await expect(page.locator('svg text').filter({ hasText: 'at the modem' })).toBeVisible()
  await page.waitForFunction(async () => (await caches.keys()).length > 0 && !!navigator.serviceWorker.controller)
  await page.context().setOffline(true)
  await page.reload()
  await expect(page.locator('svg text').filter({ hasText: 'at the modem' })).toBeVisible()
  await page.getByRole('link', { name: 'Choose' }).click()
  const length = page.getByLabel('Length').first()
  await length.fill('14,5')
  await length.blur()
  await expect(page.locator('[data-test=link]')).toHaveText('2 not sent yet')
  await page.reload()
  await expect(page.getByLabel('Length').first()).toHaveValue('14.5')
  await expect(page.locator('[data-test=link]')).toHaveText('2 not sent yet')
  await page.context().setOffline(false)
  await sent(page)
  const sql = database(app)
  // Both feeds of one antenna lead the same way.
  expect((await sql`select count(*)::int as n from runs where job_id = ${KILN} and length_m = 14.5`)[0]!.n).toBe(2)
  await sql.end()
})

test('a change is told as waiting only when it lies on the device', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await page.addInitScript(() => {
    const own = crypto.subtle.encrypt.bind(crypto.subtle)
    // A slow device: what is sealed while `held` is set waits for its release.
    const slow = { held: null as Promise<void> | null, release: () => {} }
    Object.assign(globalThis, {
      hold: () => (slow.held = new Promise<void>(done => (slow.release = done))),
      release: () => slow.release(),
    })
    crypto.subtle.encrypt = async (...of) => (await slow.held, own(...of))
  })
  await openJob(page, CROFT, 'ask')
  await page.route('**/api/**', route => route.abort('internetdisconnected'))
  await page.evaluate(() => void (globalThis as unknown as { hold: () => void }).hold())
  await page.getByLabel('Notes').fill('the key is under the third pot')
  await page.getByLabel('Notes').blur()
  await expect(page.locator('[data-test=link]')).toHaveText('keeping…')
  await page.evaluate(() => (globalThis as unknown as { release: () => void }).release())
  await expect(page.locator('[data-test=link]')).toHaveText(/^1 not sent yet$/)
  await page.unroute('**/api/**')
  await page.reload()
  await expect(page.getByLabel('Notes')).toHaveValue('the key is under the third pot')
  await sent(page)
})

test('the server stops in mid-save: kept here, sent once when it is up again', async ({ page, app }) => {
  test.setTimeout(300_000)
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, CROFT, 'survey')
  await page.getByRole('button', { name: /^Study/ }).click()
  await app.stop('SIGKILL')
  for (const v of ['125', '126', '127']) {
    await page.locator('[data-test=rsrp] input').fill(v)
    await page.locator('[data-test=keep]').click()
    await expect(page.locator('[data-test=rsrp] input')).toHaveValue('')
  }
  await expect(page.locator('[data-test=link]')).toHaveText('3 not sent yet')
  await app.start()
  await sent(page)
  const sql = database(app)
  const rows = await sql`select rsrp_dbm from readings where job_id = ${CROFT} and rsrp_dbm in (-125, -126, -127)`
  expect(rows.map(r => r.rsrp_dbm as number).sort()).toEqual([-125, -126, -127])
  await sql.end()
})

test('a session that ends with unsent work loses nothing', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, CROFT, 'ask')
  await page.context().clearCookies()
  await page.getByLabel('Notes').fill('the gate sticks')
  await page.getByLabel('Notes').blur()
  await expect(page.locator('[data-test=ended]')).toContainText('1 change kept here')
  await page.reload()
  await expect(page.locator('[data-test=ended]')).toBeVisible()
  await expect(page.getByLabel('Notes')).toHaveValue('the gate sticks')
  await page.getByRole('button', { name: 'sign in again' }).click()
  await page.getByRole('button', { name: 'into the demo' }).click()
  await sent(page)
  const sql = database(app)
  expect((await sql`select notes from jobs where id = ${CROFT}`)[0]!.notes).toBe('the gate sticks')
  await sql.end()
})
