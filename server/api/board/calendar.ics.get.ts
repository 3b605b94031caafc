import { boardVisits, calendarOf } from '../../services/board'
import { queryDays, queryText } from '../../http/validate'
import { validUuid } from '../../data/check'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

/** The same as a calendar; `job` for one job's alone. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const days = queryDays(event)
  const jobId = queryText(event, 'job', 36)
  if (jobId !== null && !validUuid(jobId)) problem(404, 'No such job.')
  const list = await boardVisits(useDb(), me.crewId, { ...days, jobId })
  setResponseHeaders(event, {
    'content-type': 'text/calendar; charset=utf-8',
    'content-disposition': 'attachment; filename="visits.ics"',
    'cache-control': 'no-store',
  })
  return calendarOf(me.crewName, list, new Date())
})
