import { dropPart } from '../../services/parts'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

/** Takes a part out of the crew's list; designs keep their copies. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const id = getRouterParam(event, 'id') ?? ''
  if (!/^[\w.-]{1,40}$/.test(id) || !(await dropPart(useDb(), me.crewId, id)))
    problem(404, 'There is no such part in your crew’s list.')
  return sendNoContent(event)
})
