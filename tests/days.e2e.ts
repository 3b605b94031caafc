/** The list, days on site, the board of the week, fleets and labels: as an installer works with them. */
import { createRequire } from 'node:module'
import ICAL from 'ical.js'
import type { Page } from '@playwright/test'
import { database, expect, KETCH, LOFT, openJob, sent, test } from './support/fixtures'
import { ROOF } from './support/roof'

const require = createRequire(import.meta.url)
const { PNG } = require('pngjs') as typeof import('pngjs')
const { dump, insert, TagValues } = require('piexif-ts') as typeof import('piexif-ts')
const MAIL_VAN = '0192f000-0070-7000-8000-000000000001'
const dayFrom = (days: number): string => {
  const d = new Date()
  d.setDate(d.getDate() + days)
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
}
const minor = (text: string | null): number => Math.round(Number(text!.replace(/[^\d.]/g, '')) * 100)
/** The week that holds a day. */
async function toWeekOf(page: Page, day: string) {
  await expect(page.locator('.board .grid .cell').first()).toBeVisible()
  for (let i = 0; i < 4 && !(await page.locator(`[data-day="${day}"]`).count()); i++)
    await page.locator('[data-test=week-after]').click()
}

test('the list: a price entered once, what is no price is said, the quote adds up to the cent, papers and table', async ({
  demoPage: page,
}) => {
  await openJob(page, LOFT, 'list')
  const dome = page.locator('[data-test="line-part:ant-dome"]')
  const price = dome.getByLabel(/price of one/)
  const total = page.locator('[data-test=quote] [data-test=total]')
  await expect(total).toContainText('XTS')
  const before = minor(await total.textContent())
  await price.fill('twelve')
  await price.blur()
  await expect(dome.getByRole('alert')).toContainText('not a number')
  expect(minor(await total.textContent())).toBe(before)
  const old = minor(await dome.locator('.total').textContent())
  await price.fill('99,90')
  await price.blur()
  await expect(dome.getByRole('alert')).toHaveCount(0)
  await expect(price).toHaveValue('99.90')
  // 18 % on the difference, then 12 % tax, each line rounded once: by hand within a cent or two of rounding.
  await expect.poll(async () => minor(await total.textContent())).not.toBe(before)
  const after = minor(await total.textContent())
  expect(Math.abs(after - before - (9990 - old) * 1.18 * 1.12)).toBeLessThanOrEqual(2)
  // What rides in the van is not bought: with enough of it there the line is here.
  const missing = page.locator('.by button', { hasText: 'what is missing' })
  const [short] = (await missing.textContent())!.match(/\d+/)!
  const van = page
    .locator('.line:not(.there):not(.heads)')
    .first()
    .getByLabel(/in the van/)
  await van.fill('-1')
  await van.blur()
  await expect(page.locator('.line [role=alert]').first()).toContainText('0 or more')
  await van.fill('999')
  await van.blur()
  await expect(missing).toContainText(String(Number(short) - 1))
  const lines = (await page.locator('[data-test=quote] tr:not(.sum) td').allTextContents()).map(minor)
  expect(lines.reduce((a, b) => a + b, 0)).toBe(after)
  // It is the crew's price: another job has it.
  await page.reload()
  await expect(dome.getByLabel(/price of one/)).toHaveValue('99.90')
  const [csv] = await Promise.all([page.waitForEvent('download'), page.locator('[data-test=list-csv]').click()])
  expect(csv.suggestedFilename()).toBe('list.csv')
  for (const what of ['list', 'quote', 'card']) {
    const pdf = await page.request.get(`/api/jobs/${LOFT}/plan.pdf?what=${what}`)
    expect(pdf.headers()['content-type']).toBe('application/pdf')
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  }
})

test('a part that comes after the visit: its steps wait and say why; once it is here they do not', async ({ demoPage: page }) => {
  await openJob(page, KETCH, 'card')
  const waiting = page.locator('[data-test=step-pull]').filter({ hasText: 'due' })
  await waiting.first().click()
  await expect(page.locator('[data-test=late]')).toContainText('steps wait')
  await openJob(page, KETCH, 'list')
  await expect(page.locator('[data-test=late-lines]')).toContainText('after the visit')
  const line = page.locator('.line.late').first()
  // Before today nothing comes any more.
  await line.locator('input[type=date]').fill('2020-01-01')
  await expect(line.getByRole('alert')).toContainText('from today on')
  await line.locator('[data-test=state]').selectOption('here')
  await expect(page.locator('[data-test=late-lines]')).toHaveCount(0)
  await openJob(page, KETCH, 'card')
  await expect(page.locator('[data-test=step-pull]').first()).toBeVisible()
  await expect(waiting).toHaveCount(0)
})

