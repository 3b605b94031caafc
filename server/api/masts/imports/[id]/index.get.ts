import { firstRejects } from '../../../../services/mast-import'
import { requireImport } from '../../../../http/imports'

/** How far an import is, and the first rows that were not taken. */
export default defineEventHandler(async event => {
  const { me, state } = await requireImport(event)
  return { ...state, rejects: await firstRejects(me.crewId, state.id) }
})
