import { and, eq, inArray, sql } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import { appliedChanges, handovers } from '../../../database/schema'
import { applyBatch } from '../../../services/changes'

const FIELDS = ['customerName', 'customerContact', 'customerAddress']

/** Takes the customer's data out of the job, of its log of changes, and of frozen handovers. */
export default defineEventHandler(async (event) => {
  const { me, jobId, snapshot } = await requireJob(event, 'lead')
  const db = useDb()
  const mine = and(eq(appliedChanges.crewId, me.crewId), eq(appliedChanges.jobId, jobId), inArray(appliedChanges.table, ['jobs']))
  await db.transaction(async (tx) => {
    await tx.update(appliedChanges).set({ fields: sql`${appliedChanges.fields} - ${sql.raw(`array[${FIELDS.map(f => `'${f}'`).join(',')}]::text[]`)}` as never, outcome: null }).where(mine)
    for (const field of FIELDS) {
      await tx.update(handovers).set({ document: sql`jsonb_set(${handovers.document}, ${sql.raw(`'{jobs,0,${field}}'`)}, 'null'::jsonb)` as never })
        .where(and(eq(handovers.crewId, me.crewId), eq(handovers.jobId, jobId)))
    }
  })
  return await applyBatch(db, me, jobId, [{ id: uuidv7(), table: 'jobs', rowId: jobId, op: 'update', baseVersion: snapshot.sequence, fields: Object.fromEntries(FIELDS.map(f => [f, null])) }])
})
