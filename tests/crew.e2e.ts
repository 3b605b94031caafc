/** Leads, one-time links and sessions. */
import { v7 as uuidv7 } from 'uuid'
import type { APIRequestContext } from '@playwright/test'
import { database, expect, KETCH, KILN, openJob, provoked, sent, test } from './support/fixtures'
import { bring } from './support/masts'

async function member(
  lead: APIRequestContext,
  guest: APIRequestContext,
  role: 'lead' | 'installer' | 'viewer',
  email: string,
): Promise<string> {
  const { path } = (await (await lead.post('/api/crew/invite', { data: { kind: 'invite', role } })).json()) as { path: string }
  const accepted = await guest.post('/api/auth/accept', {
    data: { token: path.split('#')[1], password: 'first password here', name: email.split('@')[0], email },
  })
  expect(accepted.status()).toBe(200)
  const crew = (await (await lead.get('/api/crew')).json()) as { members: { id: string; email: string }[] }
  return crew.members.find(m => m.email === email)!.id
}

test('a reset link sets a new password once and ends the old sessions', async ({ request, app, playwright }) => {
  await request.post('/api/auth/demo', { data: {} })
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  const id = await member(request, guest, 'installer', 'reset@demo.invalid')
  expect((await guest.get('/api/jobs')).status()).toBe(200)
  const { path } = (await (await request.post('/api/crew/invite', { data: { kind: 'reset', memberId: id } })).json()) as {
    path: string
  }
  const token = path.split('#')[1]
  expect(await (await guest.post('/api/auth/token', { data: { token } })).json()).toEqual({ kind: 'reset' })
  const fresh = await playwright.request.newContext({ baseURL: app.origin })
  expect((await fresh.post('/api/auth/accept', { data: { token, password: 'short' } })).status()).toBe(422)
  expect((await fresh.post('/api/auth/accept', { data: { token, password: 'second password here' } })).status()).toBe(200)
  expect((await fresh.post('/api/auth/accept', { data: { token, password: 'third password here' } })).status()).toBe(410)
  // The session that was open with the old password is over.
  expect((await guest.get('/api/jobs')).status()).toBe(401)
  const other = await playwright.request.newContext({ baseURL: app.origin })
  expect(
    (await other.post('/api/auth/sign-in', { data: { email: 'reset@demo.invalid', password: 'first password here' } })).status(),
  ).toBe(401)
  expect(
    (await other.post('/api/auth/sign-in', { data: { email: 'reset@demo.invalid', password: 'second password here' } })).status(),
  ).toBe(200)
  for (const c of [guest, fresh, other]) await c.dispose()
})

test('a member shut out is out at once; the last lead stays', async ({ request, app, playwright }) => {
  await request.post('/api/auth/demo', { data: {} })
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  const id = await member(request, guest, 'installer', 'out@demo.invalid')
  expect((await request.patch(`/api/crew/members/${id}`, { data: { active: false } })).status()).toBe(200)
  expect((await guest.get('/api/jobs')).status()).toBe(401)
  expect(
    (await guest.post('/api/auth/sign-in', { data: { email: 'out@demo.invalid', password: 'first password here' } })).status(),
  ).toBe(401)
  const crew = (await (await request.get('/api/crew')).json()) as { members: { id: string; role: string }[] }
  const lead = crew.members.find(m => m.role === 'lead')!
  const refused = await request.patch(`/api/crew/members/${lead.id}`, { data: { role: 'viewer' } })
  expect(refused.status()).toBe(409)
  expect(((await refused.json()) as { detail: string }).detail).toContain('needs one lead')
  expect((await request.patch(`/api/crew/members/${uuidv7()}`, { data: { active: false } })).status()).toBe(404)
  await guest.dispose()
})

test('passwords are kept as scrypt and tokens as hashes', async ({ request, app, playwright }) => {
  await request.post('/api/auth/demo', { data: {} })
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  await member(request, guest, 'viewer', 'hash@demo.invalid')
  const sql = database(app)
  expect((await sql`select password_hash from members where email = 'hash@demo.invalid'`)[0]!.password_hash).toMatch(
    /^\$scrypt\$/,
  )
  for (const { hash } of await sql`select hash from tokens`) expect(hash).toMatch(/^[0-9a-f]{64}$/)
  await sql.end()
  await guest.dispose()
})

