/** Smaller promises of the screens: what is added by hand, dragged, accepted, entered in feet, loaded only where it is used. */
import { v7 as uuidv7 } from 'uuid'
import type { JobSnapshot } from '../shared/api'
import { copyOf } from './support/copy'
import { choose } from './support/choose'
import { CROFT, database, expect, KILN, LOFT, openJob, sent, test, TRAILER } from './support/fixtures'

test('a mast by hand joins the ranking with no network, and is sent later', async ({ demoPage: page, app, quiet }) => {
  await openJob(page, KILN, 'bearings')
  await expect(page.locator('.list li').first()).toContainText('Stack')
  await page.locator('[data-test=add-mast]').click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Add it' }).click()
  await expect(dialog).toContainText('give it a name')
  await expect(dialog).toContainText('at least one band or channel')
  await page.context().setOffline(true)
  await dialog.getByLabel('Mast', { exact: true }).fill('New pole')
  await dialog.getByLabel('Position').fill('46.7990, −41.3600')
  await dialog.getByLabel('Bands or channels').fill('6300 B3')
  await dialog.getByLabel('Height over ground').fill('18')
  await dialog.getByRole('button', { name: 'Add it' }).click()
  await expect(page.locator('[data-test="mast-New pole"]')).toContainText('Tern · B20 B3')
  await expect(page.locator('[data-test=link]')).toContainText('not sent yet')
  await page.context().setOffline(false)
  await sent(page)
  const sql = database(app)
  expect((await sql`select height_m, job_id from masts where name = 'New pole'`)[0]).toMatchObject({ height_m: 18, job_id: KILN })
  await sql.end()
  quiet.length = 0
})

test('a finding is accepted with a reason and a name, and can be opened again', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'place')
  await page.keyboard.press('f')
  const dialog = page.getByRole('dialog')
  const finding = dialog.locator('[data-code="place.loop"]')
  await finding.getByRole('button', { name: 'accept with a reason' }).click()
  await finding.getByRole('button', { name: /Accept as/ }).click()
  await expect(finding).toContainText('say why')
  await finding.getByLabel('Why it may stay').fill('dry run was stable')
  await finding.getByRole('button', { name: /Accept as/ }).click()
  await expect(finding).toContainText('accepted by Ila Marrow: dry run was stable')
  await expect(page.locator('[data-test=findings]')).not.toContainText('1 to fix')
  await finding.getByRole('button', { name: 'open again' }).click()
  await expect(finding.getByRole('button', { name: 'accept with a reason' })).toBeVisible()
  await page.keyboard.press('Escape')
  await sent(page)
})

test('a part is dragged, the isolation follows, and one undo brings it back', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'place')
  const isolation = page.locator('svg text').filter({ hasText: 'isolation' })
  // The way to the mast is known: the donor looks at it.
  await expect(page.getByText(/West Spine, 5/).first()).toBeVisible()
  const before = await isolation.textContent()
  const box = (await page.locator('[data-test=part-inside]').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y + 20, { steps: 6 })
  await page.mouse.move(box.x + 150, box.y + 20, { steps: 6 })
  await page.mouse.up()
  await expect(isolation).not.toHaveText(before!)
  await page.locator('[data-test=undo]').click()
  await expect(isolation).toHaveText(before!)
  await sent(page)
})

test('what was noted under the wrong set-up is moved to another, and one undo takes it back', async ({ demoPage: page, app }) => {
  await openJob(page, CROFT, 'survey')
  await page.getByRole('button', { name: /^Kitchen/ }).click()
  const sql = database(app)
  const corrections = async () =>
    (
      await sql`select count(*)::int as n from readings n join readings o on o.crew_id = n.crew_id and o.id = n.replaces_id
        where n.job_id = ${CROFT} and not n.withdrawn and n.setup_id is distinct from o.setup_id
          and n.rsrp_dbm = o.rsrp_dbm and n.taken_at_utc = o.taken_at_utc`
    )[0]!.n as number
  expect(await corrections()).toBe(0)
  await page.locator('[data-test=move-readings]').click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.locator('[data-test=move-them]')).toBeDisabled()
  await choose(dialog.locator('[data-test=move-to] .v-field'), 0)
  const words = (await dialog.locator('[data-test=move-them]').textContent())!
  const count = Number(/move (\d+) reading/.exec(words)![1])
  expect(count).toBeGreaterThan(0)
  await dialog.locator('[data-test=move-them]').click()
  await expect(dialog).toHaveCount(0)
  await sent(page)
  expect(await corrections()).toBe(count)
  // Taken back: what they stood for stands again, as further corrections.
  await page.locator('[data-test=undo]').click()
  await sent(page)
  expect(await corrections()).toBe(2 * count)
  await page.reload()
  await page.locator('[data-test=move-readings]').click()
  await expect(dialog.locator('[data-test=move-them]')).toContainText(`move ${count} reading`)
  await sql.end()
})

