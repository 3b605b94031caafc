import { removeJob } from '../../../services/jobs'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'

export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'lead')
  if (!(await removeJob(useDb(), me.crewId, jobId))) problem(404, 'No such job.')
  return { ok: true }
})
