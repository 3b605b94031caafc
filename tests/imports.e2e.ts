/** Masts and terrain on their way in, and the nearest masts on their way out, against the real database. */
import { readFileSync } from 'node:fs'
import { gunzipSync } from 'node:zlib'
import { v7 as uuidv7 } from 'uuid'
import { inverse } from '../core/geo/geodesic'
import { writeHgt, VOID } from '../core/terrain/hgt'
import { Terrain } from '../core/terrain/blocks'
import type { MastImportState, TerrainReport } from '../shared/api'
import { importTs } from '../scripts/lib/database.mjs'
import { bring, follow, open, put } from './support/masts'
import { database, expect, KILN, test } from './support/fixtures'

const fixture = (name: string) => readFileSync(new URL(`fixtures/${name}`, import.meta.url))

test.beforeEach(async ({ request, app }) => {
  await request.post(`${app.origin}/api/auth/demo`, { data: {} })
})

test('the same list twice changes nothing; the newer wins, whatever order they come in', async ({ request, app }) => {
  const sql = database(app)
  const rows = [
    ['A', '10', '20', 'Tern', 'LTE', 'B20', '30', '2026-01-01'],
    ['A', '10', '20', 'Tern', 'LTE', 'B3', '30', '2026-01-01'],
    ['B', '10.1', '20', 'Tern', 'LTE', 'B20', '', '2026-01-01'],
  ]
  expect(await bring(request, 'twice.csv', rows)).toMatchObject({
    state: 'done',
    rows: 3,
    kept: 3,
    masts: 2,
    cells: 3,
    changed: 5,
    rejects: [],
  })
  const before = await sql`select id, name, height_m, seen_on, bands from masts where name in ('A', 'B') order by name`
  expect(await bring(request, 'twice.csv', rows)).toMatchObject({ state: 'done', changed: 0 })
  expect(await sql`select id, name, height_m, seen_on, bands from masts where name in ('A', 'B') order by name`).toEqual(before)
  expect(before[0]!.bands).toEqual(['B20', 'B3'])
  // An older list cannot undo a newer one, a newer one may; the mast keeps its id.
  await bring(request, 'older.csv', [['A', '10', '20', 'Tern', 'LTE', 'B20', '99', '2024-01-01']])
  expect((await sql`select height_m from masts where name = 'A'`)[0]!.height_m).toBe(30)
  await bring(request, 'newer.csv', [['A', '10', '20', 'Tern', 'LTE', 'B20', '41', '2026-03-01']])
  const after = (
    await sql`select m.id, height_m, seen_on::text, s.name as set from masts m join mast_sets s on s.id = m.set_id where m.name = 'A'`
  )[0]!
  expect(after).toMatchObject({ id: before[0]!.id, height_m: 41, seen_on: '2026-03-01', set: 'newer.csv' })
  await sql.end()
})

test('pieces may be repeated and cut anywhere; nothing is seen before the end, or after stopping', async ({ request, app }) => {
  const sql = database(app)
  const seen = async () => (await sql`select count(*)::int as n from masts where carrier = 'Skua'`)[0]!.n as number
  const rows = Array.from({ length: 400 }, (_, i) => [
    `"S ${i}, ""north"""`,
    String(30 + i / 1000),
    '20',
    'Skua',
    'LTE',
    'B20',
    '30',
    '',
  ])
  const text = ['name,lat,lon,carrier,tech,band,height,seen', ...rows.map(r => r.join(','))].join('\r\n')
  const cut = [0, 1234, 1235, 9000, text.length]
  const { id } = (await (await open(request, 'pieces.csv')).json()) as MastImportState
  for (let n = 0; n < 4; n++) {
    const send = () => put(request, id, { n, text: text.slice(cut[n], cut[n + 1]), last: n === 3 })
    // A double click, or an answer that was lost: the same piece comes twice at once.
    const [a, b] = await Promise.all([send(), send()])
    expect([a.status(), b.status()]).toEqual([200, 200])
    expect(await seen()).toBe(0)
  }
  expect((await put(request, id, { n: 6, text: 'x', last: true })).status()).toBe(422)
  await request.post(`/api/masts/imports/${id}/close`, { data: {} })
  expect(await follow(request, id)).toMatchObject({ state: 'done', rows: 400, kept: 400, masts: 400 })
  expect(await seen()).toBe(400)
  expect((await sql`select name from masts where carrier = 'Skua' order by name limit 1`)[0]!.name).toBe('S 0, "north"')

  const other = (await (await open(request, 'stopped.csv')).json()) as MastImportState
  await put(request, other.id, { n: 0, text: text.replaceAll('Skua', 'Auk'), last: true })
  expect(((await (await request.delete(`/api/masts/imports/${other.id}`)).json()) as MastImportState).state).toBe('cancelled')
  expect((await put(request, other.id, { n: 1, text: 'more', last: true })).status()).toBe(422)
  expect((await request.post(`/api/masts/imports/${other.id}/close`, { data: {} })).ok()).toBe(true)
  expect((await sql`select count(*)::int as n from masts where carrier = 'Auk'`)[0]!.n).toBe(0)
  expect(await sql`select tablename from pg_tables where tablename like 'staging\\_%'`).toEqual([])
  await sql.end()
})

