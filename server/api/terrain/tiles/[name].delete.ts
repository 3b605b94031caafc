import { removeLayer } from '../../../services/terrain'

/** Takes a tile away; what lay under it shows. */
export default defineEventHandler(async (event) => {
  const me = await requireMember(event, 'lead')
  const name = decodeURIComponent(getRouterParam(event, 'name') ?? '')
  if (!await removeLayer(useDb(), me.crewId, name)) problem(404, 'No such tile.')
  return { name }
})
