import { describe, expect, it } from 'vitest'
import { parse } from 'csv-parse/sync'
import { PARTS } from '../catalogue/parts'
import { PART_COLUMNS, readPart, writeParts } from './part-csv'

const rows = (text: string): Record<string, string>[] => parse(text, { columns: true })
const back = (row: Record<string, string>) => readPart(c => row[c])

describe('parts as a table', () => {
  it('every part shipped goes out and comes back the same', () =>
    expect(rows(writeParts(PARTS)).map(back)).toEqual(PARTS.map(p => ({ ...p }))))
  it('a table may hold fewer columns, in any order, with comma decimals', () =>
    expect(readPart(c => ({ kind: 'pad', name: 'Pad', lossDb: '6,5', id: 'p' })[c])).toEqual({
      id: 'p',
      kind: 'pad',
      name: 'Pad',
      lossDb: 6.5,
    }))
  it.each([
    ['lossDb', 'much', 'lossDb: “much” is not a number'],
    ['ranges', '617-960', 'ranges: “617-960” is not like 617-960 8dBi 70x80'],
    ['ranges', '960-617 8dBi 70x80', 'ranges: “960-617 8dBi 70x80” ends below where it begins'],
    ['ports', '1:feed', 'ports: “1:feed” is not like 1:feed:N:socket:50'],
    ['constants', '0.4', 'constants: a number is missing'],
  ])('a wrong %s is told with its column', (column, value, message) =>
    expect(() => readPart(c => (c === column ? value : undefined))).toThrow(message),
  )
  it('has one heading for every figure', () => expect(new Set(PART_COLUMNS).size).toBe(PART_COLUMNS.length))
})
