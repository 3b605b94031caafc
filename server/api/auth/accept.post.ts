import { Type } from '@sinclair/typebox'
import { and, eq } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { crews, members, sessions } from '../../database/schema'
import { makeHash } from '../../utils/passwords'
import { goodToken, takeToken } from '../../utils/tokens'
import { rememberDevice } from '../../utils/tries'

const Body = Type.Object(
  {
    token: Type.String({ minLength: 10, maxLength: 100 }),
    password: Type.String({ minLength: 10, maxLength: 200 }),
    name: Type.Optional(Type.String({ minLength: 1, maxLength: 120 })),
    email: Type.Optional(Type.String({ minLength: 3, maxLength: 200, pattern: '^[^@\\s]+@[^@\\s]+$' })),
    crew: Type.Optional(Type.String({ minLength: 1, maxLength: 120 })),
  },
  { additionalProperties: false },
)

const gone = (): never => problem(410, 'This link was used already, was replaced or has run out. Ask a lead for a new one.')

/** Uses a one-time link: set-up (makes a crew and its lead), invitation (makes a member), or new password. */
export default defineEventHandler(async event => {
  const body = await readValid(event, Body)
  // Work on the password comes after the token was found good: a stranger with none costs one look.
  if (!(await goodToken(useDb(), body.token))) gone()
  const passwordHash = await makeHash(body.password)
  const member = await useDb().transaction(async tx => {
    const token = (await takeToken(tx, body.token)) ?? gone()
    if (token.kind === 'reset') {
      const key = and(eq(members.crewId, token.crewId!), eq(members.id, token.memberId!))
      const [changed] = await tx.update(members).set({ passwordHash }).where(key).returning()
      await tx.delete(sessions).where(and(eq(sessions.crewId, token.crewId!), eq(sessions.memberId, token.memberId!)))
      return changed ?? problem(410, 'This member is gone.')
    }
    if (!body.name || !body.email)
      problem(422, 'Name and address are needed.', [{ field: body.name ? 'email' : 'name', message: 'is needed' }])
    let crewId = token.crewId
    if (token.kind === 'set-up') {
      if (!body.crew) problem(422, 'The crew needs a name.', [{ field: 'crew', message: 'is needed' }])
      crewId = uuidv7()
      await tx.insert(crews).values({ id: crewId, name: body.crew })
    }
    const email = body.email.trim().toLowerCase()
    const [made] = await tx
      .insert(members)
      .values({
        crewId: crewId!,
        id: uuidv7(),
        name: body.name,
        email,
        role: token.kind === 'set-up' ? 'lead' : token.role!,
        passwordHash,
      })
      .onConflictDoNothing({ target: members.email })
      .returning()
    return (
      made ?? problem(409, 'Someone already signs in with this address.', [{ field: 'email', value: email, message: 'is taken' }])
    )
  })
  rememberDevice(event, member.id)
  await openSession(event, member)
  return { ok: true }
})
