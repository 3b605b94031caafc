import { priceBook } from '../../services/prices'

/** What things cost the crew, and how it quotes. */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  return priceBook(useDb(), me.crewId)
})
