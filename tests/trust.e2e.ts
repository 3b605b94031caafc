/** Who gets in, what a link is good for, and that rows stay within their job. */
import type { APIRequestContext, PlaywrightWorkerArgs } from '@playwright/test'
import { v7 as uuidv7 } from 'uuid'
import { newJobChanges } from '../core/job/defaults'
import { REFERENCES } from '../core/job/references'
import { TABLE_FIELDS, TABLES } from '../core/job/schema'
import type { ChangeResult, Feed, JobList, JobSnapshot } from '../shared/api'
import { snake } from '../server/data/document-table'
import { database, expect, KILN, LOFT, test } from './support/fixtures'

type Lead = APIRequestContext
const PASSWORD = 'a long enough password'
const context = (playwright: PlaywrightWorkerArgs['playwright'], origin: string) =>
  playwright.request.newContext({ baseURL: origin })

async function invited(
  playwright: PlaywrightWorkerArgs['playwright'],
  origin: string,
  lead: Lead,
  { email, role = 'installer' }: { email: string; role?: string },
): Promise<{ guest: APIRequestContext; id: string }> {
  const { path } = (await (await lead.post('/api/crew/invite', { data: { kind: 'invite', role } })).json()) as { path: string }
  const guest = await context(playwright, origin)
  expect(
    (
      await guest.post('/api/auth/accept', {
        data: { token: path.split('#')[1], password: PASSWORD, name: email.split('@')[0], email },
      })
    ).status(),
  ).toBe(200)
  const crew = (await (await lead.get('/api/crew')).json()) as { members: { id: string; email: string }[] }
  return { guest, id: crew.members.find(m => m.email === email)!.id }
}

test.beforeEach(async ({ request, app }) => {
  await request.post(`${app.origin}/api/auth/demo`, { data: {} })
  const sql = database(app)
  await sql`delete from rate_limits`
  await sql.end()
})

test('two hundred guesses at once are held to the limit; proxy headers of a stranger change nothing', async ({
  request,
  app,
  playwright,
}) => {
  const { guest } = await invited(playwright, app.origin, request, { email: 'target@demo.invalid' })
  const stranger = await context(playwright, app.origin)
  const answers = await Promise.all(
    Array.from({ length: 200 }, (_, i) =>
      stranger.post('/api/auth/sign-in', {
        data: { email: 'target@demo.invalid', password: `guess ${i}` },
        headers: { 'x-forwarded-for': `10.0.${i % 250}.${i}` },
      }),
    ),
  )
  const statuses = answers.map(a => a.status())
  expect(statuses.filter(s => s === 401).length).toBeLessThanOrEqual(5)
  expect(statuses.filter(s => s !== 401 && s !== 429)).toEqual([])
  expect(answers.find(a => a.status() === 429)!.headers()['retry-after']).toBeTruthy()
  // The right password is no way round it from there; from a device that knows the account it is.
  expect(
    (await stranger.post('/api/auth/sign-in', { data: { email: 'target@demo.invalid', password: PASSWORD } })).status(),
  ).toBe(429)
  await guest.post('/api/auth/sign-out', { data: {} })
  expect((await guest.get('/api/jobs')).status()).toBe(401)
  const sql = database(app)
  // A stranger who has used up all that the account allows, from addresses without number.
  await sql`update rate_limits set points = 1000000, expire = ${Date.now() + 3_600_000} where key = 'account:target@demo.invalid'`
  await sql`delete from rate_limits where key like 'pair:%' or key like 'address:%'`
  expect(
    (await stranger.post('/api/auth/sign-in', { data: { email: 'target@demo.invalid', password: PASSWORD } })).status(),
  ).toBe(429)
  await sql`delete from rate_limits where key like 'pair:%' or key like 'address:%'`
  expect((await guest.post('/api/auth/sign-in', { data: { email: 'target@demo.invalid', password: PASSWORD } })).status()).toBe(
    200,
  )
  await sql.end()
  for (const c of [guest, stranger]) await c.dispose()
})

