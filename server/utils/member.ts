import { and, eq, gt, lt, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { v7 as uuidv7 } from 'uuid'
import { crews, members, sessions } from '../database/schema'
import { useDb } from './db'
import { problem } from './problem'

export type Role = 'lead' | 'installer' | 'viewer'
export interface Me { crewId: string, crewName: string, memberId: string, name: string, email: string, role: Role, demo: boolean }

const RANK: Record<Role, number> = { viewer: 0, installer: 1, lead: 2 }
const DAYS = 30

/** The member behind the request's sealed cookie, checked against the session kept here. */
export async function requireMember(event: H3Event, least: Role = 'viewer'): Promise<Me> {
  const { user, secure } = await getUserSession(event) as { user?: { memberId: string, crewId: string }, secure?: { sessionId: string } }
  if (!user || !secure?.sessionId) problem(401, 'Sign in to go on; what is not sent yet is kept on this device.')
  const [row] = await useDb().select({ member: members, crew: crews }).from(sessions)
    .innerJoin(members, and(eq(members.crewId, sessions.crewId), eq(members.id, sessions.memberId)))
    .innerJoin(crews, eq(crews.id, sessions.crewId))
    .where(and(eq(sessions.crewId, user.crewId), eq(sessions.id, secure.sessionId), gt(sessions.expiresAt, sql`now()`), eq(members.active, true)))
  if (!row || (row.crew.demo && !useRuntimeConfig().demo)) problem(401, 'The session has ended: sign in again. What is not sent yet is kept on this device.')
  const me: Me = { crewId: row.crew.id, crewName: row.crew.name, memberId: row.member.id, name: row.member.name, email: row.member.email, role: row.member.role, demo: row.crew.demo }
  if (RANK[me.role] < RANK[least]) problem(403, `A ${me.role} may not do this; ask a ${least}.`)
  return me
}

/** Opens a session: a row here, its id sealed in the cookie. */
export async function openSession(event: H3Event, member: typeof members.$inferSelect): Promise<void> {
  const id = uuidv7()
  await useDb().insert(sessions).values({ crewId: member.crewId, id, memberId: member.id, expiresAt: new Date(Date.now() + DAYS * 86_400_000).toISOString() })
  await replaceUserSession(event, { user: { memberId: member.id, crewId: member.crewId }, secure: { sessionId: id } } as never)
}

export async function closeSession(event: H3Event): Promise<void> {
  const { user, secure } = await getUserSession(event) as { user?: { crewId: string }, secure?: { sessionId: string } }
  if (user && secure) await useDb().delete(sessions).where(and(eq(sessions.crewId, user.crewId), eq(sessions.id, secure.sessionId)))
  await clearUserSession(event)
}

/** Sessions that have run out. */
export const forgetSessions = (): Promise<unknown> => useDb().delete(sessions).where(lt(sessions.expiresAt, sql`now()`))
