import { removeLayer } from '../../../services/terrain'
import { queryWord } from '../../../http/validate'
import { useDb } from '../../../data/db'
import { requireMember } from '../../../http/member'
import { problem } from '../../../http/problem'

/** Takes a tile away; what lay under it shows. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const name = decoded(getRouterParam(event, 'name') ?? '')
  const kind = queryWord(event, 'kind', ['ground', 'cover'] as const) ?? 'ground'
  const keys = (await removeLayer(useDb(), me.crewId, kind, name)) ?? problem(404, 'No such tile.')
  return { name, kind, keys }
})

/** @returns the name in the address; what does not unescape, or no database takes, names nothing */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text).replaceAll(String.fromCharCode(0), '').toWellFormed()
  } catch {
    return problem(404, 'No such tile.')
  }
}
