import { eq } from 'drizzle-orm'
import { EnoughSchema } from '../../../core/job/schema'
import { crews } from '../../database/schema'

/** What counts as enough in the crew's new jobs. Jobs begun before keep what they have. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'lead')
  const enough = await readValid(event, EnoughSchema)
  await useDb().update(crews).set({ enough }).where(eq(crews.id, me.crewId))
  return { enough }
})
