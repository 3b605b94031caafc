import { newCalendar } from '../../services/tokens'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** An address for this member's calendar program; the one before it ends. It is told once, and only its hash is kept. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return { path: `/api/calendar/${await newCalendar(useDb(), me)}.ics` }
})
