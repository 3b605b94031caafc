import { closeImport, ImportRefusal } from '../../../../services/mast-import'
import { requireImport } from '../../../../http/imports'
import { queueMerge } from '../../../../services/queue'
import { problem } from '../../../../http/problem'

/** All pieces are here: the merge is queued. Where the queue is away, the sweep that follows finds it waiting. */
export default defineEventHandler(async event => {
  const { me, state } = await requireImport(event, 'installer')
  try {
    const next = await closeImport(me.crewId, state.id)
    if (next?.state === 'merging') await queueMerge({ crewId: me.crewId, importId: state.id })
    return next
  } catch (e) {
    if (e instanceof ImportRefusal) problem(422, e.message, [{ field: 'file', message: e.message }])
    throw e
  }
})
