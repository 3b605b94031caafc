import { eq } from 'drizzle-orm'
import { crews } from '../../database/schema'

/** Who is signed in; null rather than an error, so that a first visit is quiet. */
export default defineEventHandler(async (event) => {
  const config = useRuntimeConfig()
  const session = await getUserSession(event) as { user?: unknown }
  const me = session.user ? await requireMember(event).catch(() => null) : null
  const carriers = me ? (await useDb().select({ carriers: crews.carriers }).from(crews).where(eq(crews.id, me.crewId)))[0]?.carriers ?? [] : []
  return { me, carriers, demo: !!config.demo, tiles: config.tiles || null }
})