test('an unknown token, a taken address and a wrong body are told apart', async ({ request, app, playwright }) => {
  await request.post('/api/auth/demo', { data: {} })
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  expect((await guest.post('/api/auth/token', { data: { token: 'no-such-token-anywhere' } })).status()).toBe(410)
  await member(request, guest, 'viewer', 'taken@demo.invalid')
  const { path } = (await (await request.post('/api/crew/invite', { data: { kind: 'invite', role: 'viewer' } })).json()) as {
    path: string
  }
  const body = { token: path.split('#')[1], password: 'a password of length', name: 'Second', email: 'Taken@demo.invalid' }
  const again = await guest.post('/api/auth/accept', { data: body })
  expect(again.status()).toBe(409)
  expect(((await again.json()) as { errors: { field: string }[] }).errors[0]!.field).toBe('email')
  // A refused try does not use the link up.
  expect((await guest.post('/api/auth/accept', { data: { ...body, email: 'free@demo.invalid' } })).status()).toBe(200)
  expect((await guest.post('/api/auth/sign-in', { data: 'x', headers: { 'content-type': 'text/plain' } })).status()).toBe(415)
  expect((await guest.post('/api/auth/sign-in', { data: { email: 'a@b', password: 'x', extra: 1 } })).status()).toBe(422)
  await guest.dispose()
})

test('signing out ends the session on the server too', async ({ request, app, playwright }) => {
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  await guest.post('/api/auth/demo', { data: {} })
  const state = await guest.storageState()
  const copied = await playwright.request.newContext({ baseURL: app.origin, storageState: state })
  expect((await copied.get('/api/jobs')).status()).toBe(200)
  await guest.post('/api/auth/sign-out', { data: {} })
  expect((await copied.get('/api/jobs')).status()).toBe(401)
  expect((await request.get(`${app.origin}/api/auth/me`)).status()).toBe(200)
  for (const c of [guest, copied]) await c.dispose()
})

test('a lead names carriers by their codes; a code stands once, and an installer may not', async ({
  demoPage: page,
  app,
  playwright,
  quiet,
}) => {
  await page.goto('/crew')
  await page.locator('[data-test=add-carrier]').click()
  await page.getByLabel('Carrier', { exact: true }).last().fill('Skua')
  await page.getByLabel('Codes').last().fill('99903, 99901')
  await page.locator('[data-test=keep-carriers]').click()
  await expect(page.getByRole('alert')).toContainText('Code 99901 stands with two carriers.')
  provoked(quiet, 422, 1)
  await page.getByLabel('Codes').last().fill('99903')
  await page.locator('[data-test=keep-carriers]').click()
  await expect(page.getByRole('status').filter({ hasText: 'kept' })).toBeVisible()
  const sql = database(app)
  expect((await sql`select carriers from crews where demo`)[0]!.carriers).toContainEqual({ name: 'Skua', codes: ['99903'] })
  await sql.end()
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  await member(page.request, guest, 'installer', 'codes@demo.invalid')
  expect((await guest.put('/api/crew/carriers', { data: { carriers: [] } })).status()).toBe(403)
  expect((await page.request.put('/api/crew/carriers', { data: { carriers: [{ name: 'X', codes: ['9'] }] } })).status()).toBe(422)
  await guest.dispose()
})

test('what counts as enough is set once for the crew’s new jobs; those begun before keep theirs', async ({
  demoPage: page,
  app,
  playwright,
  quiet,
}) => {
  await page.goto('/crew')
  const enough = page.locator('[data-test=enough]')
  await enough.getByLabel('A room needs, for data').fill('97')
  await enough.getByLabel('A room needs, for data').press('Tab')
  const grades = enough.getByLabel('Grades of RSRP')
  await grades.fill('−80 −90 −85 −110')
  await grades.press('Enter')
  await expect(enough).toContainText('four figures, each lower than the one before')
  await grades.fill('75 85 95 105')
  await grades.press('Enter')
  const sql = database(app)
  await expect
    .poll(async () => (await sql`select enough from crews where demo`)[0]!.enough as object)
    .toMatchObject({ needDataDbm: -97, needCallsDbm: null, rsrpEdges: [-75, -85, -95, -105] })
  await page.goto('/')
  await page.locator('[data-test=new-job]').click()
  await page.getByLabel('Job', { exact: true }).fill('By the crew’s own measure')
  await page.locator('[data-test=create]').click()
  await expect(page.getByLabel('A room needs, for data')).toHaveValue('−97')
  await expect(page.getByLabel('Grades of RSRP')).toHaveValue(/^−75\s+−85\s+−95\s+−105$/)
  await openJob(page, KILN, 'ask')
  // A job begun before says nothing of its own: each room needs what its use is designed for.
  await expect(page.getByLabel('A room needs, for data')).toHaveValue('')
  await page.locator('[data-test=site-details]').click()
  await expect(page.getByText('living rooms −100, offices −85')).toBeVisible()
  const guest = await playwright.request.newContext({ baseURL: app.origin })
  await member(page.request, guest, 'installer', 'measure@demo.invalid')
  const none = { needDataDbm: null, needCallsDbm: null, rsrpEdges: null, sinrEdges: null, busyHours: null }
  expect((await guest.put('/api/crew/enough', { data: none })).status()).toBe(403)
  expect((await page.request.put('/api/crew/enough', { data: { ...none, needDataDbm: 100 } })).status()).toBe(422)
  expect((await page.request.put('/api/crew/enough', { data: none })).status()).toBe(200)
  expect(quiet).toEqual([])
  await guest.dispose()
  await sql.end()
})

