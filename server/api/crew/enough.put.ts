import { EnoughSchema } from '../../../core/job'
import { agree } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

/** What counts as enough in the crew's new jobs. Jobs begun before keep what they have. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const enough = await readValid(event, EnoughSchema)
  await agree(useDb(), me.crewId, { enough })
  return { enough }
})
