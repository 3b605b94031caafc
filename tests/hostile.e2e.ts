/**
 * A hostile round: every route of the API with what it does not expect. Nothing is answered with a
 * failure of the server's, nothing hangs, nothing grows, and every refusal is a problem document.
 */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { v7 as uuidv7 } from 'uuid'
import { TABLE_FIELDS, TABLES } from '../core/job/schema'
import type { ChangeResult, JobSnapshot } from '../shared/api'
import { copyOf } from './support/copy'
import { database, expect, KILN, test } from './support/fixtures'

/** Values that nobody means. */
const NASTY: unknown[] = [
  null,
  '',
  ' ',
  '\u0000',
  'a\u0000b',
  '\ud800',
  'x\udfff',
  -1,
  1.5,
  0,
  2 ** 31,
  2 ** 53,
  1e308,
  -1e308,
  5e-324,
  'NaN',
  'Infinity',
  [],
  {},
  { a: { b: [] } },
  true,
  'x'.repeat(5000),
  "'; drop table jobs; --",
  '../../etc/passwd',
  '%00',
  '%E0%A4%A',
  '2026-02-30',
  '0000-01-01',
  '2026-02-30T00:00:00Z',
  '2026-01-01T00:00:00+15:59',
  '0000-01-01T00:00:00Z',
  '99999-01-01T00:00:00Z',
  '2026-13-01T25:61:61Z',
  '\u202Eabc',
  '𝕏'.repeat(200),
  [[[[[[]]]]]],
  { toString: 1, constructor: 2, __proto__: null },
]
/** The same where they stand in an address. */
const NASTY_TEXT = [
  ...NASTY.filter(v => typeof v === 'string' || typeof v === 'number').map(String),
  'null',
  'undefined',
  '1,2',
  '1e99',
  '-0',
  '+1',
  '0x10',
  '१',
]
const encode = (v: string) => encodeURIComponent(v.toWellFormed())

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
interface Route {
  file: string
  method: Method
  path: string
  body?: Record<string, unknown>
  query?: string[]
  raw?: boolean
}