test('each pause is longer than the one before', async ({ app, playwright }) => {
  const stranger = await context(playwright, app.origin)
  const sql = database(app)
  const pauses: number[] = []
  for (let round = 0; round < 3; round++) {
    let last = await stranger.post('/api/auth/sign-in', { data: { email: 'slow@demo.invalid', password: 'x' } })
    for (let i = 0; i < 6 && last.status() !== 429; i++)
      last = await stranger.post('/api/auth/sign-in', { data: { email: 'slow@demo.invalid', password: 'x' } })
    pauses.push(Number(last.headers()['retry-after']))
    // The pause is over.
    await sql`update rate_limits set expire = ${Date.now() - 1} where key like 'pair:%'`
    await sql`delete from rate_limits where key like 'address:%' or key like 'account:%'`
  }
  expect(pauses[1]! / pauses[0]!).toBeCloseTo(2, 1)
  expect(pauses[2]! / pauses[1]!).toBeCloseTo(2, 1)
  await sql.end()
  await stranger.dispose()
})

test('a link dies when a newer one is used, and when its maker is shut out', async ({ request, app, playwright }) => {
  const { guest, id } = await invited(playwright, app.origin, request, { email: 'links@demo.invalid' })
  const reset = async (by: APIRequestContext) =>
    (
      (await (await by.post('/api/crew/invite', { data: { kind: 'reset', memberId: id } })).json()) as { path: string }
    ).path.split('#')[1]!
  const [old, fresh] = [await reset(request), await reset(request)]
  const fresh1 = await context(playwright, app.origin)
  expect((await fresh1.post('/api/auth/accept', { data: { token: fresh, password: 'the second password' } })).status()).toBe(200)
  expect((await fresh1.post('/api/auth/accept', { data: { token: old, password: 'a thief’s password' } })).status()).toBe(410)
  expect((await fresh1.post('/api/auth/token', { data: { token: old } })).status()).toBe(410)
  const { guest: maker, id: makerId } = await invited(playwright, app.origin, request, {
    email: 'maker@demo.invalid',
    role: 'lead',
  })
  const made = (
    (await (await maker.post('/api/crew/invite', { data: { kind: 'invite', role: 'lead' } })).json()) as { path: string }
  ).path.split('#')[1]
  expect((await request.patch(`/api/crew/members/${makerId}`, { data: { active: false } })).status()).toBe(200)
  expect(
    (
      await fresh1.post('/api/auth/accept', {
        data: { token: made, password: PASSWORD, name: 'Late', email: 'late@demo.invalid' },
      })
    ).status(),
  ).toBe(410)
  for (const c of [guest, fresh1, maker]) await c.dispose()
})

test('two leads who lower each other at once are answered, and one of them may be the last', async ({
  request,
  app,
  playwright,
}) => {
  const a = await invited(playwright, app.origin, request, { email: 'ebb@demo.invalid', role: 'lead' })
  const b = await invited(playwright, app.origin, request, { email: 'flood@demo.invalid', role: 'lead' })
  const role = (by: APIRequestContext, id: string, to: string) => by.patch(`/api/crew/members/${id}`, { data: { role: to } })
  for (let round = 0; round < 8; round++) {
    const answers = await Promise.all([role(a.guest, b.id, 'installer'), role(b.guest, a.id, 'installer')])
    const statuses = answers.map(r => r.status()).sort()
    expect(statuses[0], statuses.join()).toBe(200)
    expect([200, 403, 409]).toContain(statuses[1])
    for (const { id } of [a, b]) expect((await role(request, id, 'lead')).status()).toBe(200)
  }
  for (const { guest, id } of [a, b]) {
    await request.patch(`/api/crew/members/${id}`, { data: { active: false } })
    await guest.dispose()
  }
})

