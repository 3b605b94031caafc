import { and, eq } from 'drizzle-orm'
import { stops } from '../../../database/schema'
import { nearText } from '../../../services/document'
import { queryText } from '../../../utils/validate'

/** The crew's masts near one of the job's stops, for preparing it before leaving coverage. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const stopId = queryText(event, 'stop', 36)
  const [stop] = validUuid(stopId)
    ? await useDb()
        .select()
        .from(stops)
        .where(and(eq(stops.crewId, me.crewId), eq(stops.jobId, jobId), eq(stops.id, stopId)))
    : []
  if (!stop) problem(404, 'No such stop.')
  setResponseHeader(event, 'content-type', 'application/json')
  return nearText(useDb(), me.crewId, me.listState, { latDeg: stop.latDeg, lonDeg: stop.lonDeg })
})
