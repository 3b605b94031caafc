/** The device: tabs, owners, sealing, what is refused, the clock, updates, and the list of jobs. */
import type { Page } from '@playwright/test'
import { v7 as uuidv7 } from 'uuid'
import { newJobChanges } from '../core/job/defaults'
import { writeHgt } from '../core/terrain/hgt'
import { CROFT, database, expect, KILN, LOFT, openJob, sent, test, watchErrors } from './support/fixtures'
import { onDevice } from './support/device'

const name = (page: Page) => page.getByLabel('Notes')

test('signing out counts what is not sent, leaves nothing readable, and signing in brings it back and sends it', async ({
  page,
  app,
}) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  const made = newJobChanges(
    { name: 'Unique house', latDeg: 46.7, lonDeg: -41.4, zone: 'UTC', job: { customerName: 'Unique Surname' } },
    uuidv7,
  )
  await page.request.post(`/api/jobs/${made.jobId}/changes`, { data: { changes: made.changes } })
  await openJob(page, made.jobId, 'ask')
  await sent(page)
  await page.context().setOffline(true)
  await name(page).fill('Unique gate code')
  await name(page).blur()
  await expect(page.locator('[data-test=link]')).toHaveText('1 not sent yet')
  // Sealed while at work, too.
  expect(await onDevice(page)).not.toContain('Unique')
  await page.getByTitle('All jobs').click()
  await expect(page.locator('[data-test=unsent]')).toContainText('1 change in 1 job not sent yet')
  await expect(page.locator('[data-test=job]').filter({ hasText: 'Unique house' }).locator('[data-test=job-unsent]')).toHaveText(
    '1 not sent',
  )
  await page.locator('[data-test=sign-out]').click()
  await expect(page.locator('[data-test=leaving]')).toContainText('1 change in 1 job not sent')
  // Signing out loads the page anew: nothing of the member is left in it.
  await Promise.all([page.waitForEvent('load'), page.locator('[data-test=leave]').click()])
  await expect(page.locator('[data-test=job]')).toHaveCount(0)
  const left = await onDevice(page)
  expect(left).not.toContain('Unique')
  expect(left).not.toContain('Ila Marrow')
  await page.context().setOffline(false)
  // The server is told as soon as it can be: the cookie of before opens nothing.
  await page.reload()
  await expect(page.locator('[data-test=demo]')).toBeVisible()
  expect((await page.request.get('/api/jobs')).status()).toBe(401)
  // Another member sees nothing of it, and sends nothing of it.
  await page.request.post('/api/auth/demo', { data: { role: 'installer' } })
  await page.reload()
  await expect(page.locator('[data-test=job]').first()).toBeVisible()
  await expect(page.locator('[data-test=unsent]')).toHaveCount(0)
  const sql = database(app)
  const notes = async () => (await sql`select notes from jobs where id = ${made.jobId}`)[0]!.notes as string | null
  expect(await notes()).toBeNull()
  await page.locator('[data-test=sign-out]').click()
  await page.locator('[data-test=demo]').click()
  await expect.poll(notes).toBe('Unique gate code')
  await sql.end()
})

test('a job that is open in no tab is sent, and an edit in one tab shows in the other', async ({ page, app, context }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, CROFT, 'ask')
  const other = await context.newPage()
  await openJob(other, CROFT, 'ask')
  await context.setOffline(true)
  await name(page).fill('seen in both')
  await name(page).blur()
  await expect(name(other)).toHaveValue('seen in both')
  await expect(other.locator('[data-test=link]')).toHaveText('1 not sent yet')
  await page.close()
  await other.getByTitle('All jobs').click()
  await expect(other.locator('[data-test=unsent]')).toContainText('1 change in 1 job')
  await context.setOffline(false)
  await expect(other.locator('[data-test=unsent]')).toHaveCount(0)
  const sql = database(app)
  expect((await sql`select notes from jobs where id = ${CROFT}`)[0]!.notes).toBe('seen in both')
  await sql.end()
})

test('a refused change is put aside with its reason, stays over a reload, and is taken up again; the rest went on', async ({
  page,
  app,
}) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  const sql = database(app)
  await sql`alter table jobs add constraint no_such_note check (notes <> 'refuse me')`
  await openJob(page, LOFT, 'ask')
  await name(page).fill('refuse me')
  await name(page).blur()
  await page.getByLabel('Down', { exact: true }).fill('11')
  await page.getByLabel('Down', { exact: true }).blur()
  const aside = page.locator('[data-test=aside]')
  await expect(aside).toContainText('Not taken: the job itself')
  await sent(page)
  expect((await sql`select agreed_down_mbps as d from jobs where id = ${LOFT}`)[0]!.d).toBe(11)
  await page.reload()
  await expect(aside).toContainText('out of range')
  await expect(name(page)).not.toHaveValue('refuse me')
  await sql`alter table jobs drop constraint no_such_note`
  await page.locator('[data-test=take-up]').click()
  await expect(aside).toHaveCount(0)
  await expect(name(page)).toHaveValue('refuse me')
  await sent(page)
  expect((await sql`select notes from jobs where id = ${LOFT}`)[0]!.notes).toBe('refuse me')
  await sql.end()
})

