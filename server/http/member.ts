/** The member behind a request. */
import type { H3Event } from 'h3'
import { getCookie } from 'h3'
import { LRUCache } from 'lru-cache'
import type { Me, Role } from '../../shared/api'
import { useDb } from '../data/db'
import { beginSession, endSession, memberOfSession } from '../services/accounts'
import type { Member } from '../services/accounts'
import { problem } from './problem'

const RANK: Record<Role, number> = { viewer: 0, installer: 1, lead: 2 }
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

/** Opens a session: a row in the database, its id sealed in the cookie. */
export async function openSession(event: H3Event, member: Pick<Member, 'crewId' | 'id'>): Promise<void> {
  const sessionId = await beginSession(useDb(), member)
  await replaceUserSession(event, { user: { memberId: member.id, crewId: member.crewId }, secure: { sessionId } } as never)
}

export async function closeSession(event: H3Event): Promise<void> {
  const { user, secure } = (await getUserSession(event)) as { user?: { crewId: string }; secure?: { sessionId: string } }
  if (user && secure) await endSession(useDb(), user.crewId, secure.sessionId)
  await clearUserSession(event)
}
