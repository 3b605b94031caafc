import { dropMastSet } from '../../../services/mast-lists'
import { validUuid } from '../../../data/check'
import { useDb } from '../../../data/db'
import { requireMember } from '../../../http/member'
import { problem } from '../../../http/problem'

/** Takes a set with its masts out of the crew's list. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const id = getRouterParam(event, 'id')
  if (!validUuid(id) || !(await dropMastSet(useDb(), me.crewId, id))) problem(404, 'No such set.')
  return { id }
})