test('a link is worth what its maker is now: lowered, shut out, raised again, and in whatever order', async ({
  request,
  app,
  playwright,
}) => {
  const happens = {
    'lowered': { role: 'installer' },
    'raised': { role: 'lead' },
    'shut out': { active: false },
    'let in': { active: true },
  } as const
  const orders: [kind: 'invite' | 'reset', then: (keyof typeof happens)[], status: number][] = [
    ['invite', [], 200],
    ['invite', ['lowered'], 410],
    ['invite', ['shut out'], 410],
    ['invite', ['lowered', 'shut out'], 410],
    ['invite', ['shut out', 'lowered'], 410],
    // What died with the maker's leaving does not come back with the maker.
    ['invite', ['shut out', 'let in'], 410],
    ['invite', ['lowered', 'raised'], 200],
    ['reset', [], 200],
    ['reset', ['lowered'], 410],
    ['reset', ['shut out'], 410],
    ['reset', ['shut out', 'let in'], 410],
  ]
  for (const [i, [kind, then, status]] of orders.entries()) {
    const { guest: maker, id } = await invited(playwright, app.origin, request, { email: `maker${i}@demo.invalid`, role: 'lead' })
    const { guest: other, id: otherId } = await invited(playwright, app.origin, request, {
      email: `other${i}@demo.invalid`,
      role: 'lead',
    })
    const data = kind === 'reset' ? { kind, memberId: otherId } : { kind, role: 'lead' }
    const { path } = (await (await maker.post('/api/crew/invite', { data })).json()) as { path: string }
    for (const what of then)
      expect((await request.patch(`/api/crew/members/${id}`, { data: happens[what] })).status(), what).toBe(200)
    const thief = await context(playwright, app.origin)
    const accept = {
      token: path.split('#')[1],
      password: 'another long password',
      ...(kind === 'invite' ? { name: 'Late', email: `late${i}@demo.invalid` } : {}),
    }
    expect((await thief.post('/api/auth/accept', { data: accept })).status(), `${kind}: ${then.join(', ')}`).toBe(status)
    for (const c of [maker, other, thief]) await c.dispose()
    const sql = database(app)
    await sql`delete from rate_limits`
    await sql.end()
  }
  // A newer link for the same purpose ends the older one when it is made.
  const { guest, id } = await invited(playwright, app.origin, request, { email: 'twice@demo.invalid' })
  const reset = async () =>
    ((await (await request.post('/api/crew/invite', { data: { kind: 'reset', memberId: id } })).json()) as { path: string }).path
  const old = (await reset()).split('#')[1]
  await reset()
  expect((await guest.post('/api/auth/token', { data: { token: old } })).status()).toBe(410)
  await guest.dispose()
})

test('a password that comes with a bad link costs no work on passwords', async ({ app, playwright }) => {
  const stranger = await context(playwright, app.origin)
  const answers = await Promise.all(
    Array.from({ length: 100 }, () =>
      stranger.post('/api/auth/accept', { data: { token: 'x'.repeat(32), password: 'y'.repeat(200), name: 'n', email: 'n@n' } }),
    ),
  )
  // Of a hundred hashes asked for at once all but some forty would be sent away as too many.
  expect(answers.map(a => a.status()).filter(status => status !== 410)).toEqual([])
  await stranger.dispose()
})

