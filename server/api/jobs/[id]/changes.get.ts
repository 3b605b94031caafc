import { and, asc, eq, gt } from 'drizzle-orm'
import { appliedChanges, jobs } from '../../../database/schema'
import type { FeedItem } from '../../../../shared/api'

/** What others changed since a sequence number, in order. */
export default defineEventHandler(async (event): Promise<{ sequence: number, items: FeedItem[] }> => {
  const { me, jobId } = await requireJobId(event)
  const since = Number(getQuery(event).since ?? 0)
  if (!Number.isInteger(since) || since < 0) problem(422, 'since must be a whole number, 0 or more.', [{ field: 'since', message: 'must be a whole number' }])
  const db = useDb()
  const [job] = await db.select({ sequence: jobs.sequence }).from(jobs).where(and(eq(jobs.crewId, me.crewId), eq(jobs.id, jobId)))
  if (!job) problem(404, 'No such job.')
  const rows = await db.select().from(appliedChanges)
    .where(and(eq(appliedChanges.crewId, me.crewId), eq(appliedChanges.jobId, jobId), gt(appliedChanges.sequence, since)))
    .orderBy(asc(appliedChanges.sequence)).limit(2000)
  const last = rows[rows.length - 1]?.sequence ?? job.sequence
  return {
    sequence: last,
    items: rows.filter(r => !r.outcome?.rejected).map(r => ({ id: r.id, table: r.table as FeedItem['table'], rowId: r.rowId, op: r.op, fields: r.fields, sequence: r.sequence })),
  }
})
