/**
 * The server under load: fifty connections, each asking again as soon as it was answered, with
 * 300,000 masts and 5,000 jobs in the crew. The asker is a process of its own on the same machine.
 */
import { spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { performance } from 'node:perf_hooks'
import { quantile, round } from './bench-scout.mjs'

const ASKER = fileURLToPath(new URL('./bench-asker.mjs', import.meta.url))
const CONNECTIONS = 50
const MASTS = 300_000
const JOBS = 5000

/** @typedef {{ method?: string, path: string, body?: unknown }} Ask */

/** @returns {Promise<number[]>} times of every answer, ms */
function load(
  /** @type {string} */ origin,
  /** @type {string} */ cookie,
  /** @type {Ask[]} */ asks,
  connections = CONNECTIONS,
  seconds = 8,
) {
  return new Promise((done, failed) => {
    const child = spawn(process.execPath, [ASKER], { stdio: ['pipe', 'pipe', 'inherit'] })
    let said = ''
    child.stdout.on('data', d => (said += d))
    child.once('exit', code => (code === 0 ? done(JSON.parse(said)) : failed(new Error('the asker failed'))))
    child.stdin.end(JSON.stringify({ origin, cookie, asks, connections, seconds }))
  })
}

/**
 * @param {(row: { name: string, value: number, unit: string, ratio?: number, against?: string }) => void} add
 * @param {{ url: string, origin: string, cookie: string, job: string }} o
 */
export async function benchLoad(add, { url, origin, cookie, job }) {
  const { default: postgres } = await import('postgres')
  const sql = postgres(url, { max: 1, onnotice: () => {} })
  const [row] = await sql`select crew_id from jobs where id = ${job}`
  const crew = /** @type {any} */ (row).crew_id
  const set = '0192f000-0000-7000-8000-0000000000fe'
  await sql`insert into mast_sets (crew_id, id, name, rows, kept) values (${crew}, ${set}, 'bench load', ${MASTS}, ${MASTS})`
  await sql`insert into masts (crew_id, id, set_id, name, lat_deg, lon_deg, height_m, carrier, bands)
    select ${crew}, gen_random_uuid(), ${set}, 'Load ' || g, 37 + 0.0366 * (g % 547), -51 + 0.0366 * (g / 547), 30,
      (array['Tern', 'Skua', 'Auk'])[1 + g % 3], '{B20}' from generate_series(0, ${MASTS - 1}) g`
  await sql`insert into cells (crew_id, id, mast_id, technology, band) select crew_id, gen_random_uuid(), id, 'LTE', 'B20'
    from masts where set_id = ${set}`
  await sql`insert into jobs (crew_id, id, name, agreed_calls, may_drill, rules, kind, state, customer_name, next_on, changed_at)
    select ${crew}, gen_random_uuid(), 'Load ' || g, true, 'ask', 'generic', (array['home', 'vehicle', 'boat'])[1 + g % 3], (array['new',
      'scout', 'plan', 'fit'])[1 + g % 4], 'Customer ' || g,
      case when g % 3 = 0 then current_date + g % 90 end, now() - g * interval '1 minute' from generate_series(1, ${JOBS}) g`
  await sql`insert into sites (crew_id, id, job_id, zone, axis_deg, length_m, depth_m, storeys, storey_height_m, roof_rise_m,
      wall_material, pane_material, pane_percent, floor_material, roof_material)
    select crew_id, gen_random_uuid(), id, 'UTC', 90, 10, 8, 2, 2.7, 3, 'brick', 'glass', 15, 'timber floor', 'tiles'
    from jobs where name like 'Load %'`
  await sql`vacuum analyze masts`
  await sql`vacuum analyze cells`
  await sql`vacuum analyze jobs`
  const open = { path: `/api/jobs/${job}` }
  const p95 = (/** @type {number[]} */ ms) => round(quantile(ms, 0.95), 0)
  const figure = async (/** @type {string} */ name, /** @type {Ask[]} */ asks, /** @type {number} */ connections) => {
    const ms = await load(origin, cookie, asks, connections)
    add({ name, value: p95(ms), unit: 'ms p95' })
  }
  const lists = ['', '?search=customer%2012', '?state=fit', '?kind=boat&state=plan'].map(q => ({ path: `/api/jobs${q}` }))
  const near = Array.from({ length: 40 }, (_, i) => ({
    path: `/api/masts/near?lat=${40 + i / 4}&lon=${-48 + i / 4}&most=100&carrier=Tern`,
  }))
  await load(origin, cookie, [open, ...lists, ...near], 4, 3)
  await figure('open job', [open], 1)
  await figure('list jobs', lists, 1)
  await figure('load open', [open], CONNECTIONS)
  await figure('load list', lists, CONNECTIONS)
  await figure('load near', near, CONNECTIONS)
  const edit = {
    method: 'POST',
    path: `/api/jobs/${job}/changes`,
    body: {
      changes: [{ id: 'NEW', table: 'jobs', rowId: job, op: 'update', baseVersion: 2_147_483_647, fields: { notes: 'load' } }],
    },
  }
  await figure('load save', [edit], CONNECTIONS)

  // Others while a large raster is read.
  const side = 3600
  const { floatTiff } = await import('./bench-raster.mjs')
  const began = performance.now()
  const sent = fetch(`${origin}/api/terrain/import?name=bench.tif`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/octet-stream' },
    body: floatTiff(side),
  })
  const others = load(
    origin,
    cookie,
    [{ path: '/api/health' }, { path: '/api/jobs?most=10' }, { path: `/api/jobs/${job}/changes?since=0` }],
    2,
    4,
  )
  const [answer, ms] = await Promise.all([sent, others])
  if (!answer.ok) throw new Error(await answer.text())
  add({
    name: 'others, ground read',
    value: p95(ms),
    unit: 'ms p95',
    against: `a raster of ${side}² floats, ${round((performance.now() - began) / 1000, 1)} s`,
  })
  await sql`delete from mast_sets where id = ${set}`
  await sql`delete from jobs where name like 'Load %'`
  await sql.end()
}
