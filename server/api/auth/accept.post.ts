import { Type } from '@sinclair/typebox'
import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { crews, members, sessions, tokens } from '../../database/schema'

const Body = Type.Object({
  token: Type.String({ minLength: 10, maxLength: 100 }),
  password: Type.String({ minLength: 10, maxLength: 200 }),
  name: Type.Optional(Type.String({ minLength: 1, maxLength: 120 })),
  email: Type.Optional(Type.String({ minLength: 3, maxLength: 200, pattern: '^[^@\\s]+@[^@\\s]+$' })),
  crew: Type.Optional(Type.String({ minLength: 1, maxLength: 120 })),
}, { additionalProperties: false })

/** Uses a one-time link: first set-up (makes a crew and its lead), invitation (makes a member), or new password. */
export default defineEventHandler(async (event) => {
  const body = await readValid(event, Body)
  const passwordHash = await hashPassword(body.password)
  const member = await useDb().transaction(async (tx) => {
    const [token] = await tx.update(tokens).set({ usedAt: new Date().toISOString() })
      .where(and(eq(tokens.hash, hashToken(body.token)), isNull(tokens.usedAt), gt(tokens.expiresAt, sql`now()`))).returning()
    if (!token) problem(410, 'This link was used already or has run out. Ask a lead for a new one.')
    if (token.kind === 'reset') {
      const key = and(eq(members.crewId, token.crewId!), eq(members.id, token.memberId!))
      const [changed] = await tx.update(members).set({ passwordHash }).where(key).returning()
      await tx.delete(sessions).where(and(eq(sessions.crewId, token.crewId!), eq(sessions.memberId, token.memberId!)))
      return changed ?? problem(410, 'This member is gone.')
    }
    if (!body.name || !body.email) problem(422, 'Name and address are needed.', [{ field: body.name ? 'email' : 'name', message: 'is needed' }])
    let crewId = token.crewId
    if (token.kind === 'set-up') {
      if (!body.crew) problem(422, 'The crew needs a name.', [{ field: 'crew', message: 'is needed' }])
      crewId = uuidv7()
      await tx.insert(crews).values({ id: crewId, name: body.crew })
    }
    const email = body.email.trim().toLowerCase()
    const [taken] = await tx.select({ id: members.id }).from(members).where(eq(members.email, email))
    if (taken) problem(409, 'Someone already signs in with this address.', [{ field: 'email', value: email, message: 'is taken' }])
    const [made] = await tx.insert(members).values({ crewId: crewId!, id: uuidv7(), name: body.name, email, role: token.kind === 'set-up' ? 'lead' : token.role!, passwordHash }).returning()
    return made!
  })
  await openSession(event, member)
  return { ok: true }
})
