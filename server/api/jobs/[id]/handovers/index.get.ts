import { and, eq } from 'drizzle-orm'
import { jobs } from '../../../../database/schema'
import { listFrozen } from '../../../../services/handover'

/** What was handed over of this job, newest first. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const [job] = await useDb()
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.crewId, me.crewId), eq(jobs.id, jobId)))
  if (!job) problem(404, 'No such job.')
  return listFrozen(useDb(), me.crewId, jobId)
})
