/**
 * Which rows name which, and what becomes of them when the named row goes, as the fields say it. The browser applies it
 * to its copy, the database holds it as keys, so that both end with the same rows.
 */
import { fieldOf } from './fields'
import type { WhenGone } from './fields'
import { TABLE_FIELDS, TABLES } from './schema'
import type { TableName } from './schema'

export interface Reference {
  table: TableName
  field: string
  target: TableName
  whenGone: WhenGone
}

export const REFERENCES: readonly Reference[] = TABLES.flatMap(table =>
  Object.entries(TABLE_FIELDS[table]).flatMap(([field, schema]) => {
    const { reference } = fieldOf(schema)
    return reference ? [{ table, field, target: reference.target as TableName, whenGone: reference.whenGone }] : []
  }),
)

/** The references to a table. */
export const referencesTo = (target: TableName): readonly Reference[] => REFERENCES.filter(r => r.target === target)
