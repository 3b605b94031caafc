/** The crew's record: of what was promised and handed over, how often the measured lay within it. */
import { sql } from 'drizzle-orm'
import type { Db } from '../data/db'
import type { CrewRecord } from '../../shared/api'

/** The newest handover of each job counts, where it had a promise and a measurement. */
export async function recordOf(db: Db, crewId: string): Promise<CrewRecord> {
  const { rows } = await db.execute<CrewRecord & Record<string, unknown>>(sql`
    with newest as (
      select distinct on (job_id) result -> 'proof' -> 'scored' as scored
      from handovers where crew_id = ${crewId} order by job_id, made_at desc, id desc
    )
    select
      count(*) filter (where (scored ->> 'inside')::boolean)::int as inside,
      count(*) filter (where (scored ->> 'got')::float8 < (scored ->> 'low')::float8)::int as less,
      count(*) filter (where (scored ->> 'got')::float8 > (scored ->> 'high')::float8)::int as more
    from newest where jsonb_typeof(scored) = 'object'`)
  const { inside, less, more } = rows[0] ?? { inside: 0, less: 0, more: 0 }
  return { inside, less, more }
}
