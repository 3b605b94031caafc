/** The list of jobs, by the day of the next visit: a page at a time, searched and filtered by what stands with the job itself. */
import { sql } from 'drizzle-orm'
import { jobMembers, jobs, readings, sites, spots } from '../data/schema'
import { compiled } from '../data/db'
import type { Db } from '../data/db'
import { ACT_DONE, CARD_BEGUN, stands } from './job-state'
import type { JobKind } from '../../core/job'
import type { JobList, JobState } from '../../shared/api'

export interface JobQuery {
  search: string | null
  state: JobState | null
  kind: JobKind | null
  /** who has worked on it */
  member: string | null
  after: { queued: string; changedAt: string; id: string } | null
  most: number
}

/** What is searched for stands anywhere in name, customer or address; the signs of a pattern are only themselves. */
const containing = (text: string): string => `%${text.toLowerCase().replace(/[\\%_]/g, c => `\\${c}`)}%`

const at = (name: string) => sql.placeholder(name)
const WANTED = sql`${jobs.crewId} = ${at('crew')}
  and (${at('state')}::text is null or ${jobs.state} = ${at('state')})
  and (${at('kind')}::text is null or ${jobs.kind} = ${at('kind')})
  and (${at('pattern')}::text is null or ${jobs.searched} like ${at('pattern')})
  and (${at('member')}::uuid is null or exists (select 1 from ${jobMembers} w
    where w.crew_id = ${jobs.crewId} and w.member_id = ${at('member')} and w.job_id = ${jobs.id}))`

/** What the list shows of a job is worked out for the page alone. */
const page = compiled<JobList['jobs'][number] & Record<keyof typeof ACT_DONE, boolean> & { queued: string; cursor: string }>(sql`
  select ${jobs.id}, ${jobs.name}, ${jobs.kind}, ${jobs.state}, ${jobs.customerName} as "customerName",
    ${jobs.customerAddress} as "customerAddress",
    ${jobs.agreedDownMbps} as "agreedDownMbps", ${jobs.nextOn}::text as "nextOn",
    ${jobs.methodId} is not null as fleet, ${CARD_BEGUN} as "cardBegun", ${jobs.queued}::text as queued,
    to_char(${jobs.changedAt} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as cursor,
    ${sql.join(
      Object.entries(ACT_DONE).map(([act, done]) => sql`${done} as ${sql.identifier(act)}`),
      sql`, `,
    )},
    site.lat_deg as "latDeg", site.lon_deg as "lonDeg",
    (select count(*)::int from ${spots} where ${spots.crewId} = ${jobs.crewId} and ${spots.jobId} = ${jobs.id}) as spots,
    (select count(*)::int from ${readings} where ${readings.crewId} = ${jobs.crewId} and ${readings.jobId} = ${jobs.id}
      and ${stands(readings)}) as readings,
    (select coalesce(array_agg(w.member_id), '{}') from ${jobMembers} w
      where w.crew_id = ${jobs.crewId} and w.job_id = ${jobs.id}) as workers
  from (select * from ${jobs} where ${WANTED}
      and (${at('queued')}::date is null or ${jobs.queued} >= ${at('queued')}::date and (${jobs.queued} > ${at('queued')}::date
        or (${jobs.changedAt}, ${jobs.id}) < (${at('changed')}::timestamptz, ${at('after')}::uuid)))
    order by ${jobs.queued}, ${jobs.changedAt} desc, ${jobs.id} desc limit ${at('most')}::int) as jobs
  left join lateral (select lat_deg, lon_deg from ${sites} s where s.crew_id = ${jobs.crewId}
    and s.job_id = ${jobs.id} order by s.id limit 1) site on true
  order by ${jobs.queued}, ${jobs.changedAt} desc, ${jobs.id} desc`)

const count = compiled<{ n: number }>(sql`select count(*)::int as n from ${jobs} where ${WANTED}`)

export async function listJobs(db: Db, crewId: string, q: JobQuery): Promise<JobList> {
  const wanted = { crew: crewId, state: q.state, kind: q.kind, member: q.member, pattern: q.search ? containing(q.search) : null }
  const [rows, [all]] = await Promise.all([
    page(db, {
      ...wanted,
      queued: q.after?.queued ?? null,
      changed: q.after?.changedAt ?? null,
      after: q.after?.id ?? null,
      most: q.most + 1,
    }),
    q.after ? [] : count(db, wanted),
  ])
  const shown = rows.slice(0, q.most)
  const last = shown.at(-1)
  return {
    jobs: shown.map(({ scout, plan, fit, prove, keep, queued: _, cursor, ...row }) => ({
      ...row,
      changedAt: new Date(cursor).toISOString(),
      acts: { scout, plan, fit, prove, keep },
    })),
    next: rows.length > q.most && last ? `${last.queued}_${last.cursor}_${last.id}` : null,
    total: all?.n ?? null,
  }
}