test('by thumb the list is ticked into the van, with no network', async ({ demoPage: page, quiet }) => {
  await page.setViewportSize(ROOF)
  await openJob(page, LOFT, 'list')
  await page.context().route('**/api/**', route => route.abort('internetdisconnected'))
  const tick = page.locator('.tick input:not(:checked)').first()
  const name = await page
    .locator('.tick', { has: page.locator('input:not(:checked)') })
    .first()
    .textContent()
  expect((await page.locator('.tick').first().boundingBox())!.height).toBeGreaterThanOrEqual(56)
  await tick.check()
  await page.context().unroute('**/api/**')
  await page.evaluate(() => window.dispatchEvent(new Event('online')))
  await sent(page)
  await page.reload()
  const key = name!.split(/here|to get|ordered/)[0]!.trim()
  await expect(page.locator('.tick', { hasText: key.replace(/^\d+\s*(m|roll|tube|bag)?\s*/, '') }).first()).toContainText(
    'in the van',
  )
  quiet.splice(0)
})

test('days on site: one before today is refused, two crews on one ladder are told, the message is plain', async ({
  demoPage: page,
  app,
}) => {
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=days]').click()
  const rows = page.locator('[data-test=visit-row]')
  await expect(rows).toHaveCount(1)
  const day = rows.first().locator('[data-test=visit-day] input')
  const held = await day.inputValue()
  await day.fill('2020-01-01')
  await day.blur()
  await expect(rows.first()).toContainText('a day from today on')
  await day.fill(held)
  await day.blur()
  await page.locator('[data-test=add-visit]').click()
  await expect(rows).toHaveCount(2)
  const other = rows.nth(1)
  await other.locator('[data-test=visit-day] input').fill(held)
  await other.locator('[data-test=visit-day] input').blur()
  await expect(page.locator('[data-test=visit-troubles]').first()).toContainText('two crews on one ladder')
  await rows.first().getByRole('button', { name: 'message to the customer' }).click()
  await expect(page.locator('[data-test=message]')).toContainText('Hello S. Ame')
  await rows.nth(1).getByRole('button', { name: 'take away' }).click()
  await expect(rows).toHaveCount(1)
  await page.keyboard.press('Escape')
  await sent(page)
  const sql = database(app)
  const [job] = await sql`select next_on::text as day from jobs where id = ${LOFT}`
  expect(job!.day).toBe(held)
  await sql.end()
})

test('the board: dragged to another team, moved by keys, not into the past; undone, kept, and in the calendar', async ({
  demoPage: page,
  app,
}) => {
  await page.goto('/board')
  const tomorrow = dayFrom(1)
  await toWeekOf(page, tomorrow)
  const visit = page.locator('.board .grid .visit:has(strong:text-is("Net loft"))')
  await expect(visit).toBeVisible()
  const onDay = await visit.evaluate(e => (e.parentElement as HTMLElement).dataset.day!)
  const there = (team: string, day: string) =>
    page.locator(`[data-test="cell-${team}-${day}"] .visit:has(strong:text-is("Net loft"))`)
  await visit.dragTo(page.locator(`[data-test="cell-nobody-${onDay}"]`))
  await expect(there('nobody', onDay)).toHaveCount(1)
  await page.locator('[data-test=board-undo]').click()
  await expect(there('Roof team', onDay)).toHaveCount(1)
  await visit.focus()
  await page.keyboard.press('ArrowUp')
  await expect(there('Harbour team', onDay)).toHaveCount(1)
  await page.keyboard.press('.')
  await expect(visit).toContainText('08:30')
  // Back to before today: it stays where it is and says so.
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowLeft')
  await expect(page.locator('[data-test=board-error]')).toContainText('from today on')
  await expect(visit).toBeVisible()
  const sql = database(app)
  await expect
    .poll(async () => (await sql`select team, starts_at, on_day::text from visits where job_id = ${LOFT}`)[0])
    .toMatchObject({ team: 'Harbour team', starts_at: '08:30', on_day: dayFrom(0) })
  const [job] = await sql`select next_on::text as day from jobs where id = ${LOFT}`
  expect(job!.day).toBe(dayFrom(0))
  await sql.end()
  const text = await (await page.request.get(`/api/board/calendar.ics?from=${dayFrom(0)}&to=${dayFrom(6)}`)).text()
  const events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map(e => new ICAL.Event(e))
  const mine = events.find(e => e.summary.startsWith('Net loft'))!
  // The site's zone is three hours behind.
  expect(mine.startDate.toJSDate().toISOString()).toBe(`${dayFrom(0)}T11:30:00.000Z`)
  expect((await page.request.get('/api/board?from=2026-01-01&to=2029-01-01')).status()).toBe(422)
})

