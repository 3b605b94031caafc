import { readJobText } from '../../../services/document'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'

/** The job's own rows and the crew's masts near its place, in three questions to the database: who asks, the job, the masts. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const text = await readJobText(useDb(), me.crewId, me.listState, jobId)
  if (text === null) problem(404, 'No such job.')
  setResponseHeader(event, 'content-type', 'application/json')
  return text
})
