/** Backup and restore of a whole database by PostgreSQL's own programs. */
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { DATA, ensurePackages, fail, postgresBin } from './system.mjs'

/** Runs with a database: the one named, else the live cluster, started for the while where it is not up. */
async function withDatabase(/** @type {(url: string, bin: string) => void} */ work) {
  ensurePackages()
  const bin = postgresBin() ?? ''
  const url = process.env.MULTIVOX_DATABASE_URL
  if (url) return work(url, bin)
  const folder = join(DATA, process.env.MULTIVOX_DEMO ? 'demo' : 'live')
  const { runningUrl, startCluster, ensureDatabase } = await import('./cluster.mjs')
  const running = runningUrl(folder, 'multivox')
  if (running) return work(running, bin)
  const cluster = await startCluster(folder)
  try {
    await ensureDatabase(cluster, 'multivox')
    work(cluster.url('multivox'), bin)
  }
  finally {
    await cluster.stop()
  }
}

function call(/** @type {string} */ program, /** @type {string[]} */ args) {
  const r = spawnSync(program, args, { encoding: 'utf8' })
  if (r.status !== 0) throw new Error(`${program.split('/').pop()} failed: ${r.stderr}`)
}

export const backupTo = (/** @type {string} */ file) => withDatabase((url, bin) => call(join(bin, 'pg_dump'), ['--format=custom', '--no-owner', `--file=${file}`, url]))

/** One transaction: a file that does not restore whole leaves the database as it was. */
export async function restoreFrom(/** @type {string} */ file) {
  if (!existsSync(file)) fail(`${file} is not there.`)
  await withDatabase((url, bin) => call(join(bin, 'pg_restore'), ['--clean', '--if-exists', '--no-owner', '--single-transaction', `--dbname=${url}`, file]))
}
