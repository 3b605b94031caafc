import Ajv from 'ajv'
import addFormats from 'ajv-formats'
import { beforeAll, describe, expect, it } from 'vitest'
import { SPOT as spot } from '../../tests/support/rows'
import { partialSchema, TABLE_FIELDS, TABLES } from '#core/job/schema'
import { changeErrors, loadValidators } from './validate'

beforeAll(loadValidators)

describe('what the page checks before it keeps a change', () => {
  it('takes a whole row and a part of one', () => {
    expect(changeErrors({ table: 'spots', op: 'insert', fields: spot })).toEqual([])
    expect(changeErrors({ table: 'spots', op: 'update', fields: { upM: 2.5 } })).toEqual([])
    expect(changeErrors({ table: 'spots', op: 'delete', fields: {} })).toEqual([])
  })
  it.each([
    [{ upM: 301 }, 'upM', 'must be 300 or less'],
    [{ upM: -21 }, 'upM', 'must be -20 or more'],
    [{ upM: 'high' }, 'upM', 'must be a number'],
    [{ name: '' }, 'name', 'must not be empty'],
    [{ name: 'x'.repeat(81) }, 'name', 'must be at most 80 characters'],
  ])('says beside the field what is wrong: %o', (fields, field, message) => {
    expect(changeErrors({ table: 'spots', op: 'update', fields })[0]).toEqual({ field, message })
  })
  it('is as strict as the server about what a table holds', () => {
    expect(changeErrors({ table: 'spots', op: 'update', fields: { crewId: 'x' } })).not.toEqual([])
    expect(changeErrors({ table: 'readings', op: 'insert', fields: { spotId: 'not an id' } })).not.toEqual([])
  })
  it('a new row is whole, and a change holds something', () => {
    const { name: _name, ...rest } = spot
    expect(changeErrors({ table: 'spots', op: 'insert', fields: rest })).toEqual([{ field: 'name', message: 'is missing' }])
    expect(changeErrors({ table: 'spots', op: 'update', fields: {} })).not.toEqual([])
  })
  it('agrees with the schemas of the document about every field, what fits and what does not', () => {
    const values = [null, '', 'x', -1, 0, 0.5, 3, 1e9, true, [], {}, '2026-04-03', '0192f000-0010-7000-8000-000000000001']
    const ajv = addFormats(new Ajv({ strict: false }))
    for (const table of TABLES) {
      const fits = ajv.compile(partialSchema(table))
      for (const field of Object.keys(TABLE_FIELDS[table]))
        for (const value of values) {
          const fields = { [field]: value }
          expect(changeErrors({ table, op: 'update', fields }).length === 0, `${table}.${field} ${value}`).toBe(fits(fields))
        }
    }
  })
  it('knows a time and an id by their form', () => {
    const step = {
      sweepId: '0192f000-0010-7000-8000-000000000001',
      pass: 1,
      headingDeg: 10,
      tiltDeg: null,
      value: 5,
      takenAtUtc: '2026-04-03T12:00:00.000Z',
      replacesId: null,
      withdrawn: false,
    }
    expect(changeErrors({ table: 'steps', op: 'insert', fields: step })).toEqual([])
    expect(changeErrors({ table: 'steps', op: 'insert', fields: { ...step, takenAtUtc: 'yesterday' } })[0]!.field).toBe(
      'takenAtUtc',
    )
    expect(changeErrors({ table: 'steps', op: 'insert', fields: { ...step, headingDeg: 361 } })[0]!.message).toBe(
      'must be 360 or less',
    )
  })
})
