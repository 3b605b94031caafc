import { Type } from '@sinclair/typebox'
import { isMember } from '../../services/accounts'
import { newLink } from '../../services/tokens'
import { validUuid } from '../../data/check'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'
import { readValid } from '../../http/validate'

const Body = Type.Union([
  Type.Object(
    { kind: Type.Literal('invite'), role: Type.Union([Type.Literal('lead'), Type.Literal('installer'), Type.Literal('viewer')]) },
    { additionalProperties: false },
  ),
  Type.Object({ kind: Type.Literal('reset'), memberId: Type.String({ maxLength: 40 }) }, { additionalProperties: false }),
])

/** A lead's one-time link, good for three days: for a new member, or for a member's new password. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const body = await readValid(event, Body)
  const db = useDb()
  if (body.kind === 'reset' && !(validUuid(body.memberId) && (await isMember(db, me.crewId, body.memberId))))
    problem(404, 'No such member.')
  const token = await newLink(db, {
    crewId: me.crewId,
    kind: body.kind,
    madeBy: me.memberId,
    memberId: body.kind === 'reset' ? body.memberId : null,
    role: body.kind === 'invite' ? body.role : null,
    expiresAt: new Date(Date.now() + 3 * 86_400_000).toISOString(),
  })
  return { path: `/join#${token}` }
})
