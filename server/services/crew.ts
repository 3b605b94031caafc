/** What a crew has agreed for all its jobs, and who belongs to it. */
import { asc, eq } from 'drizzle-orm'
import type { Money } from '../../core/card'
import type { Enough } from '../../core/job'
import type { Db } from '../data/db'
import { crews, mastSets, members, terrainTiles } from '../data/schema'

export interface CrewFacts {
  carriers: { name: string; codes: string[] }[]
  enough: Partial<Enough>
  terrainVersion: number
}
const NOBODY: CrewFacts = { carriers: [], enough: {}, terrainVersion: 0 }

/** @param crewId  null where nobody is signed in */
export async function crewFacts(db: Db, crewId: string | null): Promise<CrewFacts> {
  if (!crewId) return NOBODY
  const [crew] = await db
    .select({ carriers: crews.carriers, enough: crews.enough, terrainVersion: crews.terrainVersion })
    .from(crews)
    .where(eq(crews.id, crewId))
  return crew ?? NOBODY
}

/** Members, lists of masts and ground of a crew. */
export async function crewWhole(db: Db, crewId: string) {
  const [people, sets, tiles, [crew]] = await Promise.all([
    db
      .select({ id: members.id, name: members.name, email: members.email, role: members.role, active: members.active })
      .from(members)
      .where(eq(members.crewId, crewId))
      .orderBy(asc(members.name)),
    db.select().from(mastSets).where(eq(mastSets.crewId, crewId)).orderBy(asc(mastSets.importedAt)),
    db.select().from(terrainTiles).where(eq(terrainTiles.crewId, crewId)).orderBy(asc(terrainTiles.name)),
    db.select({ phone: crews.phone }).from(crews).where(eq(crews.id, crewId)),
  ])
  return { members: people, mastSets: sets, tiles, phone: crew?.phone ?? '' }
}

export async function agree(
  db: Db,
  crewId: string,
  on: { carriers?: CrewFacts['carriers']; enough?: Partial<Enough>; money?: Partial<Money>; phone?: string },
): Promise<void> {
  await db.update(crews).set(on).where(eq(crews.id, crewId))
}
