import { drizzle } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import * as schema from '../database/schema'

export type Db = ReturnType<typeof connect>['db']
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/**
 * Bitmap scans are off: every question of this server names its rows by key or walks an index
 * outward from a place, where the planner, thinking few masts lie near, would else gather and sort
 * them all.
 */
export function connect(url: string, max = 10) {
  const client = postgres(url, { max, onnotice: () => {}, connection: { enable_bitmapscan: 'off' } as Record<string, string> })
  return { client, db: drizzle(client, { schema }) }
}

let held: ReturnType<typeof connect> | null = null

/** The server's one pool. */
export function useDb(): Db {
  const url = useRuntimeConfig().databaseUrl
  if (!url) throw new Error('NUXT_DATABASE_URL is not set')
  held ??= connect(url)
  return held.db
}