test('a row that the database will not hold is rejected with its line; the piece, and the pieces after it, go on', async ({
  request,
  app,
}) => {
  const header = ['name', 'lat', 'lon', 'carrier', 'tech', 'band', 'channel', 'seen']
  const row = (name: string, channel = '1300', seen = '') => [name, '14', '24', 'Tern', 'LTE', 'B3', channel, seen]
  const rows = [
    row('Whole'),
    row('Beyond', '99999999999'),
    row('Nul\u0000in it'),
    row('No such day', '1300', '2026-02-30'),
    row('Year nought', '1300', '0000-01-01'),
    row('Last'),
  ]
  const report = await bring(request, 'refused.csv', rows, { header, pieces: 2 })
  expect(report).toMatchObject({ state: 'done', rows: 6, kept: 3 })
  expect(report.rejects.map(r => r.line)).toEqual([3, 5, 6])
  expect(report.rejects[0]!.reason).toContain('cannot be kept')
  const sql = database(app)
  expect((await sql`select name from masts where lat_deg = 14 order by name`).map(r => r.name)).toEqual([
    'Last',
    'Nulin it',
    'Whole',
  ])
  expect(await sql`select tablename from pg_tables where tablename like 'staging\\_%'`).toEqual([])
  await sql.end()
})

test('headings as long as a page are remembered, and a day that is none is refused', async ({ request }) => {
  const header = [
    'name',
    'lat',
    'lon',
    'carrier',
    'tech',
    'band',
    'height',
    'seen',
    ...Array.from({ length: 300 }, (_, i) => `more ${i} ${'é'.repeat(5)}`),
  ]
  expect((await open(request, 'wide.csv', { header: header.slice(0, 250) })).status()).toBe(200)
  expect((await open(request, 'day.csv', { rules: { listedOn: '2026-02-31' } })).status()).toBe(422)
})

