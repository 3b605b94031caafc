/** The furthest act of a job that is done, kept with the job so that the list can be filtered by it. */
import { sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { checks, designs, jobs, nodes, readings, setups, speedRuns } from '../data/schema'
import type { Db, Tx } from '../data/db'
import type { TableName } from '../../core/job'

type RowsOfJob = typeof readings | typeof nodes | typeof designs | typeof speedRuns | typeof checks

const has = (table: RowsOfJob, also: SQL): SQL<boolean> =>
  sql<boolean>`exists (select 1 from ${table} where ${table.crewId} = ${jobs.crewId} and ${table.jobId} = ${jobs.id} and ${also})`

/** A row of a log that stands: neither withdrawn nor replaced. */
export const stands = (log: typeof readings | typeof speedRuns): SQL<boolean> =>
  sql<boolean>`(not ${log.withdrawn} and not exists (select 1 from ${log} later where later.crew_id = ${log.crewId}
    and later.replaces_id = ${log.id}))`

/** The last word on the last step of the card, `clear`: everything else stands before it. */
const CLEARED = sql<boolean>`coalesce((select ${checks.done} from ${checks} where ${checks.crewId} = ${jobs.crewId}
  and ${checks.jobId} = ${jobs.id} and ${checks.kind} = 'step' and ${checks.key} = 'clear'
  order by ${checks.atUtc} desc nulls last limit 1), false)`

/** Whether anything on the card was done. */
export const CARD_BEGUN = has(checks, sql`${checks.kind} = 'step' and ${checks.done}`)

/** Whether each act is done, as conditions on a row of `jobs`. */
export const ACT_DONE = {
  scout: has(readings, stands(readings)),
  plan: has(nodes, sql`${nodes.part} ->> 'kind' = 'antenna'`),
  // Aimed and locked, or its card is through: not everything is aimed.
  fit: sql<boolean>`(${has(designs, sql`${designs.aimedDeg} is not null`)} or ${CLEARED})`,
  prove: has(
    speedRuns,
    sql`${stands(speedRuns)} and exists (select 1 from ${setups}
      where ${setups.crewId} = ${speedRuns.crewId} and ${setups.id} = ${speedRuns.setupId}
      and ${setups.mark} = 'after')`,
  ),
  keep: has(checks, sql`${checks.key} = 'handover' and ${checks.done}`),
}

/** Tables whose rows decide the state. */
export const STATE_TABLES: ReadonlySet<TableName> = new Set(['readings', 'nodes', 'designs', 'speedRuns', 'setups', 'checks'])

/** Works the state of a job out anew. */
export async function settleState(db: Db | Tx, crewId: string, jobId: string): Promise<void> {
  await db.execute(sql`update ${jobs} set state = case
    when ${ACT_DONE.keep} then 'keep' when ${ACT_DONE.prove} then 'prove' when ${ACT_DONE.fit} then 'fit'
    when ${ACT_DONE.plan} then 'plan' when ${ACT_DONE.scout} then 'scout' else 'new' end
    where ${jobs.crewId} = ${crewId} and ${jobs.id} = ${jobId}`)
}
