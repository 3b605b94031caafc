/** Bad input, lost connections, two people, other crews: a clear word beside the thing, and nothing lost. */
import { v7 as uuidv7 } from 'uuid'
import { CROFT, database, expect, KILN, LOFT, openJob, provoked, sent, test, watchErrors } from './support/fixtures'
import { file } from './support/files'
import { Walker } from './walks/harness'

test('wrong, empty and truncated files are refused in words', async ({ demoPage: page, quiet }) => {
  await openJob(page, CROFT, 'bearings')
  await page.locator('[data-test=import-masts]').click()
  const masts = page.locator('[data-test=mast-file]')
  await masts.setInputFiles(file('empty.csv', ''))
  await expect(page.getByRole('alert')).toContainText('is empty')
  await masts.setInputFiles(file('picture.csv', new Uint8Array([137, 80, 78, 71, 0, 0, 0, 13])))
  await expect(page.getByRole('alert')).toContainText('is not a table')
  await masts.setInputFiles(file('one.csv', 'just words\nmore words\n'))
  await expect(page.getByRole('alert')).toContainText('one column only')
  await masts.setInputFiles(file('hopeless.csv', 'name,lat,lon,carrier,band\nA,NaN,1,Tern,B20\nB,95,181,Tern,B20\n'))
  await page.locator('[data-test=import]').click()
  await expect(page.getByRole('alert')).toContainText(
    'None of the 2 rows can be used. The first: line 2, lat “NaN” is not a number',
  )
  await page.keyboard.press('Escape')
  await page.locator('[data-test=terrain]').click()
  const hgt = page.locator('[data-test=hgt-file]')
  await hgt.setInputFiles(file('N46W042.tif', 'II*'))
  await expect(page.getByRole('alert')).toContainText('does not read as GeoTIFF')
  await hgt.setInputFiles(file('notes.doc', 'x'))
  await expect(page.getByRole('alert')).toContainText('neither an SRTM height tile (.hgt) nor a GeoTIFF')
  await hgt.setInputFiles(file('terrain.hgt', 'x'))
  await expect(page.getByRole('alert')).toContainText('south-west corner')
  await hgt.setInputFiles(file('N46W042.hgt', new Uint8Array(1000)))
  await expect(page.getByRole('alert')).toContainText('cut short or of another kind')
  provoked(quiet, 422, 3)
})

test('numbers that are none, or out of range, stay beside their field', async ({ demoPage: page }) => {
  await openJob(page, CROFT, 'survey')
  const rsrp = page.locator('[data-test=rsrp]')
  const before = await page.locator('.side li').count()
  for (const [typed, said] of [
    ['NaN', 'not a number'],
    ['-200', '−160 to −20 dBm'],
    ['1e5', 'not a number'],
  ] as const) {
    await rsrp.locator('input').fill(typed)
    await page.locator('[data-test=keep]').click()
    await expect(rsrp).toContainText(said)
  }
  await rsrp.locator('input').fill('100')
  await page.locator('[data-test=band] input').fill('B99')
  await page.locator('[data-test=keep]').click()
  await expect(page.locator('[data-test=band]')).toContainText('no LTE band')
  expect(await page.locator('.side li').count()).toBe(before)
  await page.goto(`/job/${CROFT}/ask`)
  const position = page.locator('[data-test=position]')
  await position.locator('input').fill('95, 200')
  await position.locator('input').blur()
  await expect(position).toContainText('latitude must be within -90…90')
  const length = page.getByLabel('Length', { exact: true })
  await length.fill('4000')
  await length.blur()
  await expect(page.locator('.ask')).toContainText('3 to 400 m')
  // The server refuses the same, in problem details that name the field.
  const answer = await page.request.post(`/api/jobs/${CROFT}/changes`, {
    data: {
      changes: [
        {
          id: uuidv7(),
          table: 'spots',
          rowId: uuidv7(),
          op: 'insert',
          baseVersion: 0,
          fields: { name: 'x', eastM: 1e9, northM: 0, upM: 0, indoors: true, needed: false },
        },
      ],
    },
  })
  const body = (await answer.json()) as { rejected: { detail: string }[] }
  expect(body.rejected[0]!.detail).toContain('eastM must be <= 500')
  const wrong = await page.request.post(`/api/jobs/${CROFT}/changes`, { data: { changes: 'no' } })
  expect(wrong.status()).toBe(422)
  expect(wrong.headers()['content-type']).toContain('application/problem+json')
})

