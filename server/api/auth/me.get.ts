import { crewFacts } from '../../services/crew'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'

/** Who is signed in; null rather than an error, so that a first visit is quiet. `now` lets a device find that its clock is wrong. */
export default defineEventHandler(async event => {
  const config = useRuntimeConfig()
  const session = (await getUserSession(event)) as { user?: unknown }
  const me = session.user
    ? await requireMember(event).catch((e: { statusCode?: number }) => (e.statusCode === 401 ? null : Promise.reject(e)))
    : null
  const crew = await crewFacts(useDb(), me?.crewId ?? null)
  setResponseHeader(event, 'cache-control', 'no-store')
  return { me, ...crew, demo: !!config.demo, tiles: config.tiles || null, now: new Date().toISOString() }
})
