import { Type } from '@sinclair/typebox'
import { and, asc, eq } from 'drizzle-orm'
import { crews, members } from '../../database/schema'

const Body = Type.Object(
  { role: Type.Optional(Type.Union([Type.Literal('lead'), Type.Literal('installer'), Type.Literal('viewer')])) },
  { additionalProperties: false },
)

/** One click into the demo crew; only where the demo is served. */
export default defineEventHandler(async event => {
  if (!useRuntimeConfig().demo) problem(404, 'No demo here.')
  const { role = 'lead' } = await readValid(event, Body)
  const [row] = await useDb()
    .select({ member: members })
    .from(members)
    .innerJoin(crews, eq(crews.id, members.crewId))
    .where(and(eq(crews.demo, true), eq(members.role, role), eq(members.active, true)))
    // The first there was: others may have been invited, and shut out again.
    .orderBy(asc(members.createdAt), asc(members.id))
    .limit(1)
  if (!row) problem(404, 'The demo crew is not loaded.')
  await openSession(event, row.member)
  return { ok: true }
})
