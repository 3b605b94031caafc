import { Type } from '@sinclair/typebox'
import { and, eq, gt, sql } from 'drizzle-orm'
import { getRequestIP } from 'h3'
import { crews, members, signInAttempts } from '../../database/schema'

const Body = Type.Object({ email: Type.String({ minLength: 3, maxLength: 200 }), password: Type.String({ minLength: 1, maxLength: 200 }) }, { additionalProperties: false })

const PER_EMAIL = 8
const PER_ADDRESS = 40
/** A hash of nothing anyone knows: checking it keeps the time of a wrong address like that of a wrong password. */
let decoy: string | null = null

export default defineEventHandler(async (event) => {
  const body = await readValid(event, Body)
  const email = body.email.trim().toLowerCase()
  const address = getRequestIP(event, { xForwardedFor: true }) ?? 'unknown'
  const db = useDb()
  const recent = gt(signInAttempts.at, sql`now() - interval '15 minutes'`)
  const [byEmail] = await db.select({ n: sql<number>`count(*)::int` }).from(signInAttempts).where(and(eq(signInAttempts.email, email), recent))
  const [byAddress] = await db.select({ n: sql<number>`count(*)::int` }).from(signInAttempts).where(and(eq(signInAttempts.address, address), recent))
  if (byEmail!.n >= PER_EMAIL || byAddress!.n >= PER_ADDRESS) problem(429, 'Too many tries. Wait a quarter of an hour, or ask a lead for a new password.')
  const [row] = await db.select({ member: members, crew: crews }).from(members).innerJoin(crews, eq(crews.id, members.crewId)).where(and(eq(members.email, email), eq(members.active, true)))
  decoy ??= await hashPassword('no password at all')
  const right = await verifyPassword(row?.member.passwordHash ?? decoy, body.password)
  if (!row?.member.passwordHash || !right || (row.crew.demo && !useRuntimeConfig().demo)) {
    await db.insert(signInAttempts).values({ email, address })
    problem(401, 'Address or password is wrong.')
  }
  await db.delete(signInAttempts).where(eq(signInAttempts.email, email))
  await openSession(event, row.member)
  return { ok: true }
})
