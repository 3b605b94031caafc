import { closeImport, ImportRefusal, reopenImport } from '../../../../services/mast-import'
import { requireImport } from '../../../../utils/imports'
import { queueMerge } from '../../../../utils/queue'

/** All pieces are here: the merge is queued. */
export default defineEventHandler(async (event) => {
  const { me, state } = await requireImport(event, 'installer')
  try {
    const next = await closeImport(useDb(), me.crewId, state.id)
    if (next?.state === 'merging') {
      await queueMerge({ crewId: me.crewId, importId: state.id }).catch(async () => {
        await reopenImport(useDb(), me.crewId, state.id)
        problem(503, 'The merge could not be queued; the list is kept. Try again in a moment.')
      })
    }
    return next
  }
  catch (e) {
    if (e instanceof ImportRefusal) problem(422, e.message, [{ field: 'file', message: e.message }])
    throw e
  }
})
