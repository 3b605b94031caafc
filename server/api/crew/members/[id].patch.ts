import { Type } from '@sinclair/typebox'
import { changeMember } from '../../../services/accounts'
import { validUuid } from '../../../data/check'
import { useDb } from '../../../data/db'
import { requireMember } from '../../../http/member'
import { problem } from '../../../http/problem'
import { readValid } from '../../../http/validate'

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
  await changeMember(useDb(), me.crewId, id, body)
  return { ok: true }
})