test('a bomb is refused by what it declares, or where it unpacks beyond that, and others are answered meanwhile', async ({
  request,
  app,
}) => {
  const { floatTiff, bombTiff } = await import('./support/rasters')
  const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${app.pid()}/status`, 'utf8'))![1]) / 1024
  const send = (name: string, data: Buffer, more = '') =>
    request.post(`/api/terrain/import?name=${name}${more}`, {
      data,
      headers: { 'content-type': 'application/octet-stream' },
      timeout: 120_000,
    })
  await send('small.tif', floatTiff({ side: 40, west: 30, north: 11, degrees: 0.05 }))
  const before = memory()
  for (const [name, data] of [
    ['declared.tif', bombTiff('declares')],
    ['unpacks.tif', bombTiff('unpacks')],
    ['lzw.tif', bombTiff('odd packing')],
  ] as const) {
    const answer = await send(name, data)
    expect(answer.status(), name).toBe(422)
    expect(((await answer.json()) as { detail: string }).detail.length).toBeGreaterThan(20)
  }
  expect(memory() - before).toBeLessThan(400)
  const large = send('large.tif', floatTiff({ side: 2400, west: 30, north: 12, degrees: 0.66 }))
  let answered = 0
  let done = false
  void large.then(() => (done = true))
  while (!done) {
    expect((await request.get('/api/health')).status()).toBe(200)
    answered++
  }
  expect((await large).status()).toBe(200)
  expect(answered).toBeGreaterThan(5)
})

test('of ground and cover of one name both stay, and of two imports at once neither loses a layer', async ({ request, app }) => {
  const { floatTiff, classTiff } = await import('./support/rasters')
  const send = (name: string, data: Buffer, more = '') =>
    request.post(`/api/terrain/import?name=${name}${more}`, {
      data,
      headers: { 'content-type': 'application/octet-stream' },
      timeout: 60_000,
    })
  const area = { side: 120, west: 33, north: 14, degrees: 0.1 }
  expect((await send('same.tif', floatTiff(area))).status()).toBe(200)
  const classes = encodeURIComponent('{"1":12}')
  expect((await send('same.tif', classTiff(area), `&kind=cover&classes=${classes}`)).status()).toBe(200)
  const sql = database(app)
  expect((await sql`select kind from terrain_tiles where name = 'same' order by kind`).map(r => r.kind)).toEqual([
    'cover',
    'ground',
  ])
  const [version] = await sql`select terrain_version as v from crews where demo`
  // West and east half of one block, at the same time, each leaving the other half unknown.
  const halves = [0, 1].map(half => floatTiff({ ...area, west: 34, half: half as 0 | 1 }))
  const [a, b] = await Promise.all([send('west.tif', halves[0]!), send('east.tif', halves[1]!)])
  expect([a.status(), b.status()]).toEqual([200, 200])
  const report = (await a.json()) as TerrainReport
  const [block] = await sql`select tile, heights from terrain_blocks where key = ${report.keys[0]!}`
  expect(block!.tile).toBe('east+west')
  const changes = (await (await request.get(`/api/terrain/changes?since=${version!.v}`)).json()) as {
    version: number
    keys: string[]
    all: boolean
  }
  expect(changes).toMatchObject({ version: (version!.v as number) + 2, all: false })
  expect(changes.keys).toEqual(expect.arrayContaining(report.keys))
  expect((await request.delete('/api/terrain/tiles/same?kind=cover')).status()).toBe(200)
  expect((await sql`select kind from terrain_tiles where name = 'same'`).map(r => r.kind)).toEqual(['ground'])
  await sql.end()
})

test('a formula in a cell stays text, and every row not taken can be had', async ({ request, app }) => {
  const sql = database(app)
  await bring(request, 'formula.csv', [['=HYPERLINK("x")', '11', '21', 'Tern', 'LTE', 'B20', '30', '']])
  expect((await sql`select name from masts where lat_deg = 11`)[0]!.name).toBe('=HYPERLINK("x")')
  await sql.end()
  const many = Array.from({ length: 20_000 }, (_, i) =>
    i === 7
      ? ['Good', '12', '22', 'Tern', 'LTE', 'B20', '30', '']
      : [i === 9 ? '=1+1' : `M${i}`, 'bad', '22', 'Tern', 'LTE', 'B20', '30', ''],
  )
  const report = await bring(request, 'many.csv', many, { pieces: 3 })
  expect(report).toMatchObject({ rows: 20_000, kept: 1 })
  expect(report.rejects[0]).toMatchObject({ line: 2, reason: 'lat “bad” is not a number' })
  const lines = (await (await request.get(`/api/masts/imports/${report.id}/rejected.csv`)).text()).trim().split('\r\n')
  expect(lines).toHaveLength(20_000)
  expect(lines[9]).toMatch(/^11,lat “bad” is not a number,'?"?'?=1\+1/)
  expect(lines.at(-1)).toContain('20001,')
})

test('a list of duplicates is one mast', async ({ request }) => {
  const row = ['Same', '13.5', '23.5', 'Tern', 'LTE', 'B20', '30', '2026-02-02']
  expect(
    await bring(
      request,
      'same.csv',
      Array.from({ length: 60_000 }, () => row),
      { pieces: 4 },
    ),
  ).toMatchObject({ rows: 60_000, kept: 60_000, masts: 1, cells: 1, changed: 2 })
})

test('cells of a crowd become one mast at their weighed middle, as sure as they are', async ({ request, app }) => {
  const header = ['radio', 'mcc', 'net', 'cell', 'lon', 'lat', 'range', 'updated', 'earfcn']
  const cell = (k: number, lat: string, lon: string, range: string) => [
    'LTE',
    '999',
    '01',
    String(80001 * 256 + k),
    lon,
    lat,
    range,
    '1767225600',
    '6300',
  ]
  await bring(
    request,
    'crowd.csv',
    [cell(1, '31.00', '40.00', '1000'), cell(2, '31.02', '40.00', '1000'), cell(3, '31.10', '40.00', '10000')],
    { header },
  )
  const sql = database(app)
  const [m] = await sql`select name, carrier, lat_deg, accuracy_m, seen_on::text, bands from masts where name = 'LTE site 80001'`
  // Weights 1, 1, 1/100: (31.00 + 31.02 + 0.311)/2.01; 1/√(Σ 1/σ²).
  expect(m).toMatchObject({ carrier: 'Tern', seen_on: '2026-01-01', bands: ['B20'] })
  expect(m!.lat_deg).toBeCloseTo((31.0 + 31.02 + 31.1 / 100) / 2.01, 4)
  expect(m!.accuracy_m).toBeCloseTo(1 / Math.sqrt(2 / 1e6 + 1 / 1e8), 3)
  expect(
    (
      await sql`select count(*)::int as n, min(channel) as channel from cells where mast_id = (select id from masts where
        name = 'LTE site 80001')`
    )[0],
  ).toMatchObject({ n: 3, channel: 6300 })
  await sql.end()
})

test('what is no table, or has no mapping, is refused and keeps what was there', async ({ request, app }) => {
  await bring(request, 'kept.csv', [['K', '13', '23', 'Tern', 'LTE', 'B20', '30', '']])
  await expect(bring(request, 'kept.csv', [])).rejects.toThrow('The file holds no rows')
  await expect(bring(request, 'kept.csv', [['K', '99', '23', 'Tern', 'LTE', 'B20', '30', '']])).rejects.toThrow(
    'None of the 1 rows can be used. The first: line 2, lat 99 is outside',
  )
  expect((await open(request, 'kept.csv', { header: ['a', 'b', 'c', 'd'] })).status()).toBe(422)
  expect((await request.post('/api/masts/imports', { data: { name: 'x' } })).status()).toBe(422)
  const { id } = (await (await open(request, 'quote.csv')).json()) as MastImportState
  const endless = await put(request, id, {
    n: 0,
    text: `name,lat,lon,carrier,tech,band,height,seen\n"never closed${'x'.repeat(1_100_000)}`,
    last: false,
  })
  expect(((await endless.json()) as { detail: string }).detail).toContain('a quote there was never closed')
  const notGzip = await request.put(`/api/masts/imports/${id}/pieces/0`, {
    data: Buffer.from('plain'),
    headers: { 'content-encoding': 'gzip', 'content-type': 'text/csv' },
  })
  expect(notGzip.status()).toBe(422)
  const sql = database(app)
  expect((await sql`select count(*)::int as n from masts where name = 'K'`)[0]!.n).toBe(1)
  await sql.end()
})

