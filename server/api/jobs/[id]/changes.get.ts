import { feedSince } from '../../../services/changes'
import { sequenceOf } from '../../../services/jobs'
import type { Feed } from '../../../../shared/api'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'
import { queryNumber } from '../../../http/validate'

/** What others changed since a sequence number, in order. */
export default defineEventHandler(async (event): Promise<Feed> => {
  const { me, jobId } = await requireJobId(event)
  const since = queryNumber(event, 'since', { low: 0, high: 2_147_483_647, whole: true, otherwise: 0 })
  const db = useDb()
  const sequence = await sequenceOf(db, me.crewId, jobId)
  if (sequence === null) problem(404, 'No such job.')
  return feedSince(db, me.crewId, jobId, { since, sequence })
})
