/** Lists of masts that a crew has taken in. */
import { and, eq } from 'drizzle-orm'
import type { MastRules } from '../../core/formats'
import type { Db } from '../data/db'
import { mappings, mastSets } from '../data/schema'
import { mappingKey } from './mast-import'

/** Takes a list with its masts out of the crew's. @returns whether there was such a list */
export async function dropMastSet(db: Db, crewId: string, id: string): Promise<boolean> {
  const gone = await db
    .delete(mastSets)
    .where(and(eq(mastSets.crewId, crewId), eq(mastSets.id, id)))
    .returning({ id: mastSets.id })
  return gone.length > 0
}

/** How the crew read a table with these headings last time; null where it never did. */
export async function mappingOf(db: Db, crewId: string, headings: string): Promise<MastRules | null> {
  const [row] = await db
    .select({ rules: mappings.rules })
    .from(mappings)
    .where(and(eq(mappings.crewId, crewId), eq(mappings.signature, mappingKey(headings))))
  return row?.rules ?? null
}
