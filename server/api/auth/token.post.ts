import { Type } from '@sinclair/typebox'
import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import { tokens } from '../../database/schema'

/** What a one-time link is for, without using it. */
export default defineEventHandler(async (event) => {
  const { token } = await readValid(event, Type.Object({ token: Type.String({ maxLength: 100 }) }, { additionalProperties: false }))
  const [found] = await useDb().select({ kind: tokens.kind }).from(tokens).where(and(eq(tokens.hash, hashToken(token)), isNull(tokens.usedAt), gt(tokens.expiresAt, sql`now()`)))
  return found ?? problem(410, 'This link was used already or has run out. Ask a lead for a new one.')
})
