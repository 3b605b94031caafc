/** Backup and restore, migrations on data, what a real installation refuses, and starting twice. */
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import {
  copyFileSync,
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { ensureDatabase, startCluster } from '../scripts/lib/cluster.mjs'
import { importTs, migrate } from '../scripts/lib/database.mjs'
import { DATA, freePort, handLine, ROOT, startServer } from '../scripts/lib/system.mjs'
import postgres from 'postgres'
import { misfits } from '../core/fitting/joints'
import { rowSchema } from '../core/job/schema'
import { assess } from '../core/judge/assess'
import { readJob } from '../server/services/document'
import { connect as connectDb } from '../server/data/db'
import { errorsOf } from '../server/data/check'
import { withNear } from '../shared/api'
import type { MastImportState } from '../shared/api'
import { expect, test } from './support/fixtures'
import { follow, open, put } from './support/masts'

const url = (d: string) => process.env.MULTIVOX_TEST_URL!.replace('DATABASE', d)
const connect = (name: string) => postgres(url(name), { max: 1, onnotice: () => {} })
/** A folder of this run's own, within the project's data: nothing is left in temporary folders. */
const OWN = join(DATA, `test-files-${process.pid}`)
const own = (name: string) => {
  mkdirSync(OWN, { recursive: true })
  return join(OWN, name)
}
test.afterAll(() => rmSync(OWN, { recursive: true, force: true }))

const run = (script: string, args: string[], database: string) =>
  spawnSync(process.execPath, [join('scripts', `${script}.mjs`), ...args], {
    cwd: ROOT,
    env: { ...process.env, MULTIVOX_DATABASE_URL: url(database) },
    encoding: 'utf8',
  })
const serve = async (database: string, env: Record<string, string> = {}) => {
  const port = await freePort()
  const server = await startServer({
    build: process.env.MULTIVOX_BUILD!,
    port,
    quiet: true,
    env: {
      NUXT_DATABASE_URL: url(database),
      NUXT_SESSION_PASSWORD: 'a password of the tests, long enough for sealing',
      NUXT_SESSION_COOKIE_SECURE: 'false',
      NUXT_DEMO: '1',
      ...env,
    },
  })
  return { ...server, origin: `http://localhost:${port}` }
}
const LIST = [
  'name,lat,lon,carrier,tech,band,height,seen',
  ...Array.from({ length: 50 }, (_, i) => `Q${i},${20 + i / 1000},30,Skua,LTE,B20,30,`),
].join('\n')

test('a database that has served is backed up, restored over itself, and what was queued is done', async ({ playwright }) => {
  test.setTimeout(240_000)
  const file = own('all.dump')
  const name = `mv_from_${Date.now()}`
  await ensureDatabase({ url }, name, 'mv_template')
  const server = await serve(name)
  const request = await playwright.request.newContext({ baseURL: server.origin })
  await request.post('/api/auth/demo', { data: {} })
  const { id } = (await (await open(request, 'queued.csv')).json()) as MastImportState
  await put(request, id, { n: 0, text: LIST, last: true })
  const sql = connect(name)
  const count = async () =>
    (
      await sql`select (select count(*) from readings)::int as r, (select count(*) from terrain_blocks)::int as t, (select
        md5(string_agg(heights::text, '' order by key)) from terrain_blocks) as h`
    )[0]
  const before = await count()
  expect(before!.r).toBeGreaterThan(20)
  // Closed by hand, so that the merge stands in the backup as waiting.
  await sql`update imports set state = 'merging', step = 'waiting', changed_at = now() + interval '1 hour' where id = ${id}`
  expect(run('backup', [file], name).status).toBe(0)
  expect(statSync(file).mode & 0o777).toBe(0o600)
  expect(existsSync(`${file}.part`)).toBe(false)
  // While it is served a restore would be written over.
  const refused = run('restore', [file], name)
  expect(refused.status).toBe(1)
  expect(refused.stderr).toContain('stop it first')
  await server.stop()
  await sql`delete from jobs`
  await sql.end()
  const restored = run('restore', [file], name)
  expect(restored.stderr).toBe('')
  expect(restored.status).toBe(0)
  const again = connect(name)
  const after = (
    await again`select (select count(*) from readings)::int as r, (select count(*) from terrain_blocks)::int as t, (select
      md5(string_agg(heights::text, '' order by key)) from terrain_blocks) as h`
  )[0]
  expect(after).toEqual(before)
  await again`update imports set changed_at = now() - interval '1 minute' where id = ${id}`
  const next = await serve(name)
  const later = await playwright.request.newContext({ baseURL: next.origin })
  await later.post('/api/auth/demo', { data: {} })
  expect(await follow(later, id)).toMatchObject({ state: 'done', masts: 50 })
  await again.end()
  await next.stop()
  // And into a fresh database.
  const fresh = `mv_fresh_${Date.now()}`
  await ensureDatabase({ url }, fresh)
  expect(run('restore', [file], fresh).status).toBe(0)
  const there = connect(fresh)
  expect((await there`select count(*)::int as n from readings`)[0]!.n).toBe(before!.r)
  await there.end()
})

test('a file that is cut short, another program’s, newer, or none is refused in one sentence before anything is touched', async () => {
  test.setTimeout(120_000)
  const name = `mv_refuse_${Date.now()}`
  await ensureDatabase({ url }, name, 'mv_template')
  const whole = own('whole.dump')
  expect(run('backup', [whole], name).status).toBe(0)
  const cut = own('cut.dump')
  copyFileSync(whole, cut)
  truncateSync(cut, Math.floor(statSync(whole).size * 0.6))
  const words = own('words.dump')
  writeFileSync(words, 'just words')
  const other = `mv_other_${Date.now()}`
  await ensureDatabase({ url }, other)
  const sql = connect(other)
  await sql`create table accounts (id int)`
  await sql.end()
  const foreign = own('foreign.dump')
  execFileSync(process.execPath, ['scripts/backup.mjs', foreign], {
    cwd: ROOT,
    env: { ...process.env, MULTIVOX_DATABASE_URL: url(other) },
  })
  const ours = connect(name)
  await ours`insert into drizzle.__drizzle_migrations (hash, created_at) select 'of the future ' || i, 9999999999990 + i
    from generate_series(1, 50) i`
  const newer = own('newer.dump')
  expect(run('backup', [newer], name).status).toBe(0)
  const before = (await ours`select count(*)::int as n, max(sequence) as s from jobs`)[0]
  for (const [file, why] of [
    [cut, 'cut short'],
    [words, 'no backup'],
    [foreign, 'another program’s'],
    [newer, 'newer version'],
    [own('nowhere.dump'), 'no file'],
    [OWN, 'no file'],
  ] as const) {
    const r = run('restore', [file], name)
    expect(r.status, why).toBe(1)
    expect(r.stderr.trim(), why).toContain(why)
    expect(r.stderr.trim().split('\n'), why).toHaveLength(1)
  }
  expect((await ours`select count(*)::int as n, max(sequence) as s from jobs`)[0]).toEqual(before)
  await ours.end()
})

/** A copy of the migrations up to a number. */
function migrationsUpTo(n: number): string {
  const folder = own(`migrations-${n}-${Date.now()}`)
  cpSync(join(ROOT, 'server/data/migrations'), folder, { recursive: true })
  const journal = JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] }
  writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries: journal.entries.slice(0, n) }))
  return folder
}

