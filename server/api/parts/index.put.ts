import { Type } from '@sinclair/typebox'
import { sql } from 'drizzle-orm'
import { PartSchema } from '../../../core/job/part'
import { partById } from '../../../core/catalogue/parts'
import { overfedWords } from '../../../core/catalogue/radiates'
import { parts } from '../../database/schema'

/** Parts of one table at most. */
const MOST_PARTS = 500

const Body = Type.Object(
  { parts: Type.Array(PartSchema, { minItems: 1, maxItems: MOST_PARTS }) },
  { additionalProperties: false },
)

/** Keeps parts of the crew's own, over those of the same id. The ids of the catalogue are taken. */
export default defineEventHandler(async event => {
  const me = await requireMember(event, 'installer')
  const { parts: given } = await readValid(event, Body)
  const shipped = given.find(p => partById(p.id))
  if (shipped)
    problem(422, `“${shipped.id}” is the id of a part of the catalogue: give yours another.`, [
      { field: 'id', value: shipped.id, message: 'is taken by the catalogue' },
    ])
  for (const p of given) {
    const words = p.kind === 'antenna' ? overfedWords(p) : null
    if (words) problem(422, `“${p.name}”: ${words}. Look at the sheet again.`, [{ field: 'ranges', value: p.id, message: words }])
  }
  const rows = [...new Map(given.map(p => [p.id, p])).values()].map(p => ({
    crewId: me.crewId,
    id: p.id,
    kind: p.kind,
    name: p.name,
    data: p,
  }))
  await useDb()
    .insert(parts)
    .values(rows)
    .onConflictDoUpdate({
      target: [parts.crewId, parts.id],
      set: { kind: sql`excluded.kind`, name: sql`excluded.name`, data: sql`excluded.data` },
    })
  return { kept: rows.length }
})