test('an import, a stop, a picture and a tile of nobody’s answer 404', async ({ request }) => {
  const id = uuidv7()
  for (const path of [
    `masts/imports/${id}`,
    'masts/imports/drop',
    `masts/imports/${id}/rejected.csv`,
    `jobs/${KILN}/near?stop=${id}`,
    `jobs/${KILN}/pictures/${id}`,
    `jobs/${id}/pictures/${id}`,
  ])
    expect((await request.get(`/api/${path}`)).status(), path).toBe(404)
  expect((await put(request, id, { n: 0, text: 'x', last: true })).status()).toBe(404)
  expect((await request.delete(`/api/masts/sets/${id}`)).status()).toBe(404)
  expect((await request.delete('/api/terrain/tiles/nothing')).status()).toBe(404)
})

test('another crew’s import, stop and picture are not to be had', async ({ request, app }) => {
  const sql = database(app)
  const crew = uuidv7()
  const [theirs, stop, picture, job] = [uuidv7(), uuidv7(), uuidv7(), uuidv7()]
  await sql`insert into crews (id, name) values (${crew}, 'Others')`
  await sql`insert into imports (crew_id, id, name, rules, delimiter) values (${crew}, ${theirs}, 'theirs.csv', '{}', ',')`
  await sql`insert into jobs (crew_id, id, name, kind, agreed_calls, may_drill, rules)
    values (${crew}, ${job}, 'Theirs', 'home', true, 'ask', 'generic')`
  await sql`insert into stops (crew_id, id, job_id, name, lat_deg, lon_deg, zone, swing_deg)
    values (${crew}, ${stop}, ${job}, 'There', 1, 1, 'UTC', 0)`
  await sql`insert into picture_files (crew_id, id, job_id, mime, bytes) values (${crew}, ${picture}, ${job}, 'image/png', '\\x89')`
  for (const path of [
    `masts/imports/${theirs}`,
    `masts/imports/${theirs}/rejected.csv`,
    `jobs/${KILN}/near?stop=${stop}`,
    `jobs/${job}/near?stop=${stop}`,
    `jobs/${KILN}/pictures/${picture}`,
    `jobs/${job}/pictures/${picture}`,
  ])
    expect((await request.get(`/api/${path}`)).status(), path).toBe(404)
  expect((await request.delete(`/api/masts/imports/${theirs}`)).status()).toBe(404)
  await sql`delete from crews where id = ${crew}`
  await sql.end()
})

