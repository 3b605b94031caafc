/** What was done to the open job in this tab, to be taken back and done again. */
import { APPEND_ONLY, fieldsOf, invertChanges, takenBack } from '#core/job'
import type { Change, JobDocument, TableName } from '#core/job'

export interface UndoEntry {
  label: string
  /** what takes it back */
  changes: Change[]
}

export interface UndoParts {
  newId: () => string
  /** version of a row as it is shown, or the job's sequence where it is gone */
  versionOf: (table: TableName, rowId: string) => number
}

export class UndoStack {
  /** @param done  newest last; @param undone  what was taken back, newest last: both may be watched by a screen */
  constructor(
    private readonly parts: UndoParts,
    readonly done: UndoEntry[] = [],
    readonly undone: UndoEntry[] = [],
  ) {}

  clear(): void {
    this.done.length = this.undone.length = 0
  }

  /** @param doc  as it was before the changes */
  did(label: string, doc: JobDocument, changes: readonly Change[]): void {
    this.done.push({ label, changes: invertChanges(doc, changes, this.parts.newId) })
    this.undone.length = 0
  }

  /** @returns what takes the last thing back, and its name; null where there is none */
  undo = (doc: JobDocument): UndoEntry | null => this.step(this.done, this.undone, doc)
  /** @returns what does again what was taken back last */
  redo = (doc: JobDocument): UndoEntry | null => this.step(this.undone, this.done, doc)

  private step(from: UndoEntry[], to: UndoEntry[], doc: JobDocument): UndoEntry | null {
    const entry = from.pop()
    if (!entry) return null
    const { newId, versionOf } = this.parts
    const changes = entry.changes.map(c => this.forLog(doc, { ...c, id: newId(), baseVersion: versionOf(c.table, c.rowId) }))
    to.push({ label: entry.label, changes: invertChanges(doc, changes, newId) })
    return { label: entry.label, changes }
  }

  /** A log only grows: a row of it is taken back by a row that withdraws it. */
  private forLog(doc: JobDocument, c: Change): Change {
    if (c.op !== 'delete' || !APPEND_ONLY.has(c.table)) return c
    const fields = takenBack(doc[c.table] as Parameters<typeof takenBack>[0], c.rowId)
    const rowId = this.parts.newId()
    return fields ? { ...c, op: 'insert', rowId, baseVersion: 0, fields: fieldsOf({ id: c.rowId, ...fields }) } : c
  }
}
