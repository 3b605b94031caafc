/**
 * Changes to a job: one transaction a batch, one savepoint a change, each change taken once.
 */
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { v7 as uuidv7 } from 'uuid'
import { appliedChanges, documentTableOf, jobMembers, jobs, sites } from '../data/schema'
import type { Db, Tx } from '../data/db'
import { constraintOf, isRefusedValue, sqlStateOf } from '../data/sql-state'
import { errorsOf, validUuid } from '../data/check'
import {
  APPEND_ONLY,
  ChangeSchema,
  DEFAULT_SITE,
  LATER_FIELDS,
  mergeFields,
  modernised,
  partialSchema,
  repairedSiteId,
  rowsBehind,
  rowSchema,
  TABLES,
} from '../../core/job'
import type { Change, FieldConflict, JobKind, TableName } from '../../core/job'
import type { ChangeResult, Feed } from '../../shared/api'
import { settleState, STATE_TABLES } from './job-state'

const schemas = Object.fromEntries(
  TABLES.map(table => {
    return [table, { whole: rowSchema(table), part: partialSchema(table) }]
  }),
) as Record<TableName, { whole: ReturnType<typeof rowSchema>; part: ReturnType<typeof partialSchema> }>

/** Why a change cannot be taken; the rest of its batch goes on. */
class Refusal extends Error {
  constructor(
    detail: string,
    readonly errors?: { field: string; message: string }[],
  ) {
    super(detail)
  }
}

type Applied = typeof appliedChanges.$inferSelect
/** What is remembered of a change that was taken, whenever. */
type Taken = Pick<Applied, 'jobId' | 'sequence' | 'outcome'>
interface Who {
  crewId: string
  memberId: string
}

/** A feed no longer than this goes with an answer; a browser further behind reads the job whole. */
export const MOST_FEED = 2000

/**
 * Takes a batch: one transaction, one savepoint a change. What cannot be taken is refused alone and
 * said; the rest goes on.
 * @param sent  changes as they came; each is checked here
 * @returns null where the job is not this crew's
 */
export async function applyBatch(
  db: Db,
  who: Who,
  jobId: string,
  { sent, from = {} }: { sent: readonly unknown[]; from?: { device?: string | null; since?: number | null } },
): Promise<ChangeResult | null> {
  const result = await db.transaction(tx => applyIn(tx, who, jobId, { sent, from }))
  // Only what is committed is remembered: a batch that was rolled back comes again and writes it then.
  if (result && result.versions.length) workers.set(workerKey(who, jobId), true)
  return result
}

/** The same within a transaction that does more. */
export async function applyIn(
  tx: Tx,
  who: Who,
  jobId: string,
  { sent, from = {} }: { sent: readonly unknown[]; from?: { device?: string | null; since?: number | null } },
): Promise<ChangeResult | null> {
  const ofJob = and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId))
  const look = () => tx.select({ sequence: jobs.sequence }).from(jobs).where(ofJob).for('update')
  let [known] = await look()
  if (!known) {
    // There is no row to wait for yet: of two that would make the job at once the second finds it made.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${who.crewId} ${jobId}`}, 0))`)
    ;[known] = await look()
  }
  const first = sent[0] as Partial<Change> | null
  const creates = first?.table === 'jobs' && first.op === 'insert' && first.rowId === jobId
  if (!known && !creates) return null
  const ids = sent.map(c => (c as { id?: unknown } | null)?.id).filter(validUuid)
  const before = ids.length
    ? await tx
        .select()
        .from(appliedChanges)
        .where(and(eq(appliedChanges.crewId, who.crewId), inArray(appliedChanges.id, ids)))
    : []
  const batch = new Batch(tx, who, jobId, { device: from.device ?? null, began: known?.sequence ?? 0 })
  for (const done of before) batch.done.set(done.id, done)
  for (const change of sent) await batch.take(change, !known && change === first)
  const { result } = batch
  if (batch.made || known) await batch.close()
  if (from.since !== undefined && from.since !== null)
    Object.assign(result, await feedSince(tx, who.crewId, jobId, { since: from.since, sequence: result.sequence }))
  return result
}

