/** The list of jobs: a page at a time, searched and filtered by what stands with the job itself. */
import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import { jobMembers, jobs, readings, sites, spots } from '../database/schema'
import type { Db } from '../utils/db'
import { ACT_DONE } from './job-state'
import type { JobKind } from '../../core/job/schema'
import type { JobList, JobState } from '../../shared/api'

export interface JobQuery {
  search: string | null
  state: JobState | null
  kind: JobKind | null
  /** who has worked on it */
  member: string | null
  after: { changedAt: string, id: string } | null
  most: number
}

/** What is searched for stands anywhere in name, customer or address; the signs of a pattern are only themselves. */
const containing = (text: string): string => `%${text.replace(/[\\%_]/g, c => `\\${c}`)}%`

const microseconds = sql<string>`to_char(${jobs.changedAt} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`

export async function listJobs(db: Db, crewId: string, q: JobQuery): Promise<JobList> {
  const pattern = q.search ? containing(q.search) : null
  const where = and(
    eq(jobs.crewId, crewId),
    q.state ? eq(jobs.state, q.state) : undefined,
    q.kind ? eq(jobs.kind, q.kind) : undefined,
    q.member ? inArray(jobs.id, db.select({ id: jobMembers.jobId }).from(jobMembers).where(and(eq(jobMembers.crewId, crewId), eq(jobMembers.memberId, q.member)))) : undefined,
    pattern ? sql`(${jobs.name} ilike ${pattern} or ${jobs.customerName} ilike ${pattern} or ${jobs.customerAddress} ilike ${pattern})` : undefined,
  )
  const from = q.after ? sql`(${jobs.changedAt}, ${jobs.id}) < (${q.after.changedAt}::timestamptz, ${q.after.id}::uuid)` : undefined
  const [page, [count]] = await Promise.all([
    db.select({ id: jobs.id, at: microseconds }).from(jobs).where(and(where, from)).orderBy(desc(jobs.changedAt), desc(jobs.id)).limit(q.most + 1),
    q.after ? [] : db.select({ n: sql<number>`count(*)::int` }).from(jobs).where(where),
  ])
  const shown = page.slice(0, q.most)
  const last = shown.at(-1)
  return {
    jobs: shown.length ? await rowsOf(db, crewId, shown.map(s => s.id)) : [],
    next: page.length > q.most && last ? `${last.at}_${last.id}` : null,
    total: count?.n ?? null,
  }
}

/** What the list shows of a job is worked out for the page alone. */
async function rowsOf(db: Db, crewId: string, ids: string[]): Promise<JobList['jobs']> {
  const rows = await db.select({
    id: jobs.id, name: jobs.name, kind: jobs.kind, state: jobs.state, changedAt: jobs.changedAt, customerName: jobs.customerName, agreedDownMbps: jobs.agreedDownMbps,
    ...ACT_DONE,
    latDeg: sites.latDeg, lonDeg: sites.lonDeg,
    spots: sql<number>`(select count(*)::int from ${spots} where ${spots.crewId} = ${jobs.crewId} and ${spots.jobId} = ${jobs.id})`,
    readings: sql<number>`(select count(*)::int from ${readings} where ${readings.crewId} = ${jobs.crewId} and ${readings.jobId} = ${jobs.id})`,
  }).from(jobs).leftJoin(sites, and(eq(sites.crewId, jobs.crewId), eq(sites.jobId, jobs.id)))
    .where(and(eq(jobs.crewId, crewId), inArray(jobs.id, ids)))
  const place = new Map(ids.map((id, i) => [id, i]))
  return rows.map(({ scout, plan, fit, prove, keep, ...row }) => ({ ...row, acts: { scout, plan, fit, prove, keep } }))
    .sort((a, b) => place.get(a.id)! - place.get(b.id)!)
}
