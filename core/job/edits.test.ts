import { describe, expect, it } from 'vitest'
import { editsOf, insert, remove, setField, update, upsert } from './edits'
import type { Edit } from './edits'
import { BARE_SETUP } from './defaults'

const wall = {
  level: 0,
  fromEastM: 0,
  fromNorthM: 0,
  toEastM: 4,
  toNorthM: 0,
  material: 'brick',
  lossDb: null,
} as const

describe('edits', () => {
  it('are of their table: what is none of its fields, or of another kind, does not compile', () => {
    const good: Edit[] = [
      update('spots', 'a', { upM: 2 }),
      insert('walls', wall),
      remove('walls', 'a'),
      { table: 'jobs', op: 'update', rowId: 'a', fields: { notes: null } },
    ]
    const bad = [
      // @ts-expect-error no such field
      update('spots', 'a', { upMm: 2 }),
      // @ts-expect-error a text is no height
      update('spots', 'a', { upM: 'high' }),
      // @ts-expect-error half a row is none
      insert('walls', { level: 0 }),
      // @ts-expect-error no such table
      remove('wals', 'a'),
      // @ts-expect-error no such choice
      update('setups', 'a', { link: 'pigeon' }),
      // @ts-expect-error a field of another table
      setField('spots', 'a', 'lossDb', 3),
    ]
    expect([...good, ...bad].map(e => e.op)).toEqual(['update', 'insert', 'delete', 'update', ...bad.map(e => e.op)])
  })
  it('a row that holds at one place needs no stop: the job’s is taken', () => {
    const log = { takenAtUtc: '', setupId: null, replacesId: null, withdrawn: false }
    expect(insert('calls', { ...log, spotId: 's', made: true, heard: true, dropped: false }).fields).not.toHaveProperty('stopId')
    expect(update('calls', 'c', { stopId: 'x' }).fields).toEqual({ stopId: 'x' })
  })
  it('a row that is there is updated, one that is not is made', () => {
    expect(upsert('setups', 'a', BARE_SETUP)).toMatchObject({ op: 'update', rowId: 'a' })
    expect(upsert('setups', undefined, BARE_SETUP)).toEqual({ table: 'setups', op: 'insert', fields: BARE_SETUP })
  })
  it('changes are edits again, without what goes over the wire', () => {
    const change = { id: 'c', baseVersion: 3, table: 'spots', op: 'update', rowId: 'a', fields: { upM: 2 } } as const
    expect(editsOf([change])).toEqual([update('spots', 'a', { upM: 2 })])
  })
})
