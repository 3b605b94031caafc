/** Readings that were noted under the wrong set-up: corrections stand in their place, the log only grows. */
import type { Insert } from '../job/edits'
import { fieldsOf, standing } from '../job/changes'
import type { JobDocument } from '../job/schema'

/** Tables of what is made with a set-up. */
export const MADE_WITH = ['readings', 'speedRuns', 'calls', 'watches'] as const
export type MadeWith = (typeof MADE_WITH)[number]

/** A row of a log again, with something of it set right. */
export type Correction = { [T in MadeWith]: Insert<T> }[MadeWith]

/** @returns a row of a log as it is written again in its own place: without what is worked out of it, with something set right */
export function correctionOf(table: MadeWith, row: { id: string }, right: Record<string, unknown>): Correction {
  const { setup: _setup, phase: _phase, ...fields } = fieldsOf({ ...row })
  return { table, op: 'insert', fields: { ...fields, ...right, replacesId: row.id } } as unknown as Correction
}

/** @returns what stands in each table under one set-up, at one spot or at all of them */
function standingUnder(doc: Pick<JobDocument, MadeWith>, fromId: string | null, spotId: string | null) {
  return MADE_WITH.map(table => ({
    table,
    rows: standing(
      doc[table] as { id: string; replacesId: string | null; withdrawn: boolean; setupId: string | null; spotId: string }[],
    ).filter(r => r.setupId === fromId && (spotId === null || r.spotId === spotId)),
  }))
}

/** @returns how many rows of each table would be moved */
export const countUnder = (
  doc: Pick<JobDocument, MadeWith>,
  fromId: string | null,
  spotId: string | null,
): Record<MadeWith, number> =>
  Object.fromEntries(standingUnder(doc, fromId, spotId).map(({ table, rows }) => [table, rows.length])) as Record<
    MadeWith,
    number
  >

/**
 * @param fromId  set-up that they stand under now; null where none was named
 * @param spotId  null for every spot
 * @returns a correction for each row that stands, with its own time and figures, under the other set-up
 */
export function movedTo(
  doc: Pick<JobDocument, MadeWith>,
  o: { fromId: string | null; toId: string; spotId: string | null },
): Correction[] {
  if (o.fromId === o.toId) return []
  return standingUnder(doc, o.fromId, o.spotId).flatMap(({ table, rows }) =>
    rows.map(row => correctionOf(table, row, { setupId: o.toId })),
  )
}
