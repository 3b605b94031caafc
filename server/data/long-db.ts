/**
 * A pool of its own for what takes long: lists of masts by COPY, and their merging. It is bounded, so
 * that no import can take the connections that other people's requests wait for.
 */
import type { Pool, PoolClient } from 'pg'
import { openPool } from './db'

export type { PoolClient } from 'pg'

/** Pieces and merges under way at once on one node. */
const MOST = 4
/** One statement of a merge of millions of rows takes minutes; a COPY of one piece takes seconds. */
const STATEMENT_MS = 30 * 60_000

let held: Pool | null = null

export function useLongDb(): Pool {
  const url = useRuntimeConfig().databaseUrl
  if (!url) throw new Error('NUXT_DATABASE_URL is not set')
  held ??= openPool({
    connectionString: url,
    max: MOST,
    application_name: 'multivox-long',
    connectionTimeoutMillis: 15_000,
    statement_timeout: STATEMENT_MS,
    lock_timeout: 30_000,
    idle_in_transaction_session_timeout: 60_000,
    // A node that was killed is noticed even while its statement waits for a lock.
    options:
      '-c client_connection_check_interval=5000 -c tcp_keepalives_idle=10 -c tcp_keepalives_interval=5 -c tcp_keepalives_count=3',
  })
  return held
}

/** Runs in one transaction; whatever is thrown rolls it back, and a connection that is broken is not used again. */
export async function inTransaction<T>(work: (client: PoolClient) => Promise<T>): Promise<T> {
  const client = await useLongDb().connect()
  let broken: Error | undefined
  try {
    await client.query('begin')
    const result = await work(client)
    await client.query('commit')
    return result
  } catch (e) {
    await client.query('rollback').catch((r: Error) => (broken = r))
    throw e
  } finally {
    client.release(broken)
  }
}

/** Rows of one statement, outside a transaction. */
export async function longRows<Row extends object>(text: string, values: unknown[] = []): Promise<Row[]> {
  return (await useLongDb().query<Row>(text, values)).rows
}
