import { crewWhole } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return crewWhole(useDb(), me.crewId)
})