test('a backup of an older version is restored into this one and brought up to it', async () => {
  const old = `mv_old_${Date.now()}`
  await ensureDatabase({ url }, old)
  await migrate(url(old), migrationsUpTo(5))
  const sql = connect(old)
  const crew = '0192f000-0000-7000-8000-000000000001'
  await sql`insert into crews (id, name) values (${crew}, 'Old crew')`
  await sql`insert into jobs (crew_id, id, name) values (${crew}, ${crew}, 'Old job')`
  await sql.end()
  const file = own('old.dump')
  expect(run('backup', [file], old).status).toBe(0)
  const fresh = `mv_now_${Date.now()}`
  await ensureDatabase({ url }, fresh)
  expect(run('restore', [file], fresh).stderr).toBe('')
  const now = connect(fresh)
  expect((await now`select state, (select count(*)::int from job_members) as members from jobs`)[0]).toEqual({
    state: 'new',
    members: 0,
  })
  await now.end()
})

test('rows that named rows of other jobs, or none, are mended by the migration that forbids it', async () => {
  const name = `mv_loose_${Date.now()}`
  await ensureDatabase({ url }, name)
  await migrate(url(name), migrationsUpTo(5))
  const sql = connect(name)
  const id = (n: number) => `0192f000-0000-7000-8000-00000000000${n}`
  await sql`insert into crews (id, name) values (${id(1)}, 'Crew')`
  for (const j of [1, 2]) {
    await sql`insert into jobs (crew_id, id, name, design_id) values (${id(1)}, ${id(j)}, 'Job', ${id(9)})`
    await sql`insert into spots (crew_id, id, job_id, name, east_m, north_m, up_m, indoors) values (${id(1)}, ${id(j)},
      ${id(j)}, 'Spot', 0, 0, 0, true)`
    await sql`insert into designs (crew_id, id, job_id, name, approach) values (${id(1)}, ${id(j)}, ${id(j)}, 'A', 'router')`
  }
  const reading = (n: number, spot: number, replaces: string | null) =>
    sql`insert into readings (crew_id, id, job_id, spot_id, taken_at_utc, phase, technology, device, replaces_id) values
      (${id(1)}, ${id(n)}, ${id(1)}, ${id(spot)}, now(), 'before', 'LTE', 'phone', ${replaces})`
  await reading(3, 1, null)
  await reading(4, 1, id(8))
  await reading(5, 2, null)
  await sql`insert into runs (crew_id, id, job_id, design_id, from_node_id, to_node_id, part_id, length_m) values
    (${id(1)}, ${id(6)}, ${id(1)}, ${id(1)}, ${id(7)}, ${id(8)}, 'x', 1)`
  await sql`insert into mappings (crew_id, signature, rules) values (${id(1)}, 'name|lat', '{}')`
  await migrate(url(name))
  expect((await sql`select id, replaces_id from readings order by id`).map(r => [r.id, r.replaces_id])).toEqual([
    [id(3), null],
    [id(4), null],
  ])
  expect((await sql`select design_id from jobs`).map(r => r.design_id)).toEqual([null, null])
  expect((await sql`select state from jobs order by id`).map(r => r.state)).toEqual(['scout', 'new'])
  expect(await sql`select 1 from runs`).toHaveLength(0)
  expect((await sql`select length(signature)::int as n from mappings`)[0]!.n).toBe(64)
  expect(await sql`select length(sealing_secret)::int as n from members`).toEqual([])
  await sql.end()
})

