import { boardVisits, teamsOf } from '../../services/board'
import { queryDays } from '../../http/validate'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** Visits of the crew from one day to another, and the teams that it sends out. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const days = queryDays(event)
  const [list, teams] = await Promise.all([boardVisits(useDb(), me.crewId, days), teamsOf(useDb(), me.crewId)])
  return { visits: list, teams }
})