test('a device’s sealing key is the same at every sign-in and after a new password, and another for every member and device', async ({
  request,
  app,
  playwright,
}) => {
  const { guest, id } = await invited(playwright, app.origin, request, { email: 'sealed@demo.invalid' })
  const device = uuidv7()
  const keyOf = async (c: APIRequestContext, d: string) =>
    ((await (await c.post('/api/auth/sealing-key', { data: { device: d } })).json()) as { key: string }).key
  const key = await keyOf(guest, device)
  expect(Buffer.from(key, 'base64')).toHaveLength(32)
  expect(await keyOf(guest, uuidv7())).not.toBe(key)
  expect(await keyOf(request, device)).not.toBe(key)
  const token = (
    (await (await request.post('/api/crew/invite', { data: { kind: 'reset', memberId: id } })).json()) as { path: string }
  ).path.split('#')[1]
  const after = await context(playwright, app.origin)
  await after.post('/api/auth/accept', { data: { token, password: 'another long password' } })
  expect(await keyOf(after, device)).toBe(key)
  expect((await guest.post('/api/auth/sealing-key', { data: { device } })).status()).toBe(401)
  for (const c of [guest, after]) await c.dispose()
})

test('writes from another site are refused, whatever it calls itself', async ({ request }) => {
  for (const origin of ['null', 'https://elsewhere.invalid', 'not an origin', '']) {
    expect((await request.post('/api/auth/demo', { data: {}, headers: { origin } })).status(), origin).toBe(403)
  }
  expect((await request.post('/api/auth/demo', { data: {}, headers: { 'sec-fetch-site': 'cross-site' } })).status()).toBe(403)
  expect(
    (
      await request.post('/api/auth/demo', {
        data: {},
        headers: { 'x-forwarded-host': 'elsewhere.invalid', 'origin': 'https://elsewhere.invalid' },
      })
    ).status(),
  ).toBe(403)
})

test('no answer says what it is made with, and only a sealed connection is told to stay sealed', async ({ request }) => {
  for (const path of ['/', '/api/health', '/api/nothing', '/icon.svg']) {
    const headers = (await request.get(path, { headers: { 'x-forwarded-proto': 'https' } })).headers()
    expect(headers['x-powered-by'], path).toBeUndefined()
    expect(headers['x-content-type-options'], path).toBe('nosniff')
    expect(headers['strict-transport-security'], path).toBeUndefined()
  }
})

test('every reference of the document stands in the database as a key or a rule', async ({ app }) => {
  const sql = database(app)
  const keys = new Set(
    (await sql`select conname as name from pg_constraint where conname like 'ref:%'`).map(r => r.name as string),
  )
  const rules = new Set((await sql`select tgname as name from pg_trigger where not tgisinternal`).map(r => r.name as string))
  for (const r of REFERENCES) {
    const byRule = r.target === 'masts' && rules.has(`${r.table}_mast`)
    expect(keys.has(`ref:${r.table}.${r.field}`) || byRule, `${r.table}.${r.field}`).toBe(true)
  }
  await sql.end()
})

test('the database itself takes no word that is not of its list', async ({ app }) => {
  const sql = database(app)
  const columns = new Set(
    (
      await sql`select conrelid::regclass::text || '.' || attname as name from pg_constraint
        join pg_attribute on attrelid = conrelid and attnum = conkey[1] where contype = 'c' and conname like '%_word'`
    ).map(r => r.name as string),
  )
  const listed = TABLES.flatMap(t =>
    Object.entries(TABLE_FIELDS[t])
      .filter(([, schema]) => JSON.stringify(schema).includes('"enum"') && !JSON.stringify(schema).includes('"properties"'))
      .map(([field]) => `${t}.${field}`),
  )
  expect(listed.length).toBeGreaterThan(40)
  for (const name of listed) expect([...columns], name).toContain(snake(name))
  await expect(sql`update sims set calls_over_wifi = 'perhaps'`).rejects.toThrow(/sims_calls_over_wifi_word/)
  await sql.end()
})

