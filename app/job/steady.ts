/** Documents compared by what they say: what has not changed stays the very same, so that nothing is worked out or drawn for it. */
import { TABLES } from '#core/job'
import type { JobDocument, TableName } from '#core/job'

type AnyRow = Record<string, unknown>

/** Whether two rows say the same; when each was last written is no part of that. */
function sameRow(a: AnyRow, b: AnyRow): boolean {
  if (a === b) return true
  const names = new Set([...Object.keys(a), ...Object.keys(b)])
  names.delete('version')
  for (const f of names) {
    const [x, y] = [a[f], b[f]]
    if (x === y) continue
    if (typeof x !== 'object' || typeof y !== 'object' || x === null || y === null) return false
    if (JSON.stringify(x) !== JSON.stringify(y)) return false
  }
  return true
}

export function sameRows(a: readonly object[], b: readonly object[]): boolean {
  return a === b || (a.length === b.length && a.every((row, i) => sameRow(row as AnyRow, b[i] as AnyRow)))
}

/** Whether any of these tables says something else in one document than in the other. */
export const differs = (a: JobDocument | null, b: JobDocument, tables: readonly TableName[]): boolean =>
  a !== b && (a === null || tables.some(t => !sameRows(a[t], b[t])))

/** @returns `next` with the tables of `before` where they say the same; `before` itself where all do */
export function steady(before: JobDocument | null, next: JobDocument): JobDocument {
  if (!before) return next
  const kept = TABLES.filter(t => sameRows(before[t], next[t]))
  if (kept.length === TABLES.length) return before
  return { ...next, ...Object.fromEntries(kept.map(t => [t, before[t]])) }
}
