import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { labelsPaper, pickListPaper } from './plan-papers'
import type { Block } from './report'

const paper = (h: House) => ({ document: h.doc, design: h.doc.designs[0]!, units: 'metric' as const, crew: 'Harbour crew' })
const tables = (blocks: Block[]) => blocks.flatMap(b => (b.kind === 'table' ? [b] : []))

describe('papers of the plan', () => {
  it('the pick list has a table a group, and says what runs and what is bought', () => {
    const r = pickListPaper(paper(new House('booster')))
    expect(tables(r.blocks).map(t => t.title)).toEqual(['Parts', 'Cable', 'Not in the box', 'Consumables'])
    expect(r.subtitle).toMatch(/House, variant A\. \d+.m of cable run, \d+.m bought\./)
    expect(tables(r.blocks)[0]!.rows.some(row => row[1] === 'Ceiling dome')).toBe(true)
  })
  it('two labels for every cable, each with both of its ends', () => {
    const h = new House('booster')
    const [table] = tables(labelsPaper(paper(h)).blocks)
    expect(table!.rows).toHaveLength(2 * h.doc.runs.filter(r => r.partId).length)
    for (const row of table!.rows) expect(row.every(cell => cell.length > 0)).toBe(true)
  })
  it('of an empty plan there is nothing to pick', () => expect(pickListPaper(paper(new House(null))).blocks).toEqual([]))
})
