/** Changes to a document: applying, undoing, and merging two people's edits by field. */
import { nth, sure } from '../sure'
import { referencesTo } from './references'
import { TABLES } from './schema'
import type { Change, JobDocument, Row, TableName } from './schema'

type AnyRow = Record<string, unknown> & { id: string }

const rowsOf = (doc: JobDocument, table: TableName): AnyRow[] => doc[table] as unknown as AnyRow[]

/**
 * A row that goes takes along what hangs on it, and what points at it lets go, as in the database.
 *
 * @returns a new document with the changes applied in order; untouched tables and rows keep their identity
 */
export function applyChanges(doc: JobDocument, changes: readonly Change[]): JobDocument {
  const next = { ...doc } as unknown as Record<TableName, AnyRow[]>
  const copied = new Set<TableName>()
  const own = (table: TableName): AnyRow[] => {
    if (!copied.has(table)) {
      next[table] = [...next[table]]
      copied.add(table)
    }
    return next[table]
  }
  const remove = (table: TableName, rowId: string): void => {
    const at = next[table].findIndex(r => r.id === rowId)
    if (at < 0) return
    own(table).splice(at, 1)
    for (const r of referencesTo(table)) {
      const named = next[r.table].filter(row => row[r.field] === rowId)
      if (r.whenGone === 'goes too') for (const row of named) remove(r.table, row.id)
      if (r.whenGone === 'lets go' && named.length) {
        own(r.table)
        next[r.table] = next[r.table].map(row => (row[r.field] === rowId ? { ...row, [r.field]: null } : row))
      }
    }
  }
  for (const c of changes) {
    if (c.op === 'delete') {
      remove(c.table, c.rowId)
      continue
    }
    const rows = own(c.table)
    const i = rows.findIndex(r => r.id === c.rowId)
    if (i >= 0) rows[i] = { ...nth(rows, i), ...c.fields }
    else if (c.op === 'insert') rows.push({ ...c.fields, id: c.rowId })
  }
  return next as unknown as JobDocument
}

/**
 * The batch that takes another back: applied after it, the document is as before.
 * @param newId  makes a change id
 */
export function invertChanges(before: JobDocument, changes: readonly Change[], newId: () => string): Change[] {
  const inverse: Change[][] = []
  let doc = before
  for (const c of changes) {
    const row = rowsOf(doc, c.table).find(r => r.id === c.rowId)
    const base = { id: newId(), table: c.table, rowId: c.rowId, baseVersion: 0 }
    const after = applyChanges(doc, [c])
    if (c.op === 'delete') {
      if (row) inverse.unshift(broughtBack(doc, after, { table: c.table, rowId: c.rowId, newId }))
    } else if (row) {
      inverse.unshift([
        { ...base, op: 'update', fields: Object.fromEntries(Object.keys(c.fields).map(k => [k, row[k] ?? null])) },
      ])
    } else {
      inverse.unshift([{ ...base, op: 'delete', fields: {} }])
    }
    doc = after
  }
  return inverse.flat()
}

/** A row that went, then what went with it, then what let go of it: named rows stand before those that name them. */
function broughtBack(
  before: JobDocument,
  after: JobDocument,
  { table, rowId, newId }: { table: TableName; rowId: string; newId: () => string },
): Change[] {
  const gone = new Map<string, Change>()
  const letGo: Change[] = []
  const bring = (table: TableName, id: string): void => {
    const row = sure(rowsOf(before, table).find(r => r.id === id))
    gone.set(id, { id: newId(), table, rowId: id, op: 'insert', baseVersion: 0, fields: fieldsOf(row) })
    for (const r of referencesTo(table)) {
      for (const named of rowsOf(before, r.table).filter(x => x[r.field] === id && !gone.has(x.id))) {
        if (!rowsOf(after, r.table).some(x => x.id === named.id)) bring(r.table, named.id)
        else if (r.whenGone === 'lets go')
          letGo.push({ id: newId(), table: r.table, rowId: named.id, op: 'update', baseVersion: 0, fields: { [r.field]: id } })
      }
    }
  }
  bring(table, rowId)
  const inOrder = [...gone.values()].sort((a, b) => TABLES.indexOf(a.table) - TABLES.indexOf(b.table))
  return [...inOrder, ...letGo]
}

export function fieldsOf(row: Record<string, unknown>): Record<string, unknown> {
  const { id: _id, version: _version, ...fields } = row
  return fields
}

export interface FieldConflict {
  table: TableName
  rowId: string
  field: string
  mine: unknown
  theirs: unknown
  version: number
}

/**
 * Merges one update into a row that may have moved on.
 *
 * A field that nobody changed since `baseVersion` takes the new value; one changed to the same value
 * is agreed; one changed to another value is a conflict and keeps the row's value until a person chooses.
 *
 * @param fieldVersions  per field, the version at which it last changed
 */
export function mergeFields(
  row: Record<string, unknown>,
  fieldVersions: Record<string, number>,
  change: Pick<Change, 'table' | 'rowId' | 'baseVersion' | 'fields'>,
): { accepted: Record<string, unknown>; conflicts: FieldConflict[] } {
  const accepted: Record<string, unknown> = {}
  const conflicts: FieldConflict[] = []
  for (const [field, mine] of Object.entries(change.fields)) {
    const theirs = row[field] ?? null
    const version = fieldVersions[field] ?? 0
    if (version > change.baseVersion && !same(theirs, mine))
      conflicts.push({ table: change.table, rowId: change.rowId, field, mine, theirs, version })
    else accepted[field] = mine
  }
  return { accepted, conflicts }
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)

interface Logged {
  id: string
  replacesId: string | null
  withdrawn: boolean
}

/**
 * A log only grows. Taking a row of it back is a withdrawal; taking a withdrawal back is the row again; taking a
 * correction back is what it stood for again.
 * @returns the row that is written for it, without its id; null where there is no such row
 */
export function takenBack<T extends Logged>(rows: readonly T[], rowId: string): Omit<T, 'id'> | null {
  const row = rows.find(r => r.id === rowId)
  if (!row) return null
  const { id, ...fields } = row
  if (row.withdrawn) return { ...fields, withdrawn: false, replacesId: null } as Omit<T, 'id'>
  const before = row.replacesId === null ? undefined : rows.find(r => r.id === row.replacesId)
  if (!before) return { ...fields, withdrawn: true, replacesId: id } as Omit<T, 'id'>
  const { id: _before, ...again } = before
  return { ...again, replacesId: id } as Omit<T, 'id'>
}

/** Rows of a log that stand: neither replaced nor withdrawn. */
export function standing<T extends { id: string; replacesId: string | null; withdrawn: boolean }>(rows: readonly T[]): T[] {
  const gone = new Set(rows.map(r => r.replacesId).filter(Boolean))
  return rows.filter(r => !gone.has(r.id) && !r.withdrawn)
}

export const findRow = <T extends TableName>(doc: JobDocument, table: T, id: string | null | undefined): Row<T> | undefined =>
  id ? (doc[table] as Row<T>[]).find(r => r.id === id) : undefined
