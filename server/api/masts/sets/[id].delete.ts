import { and, eq } from 'drizzle-orm'
import { mastSets } from '../../../database/schema'

/** Takes a set with its masts out of the crew's list. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const id = getRouterParam(event, 'id')
  const gone = validUuid(id)
    ? await useDb()
        .delete(mastSets)
        .where(and(eq(mastSets.crewId, me.crewId), eq(mastSets.id, id)))
        .returning({ id: mastSets.id })
    : []
  if (!gone.length) problem(404, 'No such set.')
  return { id }
})
