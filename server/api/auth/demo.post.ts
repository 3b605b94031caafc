import { Type } from '@sinclair/typebox'
import { demoMember } from '../../services/accounts'
import { useDb } from '../../data/db'
import { openSession } from '../../http/member'
import { problem } from '../../http/problem'
import { readValid } from '../../http/validate'

const Body = Type.Object(
  { role: Type.Optional(Type.Union([Type.Literal('lead'), Type.Literal('installer'), Type.Literal('viewer')])) },
  { additionalProperties: false },
)

/** One click into the demo crew; only where the demo is served. */
export default defineEventHandler(async event => {
  if (!useRuntimeConfig().demo) problem(404, 'No demo here.')
  const { role = 'lead' } = await readValid(event, Body)
  const member = await demoMember(useDb(), role)
  if (!member) problem(404, 'The demo crew is not loaded.')
  await openSession(event, member)
  return { ok: true }
})
