/** The job card by thumb: the next step, its gate, done and not so; with no network, over a reload, after a change of the plan. */
import { database, expect, KETCH, KILN, LOFT, openJob, sent, test } from './support/fixtures'
import { ROOF } from './support/roof'

test('the next step stands behind its gate; true now it opens, done it moves on, and a reload keeps it', async ({
  demoPage: page,
  app,
}) => {
  await page.setViewportSize(ROOF)
  await openJob(page, LOFT, 'card')
  const words = page.locator('[data-test=step-words]')
  await expect(words).toContainText('Dry run')
  const done = page.locator('[data-test=step-done]')
  await expect(done).toBeDisabled()
  expect((await done.boundingBox())!.height).toBeGreaterThanOrEqual(56)
  const gate = page.locator('[data-test=gate]')
  await expect(gate).toContainText('Nothing transmits until')
  // Its step is done: nobody is asked again whether it is registered.
  await expect(page.locator('[data-test=fact-registered]')).toBeDisabled()
  for (const key of ['antennas', 'rf']) await page.locator(`[data-test=fact-${key}]`).check()
  await expect(gate).toHaveClass(/open/)
  await expect(gate).toContainText('Go: transmit')
  // One that is taken back shuts it again.
  await page.locator('[data-test=fact-rf]').uncheck()
  await expect(done).toBeDisabled()
  await page.locator('[data-test=fact-rf]').check()
  // The gate is open, and still nothing was read.
  await expect(page.locator('[data-test=dry-trouble]')).toContainText('Read at least one')
  const level = page.locator('[data-test=dry-reads] .read', { hasText: 'RSRP' }).getByLabel('read')
  // Typed as a phone shows it, without its sign: it is RSRP, so it is negative.
  await level.fill('110')
  await level.blur()
  await expect(page.locator('[data-test=dry-trouble]')).toContainText('stops here')
  await expect(page.locator('[data-test=causes] li').first()).toContainText('back to')
  await expect(done).toBeDisabled()
  await level.fill('74')
  await level.blur()
  await expect(page.locator('[data-test=causes]')).toHaveCount(0)
  await done.click()
  await expect(words).not.toContainText('Dry run')
  const next = await words.textContent()
  await sent(page)
  await page.reload()
  await expect(words).toHaveText(next!)
  const sql = database(app)
  const rows =
    await sql`select kind, key, done, by from checks where job_id = ${LOFT} and kind in ('step', 'fact') and at_utc > '2026-05-01'
    order by at_utc`
  expect(rows.filter(r => r.kind === 'step')).toEqual([
    { kind: 'step', key: 'dry-run', done: true, by: expect.any(String) as unknown },
  ])
  // Each is of this box and of no other.
  const [box] = await sql`select n.id from nodes n join jobs j on j.crew_id = n.crew_id and j.design_id = n.design_id
    where j.id = ${LOFT} and n.part->>'kind' = 'amplifier'`
  const of = (key: string) => `${key}:${box!.id as string}`
  expect(rows.filter(r => r.kind === 'fact').map(r => [r.key, r.done])).toEqual([
    [of('antennas'), true],
    [of('rf'), true],
    [of('rf'), false],
    [of('rf'), true],
  ])
  await sql.end()
})

test('a gust above ten keeps the ladder down; below it, and with all else, the gate opens', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=step-mount]').first().click()
  const gate = page.locator('[data-gate=climb]')
  await expect(gate).toContainText('No climbing until')
  for (const key of ['thunder', 'ice', 'fragile', 'foot']) await page.locator(`[data-test=fact-${key}]`).check()
  const wind = page.locator('[data-test=fact-wind] input')
  await wind.fill('14')
  await wind.blur()
  await expect(gate).toContainText('14 m/s, above 10 m/s: stop')
  await wind.fill('nonsense')
  await wind.blur()
  await expect(gate).toContainText('above 10 m/s: stop')
  await wind.fill('6')
  await wind.blur()
  await expect(gate).toContainText('Go: the climb')
  // The gate is open, and still the step waits for what comes before it.
  await expect(page.locator('.waits')).toContainText('After:')
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()
})

test('what is not so waits with its reason, with the network gone; the card goes on', async ({ demoPage: page, quiet }) => {
  await page.setViewportSize(ROOF)
  await openJob(page, LOFT, 'card')
  const words = page.locator('[data-test=step-words]')
  const first = (await words.textContent())!
  await page.context().route('**/api/**', route => route.abort('internetdisconnected'))
  await page.locator('[data-test=not-so]').click()
  await page.locator('[data-test=why] input').fill('the pole is a metre short')
  await page.getByRole('button', { name: 'keep', exact: true }).click()
  await expect(words).not.toHaveText(first)
  await page.locator('[data-test=all-steps]').click()
  await expect(page.locator('.list')).toContainText('the pole is a metre short')
  await page.locator('.list button.stopped').click()
  await expect(words).toHaveText(first)
  await page.locator('[data-test=so-now]').click()
  await expect(page.getByText('Not so: the pole is a metre short')).toHaveCount(0)
  await page.context().unroute('**/api/**')
  await page.evaluate(() => window.dispatchEvent(new Event('online')))
  await expect(page.locator('[data-test=link]')).toHaveText('all sent', { timeout: 30_000 })
  quiet.splice(0)
})

test('a finished card stays as it was done; a changed plan says so at the step', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'card')
  await expect(page.locator('[data-test=done-by]')).toContainText('Done by')
  await expect(page.locator('.list .error')).toHaveCount(0)
  await openJob(page, KILN, 'choose')
  const lengths = page.getByLabel('Length')
  await lengths.first().fill('14')
  await lengths.first().blur()
  await sent(page)
  await openJob(page, KILN, 'card')
  await expect(page.locator('.list .error').first()).toContainText('the plan changed since')
})

test('Fit says steps and hours; a climb takes everything up once; a core that hardens is another day', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, KETCH, 'card')
  const fit = page.locator('header.acts button', { hasText: 'Fit' })
  await expect(fit).toContainText(/^Fit\d+ of \d+ steps, \d+(\.5)? h left$/)
  await expect(page.locator('[data-test=another-day]')).toContainText('hardens first')
  await page.locator('[data-test=step-fill]').click()
  await expect(page.locator('[data-gate=drill]')).toContainText('a core between two skins')
  // Filled on another phone just now: the hole waits until tomorrow, and the card says so.
  const sql = database(app)
  const [fill] = await sql`select f.id from fixtures f where f.job_id = ${KETCH} and f.kind = 'way in'`
  const said = { reason: null, by: 'Oren Tibb', stopId: null, about: null, value: null }
  const fields = { kind: 'step', key: `fill:${fill!.id}`, done: true, atUtc: new Date().toISOString(), ...said }
  const id = () => crypto.randomUUID().replace(/^(.{14})./, '$17')
  const change = { id: id(), table: 'checks', rowId: id(), op: 'insert', baseVersion: 0, fields }
  expect((await page.request.post(`/api/jobs/${KETCH}/changes`, { data: { changes: [change] } })).ok()).toBe(true)
  await page.reload()
  await page.locator('[data-test=step-way]').click()
  await expect(page.locator('[data-test=hardens]')).toContainText('hardens until')
  await expect(page.locator('[data-test=step-done]')).toBeDisabled()
  // The first step of the climb names everything that goes up; the steps after it only what is their own.
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=step-mount]').click()
  await expect(page.locator('[data-test=bundle]')).toContainText('Roof log-periodic')
  await page.locator('[data-test=step-raise]').click()
  await expect(page.locator('[data-test=bundle]')).toHaveCount(0)
  await sql.end()
})
