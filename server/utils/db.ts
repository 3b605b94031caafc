import { drizzle } from 'drizzle-orm/postgres-js'
import { PgDialect } from 'drizzle-orm/pg-core'
import type { Placeholder, SQL } from 'drizzle-orm'
import postgres from 'postgres'
import * as schema from '../database/schema'

export type Db = ReturnType<typeof connect>['db']
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/** What a session tells the database it is; a restore looks whether one of these is there. */
export const APPLICATION = 'multivox'

/** Longest that one statement, one wait for a lock, and one idle transaction may hold up other people. */
const PATIENCE = { statement_timeout: 20_000, lock_timeout: 10_000, idle_in_transaction_session_timeout: 20_000 }

/** After the database was away a connection is tried again at most this many seconds apart. */
const RETRY_S = 1

/**
 * Bitmap scans are off: every query of this server names its rows by key or walks an index
 * outward from a place, where the planner, thinking few masts lie near, would else gather and sort
 * them all. Each query is planned for its own values: a carrier with few masts is found by its
 * name, one with many by the place.
 */
export function connect(url: string, max = 12) {
  const client = postgres(url, {
    max,
    onnotice: () => {},
    connect_timeout: 5,
    idle_timeout: 120,
    max_lifetime: 1800,
    backoff: attempt => Math.min(RETRY_S, 0.05 * 2 ** attempt),
    connection: {
      application_name: APPLICATION,
      enable_bitmapscan: 'off',
      plan_cache_mode: 'force_custom_plan',
      ...PATIENCE,
    } as Record<string, string | number>,
  })
  return { client, db: drizzle(client, { schema }) }
}

const dialect = new PgDialect()

/** A query worked out once; `sql.placeholder(name)` takes its value at each run. */
export function compiled<Row>(query: SQL): (db: Db, values: Record<string, unknown>) => Promise<Row[]> {
  const { sql, params } = dialect.sqlToQuery(query)
  const names = params.map(p => (p as Placeholder).name)
  return async (db, values) => await db.$client.unsafe(sql, names.map(n => values[n]) as never[], { prepare: true }) as unknown as Row[]
}

/** Runs a prepared statement: Drizzle has each query planned anew, which costs a search by place more than the search. */
export async function prepared<Row>(db: Db, query: SQL): Promise<Row[]> {
  const { sql, params } = dialect.sqlToQuery(query)
  return await db.$client.unsafe(sql, params as never[], { prepare: true }) as unknown as Row[]
}

let held: ReturnType<typeof connect> | null = null

/** The server's one pool. */
export function useDb(): Db {
  const url = useRuntimeConfig().databaseUrl
  if (!url) throw new Error('NUXT_DATABASE_URL is not set')
  held ??= connect(url)
  return held.db
}
