/**
 * What is written, typed by its table: an edit with a field that its table does not have, or of another kind, does not compile.
 * Screens, cures and splices make nothing else; the server and the device check the values besides.
 */
import type { Maker } from './defaults'
import type { Change, PLACED, Row, TableName } from './schema'

/** A row's own fields, as they are written. */
export type Fields<T extends TableName> = Omit<Row<T>, 'id' | 'version'>
/** A new row of a table that holds at one place is of the stop at which the job stands, unless it says another. */
export type New<T extends TableName> = T extends (typeof PLACED)[number]
  ? Omit<Fields<T>, 'stopId'> & Partial<Pick<Fields<T>, 'stopId' & keyof Fields<T>>>
  : Fields<T>

export interface Insert<T extends TableName> {
  table: T
  op: 'insert'
  /** made by whoever takes it where it is left out; of a step, `new:…` names a row that is made with the steps */
  rowId?: string
  fields: New<T>
}
export interface Update<T extends TableName> {
  table: T
  op: 'update'
  rowId: string
  fields: Partial<Fields<T>>
}
export interface Remove<T extends TableName> {
  table: T
  op: 'delete'
  rowId: string
  fields?: Record<never, never>
}

export type EditOf<T extends TableName> = Insert<T> | Update<T> | Remove<T>
export type Edit = { [T in TableName]: EditOf<T> }[TableName]

/** An edit whose row is named already: what cures, kits and splices are made of. */
export type Step = { [T in TableName]: (Insert<T> & { rowId: string }) | Update<T> | Remove<T> }[TableName]

export const insert = <T extends TableName>(table: T, fields: New<T>, rowId?: string): Insert<T> => ({
  table,
  op: 'insert',
  fields,
  ...(rowId === undefined ? {} : { rowId }),
})
export const update = <T extends TableName>(table: T, rowId: string, fields: Partial<Fields<T>>): Update<T> => ({
  table,
  op: 'update',
  rowId,
  fields,
})
export const remove = <T extends TableName>(table: T, rowId: string): Remove<T> => ({ table, op: 'delete', rowId })

/** One field of a row, its value as it was entered: a screen's field checks it, and the device does before it is shown. */
export const setField = <T extends TableName>(table: T, rowId: string, field: keyof Fields<T>, value: unknown): Update<T> =>
  update(table, rowId, { [field]: value } as Partial<Fields<T>>)

/** Of a row that may be there already: updated where it is, made where it is not. */
export const upsert = <T extends TableName>(table: T, rowId: string | undefined, fields: New<T>): Insert<T> | Update<T> =>
  rowId === undefined ? insert(table, fields) : update(table, rowId, fields as Partial<Fields<T>>)

/** Changes that were made of typed edits, as edits again: a change itself is what goes over the wire. */
export const editsOf = (changes: readonly Pick<Change, 'table' | 'op' | 'rowId' | 'fields'>[]): Edit[] =>
  changes.map(({ table, op, rowId, fields }) => ({ table, op, rowId, fields }) as Edit)

/** Steps as changes: rows that they name `new:…` get ids of their own. */
export function changesOf(steps: readonly Step[], newId: Maker): Change[] {
  const made = new Map<string, string>()
  const real = (v: unknown): unknown => {
    if (typeof v !== 'string' || !v.startsWith('new:')) return v
    if (!made.has(v)) made.set(v, newId())
    return made.get(v)
  }
  return steps.map(s => ({
    id: newId(),
    table: s.table,
    op: s.op,
    rowId: real(s.rowId) as string,
    baseVersion: 0,
    fields: Object.fromEntries(Object.entries(s.fields ?? {}).map(([k, v]) => [k, real(v)])),
  }))
}
