import { ChangeBatchSchema } from '../../../../core/job/schema'
import { applyBatch, Refusal } from '../../../services/changes'

export default defineEventHandler(async (event) => {
  const { me, jobId } = await requireJobId(event, 'installer')
  const { changes, device } = await readValid(event, ChangeBatchSchema)
  try {
    return await applyBatch(useDb(), me, jobId, changes, device ?? null) ?? problem(404, 'No such job.')
  }
  catch (e) {
    if (e instanceof Refusal) problem(422, e.message, e.errors)
    throw e
  }
})