test('a reading noted on paper keeps its own time', async ({ demoPage: page, app }) => {
  await openJob(page, LOFT, 'survey')
  await page.getByRole('button', { name: /^Study/ }).click()
  await page.locator('[data-test=more]').click()
  await page.locator('[data-test=taken-change]').click()
  await page.locator('[data-test=taken]').fill('2026-03-20T07:45')
  await page.locator('[data-test=rsrp] input').fill('108,5')
  await page.locator('[data-test=keep]').click()
  await expect(page.locator('.side li')).toContainText('07:45')
  await sent(page)
  const sql = database(app)
  const [row] = await sql`select taken_at_utc from readings where job_id = ${LOFT} and rsrp_dbm = -108.5`
  expect((row!.taken_at_utc as Date).getTime()).toBe(await page.evaluate(() => new Date('2026-03-20T07:45').getTime()))
  await sql.end()
})

test('in feet what is typed is kept in metres', async ({ demoPage: page, app }) => {
  await openJob(page, LOFT, 'ask')
  await page.keyboard.press('u')
  const length = page.getByLabel('Length', { exact: true })
  await expect(length).toHaveValue('39.4')
  await length.fill('42')
  await length.blur()
  await sent(page)
  const sql = database(app)
  expect((await sql`select length_m from sites where job_id = ${LOFT}`)[0]!.length_m).toBeCloseTo(12.8016, 3)
  await sql.end()
  await page.locator('[data-test=undo]').click()
  await expect(length).toHaveValue('39.4')
  await sent(page)
})

test('the same house on another band of the mast, by one key', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'level')
  const head = page.locator('svg text').filter({ hasText: 'RSRP, dBm ·' })
  await expect(head).toContainText('B20 at 806 MHz')
  await page.keyboard.press('b')
  await expect(head).toContainText('B3 at 1843 MHz')
  await expect(page.locator('svg text').filter({ hasText: 'nothing read on B3' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(head).toContainText('B20 at 806 MHz')
  await sent(page)
})

test('the chart library comes only when a chart is opened', async ({ demoPage: page }) => {
  const scripts: string[] = []
  page.on('response', r => r.url().endsWith('.js') && scripts.push(r.url()))
  await openJob(page, KILN, 'level')
  await page.waitForLoadState('networkidle')
  const before = scripts.length
  await page.keyboard.press('h')
  await expect(page.getByRole('dialog').locator('svg').first()).toBeVisible()
  await expect(page.getByRole('dialog').locator('table')).toContainText('its loss')
  expect(scripts.length).toBeGreaterThan(before)
})

test('the working names formula, inputs and source of the promise', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'level')
  await page.keyboard.press('w')
  const dialog = page.getByRole('dialog')
  for (const words of [
    'The promise',
    '3GPP TR 36.942 annex A',
    'Isolation',
    'scattered ways',
    'RSRP at the mount',
    'RSRP read at Ridge',
    'World Magnetic Model 2025',
  ])
    await expect(dialog).toContainText(words)
})

test('print shows the report alone', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'handover')
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('.paper')).toBeVisible()
  await expect(page.locator('header.acts')).toBeHidden()
  await expect(page.locator('[data-test=promise]')).toBeHidden()
  const heights = await page.evaluate(() => ({
    paper: document.querySelector('.paper')!.scrollHeight,
    shown: document.querySelector('.paper')!.clientHeight,
  }))
  expect(heights.shown).toBeGreaterThanOrEqual(heights.paper - 2)
})

test('night is remembered', async ({ demoPage: page }) => {
  await openJob(page, KILN, 'level')
  await page.locator('[data-test=night]').click()
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night')
})

