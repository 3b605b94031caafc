import { recordOf } from '../../services/record'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** How the crew's promises came out. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return recordOf(useDb(), me.crewId)
})
