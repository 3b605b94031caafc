import { and, eq } from 'drizzle-orm'
import { mappings } from '../../database/schema'
import { mappingKey } from '../../services/mast-import'
import { queryText } from '../../utils/validate'

/** How the crew read a table with these headings last time; 204 where it never did. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const signature = mappingKey(queryText(event, 'signature', 4000) ?? '')
  const [row] = await useDb()
    .select({ rules: mappings.rules })
    .from(mappings)
    .where(and(eq(mappings.crewId, me.crewId), eq(mappings.signature, signature)))
  if (!row) return sendNoContent(event)
  return row.rules
})