const ID = uuidv7()
const RULES = { mapping: {}, heightUnit: 'm', swapped: false, fallbackBand: null, listedOn: null }
/** Every route, with a body that is nearly right and the values its address takes. */
const ROUTES: Route[] = [
  { file: '[...].ts', method: 'GET', path: '/api/nothing/here' },
  { file: '[...].ts', method: 'POST', path: '/api/jobs/x/y/z/w', body: {} },
  { file: 'speed/ping.get.ts', method: 'GET', path: '/api/speed/ping' },
  { file: 'speed/down.get.ts', method: 'GET', path: '/api/speed/down?bytes=1000' },
  { file: 'speed/up.post.ts', method: 'POST', path: '/api/speed/up', body: {} },
  { file: 'instruments.get.ts', method: 'GET', path: '/api/instruments' },
  { file: 'crew/record.get.ts', method: 'GET', path: '/api/crew/record' },
  { file: 'health.get.ts', method: 'GET', path: '/api/health' },
  { file: 'auth/me.get.ts', method: 'GET', path: '/api/auth/me' },
  { file: 'auth/demo.post.ts', method: 'POST', path: '/api/auth/demo', body: { role: 'installer' } },
  { file: 'auth/sign-in.post.ts', method: 'POST', path: '/api/auth/sign-in', body: { email: 'a@b', password: 'x' } },
  {
    file: 'auth/accept.post.ts',
    method: 'POST',
    path: '/api/auth/accept',
    body: { token: 'not-a-token-at-all', password: 'long enough a word', name: 'n', email: 'a@b', crew: 'c' },
  },
  { file: 'auth/token.post.ts', method: 'POST', path: '/api/auth/token', body: { token: 'no' } },
  { file: 'auth/sealing-key.post.ts', method: 'POST', path: '/api/auth/sealing-key', body: { device: ID } },
  { file: 'auth/sign-out.post.ts', method: 'POST', path: '/api/auth/sign-out', body: {} },
  { file: 'crew/index.get.ts', method: 'GET', path: '/api/crew' },
  { file: 'crew/carriers.put.ts', method: 'PUT', path: '/api/crew/carriers', body: { carriers: [] } },
  {
    file: 'crew/enough.put.ts',
    method: 'PUT',
    path: '/api/crew/enough',
    body: { needDataDbm: null, needCallsDbm: null, rsrpEdges: null, sinrEdges: null, busyHours: null },
  },
  { file: 'crew/prices.get.ts', method: 'GET', path: '/api/crew/prices' },
  {
    file: 'crew/prices.put.ts',
    method: 'PUT',
    path: '/api/crew/prices',
    body: { prices: [{ key: 'part:x', minor: 100, supplier: null, leadDays: 2, inVan: 0 }] },
  },
  {
    file: 'crew/money.put.ts',
    method: 'PUT',
    path: '/api/crew/money',
    body: { currency: 'XTS', hourMinor: 5000, marginPercent: 20, taxPercent: null },
  },
  { file: 'crew/contact.put.ts', method: 'PUT', path: '/api/crew/contact', body: { phone: '0999 41 27 60' } },
  { file: 'board/index.get.ts', method: 'GET', path: '/api/board', query: ['from', 'to'] },
  { file: 'board/subscription.post.ts', method: 'POST', path: '/api/board/subscription', body: {} },
  { file: 'board/subscription.delete.ts', method: 'DELETE', path: '/api/board/subscription' },
  { file: 'calendar/[token].get.ts', method: 'GET', path: '/api/calendar/:id' },
  { file: 'board/calendar.ics.get.ts', method: 'GET', path: '/api/board/calendar.ics', query: ['from', 'to', 'job'] },
  { file: 'jobs/[id]/fleet.get.ts', method: 'GET', path: `/api/jobs/${KILN}/fleet` },
  { file: 'jobs/[id]/fleet.post.ts', method: 'POST', path: `/api/jobs/${ID}/fleet`, body: { names: ['One'] } },
  { file: 'crew/invite.post.ts', method: 'POST', path: '/api/crew/invite', body: { kind: 'reset', memberId: ID } },
  { file: 'crew/members/[id].patch.ts', method: 'PATCH', path: '/api/crew/members/:id', body: { role: 'viewer' } },
  { file: 'jobs/index.get.ts', method: 'GET', path: '/api/jobs', query: ['search', 'state', 'kind', 'member', 'after', 'most'] },
  { file: 'jobs/[id]/index.get.ts', method: 'GET', path: '/api/jobs/:id' },
  { file: 'jobs/[id]/index.delete.ts', method: 'DELETE', path: '/api/jobs/:id' },
  { file: 'jobs/[id]/changes.get.ts', method: 'GET', path: `/api/jobs/${KILN}/changes`, query: ['since'] },
  {
    file: 'jobs/[id]/changes.post.ts',
    method: 'POST',
    path: `/api/jobs/${KILN}/changes`,
    body: { device: ID, since: 0, changes: [] },
  },
  { file: 'jobs/[id]/forget-customer.post.ts', method: 'POST', path: '/api/jobs/:id/forget-customer', body: {} },
  { file: 'jobs/[id]/near.get.ts', method: 'GET', path: `/api/jobs/${KILN}/near`, query: ['stop'] },
  { file: 'jobs/[id]/report.pdf.get.ts', method: 'GET', path: '/api/jobs/:id/report.pdf', query: ['units', 'handover'] },
  { file: 'jobs/[id]/plan.pdf.get.ts', method: 'GET', path: '/api/jobs/:id/plan.pdf', query: ['units', 'what', 'design'] },
  { file: 'jobs/[id]/archive.zip.get.ts', method: 'GET', path: '/api/jobs/:id/archive.zip' },
  { file: 'jobs/[id]/template.post.ts', method: 'POST', path: '/api/jobs/:id/template', body: { name: 'n' } },
  { file: 'jobs/import.post.ts', method: 'POST', path: '/api/jobs/import', raw: true },
  { file: 'jobs/[id]/pages/index.get.ts', method: 'GET', path: '/api/jobs/:id/pages' },
  { file: 'jobs/[id]/pages/index.post.ts', method: 'POST', path: '/api/jobs/:id/pages', body: { handoverId: ID } },
  { file: 'jobs/[id]/pages/[page].delete.ts', method: 'DELETE', path: `/api/jobs/${KILN}/pages/:id` },
  { file: 'jobs/[id]/handovers/index.get.ts', method: 'GET', path: '/api/jobs/:id/handovers' },
  { file: 'jobs/[id]/handovers/index.post.ts', method: 'POST', path: '/api/jobs/:id/handovers', body: {} },
  { file: 'jobs/[id]/handovers/[handover].get.ts', method: 'GET', path: `/api/jobs/${KILN}/handovers/:id` },
  { file: 'jobs/[id]/pictures/[picture].get.ts', method: 'GET', path: `/api/jobs/${KILN}/pictures/:id` },
  { file: 'jobs/[id]/pictures/[picture].put.ts', method: 'PUT', path: `/api/jobs/${KILN}/pictures/:id`, raw: true },
  { file: 'parts/index.get.ts', method: 'GET', path: '/api/parts' },
  { file: 'parts/index.put.ts', method: 'PUT', path: '/api/parts', body: { parts: [] } },
  { file: 'parts/[id].delete.ts', method: 'DELETE', path: '/api/parts/:id' },
  { file: 'masts/mapping.get.ts', method: 'GET', path: '/api/masts/mapping', query: ['signature'] },
  {
    file: 'masts/near.get.ts',
    method: 'GET',
    path: '/api/masts/near?lat=46&lon=-41',
    query: ['lat', 'lon', 'radius', 'most', 'carrier', 'bands', 'technology', 'since'],
  },
  { file: 'masts/sets/[id].delete.ts', method: 'DELETE', path: '/api/masts/sets/:id' },
  {
    file: 'masts/imports/index.post.ts',
    method: 'POST',
    path: '/api/masts/imports',
    body: { name: 'x', delimiter: '§', signature: 's', rules: RULES },
  },
  { file: 'masts/imports/[id]/index.get.ts', method: 'GET', path: '/api/masts/imports/:id' },
  { file: 'masts/imports/[id]/index.delete.ts', method: 'DELETE', path: '/api/masts/imports/:id' },
  { file: 'masts/imports/[id]/close.post.ts', method: 'POST', path: '/api/masts/imports/:id/close', body: {} },
  { file: 'masts/imports/[id]/rejected.csv.get.ts', method: 'GET', path: '/api/masts/imports/:id/rejected.csv' },
  { file: 'masts/imports/[id]/pieces/[n].put.ts', method: 'PUT', path: `/api/masts/imports/:id/pieces/0`, raw: true },
  { file: 'terrain/blocks.get.ts', method: 'GET', path: '/api/terrain/blocks', query: ['keys', 'coarse'] },
  { file: 'terrain/changes.get.ts', method: 'GET', path: '/api/terrain/changes', query: ['since'] },
  {
    file: 'terrain/import.post.ts',
    method: 'POST',
    path: '/api/terrain/import?name=N46W042.hgt',
    query: ['name', 'kind', 'classes'],
    raw: true,
  },
  { file: 'terrain/tiles/[name].delete.ts', method: 'DELETE', path: '/api/terrain/tiles/:id', query: ['kind'] },
]