test('a row names only rows of its own job: another’s spot, stop, design, part and mast are refused, with the field', async ({
  request,
  app,
}) => {
  const sql = database(app)
  const of = async (table: string, job: string) =>
    (await sql.unsafe(`select id from ${table} where job_id = '${job}' limit 1`))[0]?.id as string
  const [spot, design, node] = [await of('spots', KILN), await of('designs', KILN), await of('nodes', KILN)]
  const mine = await of('designs', LOFT)
  const own = uuidv7()
  await request.post(`/api/jobs/${KILN}/changes`, {
    data: {
      changes: [
        {
          id: uuidv7(),
          table: 'masts',
          rowId: own,
          op: 'insert',
          baseVersion: 0,
          fields: { name: 'Own mast', latDeg: 46.7, lonDeg: -41.4, heightM: 20, groundM: null, carrier: 'Tern' },
        },
      ],
    },
  })
  const c = (table: string, fields: Record<string, unknown>, op = 'insert', rowId = uuidv7()) => ({
    id: uuidv7(),
    table,
    rowId,
    op,
    baseVersion: 2 ** 31 - 1,
    fields,
  })
  const at = new Date().toISOString()
  const changes = [
    c('jobs', { baselineSpotId: spot }, 'update', LOFT),
    c('jobs', { designId: design }, 'update', LOFT),
    c('designs', { mastId: own }, 'update', mine),
    c('speedRuns', {
      spotId: spot,
      takenAtUtc: at,
      setupId: null,
      replacesId: null,
      withdrawn: false,
      downMbps: 1,
      upMbps: 1,
      pingMs: null,
      wouldNotLoad: false,
      via: null,
      doubted: false,
    }),
    c('runs', {
      designId: mine,
      fromNodeId: node,
      toNodeId: node,
      partId: 'line-400',
      lengthM: 3,
      measured: false,
      spareM: null,
      way: null,
      pieces: null,
    }),
    c('sweeps', { designId: design, startedAtUtc: at, quantity: 'SINR', reference: 'true', stepDeg: 15 }),
    c('cells', {
      mastId: own,
      technology: 'LTE',
      band: 'B20',
      cellId: null,
      azimuthDeg: null,
      beamwidthDeg: null,
      powerDbm: null,
    }),
  ]
  const { rejected } = (await (await request.post(`/api/jobs/${LOFT}/changes`, { data: { changes } })).json()) as ChangeResult
  expect(rejected.map(r => r.errors?.[0]?.field)).toEqual([
    'baselineSpotId',
    'designId',
    'mastId',
    'spotId',
    'fromNodeId',
    'designId',
    'mastId',
  ])
  await sql.end()
})

test('a job’s own cell on a mast of the crew’s list stays in that job', async ({ request, app }) => {
  const sql = database(app)
  const near = async (job: string) => (await (await request.get(`/api/jobs/${job}`)).json()) as JobSnapshot
  const shared = (await near(KILN)).near.masts[0]!
  const cell = uuidv7()
  const fields = {
    mastId: shared.id,
    technology: 'LTE',
    band: 'B28',
    cellId: '777',
    azimuthDeg: null,
    beamwidthDeg: null,
    powerDbm: null,
  }
  const said = (await (
    await request.post(`/api/jobs/${KILN}/changes`, {
      data: { changes: [{ id: uuidv7(), table: 'cells', rowId: cell, op: 'insert', baseVersion: 0, fields }] },
    })
  ).json()) as ChangeResult
  expect(said.rejected).toEqual([])
  const [mine, other] = [await near(KILN), await near(LOFT)]
  expect(mine.document.cells.map(c => c.id)).toContain(cell)
  expect([...other.document.cells, ...other.near.cells].map(c => c.id)).not.toContain(cell)
  await sql.end()
})

