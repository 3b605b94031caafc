import { priceBook } from '../../services/prices'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** What things cost the crew, and how it quotes. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return priceBook(useDb(), me.crewId)
})
