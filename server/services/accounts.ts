/** Members of crews: who signs in, by what, and for how long. */
import { and, asc, eq, isNull, lt, ne, or, sql } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { crews, mastSets, members, rateLimits, sessions, tokens } from '../data/schema'
import { compiled } from '../data/db'
import type { Db } from '../data/db'
import type { Me, Role } from '../../shared/api'
import { makeHash } from './passwords'
import { refuse } from './refused'
import { goodToken, takeToken } from './tokens'

const DAYS = 30

export type Member = typeof members.$inferSelect

/** Who stands behind a session. What the crew's lists of masts are known by is read with it: any change to one changes it. */
export const memberOfSession = compiled<Me>(sql`
  select c.id as "crewId", c.name as "crewName", m.id as "memberId", m.name, m.email, m.role, c.demo,
    (select coalesce(md5(string_agg(s.id::text || s.imported_at::text || s.xmin::text, '' order by s.id)), '')
      from ${mastSets} s where s.crew_id = c.id) as "listState"
  from ${sessions} x join ${members} m on m.crew_id = x.crew_id and m.id = x.member_id join ${crews} c on c.id = x.crew_id
  where x.crew_id = ${sql.placeholder('crew')} and x.id = ${sql.placeholder('session')} and x.expires_at > now() and m.active`)

/** @returns the id of a session that stands a month */
export async function beginSession(db: Db, member: Pick<Member, 'crewId' | 'id'>): Promise<string> {
  const id = uuidv7()
  const expiresAt = new Date(Date.now() + DAYS * 86_400_000).toISOString()
  await db.insert(sessions).values({ crewId: member.crewId, id, memberId: member.id, expiresAt })
  return id
}

export const endSession = (db: Db, crewId: string, id: string): Promise<unknown> =>
  db.delete(sessions).where(and(eq(sessions.crewId, crewId), eq(sessions.id, id)))

/** Sessions that have run out. */
export const forgetSessions = (db: Db): Promise<unknown> => db.delete(sessions).where(lt(sessions.expiresAt, sql`now()`))

/** Counters of tries that ended more than an hour ago. */
export const forgetTries = (db: Db): Promise<unknown> =>
  db.delete(rateLimits).where(lt(rateLimits.expire, Date.now() - 3_600_000))

/** @param served  whether the demo's members may come in here */
export async function memberByEmail(db: Db, email: string, served: boolean): Promise<Member | null> {
  const [row] = await db
    .select({ member: members, demo: crews.demo })
    .from(members)
    .innerJoin(crews, eq(crews.id, members.crewId))
    .where(and(eq(members.email, email), eq(members.active, true)))
  return row && (!row.demo || served) ? row.member : null
}

/** The demo's member of a role: the first there was; others may have been invited, and shut out again. */
export async function demoMember(db: Db, role: Role): Promise<Member | null> {
  const [row] = await db
    .select({ member: members })
    .from(members)
    .innerJoin(crews, eq(crews.id, members.crewId))
    .where(and(eq(crews.demo, true), eq(members.role, role), eq(members.active, true)))
    .orderBy(asc(members.createdAt), asc(members.id))
    .limit(1)
  return row?.member ?? null
}

/** What a member's keys are made of; it outlives a password. */
export async function sealingSecret(db: Db, crewId: string, memberId: string): Promise<Uint8Array> {
  const [row] = await db
    .select({ secret: members.sealingSecret })
    .from(members)
    .where(and(eq(members.crewId, crewId), eq(members.id, memberId)))
  return row?.secret ?? refuse(404, 'No such member.')
}

export interface Accepting {
  token: string
  password: string
  name?: string
  email?: string
  crew?: string
}

/**
 * Uses a one-time link: set-up (makes a crew and its lead), invitation (makes a member), or new password.
 * @throws Refused where the link is good no more, something is missing, or the address is taken
 */
export async function acceptLink(db: Db, { token: given, password, name, email, crew }: Accepting): Promise<Member> {
  const gone = () => refuse(410, 'This link was used already, was replaced or has run out. Ask a lead for a new one.')
  // Work on the password comes after the token was found good: a stranger with none costs one look.
  if (!(await goodToken(db, given))) gone()
  const passwordHash = await makeHash(password)
  return db.transaction(async tx => {
    const token = (await takeToken(tx, given)) ?? gone()
    if (token.kind === 'reset') {
      const key = and(eq(members.crewId, token.crewId!), eq(members.id, token.memberId!))
      const [changed] = await tx.update(members).set({ passwordHash }).where(key).returning()
      await tx.delete(sessions).where(and(eq(sessions.crewId, token.crewId!), eq(sessions.memberId, token.memberId!)))
      return changed ?? refuse(410, 'This member is gone.')
    }
    if (!name || !email)
      return refuse(422, 'Name and address are needed.', [{ field: name ? 'email' : 'name', message: 'is needed' }])
    let { crewId } = token
    if (token.kind === 'set-up') {
      if (!crew) return refuse(422, 'The crew needs a name.', [{ field: 'crew', message: 'is needed' }])
      crewId = uuidv7()
      await tx.insert(crews).values({ id: crewId, name: crew })
    }
    const address = email.trim().toLowerCase()
    const role = token.kind === 'set-up' ? 'lead' : token.role!
    const [made] = await tx
      .insert(members)
      .values({ crewId: crewId!, id: uuidv7(), name, email: address, role, passwordHash })
      .onConflictDoNothing({ target: members.email })
      .returning()
    const taken = [{ field: 'email', value: address, message: 'is taken' }]
    return made ?? refuse(409, 'Someone already signs in with this address.', taken)
  })
}

/** Whether a crew has such a member. */
export async function isMember(db: Db, crewId: string, id: string): Promise<boolean> {
  const found = await db
    .select({ id: members.id })
    .from(members)
    .where(and(eq(members.crewId, crewId), eq(members.id, id)))
  return found.length > 0
}

/**
 * Changes a member's role or shuts the member out; the last lead stays.
 * @throws Refused where the crew would be without a lead, or has no such member
 */
export async function changeMember(db: Db, crewId: string, id: string, to: { role?: Role; active?: boolean }): Promise<void> {
  await db.transaction(async tx => {
    // One change of roles in a crew at a time: two leads who lower each other would wait for each other.
    await tx.select({ id: crews.id }).from(crews).where(eq(crews.id, crewId)).for('no key update')
    const others = await tx
      .select({ id: members.id })
      .from(members)
      .where(and(eq(members.crewId, crewId), eq(members.role, 'lead'), eq(members.active, true), ne(members.id, id)))
      .for('update')
    if (!others.length && (to.active === false || (to.role && to.role !== 'lead')))
      refuse(409, 'The crew needs one lead: name another first.')
    const [changed] = await tx
      .update(members)
      .set(to)
      .where(and(eq(members.crewId, crewId), eq(members.id, id)))
      .returning({ id: members.id })
    if (!changed) refuse(404, 'No such member.')
    if (to.active !== false) return
    await tx.delete(sessions).where(and(eq(sessions.crewId, crewId), eq(sessions.memberId, id)))
    // Links of theirs and links for them die with it.
    const theirs = or(eq(tokens.madeBy, id), eq(tokens.memberId, id))
    await tx.delete(tokens).where(and(eq(tokens.crewId, crewId), theirs, isNull(tokens.usedAt)))
  })
}
