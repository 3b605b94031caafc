/** Changes to a document: applying, undoing, and merging two people's edits by field. */
import type { Change, JobDocument, Row, TableName } from './schema'

type AnyRow = Record<string, unknown> & { id: string }

const rowsOf = (doc: JobDocument, table: TableName): AnyRow[] => doc[table] as unknown as AnyRow[]

/**
 * @returns a new document with the changes applied in order; untouched tables and rows keep their identity
 */
export function applyChanges(doc: JobDocument, changes: readonly Change[]): JobDocument {
  const next = { ...doc }
  const copied = new Set<TableName>()
  for (const c of changes) {
    if (!copied.has(c.table)) {
      ;(next as Record<string, unknown>)[c.table] = [...rowsOf(next, c.table)]
      copied.add(c.table)
    }
    const rows = rowsOf(next, c.table)
    const i = rows.findIndex(r => r.id === c.rowId)
    if (c.op === 'delete') {
      if (i >= 0) rows.splice(i, 1)
    }
    else if (i >= 0) {
      rows[i] = { ...rows[i]!, ...c.fields }
    }
    else if (c.op === 'insert') {
      rows.push({ ...c.fields, id: c.rowId })
    }
  }
  return next
}

/**
 * The batch that takes another back: applied after it, the document is as before.
 * @param newId  makes a change id
 */
export function invertChanges(before: JobDocument, changes: readonly Change[], newId: () => string): Change[] {
  const inverse: Change[] = []
  let doc = before
  for (const c of changes) {
    const row = rowsOf(doc, c.table).find(r => r.id === c.rowId)
    const base = { id: newId(), table: c.table, rowId: c.rowId, baseVersion: 0 }
    if (c.op === 'delete') {
      if (row) inverse.unshift({ ...base, op: 'insert', fields: fieldsOf(row) })
    }
    else if (row) {
      const fields = Object.fromEntries(Object.keys(c.fields).map(k => [k, row[k] ?? null]))
      inverse.unshift({ ...base, op: 'update', fields })
    }
    else {
      inverse.unshift({ ...base, op: 'delete', fields: {} })
    }
    doc = applyChanges(doc, [c])
  }
  return inverse
}

export function fieldsOf(row: Record<string, unknown>): Record<string, unknown> {
  const { id: _id, version: _version, ...fields } = row
  return fields
}

export interface FieldConflict { table: TableName, rowId: string, field: string, mine: unknown, theirs: unknown, version: number }

/**
 * Merges one update into a row that may have moved on.
 *
 * A field that nobody changed since `baseVersion` takes the new value; one changed to the same value
 * is agreed; one changed to another value is a conflict and keeps the row's value until a person chooses.
 *
 * @param fieldVersions  per field, the version at which it last changed
 */
export function mergeFields(row: Record<string, unknown>, fieldVersions: Record<string, number>, change: Pick<Change, 'table' | 'rowId' | 'baseVersion' | 'fields'>): { accepted: Record<string, unknown>, conflicts: FieldConflict[] } {
  const accepted: Record<string, unknown> = {}
  const conflicts: FieldConflict[] = []
  for (const [field, mine] of Object.entries(change.fields)) {
    const theirs = row[field] ?? null
    const version = fieldVersions[field] ?? 0
    if (version > change.baseVersion && !same(theirs, mine)) conflicts.push({ table: change.table, rowId: change.rowId, field, mine, theirs, version })
    else accepted[field] = mine
  }
  return { accepted, conflicts }
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)

/** Rows of a log that stand: neither replaced nor withdrawn. */
export function standing<T extends { id: string, replacesId: string | null, withdrawn: boolean }>(rows: readonly T[]): T[] {
  const gone = new Set(rows.map(r => r.replacesId).filter(Boolean))
  return rows.filter(r => !gone.has(r.id) && !r.withdrawn)
}

export const findRow = <T extends TableName>(doc: JobDocument, table: T, id: string | null | undefined): Row<T> | undefined =>
  id ? (doc[table] as Row<T>[]).find(r => r.id === id) : undefined
