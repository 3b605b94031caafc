/**
 * The database goes away, a node is killed, a merge fails: what was asked is answered again without a restart, and
 * nothing is half done.
 */
import type { APIRequestContext } from '@playwright/test'
import postgres from 'postgres'
import { v7 as uuidv7 } from 'uuid'
import type { MastImportState } from '../shared/api'
import { expect, KILN } from './support/fixtures'
import { follow, open, put } from './support/masts'
import { test } from './support/own-cluster'

test.describe.configure({ mode: 'serial', timeout: 240_000 })

const wait = (ms: number) => new Promise(done => setTimeout(done, ms))
const change = (fields: Record<string, unknown>) => ({
  changes: [{ id: uuidv7(), table: 'jobs', rowId: KILN, op: 'update', baseVersion: 2 ** 31 - 1, fields }],
})

/** Asks in many ways until each answers well. @returns how long it took, ms */
async function untilGood(request: APIRequestContext): Promise<number> {
  const began = Date.now()
  const ways = [
    () => request.get('/api/health'),
    () => request.get('/api/jobs'),
    () => request.get(`/api/jobs/${KILN}`),
    () => request.get('/api/masts/near?lat=46.7&lon=-41.4'),
    () => request.post(`/api/jobs/${KILN}/changes`, { data: change({ notes: `at ${Date.now()}` }) }),
    () => request.get(`/api/masts/imports/${uuidv7()}`),
  ]
  const open = new Set(ways.keys())
  while (open.size && Date.now() - began < 30_000) {
    for (const i of [...open]) {
      const answer = await ways[i]!().catch(() => null)
      if (answer && answer.status() < 500) open.delete(i)
    }
    await wait(100)
  }
  expect([...open]).toEqual([])
  return Date.now() - began
}

/** Many at once, so that connections are in every state when they break. */
function storm(request: APIRequestContext, seconds: number): Promise<number[]> {
  const until = Date.now() + seconds * 1000
  const one = async (i: number) => {
    const seen: number[] = []
    while (Date.now() < until) {
      const answer = await (
        i % 2 ? request.get(`/api/jobs/${KILN}`) : request.post(`/api/jobs/${KILN}/changes`, { data: change({ notes: `${i}` }) })
      ).catch(() => null)
      seen.push(answer?.status() ?? 0)
    }
    return seen
  }
  return Promise.all(Array.from({ length: 12 }, (_, i) => one(i))).then(all => all.flat())
}

test('connections that are terminated under load are made anew', async ({ own }) => {
  const node = await own.node()
  const admin = postgres(own.cluster.url('postgres'), { max: 1 })
  const going = storm(node.request, 4)
  for (let i = 0; i < 6; i++) {
    await wait(500)
    await admin`select pg_terminate_backend(pid) from pg_stat_activity where datname = 'away' and pid <> pg_backend_pid()`
  }
  const seen = await going
  expect(await untilGood(node.request)).toBeLessThan(10_000)
  // What could not be answered was said to be passing, never a failure of the server's.
  expect([...new Set(seen)].filter(s => s !== 200 && s !== 503)).toEqual([])
  expect(node.child.exitCode).toBeNull()
  await admin.end()
  await node.stop()
})

test('a database that was stopped for eight seconds is worked with again within ten, and the health check tells the truth', async ({
  own,
}) => {
  const node = await own.node()
  await own.cluster.down('fast')
  const going = storm(node.request, 8)
  await wait(2500)
  const ill = await node.request.get('/api/health')
  expect(ill.status()).toBe(503)
  expect(ill.headers()['content-type']).toContain('application/problem+json')
  const seen = await going
  expect([...new Set(seen)]).toEqual([503])
  await own.cluster.up()
  expect(await untilGood(node.request)).toBeLessThan(10_000)
  expect(node.child.exitCode).toBeNull()
  // The queue works again too, without a restart.
  const { id } = (await (await open(node.request, 'after.csv')).json()) as MastImportState
  await put(node.request, id, {
    n: 0,
    text: `name,lat,lon,carrier,tech,band,height,seen\nAfter,12,22,Tern,LTE,B20,30,\n`,
    last: true,
  })
  await node.request.post(`/api/masts/imports/${id}/close`, { data: {} })
  expect(await follow(node.request, id)).toMatchObject({ state: 'done', kept: 1 })
  await node.stop()
})

const LIST = [
  'name,lat,lon,carrier,tech,band,height,seen',
  ...Array.from({ length: 300 }, (_, i) => `K${i},${20 + i / 1000},30,Skua,LTE,B20,30,`),
].join('\n')
const masts = async (sql: postgres.Sql) =>
  (await sql`select count(*)::int as n from masts where carrier = 'Skua'`)[0]!.n as number

