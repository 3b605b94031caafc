import { mastsNear } from '../../services/document'

/** The crew's masts nearest to a place, at most 400: `lat`, `lon`, and where wanted `carrier`, `bands`, `technology`, `since`, `radius`, `most`. */
export default defineEventHandler(async (event) => {
  const me = await requireMember(event)
  const q = getQuery(event)
  const number = (field: string, low: number, high: number, otherwise?: number): number => {
    const v = q[field] === undefined && otherwise !== undefined ? otherwise : Number(q[field])
    if (!(v >= low && v <= high)) problem(422, `${field} must be within ${low}…${high}.`, [{ field, value: q[field], message: `must be within ${low}…${high}` }])
    return v
  }
  const since = q.since === undefined ? null : String(q.since)
  if (since !== null && !/^\d{4}-\d{2}-\d{2}$/.test(since)) problem(422, 'since must be a day such as 2026-03-24.', [{ field: 'since', value: q.since, message: 'is not a day' }])
  const technology = q.technology === undefined ? null : String(q.technology)
  if (technology !== null && technology !== 'LTE' && technology !== 'NR') problem(422, 'technology must be LTE or NR.', [{ field: 'technology', value: q.technology, message: 'must be LTE or NR' }])
  return mastsNear(useDb(), me.crewId, { latDeg: number('lat', -90, 90), lonDeg: number('lon', -180, 180) }, {
    radiusM: number('radius', 100, 1_000_000, 60_000), most: number('most', 1, 400, 100),
    carrier: q.carrier ? String(q.carrier) : null, bands: q.bands ? String(q.bands).split(',') : null, technology: technology as 'LTE' | 'NR' | null, seenSince: since,
  })
})
