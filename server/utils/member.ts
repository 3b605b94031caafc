import { and, eq, lt, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { getCookie } from 'h3'
import { LRUCache } from 'lru-cache'
import { v7 as uuidv7 } from 'uuid'
import { crews, mastSets, members, sessions } from '../database/schema'
import { compiled, useDb } from './db'
import { problem } from './problem'

export type Role = 'lead' | 'installer' | 'viewer'
export interface Me {
  crewId: string
  crewName: string
  memberId: string
  name: string
  email: string
  role: Role
  demo: boolean
  /** what the crew's lists of masts are known by: another where one of them has changed */
  listState: string
}

const RANK: Record<Role, number> = { viewer: 0, installer: 1, lead: 2 }
const DAYS = 30

/** Who stands behind a session. What the crew's lists of masts are known by is read with it: any change to one changes it. */
const memberOfSession = compiled<Omit<Me, 'memberId'> & { memberId: string }>(sql`
  select c.id as "crewId", c.name as "crewName", m.id as "memberId", m.name, m.email, m.role, c.demo,
    (select coalesce(md5(string_agg(s.id::text || s.imported_at::text || s.xmin::text, '' order by s.id)), '')
      from ${mastSets} s where s.crew_id = c.id) as "listState"
  from ${sessions} x join ${members} m on m.crew_id = x.crew_id and m.id = x.member_id join ${crews} c on c.id = x.crew_id
  where x.crew_id = ${sql.placeholder('crew')} and x.id = ${sql.placeholder('session')} and x.expires_at > now() and m.active`)

interface Seal {
  user?: { memberId: string; crewId: string }
  secure?: { sessionId: string }
}

/**
 * Cookies that were unsealed lately: unsealing derives keys, the same ones each time. Whether the session stands is
 * asked of the database every time.
 */
const unsealed = new LRUCache<string, Seal>({ max: 2000, ttl: 5 * 60_000 })

async function sealOf(event: H3Event): Promise<Seal> {
  const cookie = getCookie(event, useRuntimeConfig().session.name ?? 'nuxt-session')
  if (!cookie) return {}
  let seal = unsealed.get(cookie)
  if (!seal) {
    const { user, secure } = (await getUserSession(event)) as Seal
    seal = { user, secure }
    if (user && secure) unsealed.set(cookie, seal)
  }
  return seal
}

/** The member behind the request's sealed cookie, checked against the session kept here. */
export async function requireMember(event: H3Event, least: Role = 'viewer'): Promise<Me> {
  const { user, secure } = await sealOf(event)
  if (!user || !secure?.sessionId) problem(401, 'Sign in to go on; what is not sent yet is kept on this device.')
  const [me] = await memberOfSession(useDb(), { crew: user.crewId, session: secure.sessionId })
  if (!me || (me.demo && !useRuntimeConfig().demo))
    problem(401, 'The session has ended: sign in again. What is not sent yet is kept on this device.')
  if (RANK[me.role] < RANK[least]) problem(403, `A ${me.role} may not do this; ask a ${least}.`)
  return me
}

/** Opens a session: a row here, its id sealed in the cookie. */
export async function openSession(event: H3Event, member: typeof members.$inferSelect): Promise<void> {
  const id = uuidv7()
  await useDb()
    .insert(sessions)
    .values({ crewId: member.crewId, id, memberId: member.id, expiresAt: new Date(Date.now() + DAYS * 86_400_000).toISOString() })
  await replaceUserSession(event, { user: { memberId: member.id, crewId: member.crewId }, secure: { sessionId: id } } as never)
}

export async function closeSession(event: H3Event): Promise<void> {
  const { user, secure } = (await getUserSession(event)) as { user?: { crewId: string }; secure?: { sessionId: string } }
  if (user && secure)
    await useDb()
      .delete(sessions)
      .where(and(eq(sessions.crewId, user.crewId), eq(sessions.id, secure.sessionId)))
  await clearUserSession(event)
}

/** Sessions that have run out. */
export const forgetSessions = (): Promise<unknown> =>
  useDb()
    .delete(sessions)
    .where(lt(sessions.expiresAt, sql`now()`))
