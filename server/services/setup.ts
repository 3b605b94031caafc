/** The first start of an installation: no crew yet, so one link that makes the first. */
import { and, eq, isNull } from 'drizzle-orm'
import { crews, tokens } from '../database/schema'
import { connect } from '../utils/db'
import { hashToken, newToken } from '../utils/tokens'

/**
 * @returns a fresh one-time token, or null where a crew is there
 * @throws Error where the database holds the demo: its members have no passwords and must not serve
 */
export async function firstToken(url: string): Promise<string | null> {
  const { client, db } = connect(url, 1)
  try {
    const there = await db.select({ demo: crews.demo }).from(crews)
    if (there.some(c => c.demo)) throw new Error('This database holds the demo crew. A real installation needs a database of its own.')
    if (there.length) return null
    await db.delete(tokens).where(and(eq(tokens.kind, 'set-up'), isNull(tokens.usedAt)))
    const token = newToken()
    await db.insert(tokens).values({ hash: hashToken(token), kind: 'set-up', expiresAt: new Date(Date.now() + 86_400_000).toISOString() })
    return token
  }
  finally {
    await client.end()
  }
}