/** Rows written at one go. */
const ROWS_AT_ONCE = 500

/**
 * Writes a whole job that is not there yet: its inserts, row by row checked before, in few statements.
 * @returns why it is not to be had, and nothing written; null where it was taken
 */
export async function applyFresh(tx: Tx, who: Who, jobId: string, changes: readonly Change[]): Promise<string | null> {
  const { crewId, memberId } = who
  const key = { crewId, jobId }
  try {
    await tx.transaction(async sp => {
      // A job names only rows that are there: what it points at comes last.
      const [first, ...rest] = changes
      const pointing = { baselineSpotId: null, designId: null, stopId: null }
      await sp
        .insert(jobs)
        .values({ ...first!.fields, ...pointing, crewId, id: jobId, version: 1, fieldVersions: versionsOf(first!, 1) } as never)
      for (let i = 0; i < rest.length;) {
        const { table, op } = rest[i]!
        let end = i + 1
        while (
          end < rest.length &&
          end - i < ROWS_AT_ONCE &&
          rest[end]!.table === table &&
          op === 'insert' &&
          rest[end]!.op === 'insert'
        )
          end++
        const run = rest.slice(i, end)
        const numbered = run.map((c, k) => ({ c, version: i + k + 2 }))
        const into = documentTableOf(table)
        if (op === 'insert') {
          const rows = numbered.map(({ c, version }) => ({
            ...c.fields,
            ...key,
            id: c.rowId,
            version,
            fieldVersions: versionsOf(c, version),
          }))
          await sp.insert(into).values(rows as never)
        } else {
          const { fields, rowId } = run[0]!
          await sp
            .update(into)
            .set({ ...fields, version: i + 2 } as never)
            .where(and(eq(into.crewId, crewId), eq(into.id, rowId)))
        }
        i = end
      }
      for (let i = 0; i < changes.length; i += ROWS_AT_ONCE)
        await sp.insert(appliedChanges).values(
          changes.slice(i, i + ROWS_AT_ONCE).map((c, k) => ({
            ...key,
            id: c.id,
            sequence: i + k + 1,
            table: c.table,
            rowId: c.rowId,
            op: c.op,
            fields: c.fields,
            outcome: null,
            memberId,
            device: null,
          })),
        )
      await sp
        .update(jobs)
        .set({ sequence: changes.length, changedAt: sql`now()` as never })
        .where(and(eq(jobs.crewId, crewId), eq(jobs.id, jobId)))
      await sp
        .insert(jobMembers)
        .values({ ...key, memberId })
        .onConflictDoNothing()
      await settleState(sp, crewId, jobId)
    })
    return null
  } catch (e) {
    const refusal = asRefusal(e)
    if (!refusal) throw e
    return refusal.message
  }
}
const versionsOf = (c: Change, version: number) => Object.fromEntries(Object.keys(c.fields).map(f => [f, version]))

/** Who was written down lately as a worker on which job: said once is enough. */
const workers = new LRUCache<string, true>({ max: 5000, ttl: 10 * 60_000 })
const workerKey = (who: Who, jobId: string): string => `${who.crewId} ${jobId} ${who.memberId}`

/** One batch on its way into a job. */
class Batch {
  readonly result: ChangeResult
  /** the job's own insert was taken */
  made = false
  /** what became of changes that came before, in an earlier batch or in this one */
  readonly done = new Map<string, Taken>()
  /** to be written at one go when the batch is through */
  private readonly kept: (typeof appliedChanges.$inferInsert)[] = []
  private readonly touched = new Set<TableName>()

  /** @param from  the device that sent it, and the job's sequence before it */
  constructor(
    private readonly tx: Tx,
    private readonly who: Who,
    private readonly jobId: string,
    private readonly from: { device: string | null; began: number },
  ) {
    this.result = { sequence: from.began, versions: [], conflicts: [], rejected: [] }
  }

