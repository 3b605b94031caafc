import { ownParts } from '../../services/parts'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** The crew's own parts. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return ownParts(useDb(), me.crewId)
})