test('the nearest are found by carrier, band, technology and age, and nonsense is refused', async ({ request }) => {
  const rows = Array.from({ length: 300 }, (_, i) => [
    `N${i}`,
    String(-30 + i / 1000),
    '60',
    i % 50 === 0 ? 'Rare' : 'Tern',
    i % 3 ? 'LTE' : 'NR',
    i % 3 ? 'B20' : 'n78',
    '30',
    i % 2 ? '2026-01-01' : '2020-01-01',
  ])
  await bring(request, 'filters.csv', rows)
  const near = async (more: string) =>
    (await (await request.get(`/api/masts/near?lat=-30&lon=60&${more}`)).json()) as {
      masts: { name: string; carrier: string; seenOn: string }[]
      cells: { band: string }[]
    }
  expect((await near('most=3')).masts.map(m => m.name)).toEqual(['N0', 'N1', 'N2'])
  expect((await near('carrier=Rare&most=3')).masts.map(m => m.name)).toEqual(['N0', 'N50', 'N100'])
  expect((await near('bands=n78&most=2')).masts.map(m => m.name)).toEqual(['N0', 'N3'])
  expect((await near('technology=LTE&since=2025-01-01&most=2')).masts.map(m => m.name)).toEqual(['N1', 'N5'])
  expect((await near('radius=1000&most=400')).masts.length).toBeLessThan(11)
  for (const bad of ['lat=95', 'lat=x', 'most=0', 'since=yesterday', 'technology=3G', 'radius=NaN'])
    expect((await request.get(`/api/masts/near?lon=60&${bad.startsWith('lat') ? '' : 'lat=1&'}${bad}`)).status(), bad).toBe(422)
})

test('nearest masts are true at the antimeridian and near the pole', async ({ request, app }) => {
  const places: [string, number, number][] = [
    ['West of it', -17, 179.95],
    ['East of it', -17.02, -179.8],
    ['Far', -17, 178],
    ['Pole here', 89.9, 10],
    ['Pole there', 89.95, -170],
  ]
  await bring(
    request,
    'edges.csv',
    places.map(([n, la, lo]) => [n, String(la), String(lo), 'Tern', 'LTE', 'B20', '30', '']),
  )
  const { mastsNear } = await importTs('server/services/document.ts')
  const { connect } = await importTs('server/data/db.ts')
  const { client, db } = connect(app.databaseUrl, 1)
  const sql = database(app)
  const crewId = (await sql`select id from crews where demo`)[0]!.id as string
  const near = async (latDeg: number, lonDeg: number) =>
    (await mastsNear(db, crewId, { latDeg, lonDeg })).masts.map((m: { name: string }) => m.name) as string[]
  expect(await near(-17.01, -179.99)).toEqual(['West of it', 'East of it'])
  expect(await near(89.93, 0)).toEqual(['Pole here', 'Pole there'])
  // The order is that of the geodesic.
  const from = { latDeg: -17.01, lonDeg: -179.99 }
  expect(inverse(from, { latDeg: -17, lonDeg: 179.95 }).distanceM).toBeLessThan(
    inverse(from, { latDeg: -17.02, lonDeg: -179.8 }).distanceM,
  )
  await client.end()
  await sql.end()
})

test('a tile comes back block by block as it went in, voids and all', async ({ request }) => {
  const side = 1201
  const heights = Int16Array.from({ length: side * side }, (_, i) => (i % 997 === 0 ? VOID : (i % side) + Math.floor(i / side)))
  const tile = writeHgt({ southDeg: 10, westDeg: 20, side, heights })
  const report = (await (
    await request.post(`/api/terrain/import?name=${tile.name}`, {
      data: Buffer.from(tile.bytes),
      headers: { 'content-type': 'application/octet-stream' },
    })
  ).json()) as TerrainReport
  expect(report).toMatchObject({ name: 'N10E020', side, blocks: 100, voids: Math.ceil((side * side) / 997) })
  const body = await (await request.get('/api/terrain/blocks?keys=1005:2005,1:1')).body()
  const head = body.subarray(0, body.indexOf('\n\n')).toString()
  expect(head).toBe('1005:2005 121 ground')
  const bytes = Uint8Array.from(body.subarray(body.indexOf('\n\n') + 2))
  expect(bytes.length).toBe(121 * 121 * 2)
  const terrain = new Terrain([{ key: '1005:2005', side: 121, heights: new Int16Array(bytes.buffer) }])
  // 10.55° N 20.55° E is 540 rows from the north and 660 columns from the west.
  expect(terrain.heightAt(10.55, 20.55)).toBeCloseTo(540 + 660, 0)
  expect((await request.get('/api/terrain/blocks?keys=drop')).status()).toBe(422)
})