test('what the feed gives, applied, is what the job reads whole, also where rows take others with them', async ({ request }) => {
  const made = newJobChanges({ name: 'Of the feed', latDeg: 46.7, lonDeg: -41.4, zone: 'UTC' }, uuidv7)
  await request.post(`/api/jobs/${made.jobId}/changes`, { data: { changes: made.changes } })
  const design = made.changes.find(c => c.table === 'designs')!.rowId
  const [a, b, run] = [uuidv7(), uuidv7(), uuidv7()]
  const part = {
    designId: design,
    role: 'outside',
    partId: 'ant-omni',
    eastM: 0,
    northM: 0,
    upM: 5,
    azimuthDeg: null,
    tiltDeg: 0,
    gainDb: null,
  }
  const c = (table: string, op: string, rowId: string, fields: Record<string, unknown> = {}) => ({
    id: uuidv7(),
    table,
    rowId,
    op,
    baseVersion: 0,
    fields,
  })
  const changes = [
    c('nodes', 'insert', a, part),
    c('nodes', 'insert', b, { ...part, role: 'router' }),
    c('runs', 'insert', run, {
      designId: design,
      fromNodeId: a,
      toNodeId: b,
      partId: 'line-400',
      lengthM: 3,
      measured: false,
      spareM: null,
      way: null,
      pieces: null,
    }),
    c('designs', 'delete', design),
  ]
  const said = (await (
    await request.post(`/api/jobs/${made.jobId}/changes`, { data: { changes, since: 0 } })
  ).json()) as ChangeResult & Feed
  expect(said.rejected).toEqual([])
  const { withFeed } = await import('../app/replica/model')
  const { emptyDocument } = await import('../core/job/schema')
  const { sorted } = await import('../app/replica/fake-server')
  const held = withFeed({ sequence: 0, document: emptyDocument() }, said)
  const whole = (await (await request.get(`/api/jobs/${made.jobId}`)).json()) as JobSnapshot
  expect(whole.document.designs).toEqual([])
  expect(whole.document.runs).toEqual([])
  expect(whole.document.jobs[0]!.designId).toBeNull()
  expect(sorted(held.document)).toEqual(sorted(whole.document))
})

test('the list is paged, searched and filtered', async ({ request, app }) => {
  const sql = database(app)
  const [{ crew_id: crew }] = (await sql`select crew_id from jobs where id = ${KILN}`) as unknown as [{ crew_id: string }]
  await sql`insert into jobs (crew_id, id, name, agreed_calls, may_drill, rules, kind, state, customer_address, next_on, changed_at)
    select ${crew}, gen_random_uuid(), 'Row ' || i, true, 'ask', 'generic', case when i % 10 = 0 then 'boat' else 'home' end,
      case when i % 7 = 0 then 'fit' else 'new' end, 'Quay_' || i || '%',
      case when i % 3 = 0 and i < 100 then date '2031-01-01' + i / 30 end,
      now() - i * interval '1 hour' from generate_series(1, 230) i`
  const get = async (q: string) => (await (await request.get(`/api/jobs${q}`)).json()) as JobList
  const seen: string[] = []
  const days: string[] = []
  let page = await get('?most=50')
  const total = page.total!
  for (;;) {
    seen.push(...page.jobs.map(j => j.id))
    days.push(...page.jobs.map(j => (j.acts.keep ? '~' : (j.nextOn ?? '9999'))))
    if (!page.next) break
    page = await get(`?most=50&after=${encodeURIComponent(page.next)}`)
  }
  expect(seen.length).toBe(total)
  expect(new Set(seen).size).toBe(total)
  expect(days).toEqual([...days].sort())
  expect((await get('?search=row%2017')).jobs.map(j => j.name)).toEqual([
    'Row 17',
    ...Array.from({ length: 10 }, (_, i) => `Row ${170 + i}`),
  ])
  // The signs of a pattern are only themselves.
  expect((await get('?search=Quay_12%25')).jobs.map(j => j.name)).toEqual(['Row 12'])
  expect((await get('?search=%25')).total).toBe(230)
  expect((await get('?kind=boat&state=fit&search=Row')).total).toBe(3)
  const [{ id: viewer }] = (await sql`select id from members where crew_id = ${crew} and role = 'viewer' limit 1`) as unknown as [
    { id: string },
  ]
  expect((await get(`?member=${viewer}`)).total).toBe(0)
  await request.post(`/api/jobs/${KILN}/changes`, {
    data: {
      changes: [
        { id: uuidv7(), table: 'jobs', rowId: KILN, op: 'update', baseVersion: 2 ** 31 - 1, fields: { notes: 'by its lead' } },
      ],
    },
  })
  const [{ id: lead }] = (await sql`select id from members where crew_id = ${crew} and name = 'Ila Marrow'`) as unknown as [
    { id: string },
  ]
  expect((await get(`?member=${lead}`)).jobs.map(j => j.id)).toContain(KILN)
  await sql`delete from jobs where name like 'Row %'`
  await sql.end()
})

