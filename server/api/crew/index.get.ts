import { asc, eq } from 'drizzle-orm'
import { mastSets, members, terrainTiles } from '../../database/schema'

export default defineEventHandler(async event => {
  const me = await requireMember(event)
  const db = useDb()
  const [people, sets, tiles] = await Promise.all([
    db
      .select({ id: members.id, name: members.name, email: members.email, role: members.role, active: members.active })
      .from(members)
      .where(eq(members.crewId, me.crewId))
      .orderBy(asc(members.name)),
    db.select().from(mastSets).where(eq(mastSets.crewId, me.crewId)).orderBy(asc(mastSets.importedAt)),
    db.select().from(terrainTiles).where(eq(terrainTiles.crewId, me.crewId)).orderBy(asc(terrainTiles.name)),
  ])
  return { members: people, mastSets: sets, tiles }
})
