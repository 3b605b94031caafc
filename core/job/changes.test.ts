import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChanges, invertChanges, standing, takenBack } from './changes'
import { REFERENCES } from './references'
import { emptyDocument, TABLES, TABLE_FIELDS } from './schema'
import type { Change, JobDocument, TableName } from './schema'

let n = 0
const newId = () => `id-${++n}`
const change = (table: TableName, op: Change['op'], rowId: string, fields: Record<string, unknown> = {}): Change => ({
  id: newId(),
  table,
  rowId,
  op,
  baseVersion: 0,
  fields: op === 'insert' ? { name: rowId, ...fields } : fields,
})
const sorted = (d: JobDocument) =>
  Object.fromEntries(TABLES.map(t => [t, [...(d[t] as { id: string }[])].sort((a, b) => a.id.localeCompare(b.id))]))

/** A job of one design with two parts and the cable between them, a stop, a sweep with a step. */
const WHOLE = applyChanges(emptyDocument(), [
  change('stops', 'insert', 'stop', { name: 'Quay' }),
  change('designs', 'insert', 'design', { name: 'A' }),
  change('jobs', 'insert', 'job', { name: 'J', designId: 'design', stopId: 'stop', baselineSpotId: null }),
  change('obstacles', 'insert', 'barn', { stopId: 'stop' }),
  change('nodes', 'insert', 'a', { designId: 'design' }),
  change('nodes', 'insert', 'b', { designId: 'design' }),
  change('runs', 'insert', 'cable', { designId: 'design', fromNodeId: 'a', toNodeId: 'b' }),
  change('sweeps', 'insert', 'sweep', { designId: 'design', stopId: null }),
  change('steps', 'insert', 'step', { sweepId: 'sweep', replacesId: null }),
])

describe('a row that goes', () => {
  it('takes along what hangs on it, and what points at it lets go', () => {
    const after = applyChanges(WHOLE, [change('designs', 'delete', 'design')])
    for (const t of ['designs', 'nodes', 'runs', 'sweeps', 'steps'] as const) expect(after[t]).toEqual([])
    expect(after.jobs[0]!.designId).toBeNull()
    expect(after.obstacles).toHaveLength(1)
  })
  it('one part takes its cables and nothing else', () => {
    const after = applyChanges(WHOLE, [change('nodes', 'delete', 'a')])
    expect(after.runs).toEqual([])
    expect(after.nodes.map(x => x.id)).toEqual(['b'])
  })
  it('is brought back by undo before the rows that name it, so that each finds what it names', () => {
    const back = invertChanges(WHOLE, [change('designs', 'delete', 'design')], newId)
    const seen = new Set(['job', 'stop', 'barn'])
    for (const c of back) {
      for (const r of REFERENCES.filter(x => x.table === c.table)) {
        const named = c.fields[r.field]
        if (typeof named === 'string') expect(seen.has(named), `${c.table}.${r.field}`).toBe(true)
      }
      seen.add(c.rowId)
    }
    expect(back.map(c => `${c.table} ${c.op}`)).toContain('jobs update')
  })
  it('whatever was changed, undo gives what was there', () => {
    const ids = TABLES.flatMap(t => (WHOLE[t] as { id: string }[]).map(r => [t, r.id] as const)).filter(([t]) => t !== 'jobs')
    const step = fc.oneof(
      fc.constantFrom(...ids).map(([t, id]) => change(t, 'delete', id)),
      fc.constantFrom(...ids).map(([t, id]) => change(t, 'update', id, { name: 'other' })),
      fc.constant(null).map(() => change('nodes', 'insert', newId(), { designId: 'design' })),
    )
    fc.assert(
      fc.property(fc.array(step, { maxLength: 6 }), changes => {
        const after = applyChanges(WHOLE, changes)
        const again = applyChanges(after, invertChanges(WHOLE, changes, newId))
        expect(sorted(again)).toEqual(sorted(applyChanges(WHOLE, [])))
      }),
    )
  })
})

describe('references', () => {
  it('name fields and tables that are there', () => {
    for (const r of REFERENCES) expect(Object.keys(TABLE_FIELDS[r.table]), `${r.table}.${r.field}`).toContain(r.field)
  })
  it('every field that holds a row’s id stands among them', () => {
    const idFields = TABLES.flatMap(t =>
      Object.entries(TABLE_FIELDS[t])
        .filter(([, schema]) => JSON.stringify(schema).includes('[1-8][0-9a-f]{3}'))
        .map(([f]) => `${t}.${f}`)
        // A capture is a number of a moment, not a row; a method is another job.
        .filter(f => f !== 'readings.capture' && f !== 'jobs.methodId'),
    )
    expect(REFERENCES.map(r => `${r.table}.${r.field}`).sort()).toEqual(idFields.sort())
  })
})

describe('a log that only grows, taken back', () => {
  interface Row {
    id: string
    replacesId: string | null
    withdrawn: boolean
    setupId: string
  }
  const first: Row = { id: 'a', replacesId: null, withdrawn: false, setupId: 'phone' }
  const stand = (rows: Row[]) => standing(rows).map(r => r.setupId)
  const undo = (rows: Row[]) => [...rows, { ...takenBack(rows, rows.at(-1)!.id)!, id: `u${rows.length}` } as Row]

  it('a row is withdrawn, and there again when that is taken back', () => {
    const gone = undo([first])
    expect(stand(gone)).toEqual([])
    expect(stand(undo(gone))).toEqual(['phone'])
  })
  it('a correction gives way to what it stood for, and comes again: nothing is ever lost', () => {
    const moved = [first, { ...first, id: 'b', replacesId: 'a', setupId: 'router' }]
    expect(stand(moved)).toEqual(['router'])
    const back = undo(moved)
    expect(stand(back)).toEqual(['phone'])
    const again = undo(back)
    expect(stand(again)).toEqual(['router'])
    expect(stand(undo(again))).toEqual(['phone'])
  })
  it('of a row that is not there nothing is written', () => expect(takenBack([first], 'x')).toBeNull())
})