  /** @param begins  it is the insert of a job that is not there: without it there is nothing to hang the rest on */
  async take(sent: unknown, begins: boolean): Promise<void> {
    const errors = errorsOf(ChangeSchema, sent)
    if (errors.length) return this.refuse(sent as Partial<Change>, new Refusal(errors[0]!.message, errors))
    const change = sent as Change
    const { tx, who, jobId, result } = this
    const done = this.done.get(change.id)
    if (done && done.jobId !== jobId) return this.refuse(change, new Refusal('A change of this number went to another job.'))
    if (done) return repeat(result, change, done)
    if (!begins && !this.made && !this.from.began && !(await this.isThere())) {
      return this.refuse(change, new Refusal('The job itself was not taken.'))
    }
    for (const behind of rowsBehind(change, jobId)) await this.makeOnce(behind)
    result.sequence++
    let outcome: Applied['outcome'] = null
    let fields = change.fields
    try {
      const modern = modernised(change, jobId)
      const wrong = shapeOf(modern)
      if (wrong) throw wrong
      const { conflicts, accepted } = await tx.transaction(sp =>
        applyOne({ tx: sp, crewId: who.crewId, jobId, mine: n => this.isMine(n) }, modern, result.sequence),
      )
      fields = accepted
      if (begins) this.made = true
      this.touched.add(change.table)
      result.versions.push({ changeId: change.id, table: change.table, rowId: change.rowId, version: result.sequence })
      if (conflicts.length) {
        result.conflicts.push(...conflicts)
        outcome = { conflicts }
      }
    } catch (e) {
      const refusal = asRefusal(e)
      if (!refusal) throw e
      this.refuse(change, refusal)
      if (begins) {
        result.sequence--
        return
      }
      outcome = { rejected: refusal.message, ...(refusal.errors ? { errors: refusal.errors } : {}) }
      fields = {}
    }
    const kept = {
      crewId: who.crewId,
      id: change.id,
      jobId,
      sequence: result.sequence,
      table: change.table,
      rowId: change.rowId,
      op: change.op,
      fields,
      outcome,
      memberId: who.memberId,
      device: this.from.device,
    }
    this.kept.push(kept)
    this.done.set(change.id, kept)
  }

  /** Whether a sequence number was taken by this very browser, in this batch or before. */
  private async isMine(sequence: number): Promise<boolean> {
    if (!this.from.device) return false
    return sequence > this.from.began || (await writtenBy(this.tx, this.who.crewId, this.jobId, sequence)) === this.from.device
  }