test('another crew’s job answers 404, for reading, writing and the report', async ({ demoPage: page, app, quiet }) => {
  const sql = database(app)
  const crew = uuidv7()
  const job = uuidv7()
  await sql`insert into crews (id, name) values (${crew}, 'Other crew')`
  await sql`insert into jobs (crew_id, id, name, agreed_calls, may_drill, rules, kind) 
    values (${crew}, ${job}, 'Secret house', true, 'ask', 'generic', 'home')`
  for (const path of [
    `/api/jobs/${job}`,
    `/api/jobs/${job}/changes?since=0`,
    `/api/jobs/${job}/report.pdf`,
    '/api/jobs/not-an-id',
    `/api/jobs/${uuidv7()}`,
  ])
    expect((await page.request.get(path)).status(), path).toBe(404)
  const write = await page.request.post(`/api/jobs/${job}/changes`, {
    data: { changes: [{ id: uuidv7(), table: 'jobs', rowId: job, op: 'update', baseVersion: 0, fields: { name: 'mine now' } }] },
  })
  expect(write.status()).toBe(404)
  expect((await sql`select name from jobs where id = ${job}`)[0]!.name).toBe('Secret house')
  // A row of one job cannot be changed through another.
  const spot = (await sql`select id from spots where job_id = ${KILN} limit 1`)[0]!.id as string
  const cross = await page.request.post(`/api/jobs/${LOFT}/changes`, {
    data: { changes: [{ id: uuidv7(), table: 'spots', rowId: spot, op: 'update', baseVersion: 0, fields: { name: 'taken' } }] },
  })
  expect(((await cross.json()) as { rejected: unknown[] }).rejected).toHaveLength(1)
  // In the browser an unknown job says so.
  await page.goto(`/job/${uuidv7()}/ask`)
  await expect(page.getByText('There is no such job in your crew')).toBeVisible()
  provoked(quiet, 404, 1)
  await sql.end()
})

test.describe('roles', () => {
  test('a viewer reads and cannot write; a stranger gets nothing', async ({ page, app, browser }) => {
    await page.request.post(`${app.origin}/api/auth/demo`, { data: { role: 'viewer' } })
    await openJob(page, KILN, 'survey')
    await expect(page.locator('[data-test=keep]')).toHaveCount(0)
    expect(
      (
        await page.request.post(`/api/jobs/${KILN}/changes`, {
          data: { changes: [{ id: uuidv7(), table: 'jobs', rowId: KILN, op: 'update', baseVersion: 0, fields: { name: 'x' } }] },
        })
      ).status(),
    ).toBe(403)
    expect((await page.request.post('/api/crew/invite', { data: { kind: 'invite', role: 'lead' } })).status()).toBe(403)
    const stranger = await browser.newContext({ baseURL: app.origin })
    for (const path of ['/api/jobs', `/api/jobs/${KILN}`, '/api/crew', '/api/terrain/blocks?keys=1368:1386'])
      expect((await stranger.request.get(path)).status(), path).toBe(401)
    // Writes from another site are refused.
    expect(
      (await page.request.post('/api/auth/demo', { data: {}, headers: { origin: 'https://elsewhere.invalid' } })).status(),
    ).toBe(403)
    await stranger.close()
  })
})

test('the same batch sent twice is taken once; a double click keeps one reading', async ({ demoPage: page }) => {
  const spots = ((await (await page.request.get(`/api/jobs/${CROFT}`)).json()) as { document: { spots: { id: string }[] } })
    .document.spots
  const change = {
    id: uuidv7(),
    table: 'speedRuns',
    rowId: uuidv7(),
    op: 'insert',
    baseVersion: 0,
    fields: {
      spotId: spots[0]!.id,
      takenAtUtc: new Date().toISOString(),
      setupId: null,
      replacesId: null,
      withdrawn: false,
      downMbps: 3,
      upMbps: 1,
      pingMs: 40,
      wouldNotLoad: false,
      via: null,
      doubted: false,
    },
  }
  const first = (await (await page.request.post(`/api/jobs/${CROFT}/changes`, { data: { changes: [change] } })).json()) as {
    sequence: number
  }
  const second = (await (await page.request.post(`/api/jobs/${CROFT}/changes`, { data: { changes: [change] } })).json()) as {
    sequence: number
    rejected: unknown[]
  }
  expect(second.sequence).toBe(first.sequence)
  expect(second.rejected).toEqual([])
  await openJob(page, CROFT, 'survey')
  await page.getByRole('button', { name: /^Hall/ }).click()
  await page.locator('[data-test=rsrp] input').fill('104')
  await page.locator('[data-test=keep]').dblclick()
  await sent(page)
  await expect(page.locator('.side li')).toHaveCount(1)
})

