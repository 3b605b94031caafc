import { listFrozen } from '../../../../services/handover'
import { sequenceOf } from '../../../../services/jobs'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'
import { problem } from '../../../../http/problem'

/** What was handed over of this job, newest first. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const db = useDb()
  if ((await sequenceOf(db, me.crewId, jobId)) === null) problem(404, 'No such job.')
  return listFrozen(db, me.crewId, jobId)
})
