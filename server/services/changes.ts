/**
 * Changes to a job: one transaction a batch, one savepoint a change, each change taken once.
 */
import { and, eq, sql } from 'drizzle-orm'
import { appliedChanges, documentTables, jobs } from '../database/schema'
import type { Db, Tx } from '../utils/db'
import { errorsOf } from '../utils/validate'
import { mergeFields } from '../../core/job/changes'
import type { FieldConflict } from '../../core/job/changes'
import { APPEND_ONLY, LATER_FIELDS, partialSchema, rowSchema } from '../../core/job/schema'
import type { Change, TableName } from '../../core/job/schema'
import type { ChangeResult } from '../../shared/api'

const schemas = Object.fromEntries(Object.keys(documentTables).map(t => [t, { whole: rowSchema(t as TableName), part: partialSchema(t as TableName) }])) as Record<TableName, { whole: ReturnType<typeof rowSchema>, part: ReturnType<typeof partialSchema> }>

/** Why a change cannot be taken; the rest of its batch goes on. */
export class Refusal extends Error {
  constructor(detail: string, readonly errors?: { field: string, message: string }[]) {
    super(detail)
  }
}

/** @throws NotFound as `null` where the job is not this crew's */
export async function applyBatch(db: Db, who: { crewId: string, memberId: string }, jobId: string, changes: readonly Change[], device: string | null = null): Promise<ChangeResult | null> {
  return await db.transaction(async (tx) => {
    const [known] = await tx.select({ sequence: jobs.sequence }).from(jobs).where(and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId))).for('update')
    const first = changes[0]
    const creates = first?.table === 'jobs' && first.op === 'insert' && first.rowId === jobId
    if (!known && !creates) return null
    const result: ChangeResult = { sequence: known?.sequence ?? 0, versions: [], conflicts: [], rejected: [] }
    for (const change of changes) {
      const [done] = await tx.select().from(appliedChanges).where(and(eq(appliedChanges.crewId, who.crewId), eq(appliedChanges.id, change.id)))
      if (done) {
        repeat(result, change, done)
        continue
      }
      result.sequence++
      let outcome: typeof appliedChanges.$inferInsert['outcome'] = null
      let fields = change.fields
      try {
        const { conflicts, accepted } = await tx.transaction(sp => applyOne(sp, who.crewId, jobId, change, result.sequence, device))
        fields = accepted
        result.versions.push({ table: change.table, rowId: change.rowId, version: result.sequence })
        if (conflicts.length) {
          result.conflicts.push(...conflicts)
          outcome = { conflicts }
        }
      }
      catch (e) {
        const refusal = asRefusal(e)
        if (!refusal) throw e
        // Without its job there is nothing to hang the rest on.
        if (change === first && creates && !known) throw e
        result.rejected.push({ changeId: change.id, table: change.table, rowId: change.rowId, detail: refusal.message, ...(refusal.errors ? { errors: refusal.errors } : {}) })
        outcome = { rejected: refusal.message }
        fields = {}
      }
      await tx.insert(appliedChanges).values({ crewId: who.crewId, id: change.id, jobId, sequence: result.sequence, table: change.table, rowId: change.rowId, op: change.op, fields, outcome, memberId: who.memberId, device })
    }
    await tx.update(jobs).set({ sequence: result.sequence, changedAt: sql`now()` as never }).where(and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId)))
    return result
  })
}

/** A change that came before is answered as it was then. */
function repeat(result: ChangeResult, change: Change, done: typeof appliedChanges.$inferSelect): void {
  if (done.outcome?.rejected) result.rejected.push({ changeId: change.id, table: change.table, rowId: change.rowId, detail: done.outcome.rejected })
  else result.versions.push({ table: change.table, rowId: change.rowId, version: done.sequence })
  if (done.outcome?.conflicts) result.conflicts.push(...done.outcome.conflicts as FieldConflict[])
}

function asRefusal(e: unknown): Refusal | null {
  if (e instanceof Refusal) return e
  const code = (e as { code?: string, cause?: { code?: string } }).cause?.code ?? (e as { code?: string }).code
  if (code === '23503') return new Refusal('It refers to something that is not in this job, or that other rows still need.')
  if (code === '23514' || code === '22003') return new Refusal('A value is out of range.')
  return null
}

/** The browser whose change took a sequence number. */
async function writtenBy(tx: Tx, crewId: string, jobId: string, sequence: number): Promise<string | null> {
  const [row] = await tx.select({ device: appliedChanges.device }).from(appliedChanges)
    .where(and(eq(appliedChanges.crewId, crewId), eq(appliedChanges.jobId, jobId), eq(appliedChanges.sequence, sequence)))
  return row?.device ?? null
}

async function applyOne(tx: Tx, crewId: string, jobId: string, change: Change, version: number, device: string | null): Promise<{ conflicts: FieldConflict[], accepted: Record<string, unknown> }> {
  // Every table of the document shares these columns; one cast stands here instead of thirteen branches.
  const table = documentTables[change.table] as unknown as typeof documentTables.spots
  const key = and(eq(table.crewId, crewId), eq(table.id, change.rowId))
  const [row] = await tx.select().from(table).where(key).for('update')
  if (change.table === 'jobs') {
    if (change.rowId !== jobId) throw new Refusal('A job’s changes are its own.')
    if (change.op === 'delete') throw new Refusal('A job is removed from the list of jobs.')
  }
  else if (row && row.jobId !== jobId) {
    throw new Refusal(row.jobId === null ? 'This mast belongs to the crew’s data set and is changed by importing.' : 'It is not in this job.')
  }
  if (APPEND_ONLY.has(change.table) && change.op !== 'insert' && row) throw new Refusal('A log only grows: add a correction or a withdrawal.')

  if (change.op === 'delete') {
    if (row) await tx.delete(table).where(key)
    return { conflicts: [], accepted: {} }
  }
  if (change.op === 'insert' && !row) {
    const fields = { ...LATER_FIELDS[change.table], ...change.fields }
    const errors = errorsOf(schemas[change.table].whole, fields)
    if (errors.length) throw new Refusal(errors[0]!.message, errors)
    const fieldVersions = Object.fromEntries(Object.keys(fields).map(f => [f, version]))
    const scope = change.table === 'jobs' ? {} : { jobId }
    await tx.insert(table).values({ ...fields, ...scope, crewId, id: change.rowId, version, fieldVersions } as never)
    return { conflicts: [], accepted: fields }
  }
  if (!row) throw new Refusal('It was removed by someone else meanwhile.')
  const errors = errorsOf(schemas[change.table].part, change.fields)
  if (errors.length) throw new Refusal(errors[0]!.message, errors)
  const merged = mergeFields(row, row.fieldVersions, change)
  const { accepted } = merged
  const conflicts: FieldConflict[] = []
  for (const c of merged.conflicts) {
    if (device && await writtenBy(tx, crewId, jobId, c.version) === device) accepted[c.field] = c.mine
    else conflicts.push(c)
  }
  if (Object.keys(accepted).length) {
    const fieldVersions = { ...row.fieldVersions, ...Object.fromEntries(Object.keys(accepted).map(f => [f, version])) }
    await tx.update(table).set({ ...accepted, version, fieldVersions } as never).where(key)
  }
  return { conflicts, accepted }
}
