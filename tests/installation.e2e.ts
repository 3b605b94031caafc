/** Backup and restore, migrations on data, and what a real installation refuses. */
import { execFileSync, spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureDatabase } from '../scripts/lib/cluster.mjs'
import { importTs, migrate } from '../scripts/lib/database.mjs'
import { ROOT } from '../scripts/lib/system.mjs'
import postgres from 'postgres'
import { expect, test } from './support/fixtures'

const url = (d: string) => process.env.MULTIVOX_TEST_URL!.replace('DATABASE', d)

test('one command backs the whole database up, one restores it', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'mv-backup-')), 'all.dump')
  const from = `mv_from_${Date.now()}`
  await ensureDatabase({ url }, from, 'mv_template')
  const env = { ...process.env, MULTIVOX_DATABASE_URL: url(from) }
  execFileSync('npm', ['run', '-s', 'backup', '--', file], { cwd: ROOT, env })
  const sql = postgres(url(from), { max: 1, onnotice: () => {} })
  const before = await sql`select (select count(*) from readings)::int as r, (select count(*) from terrain_blocks)::int as t, (select md5(string_agg(heights::text, '' order by key)) from terrain_blocks) as h`
  await sql`delete from jobs`
  execFileSync('npm', ['run', '-s', 'restore', '--', file], { cwd: ROOT, env })
  const after = await sql`select (select count(*) from readings)::int as r, (select count(*) from terrain_blocks)::int as t, (select md5(string_agg(heights::text, '' order by key)) from terrain_blocks) as h`
  expect([...after]).toEqual([...before])
  expect(before[0]!.r).toBeGreaterThan(20)
  await sql.end()
})

test('a database of the first version keeps its masts and ground through the migrations', async () => {
  const name = `mv_first_${Date.now()}`
  await ensureDatabase({ url }, name)
  const all = join(ROOT, 'server/database/migrations')
  const first = mkdtempSync(join(tmpdir(), 'mv-first-'))
  cpSync(all, first, { recursive: true })
  const journal = JSON.parse(readFileSync(join(first, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] }
  writeFileSync(join(first, 'meta/_journal.json'), JSON.stringify({ ...journal, entries: journal.entries.slice(0, 1) }))
  await migrate(url(name), first)
  const sql = postgres(url(name), { max: 1, onnotice: () => {} })
  const crew = '0192f000-0000-7000-8000-000000000001'
  await sql`insert into crews (id, name) values (${crew}, 'First')`
  await sql`insert into jobs (crew_id, id, name) values (${crew}, ${crew}, 'Old job')`
  await sql`insert into masts (crew_id, id, name, lat_deg, lon_deg, carrier) values (${crew}, ${crew}, 'Old mast', 10, 20, 'Tern')`
  for (const band of ['B3', 'B20', 'B3']) await sql`insert into cells (crew_id, id, mast_id, technology, band) values (${crew}, gen_random_uuid(), ${crew}, 'LTE', ${band})`
  await sql`insert into terrain_tiles (crew_id, name, side, voids) values (${crew}, 'N10E020', 1201, 0)`
  await sql`insert into terrain_blocks (crew_id, key, side, tile, heights) values (${crew}, '1000:2000', 121, 'N10E020', ${Buffer.alloc(121 * 121 * 2, 1)})`
  await migrate(url(name))
  expect((await sql`select bands, seen_on from masts`)[0]).toMatchObject({ bands: ['B20', 'B3'], seen_on: null })
  expect((await sql`select k_factor, stop_id, kind from jobs`)[0]).toMatchObject({ k_factor: 4 / 3, stop_id: null, kind: 'home' })
  expect((await sql`select l.key, l.heights = b.heights as same from terrain_layers l join terrain_blocks b using (crew_id, key)`)[0]).toMatchObject({ key: '1000:2000', same: true })
  await sql.end()
})

test('migrations run again on a database with data change nothing', async () => {
  const name = `mv_again_${Date.now()}`
  await ensureDatabase({ url }, name, 'mv_template')
  const sql = postgres(url(name), { max: 1, onnotice: () => {} })
  const count = async () => (await sql`select (select count(*) from readings)::int as r, (select count(*) from nodes)::int as n`)[0]
  const before = await count()
  await migrate(url(name))
  expect(await count()).toEqual(before)
  await sql.end()
})

test('a real installation refuses the demo and hands out one set-up token', async () => {
  const { firstToken } = await importTs('server/services/setup.ts')
  await expect(firstToken(url('mv_template'))).rejects.toThrow(/demo crew/)
  const name = `mv_fresh_${Date.now()}`
  await ensureDatabase({ url }, name)
  await migrate(url(name))
  const first = await firstToken(url(name)) as string
  const second = await firstToken(url(name)) as string
  expect(first).not.toBe(second)
  const sql = postgres(url(name), { max: 1, onnotice: () => {} })
  const tokens = await sql`select hash from tokens`
  expect(tokens).toHaveLength(1)
  expect(tokens[0]!.hash).not.toContain(second)
  await sql.end()
  const refused = spawnSync(process.execPath, ['scripts/start.mjs'], { cwd: ROOT, env: { ...process.env, NUXT_DEMO: '1' }, encoding: 'utf8' })
  expect(refused.status).toBe(1)
  expect(refused.stderr).toContain('takes no demo sign-in')
})
