import { and, eq } from 'drizzle-orm'
import { stops } from '../../../database/schema'
import { mastsNear } from '../../../services/document'

/** The crew's masts near one of the job's stops, for preparing it before leaving coverage. */
export default defineEventHandler(async (event) => {
  const { me, jobId } = await requireJobId(event)
  const stopId = String(getQuery(event).stop ?? '')
  const [stop] = validUuid(stopId) ? await useDb().select().from(stops).where(and(eq(stops.crewId, me.crewId), eq(stops.jobId, jobId), eq(stops.id, stopId))) : []
  if (!stop) problem(404, 'No such stop.')
  return mastsNear(useDb(), me.crewId, stop)
})