test('a crash that empties what had come is noticed: the list is begun again, before the merge and in it', async ({ own }) => {
  const node = await own.node()
  const { id } = (await (await open(node.request, 'crash.csv')).json()) as MastImportState
  const half = Math.floor(LIST.length / 2)
  await put(node.request, id, { n: 0, text: LIST.slice(0, half), last: false })
  await own.cluster.down('immediate')
  await own.cluster.up()
  await untilGood(node.request)
  const again = (await (await put(node.request, id, { n: 1, text: LIST.slice(half), last: true })).json()) as MastImportState
  expect(again).toMatchObject({ state: 'receiving', nextPiece: 0, rows: 0 })
  expect((await (await put(node.request, id, { n: 0, text: LIST, last: true })).json()) as MastImportState).toMatchObject({
    nextPiece: 1,
    kept: 300,
  })
  // Once more, between the last piece and the merge.
  await own.cluster.down('immediate')
  await own.cluster.up()
  await untilGood(node.request)
  await node.request.post(`/api/masts/imports/${id}/close`, { data: {} })
  await expect
    .poll(async () => ((await (await node.request.get(`/api/masts/imports/${id}`)).json()) as MastImportState).state, {
      timeout: 40_000,
    })
    .toBe('receiving')
  const sql = postgres(own.url, { max: 1 })
  expect(await masts(sql)).toBe(0)
  await put(node.request, id, { n: 0, text: LIST, last: true })
  await node.request.post(`/api/masts/imports/${id}/close`, { data: {} })
  expect(await follow(node.request, id)).toMatchObject({ state: 'done', kept: 300, masts: 300 })
  expect(await masts(sql)).toBe(300)
  await sql`delete from mast_sets where name = 'crash.csv'`
  await sql.end()
  await node.stop()
})

test('the merge of a node that was killed is done by another within a minute', async ({ own }) => {
  const first = await own.node()
  const sql = postgres(own.url, { max: 2 })
  const { id } = (await (await open(first.request, 'killed.csv')).json()) as MastImportState
  await put(first.request, id, { n: 0, text: LIST, last: true })
  // Somebody holds the masts, so that the merge is under way when its node dies.
  const holder = await sql.reserve()
  await holder`begin`
  await holder`lock table masts in share mode`
  await first.request.post(`/api/masts/imports/${id}/close`, { data: {} })
  await expect.poll(async () => (await sql`select step from imports where id = ${id}`)[0]!.step).toBe('writing masts')
  await first.stop('SIGKILL')
  await holder`rollback`
  holder.release()
  const killedAt = Date.now()
  const second = await own.node()
  const done = await follow(second.request, id)
  expect(done).toMatchObject({ state: 'done', masts: 300 })
  expect(Date.now() - killedAt).toBeLessThan(60_000)
  expect(await masts(sql)).toBe(300)
  await sql`delete from mast_sets where name = 'killed.csv'`
  await sql.end()
  await second.stop()
})

test('a merge that fails is tried again, and one that is stopped at the last moment keeps nothing', async ({ own }) => {
  const node = await own.node()
  const sql = postgres(own.url, { max: 2 })
  await sql.unsafe(`create function fail_once() returns trigger language plpgsql as $$ 
    begin raise exception 'a disk that stumbles' using errcode = '58030'; end $$;
    create trigger stumble before insert on masts for each row when (new.carrier = 'Skua') execute function fail_once()`)
  const { id } = (await (await open(node.request, 'stumbles.csv')).json()) as MastImportState
  await put(node.request, id, { n: 0, text: LIST, last: true })
  await node.request.post(`/api/masts/imports/${id}/close`, { data: {} })
  await expect
    .poll(async () => (await sql`select step from imports where id = ${id}`)[0]!.step, { timeout: 20_000 })
    .toContain('tried again')
  await sql`drop trigger stumble on masts`
  const done = await follow(node.request, id)
  expect(done).toMatchObject({ state: 'done', masts: 300 })
  expect((await sql`select tries from imports where id = ${id}`)[0]!.tries).toBeGreaterThan(1)
  await sql`delete from mast_sets where name = 'stumbles.csv'`

  const other = (await (await open(node.request, 'late.csv')).json()) as MastImportState
  await put(node.request, other.id, { n: 0, text: LIST, last: true })
  const holder = await sql.reserve()
  await holder`begin`
  await holder`lock table cells in share mode`
  await node.request.post(`/api/masts/imports/${other.id}/close`, { data: {} })
  await expect.poll(async () => (await sql`select step from imports where id = ${other.id}`)[0]!.step).toBe('writing cells')
  expect(((await (await node.request.delete(`/api/masts/imports/${other.id}`)).json()) as MastImportState).state).toBe(
    'cancelled',
  )
  await holder`rollback`
  holder.release()
  await wait(2500)
  expect(await masts(sql)).toBe(0)
  await expect
    .poll(async () => (await sql`select count(*)::int as n from pg_tables where tablename like 'staging%'`)[0]!.n, {
      timeout: 20_000,
    })
    .toBe(0)
  await sql.end()
  await node.stop()
})
