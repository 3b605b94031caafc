import { recordOf } from '../../services/record'

/** How the crew's promises came out. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return recordOf(useDb(), me.crewId)
})