test('a database of the first version keeps its masts and ground through the migrations', async () => {
  const name = `mv_first_${Date.now()}`
  await ensureDatabase({ url }, name)
  await migrate(url(name), migrationsUpTo(1))
  const sql = connect(name)
  const crew = '0192f000-0000-7000-8000-000000000001'
  await sql`insert into crews (id, name) values (${crew}, 'First')`
  await sql`insert into jobs (crew_id, id, name) values (${crew}, ${crew}, 'Old job')`
  await sql`insert into masts (crew_id, id, name, lat_deg, lon_deg, carrier) values (${crew}, ${crew}, 'Old mast', 10, 20, 'Tern')`
  for (const band of ['B3', 'B20', 'B3'])
    await sql`insert into cells (crew_id, id, mast_id, technology, band) values (${crew}, gen_random_uuid(), ${crew}, 'LTE', ${band})`
  await sql`insert into terrain_tiles (crew_id, name, side, voids) values (${crew}, 'N10E020', 1201, 0)`
  await sql`insert into terrain_blocks (crew_id, key, side, tile, heights) values (${crew}, '1000:2000', 121, 'N10E020',
    ${Buffer.alloc(121 * 121 * 2, 1)})`
  await migrate(url(name))
  expect((await sql`select bands, seen_on from masts`)[0]).toMatchObject({ bands: ['B20', 'B3'], seen_on: null })
  expect((await sql`select k_factor, stop_id, kind from jobs`)[0]).toMatchObject({ k_factor: 4 / 3, stop_id: null, kind: 'home' })
  expect(
    (await sql`select l.key, l.heights = b.heights as same from terrain_layers l join terrain_blocks b using (crew_id, key)`)[0],
  ).toMatchObject({ key: '1000:2000', same: true })
  await sql.end()
})

