import { and, desc, eq, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { checks, designs, jobs, nodes, readings, sites, speedRuns, spots } from '../../database/schema'
import type { JobListItem } from '../../../shared/api'

export default defineEventHandler(async (event): Promise<JobListItem[]> => {
  const me = await requireMember(event)
  const has = (table: typeof readings | typeof nodes | typeof designs | typeof speedRuns | typeof checks, also: SQL) => sql<boolean>`exists (select 1 from ${table} where ${table.crewId} = ${jobs.crewId} and ${table.jobId} = ${jobs.id} and ${also})`
  const rows = await useDb().select({
    id: jobs.id, name: jobs.name, kind: jobs.kind, changedAt: jobs.changedAt, customerName: jobs.customerName, agreedDownMbps: jobs.agreedDownMbps,
    scout: has(readings, sql`${readings.phase} = 'before'`), plan: has(nodes, sql`${nodes.role} = 'outside'`), fit: has(designs, sql`${designs.aimedDeg} is not null`), prove: has(speedRuns, sql`${speedRuns.phase} = 'after'`), keep: has(checks, sql`${checks.key} = 'handover' and ${checks.done}`),
    latDeg: sites.latDeg, lonDeg: sites.lonDeg,
    spots: sql<number>`(select count(*)::int from ${spots} where ${spots.crewId} = ${jobs.crewId} and ${spots.jobId} = ${jobs.id})`,
    readings: sql<number>`(select count(*)::int from ${readings} where ${readings.crewId} = ${jobs.crewId} and ${readings.jobId} = ${jobs.id})`,
  }).from(jobs).leftJoin(sites, and(eq(sites.crewId, jobs.crewId), eq(sites.jobId, jobs.id)))
    .where(eq(jobs.crewId, me.crewId)).orderBy(desc(jobs.changedAt))
  return rows.map(({ scout, plan, fit, prove, keep, ...row }) => ({ ...row, acts: { scout, plan, fit, prove, keep } }))
})
