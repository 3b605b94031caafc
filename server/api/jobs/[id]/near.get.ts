import { nearText } from '../../../services/document'
import { stopOf } from '../../../services/jobs'
import { validUuid } from '../../../data/check'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'
import { queryText } from '../../../http/validate'

/** The crew's masts near one of the job's stops, for preparing it before leaving coverage. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const stopId = queryText(event, 'stop', 36)
  const at = validUuid(stopId) ? await stopOf(useDb(), me.crewId, jobId, stopId) : null
  if (!at) problem(404, 'No such stop.')
  setResponseHeader(event, 'content-type', 'application/json')
  return nearText(useDb(), me.crewId, me.listState, { at })
})
