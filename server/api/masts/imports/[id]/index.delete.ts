import { cancelImport } from '../../../../services/mast-import'
import { requireImport } from '../../../../http/imports'

/** Stops an import: nothing of it is kept. */
export default defineEventHandler(async event => {
  const { me, state } = await requireImport(event, 'installer')
  return cancelImport(me.crewId, state.id)
})