test('a conflict stays over a reload until it is settled', async ({ page, app, playwright }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, KILN, 'ask')
  await sent(page)
  await page.context().setOffline(true)
  await name(page).fill('mine')
  await name(page).blur()
  await expect(page.locator('[data-test=link]')).toHaveText('1 not sent yet')
  const other = await playwright.request.newContext({ baseURL: app.origin })
  await other.post('/api/auth/demo', { data: { role: 'installer' } })
  await other.post(`/api/jobs/${KILN}/changes`, {
    data: {
      changes: [
        { id: uuidv7(), table: 'jobs', rowId: KILN, op: 'update', baseVersion: 2 ** 31 - 1, fields: { notes: 'theirs' } },
      ],
    },
  })
  await page.context().setOffline(false)
  const conflict = page.locator('[data-test=conflict]')
  await expect(conflict).toContainText('theirs: theirs')
  await page.reload()
  await expect(conflict).toContainText('mine: mine')
  await expect(name(page)).toHaveValue('theirs')
  await conflict.getByRole('button', { name: 'mine: mine' }).click()
  await expect(conflict).toHaveCount(0)
  await sent(page)
  await expect(name(page)).toHaveValue('mine')
  await page.reload()
  await expect(name(page)).toHaveValue('mine')
  await expect(conflict).toHaveCount(0)
  await other.dispose()
})

test.describe('a device whose clock is wrong', () => {
  test.use({ ownDevice: true })
  test('a clock ten minutes behind is said, and times are the server’s', async ({ page, app }) => {
    await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
    await page.clock.install({ time: Date.now() - 600_000 })
    await openJob(page, CROFT, 'survey')
    await expect(page.locator('[data-test=clock]')).toContainText('10 minutes behind')
    await page.getByRole('button', { name: /^Study/ }).click()
    await page.locator('[data-test=rsrp] input').fill('99')
    await page.locator('[data-test=keep]').click()
    await sent(page)
    const sql = database(app)
    const [row] = await sql`select abs(extract(epoch from now() - taken_at_utc))::float8 as off
        from readings where job_id = ${CROFT} and rsrp_dbm = -99`
    expect(row!.off as number).toBeLessThan(60)
    await sql.end()
  })
})

test('text is kept when the page goes without the field being left', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, CROFT, 'ask')
  await name(page).pressSequentially('half a senten')
  await page.waitForTimeout(2200)
  await page.reload()
  await expect(name(page)).toHaveValue(/half a senten$/)
})

test('an update waits while anything is typed or unsent, and is taken when nobody looks', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  await openJob(page, KILN, 'ask')
  await sent(page)
  await page.evaluate(() => {
    const vue = (
      document.querySelector('#__nuxt') as unknown as {
        __vue_app__: {
          config: { globalProperties: { $pwa: { needRefresh: boolean; updateServiceWorker: () => Promise<void> } } }
        }
      }
    ).__vue_app__
    const { $pwa } = vue.config.globalProperties
    $pwa.updateServiceWorker = async () => void (document.title = 'taken')
    $pwa.needRefresh = true
  })
  const update = page.locator('[data-test=update]')
  await expect(update).toBeVisible()
  const hide = (hidden: boolean) =>
    page.evaluate(h => {
      Object.defineProperty(document, 'visibilityState', { configurable: true, get: () => (h ? 'hidden' : 'visible') })
      document.dispatchEvent(new Event('visibilitychange'))
    }, hidden)
  await page.context().setOffline(true)
  await name(page).fill('typed and not sent')
  await hide(true)
  await hide(false)
  await update.getByRole('button').click()
  await expect(update).toContainText('not sent')
  expect(await page.title()).not.toBe('taken')
  await page.context().setOffline(false)
  await sent(page)
  await page.getByLabel('Down', { exact: true }).focus()
  await update.getByRole('button').dispatchEvent('click')
  await expect(update).toContainText('Finish what you are typing')
  await page.getByLabel('Down', { exact: true }).blur()
  await hide(true)
  await expect.poll(() => page.title()).toBe('taken')
})

