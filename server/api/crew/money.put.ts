import { MoneySchema } from '../../../core/card'
import { agree } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { readValid } from '../../http/validate'

/** Currency, hour and margin of the crew's quotes. Prices entered before keep their figures. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const money = await readValid(event, MoneySchema)
  await agree(useDb(), me.crewId, { money })
  return { money }
})