test('a list without a network answers the same questions', async ({ demoPage: page, quiet }) => {
  await openJob(page, KETCH, 'ask')
  await page.getByLabel('Notes', { exact: true }).fill('worked on by who looks')
  await page.getByLabel('Notes', { exact: true }).blur()
  await sent(page)
  await page.goto('/')
  const names = async () => (await page.locator('[data-test=job] .who').allTextContents()).sort()
  const jobs = page.locator('[data-test=job]')
  await expect(jobs.first()).toBeVisible()
  const all = await jobs.count()
  await page.locator('[data-test=filter-member]').focus()
  await expect(page.locator('[data-test=filter-member] option')).not.toHaveCount(1)
  const pickMe = () => page.locator('[data-test=filter-member]').selectOption({ label: 'Ila Marrow' })
  await pickMe()
  await expect(jobs).not.toHaveCount(all)
  const online = await names()
  expect(online.join()).toContain('Ketch')
  await page.locator('[data-test=filter-member]').selectOption({ index: 0 })
  await expect(jobs).toHaveCount(all)
  await page.context().setOffline(true)
  await pickMe()
  await expect(jobs).toHaveCount(online.length)
  expect(await names()).toEqual(online)
  await page.context().setOffline(false)
  quiet.length = 0
})

test('the list is ordered by the next visit', async ({ demoPage: page }) => {
  const day = (days: number) => new Date(Date.now() + days * 86_400_000).toLocaleDateString('sv')
  await openJob(page, KETCH, 'ask')
  const kept = () => page.waitForResponse(r => r.url().includes('/changes') && r.request().method() === 'POST')
  await Promise.all([kept(), page.getByLabel('Next visit').fill(day(-3))])
  await page.goto('/')
  const group = (name: string) => page.getByRole('region', { name, exact: true })
  await expect(group('Late').locator('[data-test=job]')).toHaveCount(1)
  await expect(group('Late').locator('[data-test=job]')).toContainText('Ketch at anchor')
  await expect(group('Late').locator('[data-test=visit]')).toHaveText('3 days late')
  await expect(page.locator('[data-test=job]').first()).toContainText('Ketch at anchor')
  await expect(group('The next seven days')).toContainText('Net loft')
  await expect(page.locator('[data-test=job]').last()).toContainText('Lime kiln house')
  await expect(group('Handed over').locator('[data-test=visit]')).toBeEmpty()
  // The server pages in the same order.
  const { jobs } = (await (await page.request.get('/api/jobs', { maxRetries: 2 })).json()) as {
    jobs: { name: string; nextOn: string | null }[]
  }
  expect(jobs[0]).toMatchObject({ name: 'Ketch at anchor', nextOn: day(-3) })
  await openJob(page, KETCH, 'ask')
  await Promise.all([kept(), page.getByLabel('Next visit').fill('')])
  await page.goto('/')
  await expect(group('Late')).toHaveCount(0)
})

test('a set of masts goes for the whole crew only when it is asked twice', async ({ demoPage: page, app }) => {
  await bring(page.request, 'to go.csv', [['Gone', '15', '25', 'Tern', 'LTE', 'B20', '30', '']])
  const sql = database(app)
  const left = async () => (await sql`select count(*)::int as n from masts where name = 'Gone'`)[0]!.n as number
  await page.goto('/crew')
  const button = page.locator('[data-test="away-to go.csv"]')
  await button.click()
  await expect(button).toHaveText('for the whole crew? press again')
  expect(await left()).toBe(1)
  await button.click()
  await expect(button).toHaveCount(0)
  expect(await left()).toBe(0)
  await sql.end()
})

test('the crew’s record counts a promise once it was measured and handed over', async ({ demoPage: page, app }) => {
  const record = async () => (await page.request.get('/api/crew/record')).json() as Promise<Record<string, number>>
  const all = (r: Record<string, number>) => r.inside! + r.less! + r.more!
  const before = all(await record())
  await page.request.post(`${app.origin}/api/jobs/${KILN}/handovers`, { data: {} })
  const first = await record()
  // The job's newest handover counts, however often it was handed over.
  await page.request.post(`${app.origin}/api/jobs/${KILN}/handovers`, { data: {} })
  expect(await record()).toEqual(first)
  expect(all(first)).toBeGreaterThanOrEqual(Math.max(1, before))
  await page.goto('/crew')
  await expect(page.locator('[data-test=record]')).toContainText(`${first.inside} of ${all(first)} came out within`)
})
