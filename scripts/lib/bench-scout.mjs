/** Benches of Scout: the ground's kernels against plain C, lists of masts and the nearest of them against bare PostgreSQL. */
import { execFileSync, spawnSync } from 'node:child_process'
import { createWriteStream, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { performance } from 'node:perf_hooks'
import { gzipSync } from 'node:zlib'
import { ROOT } from './system.mjs'
import { importTs } from './database.mjs'

/** @typedef {(row: { name: string, value: number, unit: string, ratio?: number, against?: string }) => void} Add */
export const round = (/** @type {number} */ v, d = 2) => Number(v.toFixed(d))
export const quantile = (/** @type {number[]} */ v, /** @type {number} */ p) =>
  [...v].sort((a, b) => a - b)[Math.min(v.length - 1, Math.floor(v.length * p))] ?? NaN
export const FOLDER = join(ROOT, 'node_modules', '.multivox')
const SITE = { latDeg: 46.5, lonDeg: -41.5 }

const heightOf = (/** @type {number} */ lat, /** @type {number} */ lon) =>
  Math.round(140 + 90 * Math.sin(lat * 61) * Math.cos(lon * 47) + 40 * Math.sin(lat * 333 + lon * 271))

/** A program of bench/, compiled; null where there is no compiler. */
export function compiled(/** @type {string} */ name) {
  mkdirSync(FOLDER, { recursive: true })
  const out = join(FOLDER, name)
  return spawnSync('gcc', ['-O2', '-o', out, join(ROOT, 'bench', `${name}.c`), '-lm']).status === 0 ? out : null
}

/** Three by three degrees about the site, cut into blocks for us and flat for C. */
function ground(/** @type {any} */ k) {
  const blocks = []
  const wide = 3 * 1200 + 1
  const flat = new Int16Array(wide * wide)
  for (let dy = 0; dy < 3; dy++) {
    for (let dx = 0; dx < 3; dx++) {
      const southDeg = 45 + dy
      const westDeg = -43 + dx
      const heights = new Int16Array(1201 * 1201)
      for (let y = 0; y < 1201; y++) {
        for (let x = 0; x < 1201; x++) {
          const h = heightOf(southDeg + 1 - y / 1200, westDeg + x / 1200)
          heights[y * 1201 + x] = h
          flat[((2 - dy) * 1200 + y) * wide + dx * 1200 + x] = h
        }
      }
      blocks.push(...k.cutTile({ southDeg, westDeg, side: 1201, heights }))
    }
  }
  return { terrain: new k.Terrain(blocks), wide, flat }
}

function dump(
  /** @type {string} */ name,
  /** @type {{ wide: number, flat: Int16Array }} */ g,
  /** @type {{ lat: Float64Array, lon: Float64Array, dist: Float64Array }[]} */ lines,
  /** @type {number} */ eyeM,
) {
  const path = join(FOLDER, `${name}.bin`)
  const head = Buffer.alloc(28)
  head.writeInt32LE(g.wide, 0)
  ;[45, -43, 3].forEach((v, i) => head.writeDoubleLE(v, 4 + 8 * i))
  const shape = Buffer.alloc(8)
  shape.writeInt32LE(lines.length, 0)
  shape.writeInt32LE(/** @type {any} */ (lines[0]).lat.length, 4)
  const all = (/** @type {'lat' | 'lon' | 'dist'} */ f) =>
    Buffer.concat(lines.map(l => Buffer.from(l[f].buffer, l[f].byteOffset, l[f].byteLength)))
  const eye = Buffer.alloc(8)
  eye.writeDoubleLE(eyeM, 0)
  writeFileSync(path, Buffer.concat([head, Buffer.from(g.flat.buffer), shape, all('lat'), all('lon'), all('dist'), eye]))
  return path
}

function best(/** @type {() => number} */ work, rounds = 12) {
  let ms = Infinity
  let sum = 0
  for (let i = 0; i < rounds; i++) {
    const t = performance.now()
    sum = work()
    ms = Math.min(ms, performance.now() - t)
  }
  return { ms, sum }
}

/** @param {Add} add @param {any} k */
export function benchGround(add, k) {
  const g = ground(k)
  const program = compiled('ground')
  const c = (/** @type {string} */ path, /** @type {string} */ what) => {
    const [ns, sum] = execFileSync(/** @type {string} */ (program), [path, what, '12'], { encoding: 'utf8' })
      .trim()
      .split(' ')
      .map(Number)
    return { ms: /** @type {number} */ (ns) / 1e6, sum: /** @type {number} */ (sum) }
  }
  // 400 masts, each 60 km off, 2,001 samples of 30 m, three heights.
  const masts = Array.from({ length: 400 }, (_, i) => k.direct(SITE, i * 0.9, 60_000))
  const n = 2001
  const lines = masts.map((/** @type {any} */ m) => {
    const l = k.alongGeodesic(SITE, m, n)
    return {
      lat: l.latDeg,
      lon: l.lonDeg,
      dist: Float64Array.from({ length: n }, (_, i) => ((l.distanceM / 1000) * i) / (n - 1)),
    }
  })
  const groundM = new Float64Array(n)
  const overHeld = (/** @type {{ lat: Float64Array, lon: Float64Array, dist: Float64Array }} */ l) => {
    g.terrain.heightsAlong(l.lat, l.lon, groundM)
    let sum = 0
    for (const txHeightM of [3, 7, 11])
      sum += k.deltaBullington({ distanceKm: l.dist, groundM, txHeightM, rxHeightM: 30, frequencyMHz: 806 }).bullingtonDb
    return sum
  }
  const kernel = best(() => lines.reduce((/** @type {number} */ s, /** @type {any} */ l) => s + overHeld(l), 0))
  const whole = best(
    () =>
      masts.reduce((/** @type {number} */ s, /** @type {any} */ m) => {
        const { distanceM, bearingDeg } = k.inverse(SITE, m)
        const p = k.sampleProfile(g.terrain, SITE, m, distanceM, 30, bearingDeg)
        const distanceKm = p.distanceM.map((/** @type {number} */ d) => d / 1000)
        for (const txHeightM of [3, 7, 11])
          s += k.deltaBullington({ distanceKm, groundM: p.groundM, txHeightM, rxHeightM: 30, frequencyMHz: 806 }).lossDb
        return s
      }, 0),
    6,
  )
  const first = best(
    () =>
      k.computePath(g.terrain, {
        key: 'a',
        mastId: 'a',
        site: SITE,
        siteGroundM: null,
        mast: masts[0],
        mastHeightM: 30,
        mastGroundM: null,
        bands: ['B20'],
        k: 4 / 3,
        screens: [],
      }).distanceM,
  )
  const pc = program ? c(dump('profiles', g, lines, 0), 'profiles') : null
  add({
    name: 'profiles 400 masts',
    value: round(whole.ms, 0),
    unit: 'ms',
    ...(pc ? { ratio: round(kernel.ms / pc.ms), against: 'kernel, the same sum in C, -O2' } : {}),
  })
  add({ name: 'one path, 9 heights', value: round(first.ms), unit: 'ms' })
  if (pc && Math.abs(pc.sum - kernel.sum) > 1e-3 * Math.abs(pc.sum))
    process.stderr.write(`profiles: C ${pc.sum}, TypeScript ${kernel.sum}\n`)

  const ring = best(() =>
    k.horizonRing(g.terrain, SITE, 8).elevationDeg.reduce((/** @type {number} */ s, /** @type {number} */ e) => s + e, 0),
  )
  const knotsMs = best(() => {
    let s = 0
    for (let r = 0; r < 720; r++) for (let j = 1; j <= 4; j++) s += k.direct(SITE, r / 2, 10_000 * j).latDeg
    return s
  }).ms
  const dist = k.rayDistances(40_000)
  const rays = Array.from({ length: 720 }, (_, r) => {
    const knots = [SITE, ...[1, 2, 3, 4].map(j => k.direct(SITE, r / 2, 10_000 * j))]
    const at = (/** @type {'latDeg' | 'lonDeg'} */ f) =>
      Float64Array.from(dist, (/** @type {number} */ d) => {
        const j = Math.min(Math.floor(d / 10_000), 3)
        return knots[j][f] + (d / 10_000 - j) * (knots[j + 1][f] - knots[j][f])
      })
    return { lat: at('latDeg'), lon: at('lonDeg'), dist }
  })
  const hc = program ? c(dump('horizon', g, rays, g.terrain.heightAt(SITE.latDeg, SITE.lonDeg) + 8), 'horizon') : null
  add({
    name: 'horizon ring',
    value: round(ring.ms, 0),
    unit: 'ms',
    ...(hc
      ? {
          ratio: round((ring.ms - knotsMs) / hc.ms),
          against: `kernel, the same sum in C, -O2; ${round(knotsMs, 0)} ms of it are geodesics`,
        }
      : {}),
  })
  if (hc && Math.abs(hc.sum - ring.sum) > 0.05 * 720) process.stderr.write(`horizon: C ${hc.sum}, TypeScript ${ring.sum}\n`)
}

/** A list as lists are: three cells a mast, clustered, one carrier rare. */
async function writeList(/** @type {string} */ path, /** @type {number} */ rows) {
  const out = createWriteStream(path)
  let seed = 1
  const uniform = () => (seed = (seed * 16807) % 2147483647) / 2147483647
  let text = 'name,lat,lon,carrier,tech,band,height,azimuth,seen\n'
  for (let i = 0; i < rows; i++) {
    const mast = Math.floor(i / 3)
    if (i % 3 === 0) {
      const town = mast % 300
      seed = (mast * 48271 + 11) % 2147483647
      const carrier = uniform() < 0.0004 ? 'Rare' : ['Tern', 'Gannet', 'Skua', 'Auk'][mast % 4]
      const lat = 40 + ((town * 37) % 160) / 13 + 0.5 * (uniform() + uniform() - 1)
      const lon = -60 + ((town * 53) % 170) / 8 + 0.7 * (uniform() + uniform() - 1)
      var stem = `Site ${mast},${lat.toFixed(5)},${lon.toFixed(5)},${carrier}`
    }
    text += `${stem},LTE,${['B20', 'B3', 'B7'][i % 3]},${15 + (mast % 40)},${(i % 3) * 120},2026-0${1 + (mast % 3)}-1${mast % 9}\n`
    if (text.length > 1_000_000) {
      if (!out.write(text)) await new Promise(done => out.once('drain', done))
      text = ''
    }
  }
  await new Promise(done => out.end(text, done))
}

/**
 * Four hundred masts within 60 km opened in the browser: how soon the first rows and the last are
 * there, with nothing on the device and with the ground kept, and the longest the page was held up.
 *
 * @param {Add} add
 * @param {{ page: import('@playwright/test').Page, origin: string, url: string, job: string }} o
 */
export async function benchPage(add, { page, origin, url, job }) {
  const { default: postgres } = await import('postgres')
  const sql = postgres(url, { max: 1, onnotice: () => {} })
  const [crew] = await sql`select crew_id from jobs where id = ${job}`
  const crewId = /** @type {any} */ (crew).crew_id
  await sql`insert into mast_sets (crew_id, id, name, rows, kept) values (${crewId},
    '0192f000-0000-7000-8000-0000000000ff', 'bench grid', 400, 400)`
  await sql`insert into masts (crew_id, id, set_id, name, lat_deg, lon_deg, height_m, carrier, bands) select ${crewId},
    gen_random_uuid(), '0192f000-0000-7000-8000-0000000000ff', 'Grid ' || g, 46.36 + 0.04 * (g % 20),
      -41.95 + 0.045 * (g / 20), 30, 'Tern', '{B20}' from generate_series(0, 399) g`
  await sql`insert into cells (crew_id, id, mast_id, technology, band) select crew_id, gen_random_uuid(), id, 'LTE', 'B20'
    from masts where name like 'Grid %'`
  await page.addInitScript(() => {
    const w = /** @type {any} */ (window)
    w.longest = 0
    new PerformanceObserver(list =>
      list.getEntries().forEach(e => w.opened && e.startTime >= w.opened && (w.longest = Math.max(w.longest, e.duration))),
    ).observe({ type: 'longtask', buffered: true })
    const began = performance.now()
    const look = () => {
      const n = Number(/^(\d+) masts?$/.exec(document.querySelector('.means')?.textContent ?? '')?.[1] ?? 0)
      if (n > 0 && !w.first) w.first = performance.now()
      if (document.querySelector('.bearings') && !w.opened) w.opened = performance.now()
      if (n >= 400) w.last = performance.now()
      else if (performance.now() - began < 60_000) requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
  })
  for (const [words, clear] of /** @type {const} */ ([
    ['cold', true],
    ['warm', false],
  ])) {
    if (clear)
      await page.evaluate(
        () =>
          new Promise(
            done => (
              (indexedDB.deleteDatabase('multivox-device').onsuccess = () => done(null)),
              setTimeout(() => done(null), 2000)
            ),
          ),
      )
    await page.goto(`${origin}/job/${job}/bearings`)
    await page.waitForFunction(() => /** @type {any} */ (window).last, null, { timeout: 60_000 })
    const t = await page.evaluate(() => {
      const w = /** @type {any} */ (window)
      return { first: w.first - w.opened, last: w.last - w.opened, longest: w.longest }
    })
    add({ name: `400 masts ${words}, first`, value: round(t.first, 0), unit: 'ms' })
    add({ name: `400 masts ${words}, all`, value: round(t.last, 0), unit: 'ms' })
    add({ name: `longest task ${words}`, value: round(t.longest, 0), unit: 'ms' })
  }
  await sql`delete from mast_sets where name = 'bench grid'`
  await sql.end()
}

/**
 * @param {Add} add
 * @param {{ url: string, origin: string, cookie: string, pid: number, bin: string, rows: number }} o
 */
export async function benchMasts(add, o) {
  const { default: postgres } = await import('postgres')
  const sql = postgres(o.url, { max: 1, onnotice: () => {} })
  const path = join(FOLDER, `cells-${o.rows}.csv`)
  await writeList(path, o.rows)
  const name = o.rows >= 1e6 ? `${o.rows / 1e6} M` : `${o.rows / 1e3} k`

  // psql \copy of the same file into a bare table with the same indexes.
  const place = 'cube(array[cos(radians(lat)) * cos(radians(lon)), cos(radians(lat)) * sin(radians(lon)), sin(radians(lat))])'
  await sql.unsafe(
    `drop table if exists bare; create table bare (name text, lat float8, lon float8, carrier text, tech text, band text,
      height float8, azimuth float8, seen date, id uuid primary key default gen_random_uuid(),
        crew_id uuid default '00000000-0000-0000-0000-000000000001'); create index on bare using gist (crew_id,
          carrier, ${place}); create index on bare (carrier)`,
  )
  // Neither of the two pays for writing out what the other left.
  await sql`checkpoint`
  let t = performance.now()
  const copied = spawnSync(
    join(o.bin, 'psql'),
    [
      o.url,
      '-v',
      'ON_ERROR_STOP=1',
      '-c',
      `\\copy bare (name, lat, lon, carrier, tech, band, height, azimuth, seen) from '${path}' csv header`,
    ],
    { encoding: 'utf8' },
  )
  if (copied.status !== 0) throw new Error(copied.stderr)
  const bareMs = performance.now() - t

  const { headerSignature, proposeRules } = await importTs('core/formats/mast-columns.ts')
  const header = ['name', 'lat', 'lon', 'carrier', 'tech', 'band', 'height', 'azimuth', 'seen']
  const call = async (/** @type {string} */ at, /** @type {RequestInit} */ init = {}) => {
    const r = await fetch(o.origin + at, { ...init, headers: { ...init.headers, cookie: o.cookie } })
    if (!r.ok) throw new Error(`${at}: ${r.status} ${await r.text()}`)
    return r.json()
  }
  await sql`checkpoint`
  t = performance.now()
  const { id } = await call('/api/masts/imports', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      name: `bench ${name}`,
      delimiter: ',',
      signature: headerSignature(header),
      rules: proposeRules(header),
    }),
  })
  const { createReadStream } = await import('node:fs')
  let buffer = ''
  let piece = 0
  const send = (/** @type {string} */ text, /** @type {boolean} */ last) =>
    call(`/api/masts/imports/${id}/pieces/${piece++}${last ? '?last=1' : ''}`, {
      method: 'PUT',
      headers: { 'content-type': 'text/csv', 'content-encoding': 'gzip' },
      body: gzipSync(text, { level: 1 }),
    })
  for await (const chunk of createReadStream(path, 'utf8')) {
    buffer += chunk
    while (buffer.length >= 2_000_000) {
      await send(buffer.slice(0, 2_000_000), false)
      buffer = buffer.slice(2_000_000)
    }
  }
  await send(buffer, true)
  const readMs = performance.now() - t
  await call(`/api/masts/imports/${id}/close`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' })
  let state
  do {
    await new Promise(done => setTimeout(done, 200))
    state = await call(`/api/masts/imports/${id}`)
  } while (state.state === 'merging')
  if (state.state !== 'done') throw new Error(`${state.state}: ${state.error}`)
  const ours = performance.now() - t
  add({
    name: `import ${name} cells`,
    value: round(ours / 1000, 1),
    unit: 's',
    ratio: round(ours / bareMs),
    against: `psql \\copy into a bare table, ${round(bareMs / 1000, 1)} s`,
  })
  add({ name: 'of which reading', value: round(readMs / 1000, 1), unit: 's' })
  const peak = /VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${o.pid}/status`, 'utf8'))?.[1]
  if (peak) add({ name: 'server memory, peak', value: round(Number(peak) / 1024, 0), unit: 'MB' })

  await sql`vacuum analyze masts`
  const { mastsNear } = await importTs('server/services/document.ts')
  const { connect } = await importTs('server/data/db.ts')
  const { client, db } = connect(o.url, 1)
  const [crew] = await sql`select crew_id, set_id from masts where name = 'Site 0'`
  const places =
    await sql`select lat_deg, lon_deg from masts where set_id = ${/** @type {any} */ (crew).set_id} order by md5(id::text) limit 150`
  for (const [words, filter] of /** @type {const} */ ([
    ['nearest 100', { carrier: 'Tern', bands: ['B3'] }],
    ['nearest 100, rare', { carrier: 'Rare' }],
  ])) {
    const own = []
    const bare = []
    for (const warm of [false, true]) {
      for (const p of places) {
        const at = { latDeg: p.lat_deg + 0.013, lonDeg: p.lon_deg - 0.021 }
        let s = performance.now()
        await mastsNear(db, /** @type {any} */ (crew).crew_id, at, { ...filter, most: 100 })
        const mine = performance.now() - s
        const [la, lo] = [(at.latDeg * Math.PI) / 180, (at.lonDeg * Math.PI) / 180]
        const [x, y, z] = [Math.cos(la) * Math.cos(lo), Math.cos(la) * Math.sin(lo), Math.sin(la)]
        const point = sql`cube(array[${x}::float8, ${y}::float8, ${z}::float8])`
        const spot = sql`cube(array[cos(radians(lat_deg)) * cos(radians(lon_deg)), cos(radians(lat_deg)) *
          sin(radians(lon_deg)), sin(radians(lat_deg))])`
        s = performance.now()
        const rows = await sql`select * from masts where crew_id = ${/** @type {any} */ (crew).crew_id} and job_id is null and
            ${spot} <@ cube_enlarge(${point}, 0.00942::float8, 3)
              and carrier = ${filter.carrier} ${'bands' in filter ? sql`and bands && ${filter.bands}` : sql``}
              order by ${spot} <-> ${point} limit 100`
        if (rows.length)
          await sql`select * from cells where crew_id = ${/** @type {any} */ (crew).crew_id} and mast_id = any(${rows.map(r => r.id)})`
        const theirs = performance.now() - s
        if (warm) {
          own.push(mine)
          bare.push(theirs)
        }
      }
    }
    add({
      name: words,
      value: round(quantile(own, 0.95), 1),
      unit: 'ms p95',
      ratio: round(quantile(own, 0.95) / quantile(bare, 0.95)),
      against: `the bare queries, ${round(quantile(bare, 0.95), 1)} ms p95`,
    })
  }
  await client.end()
  await sql.end()
}
