import type { H3Event } from 'h3'
import { importState } from '../services/mast-import'
import type { Me, Role, MastImportState } from '../../shared/api'
import { validUuid } from '../data/check'
import { requireMember } from './member'
import { problem } from './problem'

/** The member and the import from the address; another crew's answers as one that is not there. */
export async function requireImport(event: H3Event, least: Role = 'viewer'): Promise<{ me: Me; state: MastImportState }> {
  const me = await requireMember(event, least)
  const id = getRouterParam(event, 'id')
  const state = validUuid(id) ? await importState(me.crewId, id) : null
  if (!state) problem(404, 'No such import.')
  return { me, state }
}
