import { Type } from '@sinclair/typebox'
import { and, eq, isNull, ne, or } from 'drizzle-orm'
import { crews, members, sessions, tokens } from '../../../database/schema'

const Body = Type.Object(
  {
    role: Type.Optional(Type.Union([Type.Literal('lead'), Type.Literal('installer'), Type.Literal('viewer')])),
    active: Type.Optional(Type.Boolean()),
  },
  { additionalProperties: false, minProperties: 1 },
)

/** A lead changes a member's role or shuts the member out; the last lead stays. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const body = await readValid(event, Body)
  const id = getRouterParam(event, 'id')
  if (!validUuid(id)) problem(404, 'No such member.')
  return await useDb().transaction(async tx => {
    // One change of roles in a crew at a time: two leads who lower each other would wait for each other.
    await tx.select({ id: crews.id }).from(crews).where(eq(crews.id, me.crewId)).for('no key update')
    const others = await tx
      .select({ id: members.id })
      .from(members)
      .where(and(eq(members.crewId, me.crewId), eq(members.role, 'lead'), eq(members.active, true), ne(members.id, id)))
      .for('update')
    if (!others.length && (body.active === false || (body.role && body.role !== 'lead')))
      problem(409, 'The crew needs one lead: name another first.')
    const [changed] = await tx
      .update(members)
      .set(body)
      .where(and(eq(members.crewId, me.crewId), eq(members.id, id)))
      .returning({ id: members.id })
    if (!changed) problem(404, 'No such member.')
    if (body.active === false) {
      await tx.delete(sessions).where(and(eq(sessions.crewId, me.crewId), eq(sessions.memberId, id)))
      // Links of theirs and links for them die with it.
      await tx
        .delete(tokens)
        .where(and(eq(tokens.crewId, me.crewId), or(eq(tokens.madeBy, id), eq(tokens.memberId, id)), isNull(tokens.usedAt)))
    }
    return { ok: true }
  })
})
