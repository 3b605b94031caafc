/** Long work, kept in PostgreSQL: any node may do it, and a killed node loses none. */
import PgBoss from 'pg-boss'
import { abandonedMerges, dropLeftovers, mergeImport } from './mast-import'
import { useDb } from '../data/db'
import { describeError, logAway, logError } from '../data/log'
import { isAway } from '../data/sql-state'
import { forgetTokens } from './tokens'
import { forgetSessions, forgetTries } from './accounts'

const MERGE = 'merge-masts'
/** How often a node looks for merges that nobody does, and for the queue where it could not start. */
const LOOK_MS = 15_000
/** How often what has run out is removed. */
const CLEAR_MS = 3_600_000

export interface MergeTask {
  crewId: string
  importId: string
}

let boss: PgBoss | null = null
let looking: ReturnType<typeof setInterval> | null = null
let lastClear = 0

/** Whether this node does queued work now. */
export const queueRuns = (): boolean => boss !== null

async function start(): Promise<PgBoss> {
  const fresh = new PgBoss({
    connectionString: useRuntimeConfig().databaseUrl,
    application_name: 'multivox-queue',
    schema: 'queue',
    max: 2,
    schedule: false,
  } as never)
  fresh.on('error', e => logAway('queue', e))
  await fresh.start()
  await fresh.createQueue(MERGE)
  await fresh.work<MergeTask>(MERGE, { pollingIntervalSeconds: 0.5 }, async tasks => {
    for (const { data } of tasks) {
      // What the queue keeps of a failure holds no parameters.
      await mergeImport(data.crewId, data.importId).catch((e: unknown) => {
        throw new Error(describeError(e))
      })
    }
  })
  return fresh
}

/** Starts the queue where it does not run, hands over merges that nobody does, and removes what has run out. */
async function look(): Promise<void> {
  boss ??= await start()
  for (const task of await abandonedMerges()) await queueMerge(task)
  if (Date.now() - lastClear < CLEAR_MS) return
  lastClear = Date.now()
  const db = useDb()
  await Promise.all([forgetTokens(db), forgetTries(db), forgetSessions(db), dropLeftovers()])
}

let busy = false
async function lookOnce(): Promise<void> {
  if (busy) return
  busy = true
  await look().catch(e => (isAway(e) ? logAway : logError)('queue', e))
  busy = false
}

/** Begins this node's share of the work; a database that is away is waited for. */
export function startQueue(): void {
  looking ??= setInterval(() => void lookOnce(), LOOK_MS)
  void lookOnce()
}

/** Doing the same merge twice is harmless: an import is merged under a lock, and once. */
export async function queueMerge(task: MergeTask): Promise<void> {
  await boss?.send(MERGE, task, { retryLimit: 2, retryDelay: 1, expireInHours: 6 }).catch(e => logError('queue', e))
}

export async function stopQueue(): Promise<void> {
  if (looking) clearInterval(looking)
  looking = null
  await boss?.stop({ graceful: true, timeout: 5000 }).catch(() => {})
  boss = null
}
