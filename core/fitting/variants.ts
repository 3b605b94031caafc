/** Variants of a plan: a copy of a design with everything in it, so that two can be compared. */
import { entryOf } from '../sure'
import { insertChange } from '../job/defaults'
import type { Maker } from '../job/defaults'
import { fieldsOf } from '../job/changes'
import type { Change, Design, JobDocument } from '../job/schema'

/** @returns the first capital letter that no design of the job is named by */
export function nextName(designs: readonly Pick<Design, 'name'>[]): string {
  const taken = new Set(designs.map(d => d.name))
  for (let i = 0; i < 26; i++) {
    const name = String.fromCharCode(65 + i)
    if (!taken.has(name)) return name
  }
  return `A${designs.length + 1}`
}

/** Copies a design, its parts, cables and isolations; the plan stays what it is. @returns the changes, and the copy's id */
export function copyDesign(doc: JobDocument, design: Design, newId: Maker): { designId: string; changes: Change[] } {
  const designId = newId()
  const ids = new Map<string, string>([[design.id, designId]])
  const renamed = (row: { id: string }): Record<string, unknown> =>
    Object.fromEntries(
      Object.entries(fieldsOf(row as unknown as Record<string, unknown>)).map(([k, v]) => [
        k,
        typeof v === 'string' ? (ids.get(v) ?? v) : v,
      ]),
    )
  const own = <T extends { designId: string; id: string }>(rows: readonly T[]) => rows.filter(r => r.designId === design.id)
  const changes = [
    insertChange(newId, 'designs', designId, {
      ...renamed(design),
      name: nextName(doc.designs),
      reason: null,
      aimedDeg: null,
      aimedAtUtc: null,
      aimedTiltDeg: null,
    }),
  ]
  for (const n of own(doc.nodes)) ids.set(n.id, newId())
  for (const n of own(doc.nodes)) changes.push(insertChange(newId, 'nodes', entryOf(ids, n.id), renamed(n)))
  for (const table of ['runs', 'isolations'] as const)
    for (const row of own(doc[table] as { id: string; designId: string }[]))
      changes.push(insertChange(newId, table, newId(), renamed(row)))
  return { designId, changes }
}