test('migrations run again on a database with data change nothing', async () => {
  const name = `mv_again_${Date.now()}`
  await ensureDatabase({ url }, name, 'mv_template')
  const sql = connect(name)
  const count = async () =>
    (await sql`select (select count(*) from readings)::int as r, (select count(*) from nodes)::int as n`)[0]
  const before = await count()
  await migrate(url(name))
  expect(await count()).toEqual(before)
  await sql.end()
})

test('a real installation refuses the demo, hands out one set-up token, and one for each further crew', async ({
  playwright,
}) => {
  const { firstToken } = await importTs('server/services/setup.ts')
  await expect(firstToken(url('mv_template'))).rejects.toThrow(/demo crew/)
  const name = `mv_setup_${Date.now()}`
  await ensureDatabase({ url }, name)
  await migrate(url(name))
  const first = (await firstToken(url(name))) as string
  const second = (await firstToken(url(name))) as string
  expect(first).not.toBe(second)
  const sql = connect(name)
  const tokens = await sql`select hash from tokens`
  expect(tokens).toHaveLength(1)
  expect(tokens[0]!.hash).not.toContain(second)
  await sql`insert into tokens (hash, kind, expires_at) values ('long gone', 'invite', now() - interval '8 days')`
  await sql`insert into rate_limits (key, points, expire) values ('address:1.2.3.4', 3, 1)`
  const server = await serve(name, { NUXT_DEMO: '' })
  // What has run out is removed by the server itself.
  await expect
    .poll(
      async () =>
        (
          await sql`select (select count(*) from tokens where hash = 'long gone')::int + (select count(*) from rate_limits
            where expire = 1)::int as n`
        )[0]!.n,
    )
    .toBe(0)
  for (const [crew, token] of [
    ['First', second],
    ['Second', /#(\S+)/.exec(run('crew', [], name).stdout)![1]!],
  ] as const) {
    const lead = await playwright.request.newContext({ baseURL: server.origin })
    const body = { token, password: 'a long enough password', name: `Lead of ${crew}`, email: `${crew}@crew.invalid`, crew }
    expect((await lead.post('/api/auth/accept', { data: body })).status()).toBe(200)
    expect((await lead.post('/api/auth/accept', { data: body })).status()).toBe(410)
    expect(((await (await lead.get('/api/auth/me')).json()) as { me: { crewName: string; role: string } }).me).toMatchObject({
      crewName: crew,
      role: 'lead',
    })
    await lead.dispose()
  }
  expect((await sql`select name from crews order by name`).map(c => c.name)).toEqual(['First', 'Second'])
  // There is no way into a demo on it.
  const stranger = await playwright.request.newContext({ baseURL: server.origin })
  expect((await stranger.post('/api/auth/demo', { data: {} })).status()).toBe(404)
  await server.stop()
  await sql.end()
  const refused = spawnSync(process.execPath, ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, NUXT_DEMO: '1' },
    encoding: 'utf8',
  })
  expect(refused.status).toBe(1)
  expect(refused.stderr).toContain('takes no demo sign-in')
})