test('two browsers edit one field: both values come back, a person chooses; other fields merge', async ({
  demoPage: page,
  browser,
  app,
}) => {
  const other = await browser.newContext({ baseURL: app.origin })
  await other.request.post('/api/auth/demo', { data: { role: 'installer' } })
  const two = await other.newPage()
  await openJob(page, LOFT, 'ask')
  await openJob(two, LOFT, 'ask')
  await two.context().setOffline(true)
  await two.getByLabel('Down', { exact: true }).fill('7')
  await two.getByLabel('Down', { exact: true }).blur()
  await two.getByLabel('Up', { exact: true }).fill('2')
  await two.getByLabel('Up', { exact: true }).blur()
  await expect(two.locator('[data-test=link]')).toHaveText('2 not sent yet')
  await page.getByLabel('Down', { exact: true }).fill('9')
  await page.getByLabel('Down', { exact: true }).blur()
  await sent(page)
  await two.context().setOffline(false)
  const conflict = two.locator('[data-test=conflict]')
  await expect(conflict).toContainText('download agreed')
  await expect(conflict).toContainText('mine: 7')
  await expect(conflict).toContainText('theirs: 9')
  await expect(two.getByLabel('Down', { exact: true })).toHaveValue('9')
  await conflict.getByRole('button', { name: 'mine: 7' }).click()
  await sent(two)
  await expect(page.getByLabel('Down', { exact: true })).toHaveValue('7')
  await expect(page.getByLabel('Up', { exact: true })).toHaveValue('2')
  await other.close()
})

test('undo takes back an edit, a cure and a reading', async ({ demoPage: page }) => {
  await openJob(page, LOFT, 'place')
  const callout = page.locator('.callout')
  // Whatever stands first there to be cured.
  const cure = callout.locator('.cure').first()
  await expect(cure).toBeVisible()
  const label = await cure.locator('strong').textContent()
  await cure.click()
  await expect(callout).not.toContainText(label!)
  await page.locator('[data-test=undo]').click()
  await expect(callout).toContainText(label!)
  await page.goto(`/job/${LOFT}/survey`)
  await page.getByRole('button', { name: /^Store/ }).click()
  await page.locator('[data-test=rsrp] input').fill('101')
  await page.locator('[data-test=keep]').click()
  await expect(page.locator('.side li')).toHaveCount(1)
  await page.locator('[data-test=undo]').click()
  await expect(page.locator('.side li')).toHaveCount(0)
  await sent(page)
})

test('a request that is too large, of no length or no JSON is refused', async ({ demoPage: page }) => {
  const big = await page.request.post(`/api/jobs/${KILN}/changes`, { data: { changes: 'x'.repeat(1_100_000) } })
  expect(big.status()).toBe(413)
  const broken = await page.request.post(`/api/jobs/${KILN}/changes`, {
    data: Buffer.from('{"changes": ['),
    headers: { 'content-type': 'application/json' },
  })
  expect(broken.status()).toBe(400)
  const form = await page.request.post(`/api/jobs/${KILN}/changes`, { form: { changes: 'no' } })
  expect(form.status()).toBe(415)
  for (const answer of [big, broken, form]) expect(answer.headers()['content-type']).toContain('application/problem+json')
})

test('too many wrong passwords are made to wait', async ({ request, app }) => {
  let status = 0
  for (let i = 0; i < 9; i++)
    status = (
      await request.post(`${app.origin}/api/auth/sign-in`, { data: { email: 'nobody@demo.invalid', password: 'wrong' } })
    ).status()
  expect(status).toBe(429)
})

