import { withNear } from '../../../../../shared/api'
import { freeze } from '../../../../services/handover'
import { useDb } from '../../../../data/db'
import { requireJob } from '../../../../http/job'

/** Freezes the document, its result and the engine that made it. */
export default defineEventHandler(async event => {
  const { me, jobId, snapshot } = await requireJob(event, 'installer')
  return { id: await freeze(useDb(), me, jobId, withNear(snapshot.document, snapshot.near)) }
})
