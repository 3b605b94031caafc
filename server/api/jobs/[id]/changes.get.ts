import { and, eq } from 'drizzle-orm'
import { jobs } from '../../../database/schema'
import { feedSince } from '../../../services/changes'
import { queryNumber } from '../../../utils/validate'
import type { Feed } from '../../../../shared/api'

/** What others changed since a sequence number, in order. */
export default defineEventHandler(async (event): Promise<Feed> => {
  const { me, jobId } = await requireJobId(event)
  const since = queryNumber(event, 'since', { low: 0, high: 2_147_483_647, whole: true, otherwise: 0 })
  const db = useDb()
  const [job] = await db
    .select({ sequence: jobs.sequence })
    .from(jobs)
    .where(and(eq(jobs.crewId, me.crewId), eq(jobs.id, jobId)))
  if (!job) problem(404, 'No such job.')
  return feedSince(db, me.crewId, jobId, since, job.sequence)
})