test('behind a proxy that the installation names, its word on address and TLS counts', async ({ playwright }) => {
  const name = `mv_proxy_${Date.now()}`
  await ensureDatabase({ url }, name, 'mv_template')
  const named = await serve(name, { NUXT_TRUSTED_PROXY: 'loopback' })
  const request = await playwright.request.newContext({ baseURL: named.origin })
  const headers = (await request.get('/', { headers: { 'x-forwarded-proto': 'https' } })).headers()
  expect(headers['strict-transport-security']).toContain('max-age=31536000')
  expect((await request.get('/')).headers()['strict-transport-security']).toBeUndefined()
  await named.stop()
})

// Starting

interface Started {
  child: ChildProcess
  said: () => string
  until: (words: RegExp) => Promise<string>
  ended: Promise<number | null>
}
function start(folder: string): Started {
  const child = spawn(process.execPath, ['scripts/demo.mjs'], {
    cwd: ROOT,
    env: { ...process.env, MULTIVOX_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const s of [child.stdout, child.stderr]) s.on('data', d => (said += d))
  const ended = new Promise<number | null>(done => child.once('exit', done))
  const until = async (words: RegExp) => {
    await expect.poll(() => words.test(said), { timeout: 60_000, message: words.source }).toBe(true)
    return words.exec(said)![1] ?? ''
  }
  return { child, said: () => said, until, ended }
}
const alive = (pid: number) => existsSync(`/proc/${pid}`)

test('a second start says where the first is and harms nothing; a renamed folder keeps its data; SIGHUP ends all', async ({
  playwright,
}) => {
  test.setTimeout(240_000)
  const folder = own('starts')
  const first = start(folder)
  const address = await first.until(/Multivox demo: {2}(\S+)/)
  const place = await first.until(/what you enter stays, in (\S+)\./)
  // In the data folder itself, or in the lasting place that its note names; never where the machine clears up.
  if (place !== join(folder, 'demo')) expect(place).toMatch(/^\/var\/lib\/multivox\//)
  const request = await playwright.request.newContext({ baseURL: address })
  await request.post('/api/auth/demo', { data: {} })
  const { jobs } = (await (await request.get('/api/jobs')).json()) as { jobs: { id: string }[] }
  const second = start(folder)
  expect(await second.until(/runs here already: {2}(\S+)/)).toBe(address)
  expect(await second.ended).toBe(0)
  expect((await request.get('/api/jobs')).status()).toBe(200)
  await request.delete(`/api/jobs/${jobs[0]!.id}`)
  const server = Number(readFileSync(join(folder, 'demo', 'server.pid'), 'utf8'))
  const cluster = Number(readFileSync(join(place, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0])
  first.child.kill('SIGHUP')
  expect(await first.ended).toBe(0)
  for (const pid of [server, cluster]) expect(alive(pid)).toBe(false)
  expect(existsSync(join(folder, 'demo', 'running.json'))).toBe(false)
  // Renamed, it begins where it ended; and it does not build again.
  const renamed = own('renamed')
  renameSync(folder, renamed)
  const third = start(renamed)
  const there = await third.until(/Multivox demo: {2}(\S+)/)
  expect(third.said()).toContain('Demo kept as it was')
  expect(third.said()).not.toContain('Building')
  const later = await playwright.request.newContext({ baseURL: there })
  await later.post('/api/auth/demo', { data: {} })
  expect(((await (await later.get('/api/jobs')).json()) as { jobs: unknown[] }).jobs).toHaveLength(jobs.length - 1)
  // A crash of the starter leaves a server behind; the next start ends it and goes on.
  third.child.kill('SIGKILL')
  await third.ended
  const fourth = start(renamed)
  await fourth.until(/Multivox demo: {2}(\S+)/)
  fourth.child.kill('SIGTERM')
  expect(await fourth.ended).toBe(0)
  if (place !== join(folder, 'demo')) rmSync(place, { recursive: true, force: true })
})

test('the command to be typed by hand makes no system cluster, and asks for sudo only where there is one', () => {
  const packages = ['postgresql', 'chromium']
  for (const who of [
    { root: true, sudo: false },
    { root: false, sudo: true },
    { root: false, sudo: false },
  ]) {
    const line = handLine(packages, who)
    expect(line.includes('sudo')).toBe(!who.root && who.sudo)
    expect(line).toContain('apt-get install')
    if (!existsSync('/etc/postgresql')) expect(line).toContain('create_main_cluster = false')
  }
})

test('a cluster whose folder the database’s user cannot reach lies in a lasting place that its note names', async () => {
  test.skip(process.getuid?.() !== 0, 'only root starts the database as another user')
  const closed = own('closed')
  mkdirSync(closed, { mode: 0o700 })
  const cluster = await startCluster(join(closed, 'live'))
  expect(cluster.folder).toMatch(/^\/var\/lib\/multivox\//)
  expect(readFileSync(join(closed, 'live', 'cluster.place'), 'utf8').trim()).toBe(cluster.folder)
  await ensureDatabase(cluster, 'kept')
  await cluster.stop()
  renameSync(closed, own('moved'))
  const again = await startCluster(join(own('moved'), 'live'))
  expect(again.folder).toBe(cluster.folder)
  const sql = postgres(again.url('postgres'), { max: 1 })
  expect(await sql`select 1 from pg_database where datname = 'kept'`).toHaveLength(1)
  await sql.end()
  await again.stop()
  rmSync(cluster.folder, { recursive: true, force: true })
})

test('the previous demo becomes trees: every job opens, nothing is lost, two feeds have two of everything', async () => {
  const name = `mv_trees_${Date.now()}`
  await ensureDatabase({ url }, name)
  await migrate(url(name), migrationsUpTo(6))
  const sql = connect(name)
  const dump = gunzipSync(readFileSync(new URL('fixtures/demo-of-0005.sql.gz', import.meta.url))).toString()
  await sql.begin(async tx => {
    await tx`set local session_replication_role = replica`
    await tx.unsafe(dump)
  })
  const readingsBefore = (await sql`select count(*)::int as n from readings`)[0]!.n
  await migrate(url(name))
  expect((await sql`select count(*)::int as n from readings`)[0]!.n).toBe(readingsBefore)
  const { client, db } = connectDb(url(name), 2)
  const jobs = await sql`select crew_id, id, name from jobs order by name`
  expect(jobs).toHaveLength(5)
  for (const job of jobs) {
    const { document, near } = (await readJob(db, job.crew_id as string, job.id as string))!
    const doc = withNear(document, near)
    for (const node of doc.nodes) expect(node.part, `${job.name} ${node.partId}`).not.toBeNull()
    for (const table of [
      'sites',
      'nodes',
      'runs',
      'designs',
      'jobs',
      'devices',
      'sims',
      'setups',
      'readings',
      'speedRuns',
    ] as const)
      for (const { id: _id, version: _version, ...fields } of doc[table] as { id: string; version?: number }[])
        expect(errorsOf(rowSchema(table), fields), `${job.name} ${table}`).toEqual([])
    const a = assess(doc, { paths: {} }, { atUtc: '2026-04-03T12:00:00.000Z' })
    expect(a.tree!.broken, job.name as string).toEqual([])
    expect(
      misfits(a.tree!).map(m => m.words),
      job.name as string,
    ).toEqual([])
    if (job.name === 'Lime kiln house') {
      const kinds = a.tree!.visits.map(v => v.at.part.kind)
      expect(kinds).toEqual(['antenna', 'arrestor', 'adapter', 'router', 'antenna', 'arrestor', 'adapter', 'router'])
      expect(a.levels!.modems.map(m => Math.round(m.rsrpDbm))).toEqual([-84, -84])
      expect(a.proof.judged!.after.down!.median).toBe(26.2)
      expect(a.proof.verdict.words).toContain('calls not tested')
    }
    if (job.name === 'Net loft') expect(a.loops).toHaveLength(1)
    for (const r of [...doc.readings, ...doc.speedRuns]) expect(doc.setups.map(s => s.id)).toContain(r.setupId)
    expect(doc.sims, job.name as string).toHaveLength(1)
  }
  await client.end()
  await sql.end()
})
