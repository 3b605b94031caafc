/** One-time links carry a random token; only its hash is kept. */
import { createHash, randomBytes } from 'node:crypto'
import { and, eq, gt, isNull, lt, ne, or, sql } from 'drizzle-orm'
import { crews, members, tokens } from '../data/schema'
import type { Db, Tx } from '../data/db'

export const newToken = (): string => randomBytes(24).toString('base64url')
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')

type Token = typeof tokens.$inferSelect

/** Not used, not run out, and its maker is a lead of the crew now (or it was the installation itself); no calendar's address. */
const good = () =>
  and(
    ne(tokens.kind, 'calendar'),
    isNull(tokens.usedAt),
    gt(tokens.expiresAt, sql`now()`),
    or(
      isNull(tokens.madeBy),
      sql`exists (select 1 from ${members} where ${members.crewId} = ${tokens.crewId} and ${members.id} = ${tokens.madeBy}
        and ${members.active} and ${members.role} = 'lead')`,
    ),
  )

/** @returns the token where it would be taken now, without using it */
export async function goodToken(db: Db | Tx, token: string): Promise<Token | null> {
  const [found] = await db
    .select()
    .from(tokens)
    .where(and(eq(tokens.hash, hashToken(token)), good()))
  return found ?? null
}

/** Uses a token once; of two at the same time one gets it. */
export async function takeToken(tx: Tx, token: string): Promise<Token | null> {
  const [taken] = await tx
    .update(tokens)
    .set({ usedAt: new Date().toISOString() })
    .where(and(eq(tokens.hash, hashToken(token)), good()))
    .returning()
  return taken ?? null
}

/** Makes a one-time link; an older one for the same purpose ends now, not when this one is used. */
export async function newLink(
  db: Db,
  made: Omit<typeof tokens.$inferInsert, 'hash' | 'kind'> & { kind: 'invite' | 'reset' },
): Promise<string> {
  const token = newToken()
  await db.transaction(async tx => {
    if (made.kind === 'reset')
      await tx
        .delete(tokens)
        .where(and(eq(tokens.crewId, made.crewId!), eq(tokens.memberId, made.memberId!), eq(tokens.kind, 'reset')))
    await tx.insert(tokens).values({ ...made, hash: hashToken(token) })
  })
  return token
}

/** How long a calendar's address is good, days. */
const CALENDAR_DAYS = 400

/** Makes the one address under which a member's calendar program reads the crew's visits; the one before it ends. */
export async function newCalendar(db: Db, who: { crewId: string; memberId: string }): Promise<string> {
  const token = newToken()
  await db.transaction(async tx => {
    await endCalendar(tx, who)
    const expiresAt = new Date(Date.now() + CALENDAR_DAYS * 86_400_000).toISOString()
    await tx.insert(tokens).values({ ...who, hash: hashToken(token), kind: 'calendar', madeBy: who.memberId, expiresAt })
  })
  return token
}

export const endCalendar = (db: Db | Tx, { crewId, memberId }: { crewId: string; memberId: string }): Promise<unknown> =>
  db.delete(tokens).where(and(eq(tokens.crewId, crewId), eq(tokens.memberId, memberId), eq(tokens.kind, 'calendar')))

/** @returns the crew whose visits an address reads; null where it ended, ran out, or its member was shut out */
export async function calendarCrew(db: Db, token: string): Promise<{ crewId: string; crewName: string } | null> {
  const [found] = await db
    .select({ crewId: crews.id, crewName: crews.name })
    .from(tokens)
    .innerJoin(members, and(eq(members.crewId, tokens.crewId), eq(members.id, tokens.memberId), eq(members.active, true)))
    .innerJoin(crews, eq(crews.id, members.crewId))
    .where(and(eq(tokens.hash, hashToken(token)), eq(tokens.kind, 'calendar'), gt(tokens.expiresAt, sql`now()`)))
  return found ?? null
}

/** Links that have run out or were used are kept a week, to say what became of them, and then removed. */
export const forgetTokens = (db: Db): Promise<unknown> =>
  db.delete(tokens).where(lt(tokens.expiresAt, sql`now() - interval '7 days'`))
