import { changedBlocks } from '../../services/terrain'
import { queryNumber } from '../../http/validate'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** Which blocks of the crew's ground changed after a count: a device that keeps some of them asks for those again. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return changedBlocks(
    useDb(),
    me.crewId,
    queryNumber(event, 'since', { low: 0, high: 2_147_483_647, whole: true, otherwise: 0 }),
  )
})
