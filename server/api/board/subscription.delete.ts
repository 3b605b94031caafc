import { endCalendar } from '../../utils/tokens'

/** Ends the address of this member's calendar program. */
export default defineEventHandler(async event => {
  await endCalendar(useDb(), await requireMember(event))
  return { ok: true }
})