test('tiles lie over each other in any order: the finer wins, a void is filled, one taken away shows the other', async ({
  request,
}) => {
  const side = 1201
  const flat = (h: number, hole: boolean) =>
    writeHgt({
      southDeg: 10,
      westDeg: 20,
      side,
      heights: Int16Array.from({ length: side * side }, (_, i) => (hole && i % side > 300 && i % side < 420 ? VOID : h)),
    })
  const post = (name: string, bytes: Uint8Array, more = '') =>
    request.post(`/api/terrain/import?name=${name}${more}`, {
      data: Buffer.from(bytes),
      headers: { 'content-type': 'application/octet-stream' },
    })
  const heights = async () => {
    const body = await (await request.get('/api/terrain/blocks?keys=1000:2000,1001:2001')).body()
    const head = body
      .subarray(0, body.indexOf('\n\n'))
      .toString()
      .split('\n')
      .map(l => l.split(' '))
    let at = body.indexOf('\n\n') + 2
    return new Terrain(
      head
        .filter(h => h[2] === 'ground')
        .map(([key, n]) => {
          const bytes = Uint8Array.from(body.subarray(at, at + Number(n) ** 2 * 2))
          at += bytes.length
          return { key: key!, side: Number(n), heights: new Int16Array(bytes.buffer) }
        }),
    )
  }
  // GDAL's raster first, then the tile; and the other way round.
  expect((await post('over.tif', fixture('geographic-float-tiled.tif'))).ok()).toBe(true)
  expect((await post('N10E020.hgt', flat(7, true).bytes)).ok()).toBe(true)
  const one = await heights()
  await request.delete('/api/terrain/tiles/over')
  expect((await heights()).heightAt(10.12, 20.15)).toBe(7)
  await post('over.tif', fixture('geographic-float-tiled.tif'))
  const two = await heights()
  for (const [la, lo] of [
    [10.05, 20.05],
    [10.12, 20.15],
    [10.15, 20.12],
  ] as const)
    expect(one.heightAt(la, lo)).toBe(two.heightAt(la, lo))
  await request.delete('/api/terrain/tiles/over')
  await request.delete('/api/terrain/tiles/N10E020')
  expect((await post('N10E020.hgt', gunzipSync(fixture('N10E020.hgt.gz')))).ok()).toBe(true)
})

test('land cover is listed by class, then taken with the heights given', async ({ request }) => {
  const post = (more: string) =>
    request.post(`/api/terrain/import?name=classes.tif&kind=cover${more}`, {
      data: fixture('classes.tif'),
      headers: { 'content-type': 'application/octet-stream' },
    })
  expect(((await (await post('')).json()) as { classes: { value: number }[] }).classes.map(c => c.value).sort()).toEqual([3, 7])
  expect((await post('&classes=%7B%223%22%3A900%7D')).status()).toBe(422)
  expect((await post('&classes=nonsense')).status()).toBe(422)
  expect((await (await post('&classes=%7B%223%22%3A15%2C%227%22%3A0%7D')).json()) as TerrainReport).toMatchObject({
    kind: 'cover',
    name: 'classes',
  })
  const body = await (await request.get('/api/terrain/blocks?keys=1000:2000')).body()
  expect(body.subarray(0, body.indexOf('\n\n')).toString()).toContain('1000:2000 121 cover')
  await request.delete('/api/terrain/tiles/classes')
})

test('the report is a PDF for anyone of the crew, in either unit', async ({ request }) => {
  for (const units of ['metric', 'imperial']) {
    const answer = await request.get(`/api/jobs/${KILN}/report.pdf?units=${units}`)
    expect(answer.headers()['content-type']).toBe('application/pdf')
    const pdf = await answer.body()
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    expect(pdf.subarray(-8).toString()).toContain('%%EOF')
  }
})
