/** Parts of a crew's own. */
import { and, asc, eq, sql } from 'drizzle-orm'
import { overfedWords, partById } from '../../core/catalogue'
import type { Part } from '../../core/job'
import type { Db } from '../data/db'
import { parts } from '../data/schema'
import { refuse } from './refused'

export async function ownParts(db: Db, crewId: string): Promise<Part[]> {
  const rows = await db.select({ data: parts.data }).from(parts).where(eq(parts.crewId, crewId)).orderBy(asc(parts.name))
  return rows.map(r => r.data)
}

/**
 * Keeps parts over those of the same id.
 * @returns how many
 * @throws Refused where an id is of the catalogue, or an antenna would radiate more than it is fed
 */
export async function keepParts(db: Db, crewId: string, given: readonly Part[]): Promise<number> {
  const shipped = given.find(p => partById(p.id))
  if (shipped)
    refuse(422, `“${shipped.id}” is the id of a part of the catalogue: give yours another.`, [
      { field: 'id', value: shipped.id, message: 'is taken by the catalogue' },
    ])
  for (const p of given) {
    const words = p.kind === 'antenna' ? overfedWords(p) : null
    if (words) refuse(422, `“${p.name}”: ${words}. Look at the sheet again.`, [{ field: 'ranges', value: p.id, message: words }])
  }
  const once = [...new Map(given.map(p => [p.id, p])).values()]
  const rows = once.map(p => ({ crewId, id: p.id, kind: p.kind, name: p.name, data: p }))
  await db
    .insert(parts)
    .values(rows)
    .onConflictDoUpdate({
      target: [parts.crewId, parts.id],
      set: { kind: sql`excluded.kind`, name: sql`excluded.name`, data: sql`excluded.data` },
    })
  return rows.length
}

/** Takes a part out of the crew's list; designs keep their copies. @returns whether there was such a part */
export async function dropPart(db: Db, crewId: string, id: string): Promise<boolean> {
  const gone = await db
    .delete(parts)
    .where(and(eq(parts.crewId, crewId), eq(parts.id, id)))
    .returning({ id: parts.id })
  return gone.length > 0
}
