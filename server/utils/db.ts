import { drizzle } from 'drizzle-orm/postgres-js'
import { PgDialect } from 'drizzle-orm/pg-core'
import type { SQL } from 'drizzle-orm'
import postgres from 'postgres'
import * as schema from '../database/schema'

export type Db = ReturnType<typeof connect>['db']
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/**
 * Bitmap scans are off: every question of this server names its rows by key or walks an index
 * outward from a place, where the planner, thinking few masts lie near, would else gather and sort
 * them all. Each question is planned for its own values: a carrier with few masts is found by its
 * name, one with many by the place.
 */
export function connect(url: string, max = 10) {
  const client = postgres(url, { max, onnotice: () => {}, connection: { enable_bitmapscan: 'off', plan_cache_mode: 'force_custom_plan' } as Record<string, string> })
  return { client, db: drizzle(client, { schema }) }
}

const dialect = new PgDialect()

/** Asks by a prepared statement: Drizzle has each question planned anew, which costs a search by place more than the search. */
export async function prepared<Row>(db: Db, question: SQL): Promise<Row[]> {
  const { sql, params } = dialect.sqlToQuery(question)
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