class Round {
  inputs = 0
  readonly bad: string[] = []

  private cookie = ''

  constructor(private readonly origin: string) {}

  /** Signed in anew: what was sent before may have ended the session. */
  async enter(): Promise<void> {
    const headers = { 'content-type': 'application/json' }
    const answer = await fetch(`${this.origin}/api/auth/demo`, { method: 'POST', headers, body: '{}' })
    this.cookie = answer.headers
      .getSetCookie()
      .map(c => c.split(';')[0])
      .join('; ')
    expect(answer.status).toBeLessThan(300)
  }

  /** By a plain client: thousands of these would take a browser's own ten times as long. */
  async send(method: Method, path: string, o: { data?: unknown; headers?: Record<string, string> } = {}): Promise<void> {
    this.inputs++
    const raw = o.data === undefined || typeof o.data === 'string' || Buffer.isBuffer(o.data)
    const answer = await fetch(new URL(path, this.origin), {
      method,
      headers: { cookie: this.cookie, ...(raw ? {} : { 'content-type': 'application/json' }), ...o.headers },
      body: raw ? (o.data as string | Buffer<ArrayBuffer> | undefined) : JSON.stringify(o.data),
      redirect: 'manual',
      signal: AbortSignal.timeout(45_000),
    })
    await answer.arrayBuffer()
    const { status } = answer
    const type = answer.headers.get('content-type')
    if (status >= 500 || (status >= 400 && !type?.includes('application/problem+json')))
      this.bad.push(`${method} ${path.slice(0, 120)} ${JSON.stringify(o.data ?? null)?.slice(0, 120)}: ${status} ${type}`)
  }
}