test('the aim: no sweep before the ticks; a step out of range is refused; a step is corrected by reading it again', async ({
  demoPage: page,
  app,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await openJob(page, LOFT, 'aim')
  await expect(page.locator('[data-test=tick-falls]')).toBeVisible()
  await expect(page.locator('[data-test=keep-step]')).toHaveCount(0)
  for (const key of ['falls', 'overhead', 'storm']) await page.locator(`[data-test=tick-${key}]`).click()
  await page.locator('[data-test=how]').click()
  await page.locator('[data-test=sweep-30]').click()
  await page.locator('[data-test=aim-value]').fill('99')
  await page.locator('[data-test=keep-step]').click()
  await expect(page.getByRole('alert').filter({ hasText: '60 dB' })).toBeVisible()
  const at = (await page.locator('.tell b').textContent())!
  for (const v of ['11', '12,5']) {
    await page.locator('[data-test=heading]').fill(at.replace('°', ''))
    await page.locator('[data-test=heading]').press('Enter')
    await page.locator('[data-test=aim-value]').fill(v)
    await page.locator('[data-test=keep-step]').click()
    await expect(page.locator('[data-test=aim-value]')).toHaveValue('')
  }
  await sent(page)
  const sql = database(app)
  const steps = await sql`select s.value, s.replaces_id from steps s where s.job_id = ${LOFT} order by s.taken_at_utc`
  expect(steps.map(s => s.value as number)).toEqual([11, 12.5])
  expect(steps[1]!.replaces_id).not.toBeNull()
  await sql.end()
})

test('cells kept in hexadecimal are corrected by the cure of their finding', async ({ demoPage: page }) => {
  const jobId = await copyOf(page.request, KILN)
  const read = async () => ((await (await page.request.get(`/api/jobs/${jobId}`)).json()) as JobSnapshot).document.readings
  const { id: _id, version: _version, ...fields } = (await read())[0]!
  const rowId = uuidv7()
  const change = { id: uuidv7(), table: 'readings', op: 'insert', rowId, baseVersion: 0, fields: { ...fields, cellId: '1A2B3C' } }
  expect((await page.request.post(`/api/jobs/${jobId}/changes`, { data: { changes: [change] } })).status()).toBe(200)
  await openJob(page, jobId, 'survey')
  await page.keyboard.press('f')
  const finding = page.getByRole('dialog').locator('[data-code="survey.cells-in-hex"]')
  await expect(finding).toContainText('1A2B3C')
  await finding.getByRole('button', { name: /to decimal/ }).click()
  await expect(finding).toHaveCount(0)
  await sent(page)
  // 0x1A2B3C; the row that was kept stays in the log, replaced.
  const after = await read()
  expect(after.find(r => r.replacesId === rowId)).toMatchObject({ cellId: '1715004', rsrpDbm: fields.rsrpDbm })
  expect(after.some(r => r.id === rowId && r.cellId === '1A2B3C')).toBe(true)
})

test('what moves is drawn by its body, and figures that nobody changed take those usual of it', async ({ demoPage: page }) => {
  await openJob(page, await copyOf(page.request, TRAILER), 'ask')
  const body = page.locator('[data-test=body]')
  await expect(body).toContainText('fifth-wheel trailer')
  await expect(page.locator('.picture')).toContainText('kingpin')
  // Its length was measured and stays; its width is that of the body.
  await choose(body, 'pick-up')
  await sent(page)
  await page.reload()
  await expect(body).toContainText('pick-up')
  await expect(page.locator('.picture')).toContainText('nose')
  await expect(page.getByLabel('Length', { exact: true })).toHaveValue('12')
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('1.9')
})

test('a slip of the sweep is taken back where it stands; the log keeps that it was there', async ({ demoPage: page, app }) => {
  const id = await copyOf(page.request, LOFT)
  await openJob(page, id, 'aim')
  const [anew, few] = [page.locator('[data-test=anew]'), page.locator('[data-test=sweep-few]')]
  await expect(anew.or(few)).toBeVisible()
  if (await anew.isVisible()) await anew.click()
  await few.click()
  const kept = page.locator('[data-test=kept-steps] li')
  for (const value of ['12', '44']) {
    await page.locator('[data-test=aim-value]').fill(value)
    await page.locator('[data-test=keep-step]').click()
    await expect(page.locator('[data-test=aim-value]')).toHaveValue('')
  }
  await expect(kept).toHaveCount(2)
  await page.getByRole('button', { name: /^take back 44/ }).click()
  await expect(kept).toHaveCount(1)
  await expect(kept).toContainText('12')
  await sent(page)
  const sql = database(app)
  const rows = await sql`select value, withdrawn from steps where sweep_id =
    (select id from sweeps where job_id = ${id} order by started_at_utc desc limit 1) order by taken_at_utc`
  expect(rows.map(r => [r.value, r.withdrawn])).toEqual([
    [12, false],
    [44, false],
    [44, true],
  ])
  await sql.end()
})
