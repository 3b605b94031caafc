import { describe, expect, it } from 'vitest'
import { SPOT as spot } from '../../tests/support/rows'
import { errorsOf } from '../data/check'
import { ChangeBatchSchema, ChangeSchema, partialSchema, rowSchema, TABLES, TABLE_FIELDS } from '../../core/job'
import type { TableName } from '../../core/job/schema'
import { LET_GO, snake } from '../data/document-table'
import { documentTableOf } from '../data/schema'
import { getTableConfig } from 'drizzle-orm/pg-core'

describe('a table follows from its fields', () => {
  const columnsOf = (name: TableName) => getTableConfig(documentTableOf(name)).columns
  const column = (name: TableName, field: string) => columnsOf(name).find(c => c.name === field)!
  it.each(TABLES)('%s takes null exactly where the document does', name => {
    for (const field of Object.keys(TABLE_FIELDS[name])) {
      const nullable = errorsOf(partialSchema(name), { [field]: null }).length === 0
      expect(column(name, snake(field)).notNull, field).toBe(!nullable)
    }
  })
  it('kinds of fields are types of the database', () => {
    expect(column('spots', 'up_m').getSQLType()).toBe('double precision')
    expect(column('sites', 'storeys').getSQLType()).toBe('smallint')
    expect(column('readings', 'channel').getSQLType()).toBe('integer')
    expect(column('readings', 'taken_at_utc').getSQLType()).toBe('timestamp with time zone')
    expect(column('jobs', 'next_on').getSQLType()).toBe('date')
    expect(column('designs', 'mast_id').getSQLType()).toBe('uuid')
    expect(column('nodes', 'part').getSQLType()).toBe('jsonb')
    expect(column('calls', 'made').getSQLType()).toBe('boolean')
    expect(column('readings', 'bandwidth_mhz').getSQLType()).toBe('double precision')
  })
  it('a row of before has what its fields say, and nothing else of its own accord', () => {
    expect(column('sites', 'wall_material').default).toBe('brick')
    expect(column('jobs', 'k_factor').default).toBeCloseTo(4 / 3, 12)
    expect(column('calls', 'withdrawn').hasDefault).toBe(false)
  })
  it('rows go with what they are of, and stay where something still names them', () => {
    const deletes = Object.fromEntries(getTableConfig(documentTableOf('sweeps')).foreignKeys.map(k => [k.getName(), k.onDelete]))
    expect(deletes['ref:sweeps.designId']).toBe('cascade')
    expect(deletes['ref:sweeps.setupId']).toBe('no action')
    expect(LET_GO.map(k => k.name)).toContain('ref:checks.stopId')
    expect(LET_GO.find(k => k.name === 'ref:jobs.stopId')!.statement).toContain('("crew_id","id","stop_id") REFERENCES')
  })
})

describe('what comes in is checked', () => {
  it('a whole row passes, a missing field is named', () => {
    expect(errorsOf(rowSchema('spots'), spot)).toEqual([])
    const { name: _name, ...rest } = spot
    expect(errorsOf(rowSchema('spots'), rest)[0]!.field).toBe('name')
  })
  it('a field that is not of the table is refused', () =>
    expect(errorsOf(partialSchema('spots'), { crewId: 'x' })[0]!.message).toContain('crewId'))
  it('NaN and text are no numbers', () => {
    expect(errorsOf(partialSchema('spots'), { upM: NaN })).not.toEqual([])
    expect(errorsOf(partialSchema('spots'), { upM: '3' })[0]).toMatchObject({ field: 'upM' })
  })
  it('null is allowed only where nothing is an answer', () => {
    expect(errorsOf(partialSchema('sites'), { latDeg: null })).toEqual([])
    expect(errorsOf(partialSchema('sites'), { lengthM: null })).not.toEqual([])
    expect(errorsOf(partialSchema('sites'), { latDeg: 91 })[0]!.message).toContain('<= 90')
  })
  it('a batch holds 1 to 500 changes of known tables', () => {
    const change = {
      id: '0192f000-0010-7000-8000-000000000001',
      table: 'spots',
      rowId: '0192f000-0010-7000-8000-000000000002',
      op: 'update',
      baseVersion: 0,
      fields: {},
    }
    expect(errorsOf(ChangeBatchSchema, { changes: [change] })).toEqual([])
    expect(errorsOf(ChangeBatchSchema, { changes: [] })).not.toEqual([])
    expect(errorsOf(ChangeSchema, change)).toEqual([])
    expect(errorsOf(ChangeSchema, { ...change, table: 'members' })).not.toEqual([])
    expect(errorsOf(ChangeBatchSchema, { changes: Array(501).fill(change) })).not.toEqual([])
  })
})
