/** Taking a customer's data out of a job for good. */
import { and, eq, isNotNull, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import type { Change } from '../../core/job/schema'
import { appliedChanges, handovers, jobs, visits } from '../database/schema'
import type { Db } from '../utils/db'
import { applyIn } from './changes'

/** Fields that say who the customer is, or were written about them: of the job, and of each visit. */
const FORGOTTEN = {
  jobs: ['customerName', 'customerContact', 'customerAddress'],
  visits: ['note'],
} as const
type Forgetting = keyof typeof FORGOTTEN

/** A failure that must not pass for success. */
class NotForgotten extends Error {}

const emptied = (table: Forgetting): Record<string, null> => Object.fromEntries(FORGOTTEN[table].map(f => [f, null]))
const namesOf = (table: Forgetting): SQL =>
  sql`array[${sql.join(
    FORGOTTEN[table].map(f => sql`${f}`),
    sql`, `,
  )}]::text[]`

/**
 * One transaction: the rows, their history, what was refused or in conflict, and frozen handovers.
 * @returns false where there is no such job
 * @throws NotForgotten where anything of it would stay
 */
export async function forgetCustomer(db: Db, who: { crewId: string; memberId: string }, jobId: string): Promise<boolean> {
  return db.transaction(async tx => {
    const ofJob = and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId))
    const ofVisits = and(eq(visits.crewId, who.crewId), eq(visits.jobId, jobId), isNotNull(visits.note))
    const [job] = await tx.select({ sequence: jobs.sequence }).from(jobs).where(ofJob).for('update')
    if (!job) return false
    const noted = await tx.select({ id: visits.id }).from(visits).where(ofVisits)
    const emptying = (table: Forgetting, rowId: string): Change => ({
      id: uuidv7(),
      table,
      rowId,
      op: 'update',
      baseVersion: job.sequence,
      fields: emptied(table),
    })
    const answer = await applyIn(tx, who, jobId, [emptying('jobs', jobId), ...noted.map(v => emptying('visits', v.id))])
    if (!answer || answer.rejected.length || answer.conflicts.length) throw new NotForgotten()
    // The last changes, which empty the fields, keep them: a device that was away learns of it.
    for (const table of ['jobs', 'visits'] as const)
      await tx
        .update(appliedChanges)
        .set({ fields: sql`${appliedChanges.fields} - ${namesOf(table)}` as never, outcome: null })
        .where(
          and(
            eq(appliedChanges.crewId, who.crewId),
            eq(appliedChanges.jobId, jobId),
            eq(appliedChanges.table, table),
            sql`${appliedChanges.sequence} <= ${job.sequence}`,
          ),
        )
    await tx
      .update(handovers)
      .set({ document: frozenWithout() as never })
      .where(and(eq(handovers.crewId, who.crewId), eq(handovers.jobId, jobId)))
    const named = sql`coalesce(${jobs.customerName}, ${jobs.customerContact}, ${jobs.customerAddress}) is not null`
    const [left] = await tx.select({ row: jobs.id }).from(jobs).where(and(ofJob, named))
    const [note] = await tx.select({ row: visits.id }).from(visits).where(ofVisits)
    if (left || note) throw new NotForgotten()
    return true
  })
}

/** A frozen document with the same fields emptied; one of before there were visits has none of them. */
function frozenWithout(): SQL {
  const { document } = handovers
  const job = sql`(${document} #> '{jobs,0}') || ${JSON.stringify(emptied('jobs'))}::jsonb`
  const rows = sql`(
    select coalesce(jsonb_agg(v || ${JSON.stringify(emptied('visits'))}::jsonb), '[]'::jsonb)
    from jsonb_array_elements(${document} -> 'visits') v
  )`
  return sql`jsonb_set(
    case when ${document} ? 'visits' then jsonb_set(${document}, '{visits}', ${rows}) else ${document} end,
    '{jobs,0}',
    ${job}
  )`
}