  /** What an older app's reading names since, where it is not there yet. */
  private async makeOnce(row: ReturnType<typeof rowsBehind>[number]): Promise<void> {
    const table = documentTableOf(row.table)
    const [there] = await this.tx
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.crewId, this.who.crewId), eq(table.id, row.rowId)))
    if (there) return
    const fields = row.fields as Record<string, unknown>
    await this.take({ id: uuidv7(), table: row.table, rowId: row.rowId, op: 'insert', baseVersion: 0, fields }, false)
  }

  /** A job of sequence 0 may be one that an older program made. */
  private async isThere(): Promise<boolean> {
    return !!(
      await this.tx
        .select({ id: jobs.id })
        .from(jobs)
        .where(and(eq(jobs.crewId, this.who.crewId), eq(jobs.id, this.jobId)))
    ).length
  }

  private refuse(change: Partial<Change> | null, why: Refusal): void {
    this.result.rejected.push({
      changeId: String(change?.id ?? ''),
      table: change?.table as TableName,
      rowId: String(change?.rowId ?? ''),
      detail: why.message,
      ...(why.errors ? { errors: why.errors } : {}),
    })
  }

  /** A job that was made without a site gets what is usual of its kind. */
  private async siteFor(): Promise<void> {
    const ofJob = and(eq(sites.crewId, this.who.crewId), eq(sites.jobId, this.jobId))
    const [there] = await this.tx.select({ id: sites.id }).from(sites).where(ofJob)
    if (there) return
    const [job] = await this.tx
      .select({ kind: jobs.kind })
      .from(jobs)
      .where(and(eq(jobs.crewId, this.who.crewId), eq(jobs.id, this.jobId)))
    const fields = DEFAULT_SITE[job!.kind as JobKind]
    const rowId = repairedSiteId(this.jobId)
    await this.take({ id: uuidv7(), table: 'sites', rowId, op: 'insert', baseVersion: 0, fields }, false)
  }

  async close(): Promise<void> {
    const { tx, who, jobId, result } = this
    if (result.sequence === this.from.began) return
    if (this.made) await this.siteFor()
    await tx
      .update(jobs)
      .set({ sequence: result.sequence, changedAt: sql`now()` as never })
      .where(and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId)))
    if (!workers.has(workerKey(who, jobId))) {
      await tx.insert(jobMembers).values({ crewId: who.crewId, jobId, memberId: who.memberId }).onConflictDoNothing()
    }
    for (let i = 0; i < this.kept.length; i += ROWS_AT_ONCE)
      await tx.insert(appliedChanges).values(this.kept.slice(i, i + ROWS_AT_ONCE))
    if ([...this.touched].some(t => STATE_TABLES.has(t))) await settleState(tx, who.crewId, jobId)
  }
}

/** What became of the job after a sequence number, in order; `more` where it is too much for one answer. */
export async function feedSince(
  db: Db | Tx,
  crewId: string,
  jobId: string,
  { since, sequence }: { since: number; sequence: number },
): Promise<Feed> {
  if (since >= sequence) return { sequence, items: [], more: false, ...(since > sequence ? { reset: true } : {}) }
  const rows = await db
    .select()
    .from(appliedChanges)
    .where(and(eq(appliedChanges.crewId, crewId), eq(appliedChanges.jobId, jobId), gt(appliedChanges.sequence, since)))
    .orderBy(asc(appliedChanges.sequence))
    .limit(MOST_FEED)
  const more = rows.length === MOST_FEED && rows.at(-1)!.sequence < sequence
  return {
    sequence: more ? rows.at(-1)!.sequence : sequence,
    more,
    items: rows
      .filter(r => !r.outcome?.rejected)
      .map(r => ({
        id: r.id,
        table: r.table as TableName,
        rowId: r.rowId,
        op: r.op,
        fields: r.fields,
        sequence: r.sequence,
      })),
  }
}

/** A change that came before is answered as it was then. */
function repeat(result: ChangeResult, change: Change, done: Taken): void {
  const { id: changeId, table, rowId } = change
  const { rejected, errors, conflicts } = done.outcome ?? {}
  if (rejected) result.rejected.push({ changeId, table, rowId, detail: rejected, ...(errors ? { errors } : {}) })
  else result.versions.push({ changeId, table, rowId, version: done.sequence })
  if (conflicts) result.conflicts.push(...(conflicts as FieldConflict[]))
}

/** @returns why the database will not hold it; null where that is a failure and no refusal */
function asRefusal(e: unknown): Refusal | null {
  if (e instanceof Refusal) return e
  if (!isRefusedValue(e)) return null
  const state = sqlStateOf(e)!
  if (state === '23503') {
    const field = /^ref:\w+\.(\w+)$/.exec(constraintOf(e) ?? '')?.[1]
    const detail = 'It refers to something that is not in this job, or that other rows still need.'
    return new Refusal(detail, field ? [{ field, message: 'refers to something that is not in this job' }] : undefined)
  }
  if (constraintOf(e) === 'one_site_a_job') return new Refusal('A job has one site, and this one has its own already.')
  if (state === '23514' || state === '22003') return new Refusal('A value is out of range.')
  if (state.startsWith('22')) return new Refusal('A value is of a kind that cannot be kept.')
  return new Refusal('It does not agree with what is there.')
}

