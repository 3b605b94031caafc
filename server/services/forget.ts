/** Taking a customer's data out of a job for good: who they are, where they live, what was photographed there. */
import { and, eq, inArray, lte, sql } from 'drizzle-orm'
import { v7 as uuidv7 } from 'uuid'
import type { Change, JobDocument, Row, TableName } from '../../core/job'
import { TAKEN_OPEN } from '../../core/report'
import { appliedChanges, customerPages, documentTableOf, handovers, jobs, pictureFiles } from '../data/schema'
import type { Db, Tx } from '../data/db'
import { applyIn } from './changes'

/** A job whose customer was forgotten is called so. */
export const FORGOTTEN_NAME = 'Forgotten'

/** Fields that say who the customer is, where, or what was written about them, with what they hold afterwards. */
const EMPTIED = {
  jobs: {
    name: FORGOTTEN_NAME,
    customerName: null,
    customerContact: null,
    customerAddress: null,
    notes: null,
    today: null,
    changedLately: null,
    drillWhere: null,
  },
  sites: { latDeg: null, lonDeg: null, groundM: null },
  stops: { notes: null },
  spots: { note: null, hangs: null },
  visits: { note: null },
  sims: { iccid: null },
  networks: { passwordBy: null, passwordTo: null },
  failovers: { broke: null },
} as const satisfies { [T in TableName]?: Record<string, string | null> }
const EMPTIED_TABLES = Object.keys(EMPTIED) as (keyof typeof EMPTIED)[]

/** Rows that are about the customer's own place or kit, and go. */
const GONE = [
  'photos',
  'labels',
  'landmarks',
  'pictures',
  'floorPlans',
  'appliances',
  'usageDays',
  'signatures',
] as const satisfies readonly TableName[]

/** A failure that must not pass for success. */
class NotForgotten extends Error {}

/** @returns the rows of a job in one of its tables */
async function rowsOf<T extends TableName>(tx: Tx, who: { crewId: string }, jobId: string, name: T): Promise<Row<T>[]> {
  const table = documentTableOf(name)
  const ofJob = name === 'jobs' ? eq(table.id, jobId) : eq(table.jobId, jobId)
  return (await tx
    .select()
    .from(table)
    .where(and(eq(table.crewId, who.crewId), ofJob))) as unknown as Row<T>[]
}

/** Whoever signed for the job, or took it over open, and what they wrote. */
const SIGNED: readonly string[] = ['handover', TAKEN_OPEN]
const SIGNED_BY_NOBODY = { by: null, reason: null }

/**
 * One transaction: the rows, their history, what was refused or in conflict, pictures, and frozen handovers.
 * @returns false where there is no such job
 * @throws NotForgotten where anything of it would stay
 */
export async function forgetCustomer(db: Db, who: { crewId: string; memberId: string }, jobId: string): Promise<boolean> {
  return db.transaction(async tx => {
    const [job] = await tx
      .select({ sequence: jobs.sequence })
      .from(jobs)
      .where(and(eq(jobs.crewId, who.crewId), eq(jobs.id, jobId)))
      .for('update')
    if (!job) return false
    const changes = await changesThatForget(tx, who, jobId, job.sequence)
    const answer = await applyIn(tx, who, jobId, { sent: changes })
    if (!answer || answer.rejected.length || answer.conflicts.length) throw new NotForgotten()
    await forgetHistory(tx, who, jobId, job.sequence)
    await tx.delete(pictureFiles).where(and(eq(pictureFiles.crewId, who.crewId), eq(pictureFiles.jobId, jobId)))
    await forgetFrozen(tx, who, jobId)
    await tx.delete(customerPages).where(and(eq(customerPages.crewId, who.crewId), eq(customerPages.jobId, jobId)))
    if (await isLeft(tx, who, jobId)) throw new NotForgotten()
    return true
  })
}