test.describe.configure({ mode: 'serial' })

test('every route of the API stands in the round', () => {
  const folder = new URL('../server/api/', import.meta.url)
  const files = (readdirSync(folder, { recursive: true }) as string[]).filter(f => f.endsWith('.ts')).sort()
  expect([...new Set(ROUTES.map(r => r.file))].sort()).toEqual(files)
})

test('what nobody means is refused in words, by every route', async ({ app }) => {
  test.setTimeout(480_000)
  const round = new Round(app.origin)
  await round.enter()
  const sql = database(app)
  const count = async () =>
    (
      await sql`select (select count(*) from crews)::int as crews, (select count(*) from members)::int as members, (select
        count(*) from jobs)::int as jobs, (select count(*) from spots)::int as spots, (select count(*)
          from masts)::int as masts, (select count(*) from handovers)::int as handovers, (select count(*)
            from pg_tables where tablename like 'staging%')::int as staging`
    )[0]
  const before = await count()
  const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(join('/proc', String(app.pid()), 'status'), 'utf8'))![1]) / 1024
  for (const route of ROUTES) {
    const ids = route.path.includes(':id')
      ? ['not-an-id', '%E0%A4%A', '%00', '..%2f..', ID, `${ID}x`, ID.toUpperCase(), 'x'.repeat(300), encode('ид')]
      : ['']
    for (const id of ids) {
      const path = route.path.replace(':id', id)
      await round.send(
        route.method,
        path,
        route.raw
          ? { data: Buffer.from('not what is wanted'), headers: { 'content-type': 'application/octet-stream' } }
          : route.body
            ? { data: route.body }
            : {},
      )
    }
    const path = route.path.replace(':id', ID)
    const join = path.includes('?') ? '&' : '?'
    for (const q of route.query ?? []) {
      for (const v of NASTY_TEXT)
        await round.send(route.method, `${path}${join}${q}=${encode(v)}`, route.raw ? { data: Buffer.from('x') } : {})
      await round.send(route.method, `${path}${join}${q}=%E0%A4%A&${q}=2`, route.raw ? { data: Buffer.from('x') } : {})
    }
    if (!route.body || route.file.endsWith('sign-in.post.ts') || route.file.endsWith('sign-out.post.ts')) continue
    for (const field of Object.keys(route.body))
      for (const v of NASTY) await round.send(route.method, path, { data: { ...route.body, [field]: v } })
    for (const v of NASTY)
      await round.send(route.method, path, { data: JSON.stringify(v), headers: { 'content-type': 'application/json' } })
    await fc.assert(
      fc.asyncProperty(
        fc.jsonValue({ maxDepth: 4 }),
        async v =>
          void (await round.send(route.method, path, {
            data: JSON.stringify(v),
            headers: { 'content-type': 'application/json' },
          })),
      ),
      { numRuns: 8 },
    )
    await round.send(route.method, path, { data: '{"a":', headers: { 'content-type': 'application/json' } })
    await round.send(route.method, path, {
      data: `${'['.repeat(40_000)}${']'.repeat(40_000)}`,
      headers: { 'content-type': 'application/json' },
    })
    await round.enter()
  }
  expect(round.bad).toEqual([])
  expect(round.inputs).toBeGreaterThan(1500)
  expect(await count()).toEqual(before)
  expect(memory()).toBeLessThan(700)
  const [backends] = await sql`select count(*)::int as n from pg_stat_activity where datname = current_database()`
  expect(backends!.n).toBeLessThan(30)
  expect((await fetch(`${app.origin}/api/health`)).status).toBe(200)
  await sql.end()
})

