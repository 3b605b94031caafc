import { describe, expect, it } from 'vitest'
import { v7 as uuidv7 } from 'uuid'
import { applyChanges } from '#core/job/changes'
import type { Change, JobDocument } from '#core/job/schema'
import { demoScenario } from '#demo/scenario'
import { change } from '../replica/contract'
import { UndoStack } from './undo'

const { jobs: JOBS } = demoScenario()
/** A screen that does, takes back and does again. */
function screen() {
  let doc: JobDocument = structuredClone(JOBS[0]!.document)
  const versions = new Map<string, number>()
  const stack = new UndoStack({ newId: uuidv7, versionOf: (_t, id) => versions.get(id) ?? 7 })
  return {
    stack,
    versions,
    get doc() {
      return doc
    },
    act(label: string, ...changes: Change[]) {
      stack.did(label, doc, changes)
      doc = applyChanges(doc, changes)
    },
    step(way: 'undo' | 'redo') {
      const entry = stack[way](doc)
      if (entry) doc = applyChanges(doc, entry.changes)
      return entry
    },
  }
}

describe('what was done, taken back and done again', () => {
  it('goes back by one press a deed, newest first, and forth again', () => {
    const s = screen()
    const { id, name } = s.doc.spots[0]!
    s.act('Rename', change('spots', 'update', id, { fields: { name: 'Den' } }))
    s.act('Raise', change('spots', 'update', id, { fields: { upM: 4 } }))
    const before = s.doc.spots[0]!
    expect(s.step('undo')!.label).toBe('Raise')
    expect(s.step('undo')!.label).toBe('Rename')
    expect(s.doc.spots[0]!.name).toBe(name)
    expect(s.step('undo')).toBeNull()
    s.step('redo')
    s.step('redo')
    expect(s.doc.spots[0]!).toEqual(before)
    expect(s.step('redo')).toBeNull()
  })
  it('a new deed ends what could be done again', () => {
    const s = screen()
    const { id } = s.doc.spots[0]!
    s.act('Rename', change('spots', 'update', id, { fields: { name: 'Den' } }))
    s.step('undo')
    s.act('Raise', change('spots', 'update', id, { fields: { upM: 4 } }))
    expect(s.step('redo')).toBeNull()
  })
  it('a part that was removed comes back with its cables', () => {
    const s = screen()
    const node = s.doc.nodes.find(n => s.doc.runs.some(r => r.fromNodeId === n.id))!
    const runs = s.doc.runs.length
    s.act('Remove', change('nodes', 'delete', node.id))
    expect(s.doc.runs.length).toBeLessThan(runs)
    s.step('undo')
    expect(s.doc.nodes.find(n => n.id === node.id)).toMatchObject({ partId: node.partId, upM: node.upM })
    expect(s.doc.runs).toHaveLength(runs)
  })
  it('a reading is never removed: it is withdrawn, and stands again when that is taken back', () => {
    const s = screen()
    const { id: _id, version: _version, ...fields } = s.doc.readings[0]!
    const id = uuidv7()
    s.act('Read', change('readings', 'insert', id, { fields }))
    const rows = s.doc.readings.length
    const back = s.step('undo')!
    expect(back.changes.map(c => c.op)).toEqual(['insert'])
    expect(back.changes[0]!.fields).toMatchObject({ replacesId: id, withdrawn: true })
    expect(s.doc.readings).toHaveLength(rows + 1)
  })
  it('each step is made on the version that is shown then, under a number of its own', () => {
    const s = screen()
    const { id } = s.doc.spots[0]!
    const done = change('spots', 'update', id, { fields: { name: 'Den' } })
    s.act('Rename', done)
    s.versions.set(id, 12)
    const back = s.step('undo')!.changes[0]!
    expect(back.baseVersion).toBe(12)
    expect(back.id).not.toBe(done.id)
  })
})
