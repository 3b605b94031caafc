import { and, eq } from 'drizzle-orm'
import { parts } from '../../database/schema'

/** Takes a part out of the crew's list; designs keep their copies. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[\w.-]{1,40}$/.test(id)) problem(404, 'There is no such part in your crew’s list.')
  const gone = await useDb()
    .delete(parts)
    .where(and(eq(parts.crewId, me.crewId), eq(parts.id, id)))
    .returning({ id: parts.id })
  if (!gone.length) problem(404, 'There is no such part in your crew’s list.')
  return sendNoContent(event)
})