test('a calendar program reads the visits by an address of its own, until it is ended or another is made', async ({
  demoPage: page,
  app,
  playwright,
}) => {
  await page.goto('/board')
  await page.locator('[data-test=calendar]').click()
  const sheet = page.getByRole('dialog')
  await sheet.locator('[data-test=calendar-new]').click()
  const address = sheet.locator('[data-test=calendar-address]')
  await expect(address).toHaveValue(/\/api\/calendar\/[\w-]{32}\.ics$/)
  const first = await address.inputValue()
  // A program of its own: no cookie, no sign-in.
  const program = await playwright.request.newContext({ baseURL: app.origin })
  const read = async (url: string) => {
    const answer = await program.get(url)
    return answer.ok()
      ? new ICAL.Component(ICAL.parse(await answer.text()) as never).getAllSubcomponents('vevent')
      : answer.status()
  }
  const events = await read(first)
  expect((events as unknown[]).length).toBeGreaterThan(5)
  await sheet.locator('[data-test=calendar-new]').click()
  await expect(address).not.toHaveValue(first)
  const second = await address.inputValue()
  expect(await read(first)).toBe(404)
  expect(((await read(second)) as unknown[]).length).toBe((events as unknown[]).length)
  // It opens nothing else.
  const token = second.split('/').at(-1)!.replace('.ics', '')
  expect((await program.post('/api/auth/token', { data: { token } })).status()).toBe(410)
  await sheet.locator('[data-test=calendar-end]').click()
  await expect(sheet.getByRole('status')).toContainText('has ended')
  expect(await read(second)).toBe(404)
  await program.dispose()
})

test('a fleet: more of one job at once, none twice; what one taught stands at the same step of the next', async ({
  demoPage: page,
}) => {
  await page.goto(`/fleet/${MAIL_VAN}`)
  const units = page.locator('[data-test=unit]')
  await expect(units).toHaveCount(6)
  await expect(units.filter({ hasText: 'Mail van 4' })).toContainText('elsewhere')
  await page.locator('[data-test=unit-names] textarea').first().fill('Mail van 6\nMail van 7\n\nMail van 8')
  await page.locator('[data-test=make-units]').click()
  await expect(units).toHaveCount(8)
  await units.filter({ hasText: 'Mail van 7' }).click()
  // Its own foot makes the hole: there the loom runs.
  await page.locator('[data-test=step-mount]').first().click()
  const taught = page.locator('[data-test=taught]')
  await expect(taught).toContainText('a loom runs 40 mm behind the second rib')
  await expect(taught.locator('img')).toBeVisible()
  await taught.locator('[data-test=take-lesson]').click()
  await expect(taught.locator('.offer')).toHaveCount(0)
  await expect(taught).toContainText('taught:')
  await sent(page)
})

test('a label: the key is black before the picture leaves this device, a misread IMEI is refused, bar codes fill in', async ({
  demoPage: page,
  app,
}) => {
  // A browser that reads bar codes, as some do: what it reads is given here.
  await page.addInitScript(() => {
    const codes = [{ rawValue: '490154203237518' }, { rawValue: '02005E100001' }, { rawValue: 'MV-T-42' }]
    Object.assign(window, {
      BarcodeDetector: class {
        detect = () => Promise.resolve(codes)
      },
    })
  })
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=step-labels]').click()
  const white = new PNG({ width: 400, height: 300 })
  white.data.fill(255)
  await page
    .getByLabel('photograph of this step')
    .setInputFiles({ name: 'label.png', mimeType: 'image/png', buffer: PNG.sync.write(white) })
  const imei = page.locator('[data-test=imei] input')
  await expect(imei).toHaveValue('490154203237518')
  await expect(page.locator('[data-test=mac] input')).toHaveValue('02:00:5E:10:00:01')
  await expect(page.locator('[data-test=serial] input')).toHaveValue('MV-T-42')
  await imei.fill('490154203237517')
  await page.locator('[data-test=keep-label]').click()
  await expect(page.getByText('its check digit does not fit')).toBeVisible()
  await imei.fill('490154203237518')
  const frame = (await page.locator('[data-test=label-frame]').boundingBox())!
  await page.mouse.move(frame.x + frame.width * 0.25, frame.y + frame.height * 0.25)
  await page.mouse.down()
  await page.mouse.move(frame.x + frame.width * 0.75, frame.y + frame.height * 0.75, { steps: 5 })
  await page.mouse.up()
  await page.locator('[data-test=keep-label]').click()
  await expect(page.locator('.photos img')).toBeVisible()
  await sent(page)
  const sql = database(app)
  await expect
    .poll(async () => (await sql`select serial, imei from labels where job_id = ${LOFT}`)[0])
    .toMatchObject({ serial: 'MV-T-42' })
  const photo = () =>
    sql`select p.id from photos p join picture_files f on f.id = p.id where p.job_id = ${LOFT} and p.step_key = 'labels'`
  await expect.poll(async () => (await photo()).length).toBe(1)
  const [{ id }] = (await photo()) as unknown as [{ id: string }]
  await sql.end()
  // As it lies on the server: dark where it was covered, white beside it.
  const shades = await page.evaluate(async path => {
    const bitmap = await createImageBitmap(await (await fetch(path)).blob())
    const paint = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
    paint.drawImage(bitmap, 0, 0)
    const at = (x: number, y: number) => paint.getImageData(bitmap.width * x, bitmap.height * y, 1, 1).data[0]!
    return { covered: at(0.5, 0.5), beside: at(0.1, 0.1) }
  }, `/api/jobs/${LOFT}/pictures/${id}`)
  expect(shades.covered).toBeLessThan(20)
  expect(shades.beside).toBeGreaterThan(235)
})

