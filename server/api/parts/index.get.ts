import { asc, eq } from 'drizzle-orm'
import { parts } from '../../database/schema'

/** The crew's own parts. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const rows = await useDb().select({ data: parts.data }).from(parts).where(eq(parts.crewId, me.crewId)).orderBy(asc(parts.name))
  return rows.map(r => r.data)
})
