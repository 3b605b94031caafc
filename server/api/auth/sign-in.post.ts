import { Type } from '@sinclair/typebox'
import { and, eq } from 'drizzle-orm'
import { crews, members } from '../../database/schema'
import { passwordFits } from '../../utils/passwords'
import { countTry, rememberDevice } from '../../utils/tries'

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
  const [row] = await useDb()
    .select({ member: members, demo: crews.demo })
    .from(members)
    .innerJoin(crews, eq(crews.id, members.crewId))
    .where(and(eq(members.email, email), eq(members.active, true)))
  const taken = row && (!row.demo || useRuntimeConfig().demo) ? row.member : null
  const attempt = await countTry(event, email, taken?.id ?? null)
  if (!(await passwordFits(taken?.passwordHash ?? null, body.password)) || !taken) problem(401, 'Address or password is wrong.')
  await attempt.succeed()
  rememberDevice(event, taken.id)
  await openSession(event, taken)
  return { ok: true }
})