test('a photograph keeps the hour and the way the camera looked; the picture keeps neither', async ({ demoPage: page, app }) => {
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=step-mount]').first().click()
  const plain = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(40, 30)
    canvas.getContext('2d')!.fillRect(0, 0, 20, 30)
    const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg' })).arrayBuffer())
    return btoa(String.fromCharCode(...bytes))
  })
  const { ExifIFD, GPSIFD } = TagValues
  const exif = dump({
    Exif: { [ExifIFD.DateTimeOriginal]: '2026:04:07 10:40:05' },
    GPS: { [GPSIFD.GPSImgDirection]: [21_250, 100], [GPSIFD.GPSImgDirectionRef]: 'T' },
  } as never)
  const jpeg = Buffer.from(insert(exif, Buffer.from(plain, 'base64').toString('binary')), 'binary')
  await page.getByLabel('photograph of this step').setInputFiles({ name: 'mount.jpg', mimeType: 'image/jpeg', buffer: jpeg })
  await expect(page.locator('.card .photos img')).toHaveCount(1)
  await sent(page)
  const sql = database(app)
  const [row] = await sql`select id, bearing_deg, taken_at_utc from photos where job_id = ${LOFT} order by id desc limit 1`
  const there = await page.evaluate(() => new Date(2026, 3, 7, 10, 40, 5).toISOString())
  expect(row).toMatchObject({ bearing_deg: 213 })
  expect(new Date(row!.taken_at_utc as string).toISOString()).toBe(there)
  const kept = await page.request.get(`/api/jobs/${LOFT}/pictures/${row!.id}`)
  expect((await kept.body()).includes('Exif')).toBe(false)
  // Taken back: what is laid out from this job elsewhere has it not.
  await page.keyboard.press('Control+z')
  await expect(page.locator('.card .photos img')).toHaveCount(0)
  await sent(page)
  await sql.end()
})

test('a step of one’s own stands where it was put, is done like any other, and a second phone sees it', async ({
  demoPage: page,
  browser,
  app,
}) => {
  await openJob(page, LOFT, 'card')
  await page.locator('[data-test=step-seal]').click()
  await page.locator('[data-test=add-step]').click()
  await page.getByRole('button', { name: 'put it after this step' }).click()
  await expect(page.getByText('say what is done')).toBeVisible()
  await page.locator('[data-test=own-words] input').fill('Old dish off the gable')
  await page.locator('[data-test=own-minutes] input').fill('25')
  await page.getByRole('button', { name: 'put it after this step' }).click()
  const step = page.locator('[data-test=step-own]')
  await expect(step).toContainText('Old dish off the gable')
  await step.click()
  await expect(page.locator('.waits')).toContainText('Seal')
  await sent(page)
  const second = await browser.newContext({ baseURL: app.origin, viewport: ROOF })
  const phone = await second.newPage()
  await phone.request.post(`${app.origin}/api/auth/demo`, { data: { role: 'installer' } })
  await openJob(phone, LOFT, 'card')
  await phone.locator('[data-test=all-steps]').click()
  await expect(phone.locator('[data-test=step-own]')).toContainText('Old dish off the gable')
  // Before a step, too, and by the phone.
  await phone.locator('[data-test=step-seal]').click()
  await phone.locator('[data-test=all-steps]').click()
  await phone.locator('[data-test=add-step]').click()
  await phone.locator('[data-test=own-words] input').fill('Wipe the plugs dry')
  await phone.locator('[data-test=own-before]').click()
  await sent(phone)
  const words = (await phone.locator('.list ol button > span:first-of-type').allTextContents()).map(w => w.trim())
  const place = (of: RegExp) => words.findIndex(w => of.test(w))
  expect(place(/^Wipe the plugs dry/)).toBeGreaterThan(-1)
  expect(place(/^Wipe the plugs dry/)).toBeLessThan(place(/^Seal plugs/))
  expect(place(/^Seal plugs/)).toBeLessThan(place(/^Old dish/))
  await second.close()
})