/** The browser whose change took a sequence number. */
async function writtenBy(tx: Tx, crewId: string, jobId: string, sequence: number): Promise<string | null> {
  const [row] = await tx
    .select({ device: appliedChanges.device })
    .from(appliedChanges)
    .where(and(eq(appliedChanges.crewId, crewId), eq(appliedChanges.jobId, jobId), eq(appliedChanges.sequence, sequence)))
  return row?.device ?? null
}

/** @returns why no row whatever could take these values: told before the database is asked */
function shapeOf(change: Change): Refusal | null {
  if (change.op === 'delete') return null
  const { whole, part } = schemas[change.table]
  if (!errorsOf(part, change.fields).length) return null
  const errors =
    change.op === 'insert' ? errorsOf(whole, { ...LATER_FIELDS[change.table], ...change.fields }) : errorsOf(part, change.fields)
  return errors.length ? new Refusal(errors[0]!.message, errors) : null
}

interface Into {
  tx: Tx
  crewId: string
  jobId: string
  /** whether a sequence number is of the browser that sends */
  mine: (sequence: number) => Promise<boolean>
}

/** @param change  in today's words, its values of a shape that its table takes */
async function applyOne(
  { tx, crewId, jobId, mine }: Into,
  change: Change,
  version: number,
): Promise<{ conflicts: FieldConflict[]; accepted: Record<string, unknown> }> {
  // Every table of the document shares these columns; one cast stands here instead of thirteen branches.
  const table = documentTableOf(change.table)
  const key = and(eq(table.crewId, crewId), eq(table.id, change.rowId))
  const [row] = await tx.select().from(table).where(key).for('update')
  if (change.table === 'jobs') {
    if (change.rowId !== jobId) throw new Refusal('A job’s changes are its own.')
    if (change.op === 'delete') throw new Refusal('A job is removed from the list of jobs.')
  } else if (row && row.jobId !== jobId) {
    throw new Refusal(
      row.jobId === null ? 'This mast belongs to the crew’s data set and is changed by importing.' : 'It is not in this job.',
    )
  }
  if (APPEND_ONLY.has(change.table) && change.op !== 'insert' && row)
    throw new Refusal('A log only grows: add a correction or a withdrawal.')

  if (change.op === 'delete') {
    if (change.table === 'sites') throw new Refusal('A job keeps its site: change it, or remove the whole job.')
    if (row) await tx.delete(table).where(key)
    return { conflicts: [], accepted: {} }
  }
  if (change.op === 'insert' && !row) {
    const fields = { ...LATER_FIELDS[change.table], ...change.fields }
    // A job names only rows that are there: what an older app wrote into its first row is named later.
    if (change.table === 'jobs') Object.assign(fields, { baselineSpotId: null, designId: null, stopId: null })
    const errors = errorsOf(schemas[change.table].whole, fields)
    if (errors.length) throw new Refusal(errors[0]!.message, errors)
    const fieldVersions = Object.fromEntries(Object.keys(fields).map(f => [f, version]))
    const scope = change.table === 'jobs' ? {} : { jobId }
    await tx.insert(table).values({ ...fields, ...scope, crewId, id: change.rowId, version, fieldVersions } as never)
    return { conflicts: [], accepted: fields }
  }
  if (!row) throw new Refusal('It was removed by someone else meanwhile.')
  const merged = mergeFields(row, row.fieldVersions, change)
  const { accepted } = merged
  const conflicts: FieldConflict[] = []
  for (const c of merged.conflicts) {
    if (await mine(c.version)) accepted[c.field] = c.mine
    else conflicts.push(c)
  }
  if (Object.keys(accepted).length) {
    const fieldVersions = { ...row.fieldVersions, ...Object.fromEntries(Object.keys(accepted).map(f => [f, version])) }
    await tx
      .update(table)
      .set({ ...accepted, version, fieldVersions } as never)
      .where(key)
  }
  return { conflicts, accepted }
}
