import { limited } from '../../http/limited'
import { requireMember } from '../../http/member'

const MOST_BYTES = 4_000_000

/** Takes what comes and lets it go. */
export default defineEventHandler(async event => {
  await requireMember(event)
  let bytes = 0
  for await (const piece of limited(event, MOST_BYTES)) bytes += (piece as Buffer).length
  return { bytes }
})
