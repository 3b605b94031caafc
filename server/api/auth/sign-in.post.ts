import { Type } from '@sinclair/typebox'
import { memberByEmail } from '../../services/accounts'
import { passwordFits } from '../../services/passwords'
import { useDb } from '../../data/db'
import { openSession } from '../../http/member'
import { problem } from '../../http/problem'
import { countTry, rememberDevice } from '../../http/tries'
import { readValid } from '../../http/validate'

const Body = Type.Object(
  {
    email: Type.String({ minLength: 3, maxLength: 200 }),
    password: Type.String({ minLength: 1, maxLength: 200 }),
  },
  { additionalProperties: false },
)

/** Signs a member in. The try is counted before the password is looked at. */
export default defineEventHandler(async event => {
  const body = await readValid(event, Body)
  const email = body.email.trim().toLowerCase()
  const member = await memberByEmail(useDb(), email, !!useRuntimeConfig().demo)
  const attempt = await countTry(event, email, member?.id ?? null)
  if (!(await passwordFits(member?.passwordHash ?? null, body.password)) || !member) problem(401, 'Address or password is wrong.')
  await attempt.succeed()
  rememberDevice(event, member.id)
  await openSession(event, member)
  return { ok: true }
})
