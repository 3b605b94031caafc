import { mappingOf } from '../../services/mast-lists'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { queryText } from '../../http/validate'

/** How the crew read a table with these headings last time; 204 where it never did. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const rules = await mappingOf(useDb(), me.crewId, queryText(event, 'signature', 4000) ?? '')
  return rules ?? sendNoContent(event)
})