test('a customer’s data that cannot be taken out is an error, and a frozen handover can be read again', async ({
  request,
  app,
}) => {
  const made = newJobChanges(
    {
      name: 'To forget',
      latDeg: 46.7,
      lonDeg: -41.4,
      zone: 'UTC',
      job: { customerName: 'Unique Surname', customerContact: 'Unique Contact' },
    },
    uuidv7,
  )
  const visit = {
    id: uuidv7(),
    table: 'visits',
    rowId: uuidv7(),
    op: 'insert',
    baseVersion: 0,
    fields: {
      onDay: '2026-05-04',
      startsAt: '08:00',
      hours: 4,
      team: null,
      people: 2,
      weather: 'any',
      state: 'planned',
      note: 'Unique Neighbour has the key',
    },
  }
  const said = {
    id: uuidv7(),
    table: 'jobs',
    rowId: made.jobId,
    op: 'update',
    baseVersion: 2 ** 31 - 1,
    fields: { today: 'Unique router', changedLately: 'Unique barn roof', drillWhere: 'Unique gable' },
  }
  await request.post(`/api/jobs/${made.jobId}/changes`, { data: { changes: [...made.changes, visit, said] } })
  const { id } = (await (await request.post(`/api/jobs/${made.jobId}/handovers`, { data: {} })).json()) as { id: string }
  const list = (await (await request.get(`/api/jobs/${made.jobId}/handovers`)).json()) as { id: string; madeBy: string }[]
  expect(list).toMatchObject([{ id, madeBy: 'Ila Marrow' }])
  const frozen = (await (await request.get(`/api/jobs/${made.jobId}/handovers/${id}`)).json()) as {
    document: { jobs: { customerName: string }[] }
  }
  expect(frozen.document.jobs[0]!.customerName).toBe('Unique Surname')
  for (const told of ['Unique Neighbour', 'Unique router', 'Unique barn roof', 'Unique gable'])
    expect(JSON.stringify(frozen)).toContain(told)
  const pdf = await request.get(`/api/jobs/${made.jobId}/report.pdf?handover=${id}`)
  expect(pdf.headers()['content-type']).toBe('application/pdf')
  const sql = database(app)
  await sql.unsafe(`create function keep_name() returns trigger language plpgsql as $$ begin new.customer_name :=
    old.customer_name; return new; end $$;
    create trigger stubborn before update on jobs for each row execute function keep_name()`)
  const failed = await request.post(`/api/jobs/${made.jobId}/forget-customer`, { data: {} })
  expect(failed.status()).toBe(500)
  await sql`drop trigger stubborn on jobs`
  // Nothing of it was done half.
  expect(
    (
      await sql`select count(*)::int as n from applied_changes where job_id = ${made.jobId} and fields::text like '%Unique Contact%'`
    )[0]!.n,
  ).toBe(1)
  expect((await request.post(`/api/jobs/${made.jobId}/forget-customer`, { data: {} })).status()).toBe(200)
  const after = await (await request.get(`/api/jobs/${made.jobId}/handovers/${id}`)).text()
  expect(after).not.toContain('Unique')
  expect(await (await request.get(`/api/jobs/${made.jobId}/changes?since=0`)).text()).not.toContain('Unique')
  await sql.end()
})
