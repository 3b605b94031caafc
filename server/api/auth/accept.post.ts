import { Type } from '@sinclair/typebox'
import { acceptLink } from '../../services/accounts'
import { useDb } from '../../data/db'
import { openSession } from '../../http/member'
import { rememberDevice } from '../../http/tries'
import { readValid } from '../../http/validate'

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

/** Uses a one-time link, and signs in whoever used it. */
export default defineEventHandler(async event => {
  const member = await acceptLink(useDb(), await readValid(event, Body))
  rememberDevice(event, member.id)
  await openSession(event, member)
  return { ok: true }
})
