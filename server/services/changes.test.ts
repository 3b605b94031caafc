import { describe, expect, it } from 'vitest'
import { SPOT as spot } from '../../tests/support/rows'
import { errorsOf } from '../utils/validate'
import { ChangeBatchSchema, ChangeSchema, partialSchema, rowSchema, TABLES, TABLE_FIELDS } from '../../core/job/schema'
import { documentTables } from '../database/schema'
import { getTableColumns } from 'drizzle-orm'

describe('the document and the database', () => {
  it.each(TABLES)('every field of %s has a column', name => {
    const columns = Object.keys(getTableColumns(documentTables[name]))
    for (const field of Object.keys(TABLE_FIELDS[name])) expect(columns).toContain(field)
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
