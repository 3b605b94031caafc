import { eq } from 'drizzle-orm'
import { crews } from '../../database/schema'

/** Who is signed in; null rather than an error, so that a first visit is quiet. `now` lets a device find that its clock is wrong. */
export default defineEventHandler(async event => {
  const config = useRuntimeConfig()
  const session = (await getUserSession(event)) as { user?: unknown }
  const me = session.user
    ? await requireMember(event).catch((e: { statusCode?: number }) => (e.statusCode === 401 ? null : Promise.reject(e)))
    : null
  const [crew] = me
    ? await useDb()
        .select({ carriers: crews.carriers, enough: crews.enough, terrainVersion: crews.terrainVersion })
        .from(crews)
        .where(eq(crews.id, me.crewId))
    : []
  setResponseHeader(event, 'cache-control', 'no-store')
  return {
    me,
    carriers: crew?.carriers ?? [],
    enough: crew?.enough ?? {},
    terrainVersion: crew?.terrainVersion ?? 0,
    demo: !!config.demo,
    tiles: config.tiles || null,
    now: new Date().toISOString(),
  }
})