test('ground that another device brought is fetched again; cover without ground breaks nothing', async ({
  page,
  app,
  playwright,
}) => {
  const errors: string[] = []
  watchErrors(page, errors)
  const other = await playwright.request.newContext({ baseURL: app.origin })
  await other.post('/api/auth/demo', { data: { role: 'installer' } })
  const tile = (heightM: number) =>
    writeHgt({ southDeg: 5, westDeg: 20, side: 1201, heights: new Int16Array(1201 * 1201).fill(heightM) })
  const send = (heightM: number) =>
    other.post(`/api/terrain/import?name=N05E020.hgt`, {
      data: Buffer.from(tile(heightM).bytes),
      headers: { 'content-type': 'application/octet-stream' },
    })
  await send(111)
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  const plain = newJobChanges({ name: 'On a plain', latDeg: 5.5, lonDeg: 20.5, zone: 'UTC' }, uuidv7)
  await other.post(`/api/jobs/${plain.jobId}/changes`, { data: { changes: plain.changes } })
  await openJob(page, plain.jobId, 'bearings')
  const height = () =>
    page.evaluate(async () => {
      const db = await new Promise<IDBDatabase>(done => {
        const r = indexedDB.open('multivox-device')
        r.onsuccess = () => done(r.result)
      })
      const all = await new Promise<{ key: string; heights: Int16Array }[]>(done => {
        const r = db.transaction('blocks').objectStore('blocks').getAll()
        r.onsuccess = () => done(r.result as never)
      })
      db.close()
      return all.length ? Math.max(...all.map(b => Math.max(...b.heights.slice(0, 200)))) : null
    })
  await expect.poll(height).toBe(111)
  expect((await send(777)).status()).toBe(200)
  await page.reload()
  await expect.poll(height).toBe(777)
  const { classTiff } = await import('./support/rasters')
  const classes = encodeURIComponent('{"1":12}')
  expect(
    (
      await other.post(`/api/terrain/import?name=woods.tif&kind=cover&classes=${classes}`, {
        data: classTiff({ side: 200, west: 51, north: 12, degrees: 0.4 }),
        headers: { 'content-type': 'application/octet-stream' },
      })
    ).status(),
  ).toBe(200)
  const made = newJobChanges({ name: 'In the woods', latDeg: 11.8, lonDeg: 51.2, zone: 'UTC' }, uuidv7)
  const mast = {
    id: uuidv7(),
    table: 'masts',
    rowId: uuidv7(),
    op: 'insert',
    baseVersion: 0,
    fields: { name: 'Near', latDeg: 11.85, lonDeg: 51.25, heightM: 30, groundM: null, carrier: 'Tern' },
  }
  await other.post(`/api/jobs/${made.jobId}/changes`, { data: { changes: [...made.changes, mast] } })
  await openJob(page, made.jobId, 'bearings')
  await page.waitForTimeout(1500)
  expect(errors).toEqual([])
  await other.dispose()
})

test('the list is searched, filtered and gone through by pages', async ({ page, app }) => {
  await page.request.post(`${app.origin}/api/auth/demo`, { data: {} })
  const sql = database(app)
  const [{ crew_id: crew }] = (await sql`select crew_id from jobs where id = ${KILN}`) as unknown as [{ crew_id: string }]
  await sql`insert into jobs (crew_id, id, name, agreed_calls, may_drill, rules, kind, state, customer_name, changed_at)
    select ${crew}, gen_random_uuid(), 'Row ' || i, true, 'ask', 'generic',
      case when i % 10 = 0 then 'boat' else 'home' end, 'new', 'Customer ' || i,
      now() - i * interval '1 day' from generate_series(1, 120) i`
  await page.goto('/')
  const rows = page.locator('[data-test=job]')
  await expect(rows).toHaveCount(50)
  await page.locator('[data-test=more]').click()
  await expect(rows).toHaveCount(100)
  await page.locator('[data-test=search]').fill('customer 11')
  await expect(rows).toHaveCount(11)
  await expect(page.locator('[data-test=total]')).toHaveText('11 jobs')
  await page.locator('[data-test=filter-kind]').selectOption('boat')
  await expect(rows).toHaveCount(1)
  await page.locator('[data-test=search]').fill('no such')
  await expect(page.getByText('No job like that.')).toBeVisible()
  // Without a connection the same questions are asked of what was last seen.
  await page.locator('[data-test=search]').fill('')
  await page.locator('[data-test=filter-kind]').selectOption({ label: 'any kind' })
  await expect(rows).toHaveCount(50)
  await page.context().setOffline(true)
  await page.locator('[data-test=search]').fill('row 7')
  await expect(page.getByText('No connection')).toBeVisible()
  await expect(rows.first()).toContainText('Row 7')
  await page.context().setOffline(false)
  await sql`delete from jobs where name like 'Row %'`
  await sql.end()
})
