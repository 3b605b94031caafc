/**
 * The server's connections. The driver is `pg` throughout: a connection of the other common one that was
 * cut with a few bytes unsent never worked again (docs/decisions/0008).
 */
import { createHash } from 'node:crypto'
import { drizzle } from 'drizzle-orm/node-postgres'
import { PgDialect } from 'drizzle-orm/pg-core'
import type { Placeholder, SQL } from 'drizzle-orm'
import pg from 'pg'
import type { PoolConfig } from 'pg'
import * as schema from './schema'
import { logAway } from './log'

export type Db = ReturnType<typeof connect>['db']
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/** Longest that one statement, one wait for a lock, and one idle transaction may hold up other people. */
const PATIENCE = { statement_timeout: 20_000, lock_timeout: 10_000, idle_in_transaction_session_timeout: 20_000 }
/** Longest that a request waits for a connection, free or new. */
const CONNECT_MS = 5000

/** A pool whose connections may be cut at any time: one that is goes, and the next asking makes another. */
export function openPool(config: PoolConfig): pg.Pool {
  const pool = new pg.Pool({ connectionTimeoutMillis: CONNECT_MS, idleTimeoutMillis: 60_000, keepAlive: true, ...config })
  pool.on('error', e => logAway('a connection', e))
  // Whoever uses the connection at that moment is told by its own query.
  pool.on('connect', client => client.on('error', () => {}))
  return pool
}

/**
 * Bitmap scans are off: every query of this server names its rows by key or walks an index
 * outward from a place, where the planner, thinking few masts lie near, would else gather and sort
 * them all. Compiling a plan to machine code costs more than any of them takes.
 *
 * A session's name lets a restore see that somebody serves.
 */
export function connect(url: string, max = 12) {
  const client = openPool({
    connectionString: url,
    max,
    application_name: 'multivox',
    options: '-c enable_bitmapscan=off -c jit=off',
    ...PATIENCE,
  })
  return { client, db: drizzle(client, { schema }) }
}

const dialect = new PgDialect()
const nameOf = (text: string): string => createHash('md5').update(text).digest('hex')

/** A query worked out and planned once; `sql.placeholder(name)` takes its value at each run. */
export function compiled<Row extends object>(query: SQL): (db: Db, values: Record<string, unknown>) => Promise<Row[]> {
  const { sql: text, params } = dialect.sqlToQuery(query)
  const name = nameOf(text)
  const places = params.map(p => (p as Placeholder).name)
  return async (db, values) => (await db.$client.query<Row>({ name, text, values: places.map(p => values[p]) })).rows
}

/**
 * Runs a query planned for its own values: a carrier with few masts is found by its name, one with
 * many by the place.
 */
export async function planned<Row extends object>(db: Db, query: SQL): Promise<Row[]> {
  const { sql: text, params } = dialect.sqlToQuery(query)
  return (await db.$client.query<Row>({ text, values: params })).rows
}

let held: ReturnType<typeof connect> | null = null

/** The server's one pool. */
export function useDb(): Db {
  const url = useRuntimeConfig().databaseUrl
  if (!url) throw new Error('NUXT_DATABASE_URL is not set')
  held ??= connect(url)
  return held.db
}

/** Resolves where the database answers. */
export const answers = (db: Db): Promise<unknown> => db.$client.query('select 1')
