import { and, eq } from 'drizzle-orm'
import { jobs } from '../../../database/schema'

export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'lead')
  const gone = await useDb()
    .delete(jobs)
    .where(and(eq(jobs.crewId, me.crewId), eq(jobs.id, jobId)))
    .returning({ id: jobs.id })
  if (!gone.length) problem(404, 'No such job.')
  return { ok: true }
})
