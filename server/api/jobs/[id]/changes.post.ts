import { ChangeBatchSchema } from '../../../../core/job'
import { applyBatch } from '../../../services/changes'
import { useDb } from '../../../data/db'
import { requireJobId } from '../../../http/job'
import { problem } from '../../../http/problem'
import { readValid } from '../../../http/validate'

/** Takes a batch of changes; what cannot be taken is said change by change, with the answer. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const { changes, device, since } = await readValid(event, ChangeBatchSchema, { each: true })
  return (await applyBatch(useDb(), me, jobId, { sent: changes, from: { device, since } })) ?? problem(404, 'No such job.')
})
