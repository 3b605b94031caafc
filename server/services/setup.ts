/** The first start of an installation: no crew yet, so one link that makes the first; and links for more crews. */
import { and, eq, isNull } from 'drizzle-orm'
import { crews, tokens } from '../data/schema'
import { connect } from '../data/db'
import type { Db } from '../data/db'
import { hashToken, newToken } from './tokens'

const DAY_MS = 86_400_000

async function setUpToken(db: Db): Promise<string> {
  const token = newToken()
  await db
    .insert(tokens)
    .values({ hash: hashToken(token), kind: 'set-up', expiresAt: new Date(Date.now() + DAY_MS).toISOString() })
  return token
}

async function withReal<T>(url: string, work: (db: Db, crewsThere: number) => Promise<T>): Promise<T> {
  const { client, db } = connect(url, 1)
  try {
    const there = await db.select({ demo: crews.demo }).from(crews)
    if (there.some(c => c.demo))
      throw new Error('This database holds the demo crew. A real installation needs a database of its own.')
    return await work(db, there.length)
  } finally {
    await client.end()
  }
}

/**
 * @returns a fresh one-time token, or null where a crew is there
 * @throws Error where the database holds the demo: its members have no passwords and must not serve
 */
export const firstToken = (url: string): Promise<string | null> =>
  withReal(url, async (db, crewsThere) => {
    if (crewsThere) return null
    await db.delete(tokens).where(and(eq(tokens.kind, 'set-up'), isNull(tokens.usedAt)))
    return setUpToken(db)
  })

/** @returns a one-time token, good for a day, that makes one more crew and its lead */
export const crewToken = (url: string): Promise<string> => withReal(url, db => setUpToken(db))