test('every field of every table, given what nobody means, refuses its own change and no other', async ({ app, playwright }) => {
  test.setTimeout(480_000)
  const request = await playwright.request.newContext({ baseURL: app.origin })
  await request.post('/api/auth/demo', { data: {} })
  const good = () => ({ id: uuidv7(), table: 'jobs', rowId: KILN, op: 'update', baseVersion: 1e9, fields: { notes: 'good' } })
  let inputs = 0
  for (const table of TABLES) {
    // What the job itself would rightly take is left out.
    if (table === 'jobs') continue
    const pairs = Object.keys(TABLE_FIELDS[table]).flatMap(field => NASTY.map(v => ({ [field]: v })))
    const sent = (['insert', 'update'] as const).flatMap(op =>
      pairs.map(fields => ({
        id: uuidv7(),
        table,
        rowId: uuidv7(),
        op,
        baseVersion: op === 'insert' ? 0 : 2 ** 31 - 1,
        fields,
      })),
    )
    for (let i = 0; i < sent.length; i += 150) {
      const part = sent.slice(i, i + 150)
      const last = good()
      const answer = await request.post(`/api/jobs/${KILN}/changes`, { data: { changes: [...part, last] } })
      expect(answer.status(), await answer.text()).toBe(200)
      const { rejected, versions } = (await answer.json()) as ChangeResult
      expect(rejected.map(r => r.changeId)).toEqual(part.map(c => c.id))
      expect(versions.map(v => v.changeId)).toEqual([last.id])
      inputs += part.length
    }
  }
  expect(inputs).toBeGreaterThan(400)
  // Envelopes that are none are refused one by one as well.
  const last = good()
  const envelopes = [
    null,
    1,
    'x',
    [],
    {},
    { ...good(), id: 'x' },
    { ...good(), table: 'members' },
    { ...good(), op: 'drop' },
    { ...good(), baseVersion: 2 ** 31 },
    { ...good(), rowId: '\u0000' },
    { ...good(), fields: null },
    { ...good(), extra: 1 },
  ]
  const answer = await request.post(`/api/jobs/${KILN}/changes`, { data: { changes: [...envelopes, last] } })
  expect(answer.status()).toBe(200)
  const said = (await answer.json()) as ChangeResult
  expect(said.rejected).toHaveLength(envelopes.length)
  expect(said.versions.map(v => v.changeId)).toEqual([last.id])
  await request.dispose()
})

test('every good row of every table is deleted: the job opens, and its paper is printed', async ({ app, playwright }) => {
  test.setTimeout(480_000)
  const request = await playwright.request.newContext({ baseURL: app.origin })
  await request.post('/api/auth/demo', { data: {} })
  const whole = (await (await request.get(`/api/jobs/${KILN}`)).json()) as JobSnapshot
  for (const table of TABLES.filter(t => t !== 'jobs')) {
    if (!whole.document[table].length) continue
    const jobId = await copyOf(request, KILN)
    const read = async () => (await (await request.get(`/api/jobs/${jobId}`)).json()) as JobSnapshot
    const before = await read()
    const changes = before.document[table].map(r => ({
      id: uuidv7(),
      table,
      rowId: r.id,
      op: 'delete',
      baseVersion: before.sequence,
      fields: {},
    }))
    const answer = await request.post(`/api/jobs/${jobId}/changes`, { data: { changes } })
    expect(answer.status(), `${table}: ${await answer.text()}`).toBe(200)
    const { rejected } = (await answer.json()) as ChangeResult
    // What is refused says why; the site of a job, and its only design, stay.
    for (const r of rejected) expect(r.detail.length, table).toBeGreaterThan(5)
    expect((await read()).document.sites, table).toHaveLength(1)
    expect((await request.get(`/api/jobs/${jobId}/report.pdf`)).status(), table).toBe(200)
    expect((await request.delete(`/api/jobs/${jobId}`)).status()).toBe(200)
  }
  await request.dispose()
})

test('no error of the server’s carries a parameter, a hash or a customer into its log or its answer', async ({
  app,
  playwright,
}) => {
  const request = await playwright.request.newContext({ baseURL: app.origin })
  await request.post('/api/auth/demo', { data: {} })
  const { describeError } = await import('../server/data/log')
  const { DrizzleQueryError } = await import('drizzle-orm')
  const inner = Object.assign(new Error('duplicate key: Key (email)=(secret@customer.invalid) already exists'), {
    code: '23505',
    detail: 'Key (email)=(secret@customer.invalid)',
  })
  const said = describeError(
    new DrizzleQueryError('insert into members values ($1)', ['secret@customer.invalid', '$scrypt$hash'], inner),
  )
  expect(said).not.toMatch(/secret|scrypt|insert into/)
  expect(said).toContain('23505')
  await request.dispose()
})
