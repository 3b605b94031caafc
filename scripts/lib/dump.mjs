/**
 * Backup and restore of a whole database by PostgreSQL's own programs. The queue's own tables are no
 * part of it: they cannot be restored over themselves, and what waits to be done stands in ours.
 */
import { spawn, spawnSync } from 'node:child_process'
import { closeSync, existsSync, openSync, readdirSync, readSync, renameSync, rmSync, statSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { DATA, ROOT, ensureNodeModules, ensurePackages, fail, postgresBin } from './system.mjs'

/** Runs with a database: the one named, else the live cluster, started for the while where it is not up. */
export async function withDatabase(/** @type {(url: string, bin: string) => Promise<void>} */ work) {
  ensurePackages()
  ensureNodeModules()
  const bin = postgresBin() ?? ''
  const url = process.env.MULTIVOX_DATABASE_URL
  if (url) return await work(url, bin)
  const folder = join(DATA, process.env.MULTIVOX_DEMO ? 'demo' : 'live')
  const { isBetween, runningUrl, startCluster, ensureDatabase } = await import('./cluster.mjs')
  const running = runningUrl(folder, 'multivox')
  if (running) return await work(running, bin)
  if (await isBetween(folder)) {
    const up = runningUrl(folder, 'multivox')
    if (up) return await work(up, bin)
    throw new Refused('The database is just starting or stopping: try again in a minute. Nothing was touched.')
  }
  const cluster = await startCluster(folder)
  try {
    await ensureDatabase(cluster, 'multivox')
    await work(cluster.url('multivox'), bin)
  } finally {
    await cluster.stop()
  }
}

/** A reason that ends the command with one sentence, after the cluster was stopped. */
export class Refused extends Error {}

/** The address without its password, which would else stand in the list of processes, and the password. */
function spoken(/** @type {string} */ url) {
  const bare = new URL(url)
  const password = decodeURIComponent(bare.password)
  bare.password = ''
  return { bare: bare.href, env: { ...process.env, PGPASSWORD: password, PGCONNECT_TIMEOUT: '10' } }
}

/** What went wrong, without the rows that PostgreSQL quotes. */
const firstLine = (/** @type {string} */ text) =>
  text
    .split('\n')
    .find(l => /error|fatal/i.test(l))
    ?.slice(0, 200) ??
  text.split('\n')[0] ??
  ''

export const backupTo = (/** @type {string} */ file) =>
  withDatabase(async (url, bin) => {
    const { bare, env } = spoken(url)
    const part = `${file}.part`
    const into = dirname(resolve(file))
    if (!existsSync(into) || !statSync(into).isDirectory()) throw new Refused(`There is no folder ${into}: make it first.`)
    // Made for its owner alone before anything is written into it.
    rmSync(part, { force: true })
    closeSync(openSync(part, 'w', 0o600))
    const r = spawnSync(
      join(bin, 'pg_dump'),
      ['--format=custom', '--no-owner', '--no-privileges', '--exclude-schema=queue', `--file=${part}`, bare],
      { encoding: 'utf8', env },
    )
    if (r.status !== 0) {
      rmSync(part, { force: true })
      throw new Refused(`The backup failed: ${firstLine(r.stderr)}`)
    }
    renameSync(part, file)
  })

/** Tables without which a file is no backup of ours. */
const OURS = ['crews', 'members', 'jobs', 'applied_changes', 'readings']
const MIGRATIONS = join(ROOT, 'server/data/migrations')

/** @throws Refused, in one sentence, where the file is none of ours, not whole, or too new */
function examine(/** @type {string} */ file, /** @type {string} */ bin) {
  if (!existsSync(file) || !statSync(file).isFile()) throw new Refused(`There is no file ${file}.`)
  const head = Buffer.alloc(5)
  const fd = openSync(file, 'r')
  readSync(fd, head, 0, 5, 0)
  closeSync(fd)
  if (head.toString() !== 'PGDMP') throw new Refused(`${file} is no backup made by npm run backup: nothing was touched.`)
  const restore = join(bin, 'pg_restore')
  const damaged = () => new Refused(`${file} is damaged or cut short: nothing was touched.`)
  const list = spawnSync(restore, ['--list', file], { encoding: 'utf8', maxBuffer: 1e8 })
  if (list.status !== 0) throw damaged()
  const tables = new Set([...list.stdout.matchAll(/ TABLE public (\S+)/g)].map(m => m[1]))
  if (!OURS.every(t => tables.has(t)))
    throw new Refused(`${file} is a backup of another program’s database: nothing was touched.`)
  // Read to its end: a file that was cut short is found out before anything is changed.
  const whole = spawnSync(restore, ['--file=/dev/null', file], { encoding: 'utf8', stdio: ['ignore', 'ignore', 'pipe'] })
  if (whole.status !== 0) throw damaged()
  const known = spawnSync(restore, ['--data-only', '--schema=drizzle', '--file=-', file], { encoding: 'utf8', maxBuffer: 1e8 })
  const copied = /COPY drizzle\.__drizzle_migrations[^\n]*\n([\s\S]*?)\\\.\n/.exec(known.stdout ?? '')?.[1] ?? ''
  const steps = copied.split('\n').filter(Boolean).length
  if (!steps) throw new Refused(`${file} does not say of which version it is: nothing was touched.`)
  const mine = readdirSync(MIGRATIONS).filter(f => f.endsWith('.sql')).length
  if (steps > mine) throw new Refused(`${file} was made by a newer version of Multivox than this one: nothing was touched.`)
}

const EMPTY = `
set lock_timeout = '30s';
drop schema if exists queue cascade;
drop schema if exists drizzle cascade;
drop schema if exists public cascade;
create schema public;
`

/** One transaction: a file that does not restore whole leaves the database as it was. Then it is brought to this version. */
export const restoreFrom = (/** @type {string} */ file) =>
  withDatabase(async (url, bin) => {
    examine(file, bin)
    await refuseWhileServed(url)
    const said = await pour(file, url, bin)
    if (said !== null) throw new Refused(`The restore failed and the database is as it was: ${firstLine(said)}`)
    const { migrate } = await import('./database.mjs')
    await migrate(url)
  })

/** Pours the file into an emptied database, all in one transaction. @returns {Promise<string | null>} what was said where it failed */
async function pour(/** @type {string} */ file, /** @type {string} */ url, /** @type {string} */ bin) {
  const { bare, env } = spoken(url)
  const reading = spawn(join(bin, 'pg_restore'), ['--no-owner', '--no-privileges', '--file=-', file], {
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  const into = [
    '--no-psqlrc',
    '--quiet',
    '--single-transaction',
    '--set=ON_ERROR_STOP=1',
    '--output=/dev/null',
    `--dbname=${bare}`,
    '--file=-',
  ]
  const writing = spawn(join(bin, 'psql'), into, { stdio: ['pipe', 'ignore', 'pipe'], env })
  let said = ''
  for (const child of [reading, writing]) child.stderr.on('data', d => (said += d))
  writing.stdin.on('error', () => reading.kill())
  writing.stdin.write(EMPTY)
  reading.stdout.on('data', d => {
    if (writing.stdin.write(d)) return
    reading.stdout.pause()
    writing.stdin.once('drain', () => reading.stdout.resume())
  })
  const read = new Promise(done =>
    reading.once('close', code => {
      // What was not read to its end must not be committed.
      if (code !== 0) writing.stdin.write('\nselect 1/0;\n')
      writing.stdin.end()
      done(code)
    }),
  )
  const written = new Promise(done =>
    writing.once('close', code => {
      if (code !== 0) reading.kill()
      done(code)
    }),
  )
  const [a, b] = await Promise.all([read, written])
  return a === 0 && b === 0 ? null : said
}

/** A server that works on the database while it is replaced would write into the new one what it read from the old. */
async function refuseWhileServed(/** @type {string} */ url) {
  const { withClient } = await import('./cluster.mjs')
  const {
    rows: [row],
  } = await withClient(url, client =>
    client.query(
      'select count(*)::int as n from pg_stat_activity where datname = current_database() and application_name like $1',
      ['multivox%'],
    ),
  )
  if (row.n) throw new Refused('Multivox is serving this database: stop it first. Nothing was touched.')
}

/** Ends the command with one sentence where it was refused. */
export const orSay = (/** @type {Promise<unknown>} */ work) =>
  work.catch(e => {
    if (e instanceof Refused) fail(e.message)
    throw e
  })
