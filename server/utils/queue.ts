/** Long work, kept in PostgreSQL: any node may do it, and a killed node loses none. */
import PgBoss from 'pg-boss'
import { mergeImport } from '../services/mast-import'
import { useDb } from './db'

const MERGE = 'merge-masts'

export interface MergeTask { crewId: string, importId: string }

let started: Promise<PgBoss> | null = null

/** The queue of this node, started once. */
export function useQueue(): Promise<PgBoss> {
  started ??= start().catch((e: unknown) => {
    // The next asking tries again.
    started = null
    throw e
  })
  return started
}

async function start(): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: useRuntimeConfig().databaseUrl, schema: 'queue', max: 2, schedule: false })
  boss.on('error', e => console.error('queue:', e.message))
  await boss.start()
  await boss.createQueue(MERGE)
  await boss.work<MergeTask>(MERGE, { pollingIntervalSeconds: 0.5 }, async (tasks) => {
    for (const { data } of tasks) await mergeImport(useDb(), data.crewId, data.importId)
  })
  return boss
}

/** One merge an import: a second asking of it is the same task. */
export async function queueMerge(task: MergeTask): Promise<void> {
  await (await useQueue()).send(MERGE, task, { singletonKey: task.importId, retryLimit: 2, expireInHours: 6 })
}

export async function stopQueue(): Promise<void> {
  if (!started) return
  await (await started).stop({ graceful: true, timeout: 5000 }).catch(() => {})
}
