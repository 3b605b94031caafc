import { endCalendar } from '../../services/tokens'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** Ends the address of this member's calendar program. */
export default defineEventHandler(async event => {
  await endCalendar(useDb(), await requireMember(event))
  return { ok: true }
})