/** The last changes, which empty the fields: a device that was away learns of it. */
async function changesThatForget(tx: Tx, who: { crewId: string }, jobId: string, baseVersion: number): Promise<Change[]> {
  const change = (table: TableName, rowId: string, op: Change['op'], fields: object): Change => ({
    id: uuidv7(),
    table,
    rowId,
    op,
    baseVersion,
    fields: fields as Record<string, unknown>,
  })
  const out: Change[] = []
  for (const name of EMPTIED_TABLES)
    out.push(...(await rowsOf(tx, who, jobId, name)).map(r => change(name, r.id, 'update', EMPTIED[name])))
  for (const name of GONE) out.push(...(await rowsOf(tx, who, jobId, name)).map(r => change(name, r.id, 'delete', {})))
  const signed = (await rowsOf(tx, who, jobId, 'checks')).filter(c => SIGNED.includes(c.key))
  out.push(...signed.map(r => change('checks', r.id, 'update', SIGNED_BY_NOBODY)))
  // Where a customer's own vehicle or boat stood: to a degree, some sixty miles.
  out.push(
    ...(await rowsOf(tx, who, jobId, 'stops')).map(s =>
      change('stops', s.id, 'update', { latDeg: Math.round(s.latDeg), lonDeg: Math.round(s.lonDeg), groundM: null }),
    ),
  )
  return out
}

async function forgetHistory(tx: Tx, who: { crewId: string }, jobId: string, sequence: number): Promise<void> {
  const before = and(
    eq(appliedChanges.crewId, who.crewId),
    eq(appliedChanges.jobId, jobId),
    lte(appliedChanges.sequence, sequence),
  )
  const strip = (fields: readonly string[]) =>
    sql`${appliedChanges.fields} - array[${sql.join(
      fields.map(f => sql`${f}`),
      sql`, `,
    )}]::text[]`
  const stripped: [TableName, readonly string[]][] = [
    ...EMPTIED_TABLES.map((t): [TableName, string[]] => [t, Object.keys(EMPTIED[t])]),
    ['stops', ['latDeg', 'lonDeg', 'groundM', 'notes']],
    ['checks', ['by', 'reason']],
  ]
  for (const [table, fields] of stripped)
    await tx
      .update(appliedChanges)
      .set({ fields: strip(fields) as never, outcome: null })
      .where(and(before, eq(appliedChanges.table, table)))
  await tx
    .update(appliedChanges)
    .set({ fields: {}, outcome: null })
    .where(and(before, inArray(appliedChanges.table, [...GONE])))
}

/** What was handed over keeps its figures; whoever it was handed to, and where, goes from it. */
async function forgetFrozen(tx: Tx, who: { crewId: string }, jobId: string): Promise<void> {
  const key = and(eq(handovers.crewId, who.crewId), eq(handovers.jobId, jobId))
  for (const h of await tx.select().from(handovers).where(key)) {
    const document = frozenWithout(h.document as Partial<JobDocument>)
    // Distances and bearings of masts would tell the place again.
    const result = { ...(h.result as object), masts: [], chosen: null }
    await tx
      .update(handovers)
      .set({ document, result })
      .where(and(key, eq(handovers.id, h.id)))
  }
}

export function frozenWithout(document: Partial<JobDocument>): Partial<JobDocument> {
  const out = { ...document } as Record<string, { key?: string }[]>
  for (const t of EMPTIED_TABLES) if (out[t]) out[t] = out[t].map(r => ({ ...r, ...EMPTIED[t] }))
  for (const t of GONE) if (out[t]) out[t] = []
  if (out.stops) out.stops = out.stops.map(s => ({ ...s, latDeg: 0, lonDeg: 0, groundM: null }))
  if (out.checks) out.checks = out.checks.map(c => (SIGNED.includes(c.key ?? '') ? { ...c, ...SIGNED_BY_NOBODY } : c))
  return out as Partial<JobDocument>
}

async function isLeft(tx: Tx, who: { crewId: string }, jobId: string): Promise<boolean> {
  for (const name of GONE) if ((await rowsOf(tx, who, jobId, name)).length) return true
  for (const name of EMPTIED_TABLES)
    for (const row of await rowsOf(tx, who, jobId, name))
      if (Object.entries(EMPTIED[name]).some(([f, v]) => ((row as unknown as Record<string, unknown>)[f] ?? null) !== v))
        return true
  return false
}
