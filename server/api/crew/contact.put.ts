import * as Type from '@sinclair/typebox'
import { Text } from '../../../core/job'
import { agree } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

const Body = Type.Object({ phone: Text(40) }, { additionalProperties: false })

/** Whom a customer calls: it stands on every customer's page. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const { phone } = await readValid(event, Body)
  await agree(useDb(), me.crewId, { phone: phone.trim() })
  return { phone: phone.trim() }
})
