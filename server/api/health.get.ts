import { answers, useDb } from '../data/db'
import { queueRuns } from '../services/queue'
import { problem } from '../http/problem'

const PATIENCE_MS = 2000

/** Whether this node can work now: the database answers within two seconds. What it says of the queue is for who watches it. */
export default defineEventHandler(async event => {
  let waited: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, failed) => {
    waited = setTimeout(() => failed(new Error('late')), PATIENCE_MS)
  })
  const database = await Promise.race([answers(useDb()), late]).then(
    () => true,
    () => false,
  )
  clearTimeout(waited)
  setResponseHeader(event, 'cache-control', 'no-store')
  if (!database) problem(503, 'The database does not answer.')
  return { ok: true, queue: queueRuns() }
})
