import { eq } from 'drizzle-orm'
import { MoneySchema } from '../../../core/card/money'
import { crews } from '../../database/schema'

/** Currency, hour and margin of the crew's quotes. Prices entered before keep their figures. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const money = await readValid(event, MoneySchema)
  await useDb().update(crews).set({ money }).where(eq(crews.id, me.crewId))
  return { money }
})
