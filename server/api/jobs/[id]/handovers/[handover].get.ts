import { readFrozen } from '../../../../services/handover'
import { validUuid } from '../../../../data/check'
import { useDb } from '../../../../data/db'
import { requireJobId } from '../../../../http/job'
import { problem } from '../../../../http/problem'

/** One handover as it was frozen: document, result, engine, when and by whom. */
export default defineEventHandler(async event => {
  const { me, jobId } = await requireJobId(event)
  const id = getRouterParam(event, 'handover')
  return (validUuid(id) ? await readFrozen(useDb(), me.crewId, jobId, id) : null) ?? problem(404, 'No such handover.')
})
