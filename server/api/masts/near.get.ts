import { nearText } from '../../services/document'
import { queryDay, queryNumber, queryText, queryWord } from '../../http/validate'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/**
 * The crew's masts nearest to a place, at most 400: `lat`, `lon`, and where wanted `carrier`, `bands`, `technology`,
 * `since`, `radius`, `most`.
 */
export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const at = {
    latDeg: queryNumber(event, 'lat', { low: -90, high: 90 }),
    lonDeg: queryNumber(event, 'lon', { low: -180, high: 180 }),
  }
  setResponseHeader(event, 'content-type', 'application/json')
  return nearText(useDb(), me.crewId, me.listState, {
    at,
    radiusM: queryNumber(event, 'radius', { low: 100, high: 1_000_000, otherwise: 60_000 }),
    most: queryNumber(event, 'most', { low: 1, high: 400, whole: true, otherwise: 100 }),
    carrier: queryText(event, 'carrier', 60),
    bands: queryText(event, 'bands', 200)?.split(',') ?? null,
    technology: queryWord(event, 'technology', ['LTE', 'NR'] as const),
    seenSince: queryDay(event, 'since'),
  })
})
