/** Taking a customer's data out of a job for good. */
import { and, eq, sql } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { appliedChanges, handovers, jobs } from '../database/schema'
import type { Db } from '../utils/db'
import { applyIn } from './changes'

/** Fields of a job that say who the customer is. */
const CUSTOMER_FIELDS = ['customerName', 'customerContact', 'customerAddress'] as const

/** A failure that must not pass for success. */
class NotForgotten extends Error {}

/**
 * One transaction: the row, its history, what was refused or in conflict, and frozen handovers.
 * @returns false where there is no such job
 * @throws NotForgotten where anything of it would stay
 */
export async function forgetCustomer(db: Db, who: { crewId: string; memberId: string }, jobId: string): Promise<boolean> {
  return db.transaction(async tx => {
    const ofJob = and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId))
    const [job] = await tx.select({ sequence: jobs.sequence }).from(jobs).where(ofJob).for('update')
    if (!job) return false
    const fields = Object.fromEntries(CUSTOMER_FIELDS.map(f => [f, null]))
    const answer = await applyIn(tx, who, jobId, [
      { id: uuidv7(), table: 'jobs', rowId: jobId, op: 'update', baseVersion: job.sequence, fields },
    ])
    if (!answer || answer.rejected.length || answer.conflicts.length) throw new NotForgotten()
    const names = sql`array[${sql.join(
      CUSTOMER_FIELDS.map(f => sql`${f}`),
      sql`, `,
    )}]::text[]`
    // The last change, which empties the fields, keeps them: a device that was away learns of it.
    await tx
      .update(appliedChanges)
      .set({ fields: sql`${appliedChanges.fields} - ${names}` as never, outcome: null })
      .where(
        and(
          eq(appliedChanges.crewId, who.crewId),
          eq(appliedChanges.jobId, jobId),
          eq(appliedChanges.table, 'jobs'),
          sql`${appliedChanges.sequence} < ${answer.sequence}`,
        ),
      )
    const empty = sql`${JSON.stringify(fields)}::jsonb`
    await tx
      .update(handovers)
      .set({
        document: sql`jsonb_set(${handovers.document}, '{jobs,0}', (${handovers.document} #> '{jobs,0}') || ${empty})` as never,
      })
      .where(and(eq(handovers.crewId, who.crewId), eq(handovers.jobId, jobId)))
    const [left] = await tx
      .select({ row: jobs.id })
      .from(jobs)
      .where(and(ofJob, sql`coalesce(${jobs.customerName}, ${jobs.customerContact}, ${jobs.customerAddress}) is not null`))
    if (left) throw new NotForgotten()
    return true
  })
}