test('a lead invites by a one-time link; the member signs in, and out', async ({ demoPage: page, browser, quiet }) => {
  await page.goto('/crew')
  await page.getByRole('button', { name: 'Make an invitation' }).click()
  const link = (await page.locator('[data-test=link]').textContent())!
  const context = await browser.newContext()
  const guest = await context.newPage()
  const errors: string[] = []
  watchErrors(guest, errors)
  await guest.goto(link)
  await guest.getByLabel('Your name').fill('Pell Wick')
  await guest.getByLabel('Address to sign in with').fill('pell@demo.invalid')
  await guest.getByLabel('Password, ten characters or more').fill('a long enough password')
  await guest.getByRole('button', { name: 'Go on' }).click()
  await expect(guest.getByText('Pell Wick, installer')).toBeVisible()
  expect(errors).toEqual([])
  const again = await context.request.post(new URL('/api/auth/accept', link).href, {
    data: { token: link.split('#')[1], password: 'another long password', name: 'Twice', email: 'twice@demo.invalid' },
  })
  expect(again.status()).toBe(410)
  const fresh = await browser.newContext()
  const right = await fresh.request.post(new URL('/api/auth/sign-in', link).href, {
    data: { email: 'PELL@demo.invalid', password: 'a long enough password' },
  })
  expect(right.status()).toBe(200)
  expect(quiet).toEqual([])
  await fresh.close()
  await context.close()
})

test('parts of the program that a bad network did not bring are asked for again, and the page opens', async ({
  app,
  browser,
}) => {
  const device = await browser.newContext({ baseURL: app.origin, serviceWorkers: 'block' })
  const page = await device.newPage()
  await page.request.post('/api/auth/demo', { data: {} })
  const tries = new Map<string, number>()
  const refused = new Set<string>()
  /** Each part whose name is told comes at the second time of asking only. */
  const bad = (part: RegExp) =>
    device.route('**/_nuxt/**', route => {
      const name = new URL(route.request().url()).pathname
      if (!part.test(name)) return route.fallback()
      const n = (tries.get(name) ?? 0) + 1
      tries.set(name, n)
      if (n > 1) return route.continue()
      refused.add(name)
      return route.abort('connectionreset')
    })
  // The engine alone, then every part that the first page does not name itself.
  await bad(/engine\.worker/)
  await page.goto('/')
  await expect(page.locator('[data-test=job]').first()).toBeVisible()
  await page.goto(`/job/${LOFT}/survey`)
  await expect(page.locator('[data-test=rsrp]')).toBeVisible({ timeout: 30_000 })
  expect(refused.size).toBe(1)

  const first = await (await page.request.get('/')).text()
  await device.unrouteAll()
  tries.clear()
  await bad(/_nuxt\/(?!.*worker).*\.js$/)
  for (const name of first.match(/\/_nuxt\/[\w-]+\.js/g) ?? []) tries.set(name, 1)
  await page.goto(`/job/${LOFT}/aim`)
  await expect(page.locator('[data-test=aim-value]')).toBeVisible({ timeout: 60_000 })
  expect(refused.size).toBeGreaterThan(2)
  await device.close()
})

test('a part of one’s own whose gain does not go with its beam is refused beside the form, and kept once it does', async ({
  demoPage: page,
  quiet,
}) => {
  await openJob(page, LOFT, 'choose')
  await page.locator('[data-test=kit-more]').click()
  await page.locator('[data-test=catalogue]').click()
  const sheet = page.getByRole('dialog')
  await new Walker(page).choose(sheet.locator('[data-test=part-like]'), 'Ceiling dome')
  await sheet.locator('[data-test=part-name] input').fill('Dome of a bold sheet')
  const ranges = sheet.getByLabel('Ranges')
  const was = await ranges.inputValue()
  await ranges.fill('617-960 14dBi 360x80')
  await ranges.blur()
  await sheet.locator('[data-test=keep-part]').click()
  await expect(sheet.locator('p.error')).toContainText('14.0 dBi at 617 to 960 MHz does not go with a beam of 360° by 80°')
  await ranges.fill(was)
  await ranges.blur()
  await sheet.locator('[data-test=keep-part]').click()
  await expect(sheet.locator('table')).toContainText('Dome of a bold sheet')
  await sheet.getByRole('button', { name: 'Take out Dome of a bold sheet' }).click()
  await expect(sheet).toContainText('None of your own yet')
  provoked(quiet, 422, 1)
})
