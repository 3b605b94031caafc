/**
 * One job as this device holds it while it is open, of one member: what is shown is always what the server last said,
 * with what waits, what was sent ahead and what is not written yet applied to it. It knows no screen and no framework.
 */
import { applyChanges } from '#core/job'
import type { Change, JobDocument, TableName } from '#core/job'
import { shown } from '../replica/model'
import type { Aside, Base, Conflict } from '../replica/model'
import type { Replica } from '../replica/replica'
import { steady } from './steady'

/** What became of the last change where this device has no room left: it went to the server at once, or nowhere. */
export type NoRoom = 'sent at once' | 'not kept'

export class HeldJob {
  /** what is shown: tables in which nothing has changed are the very same as before; null until something is held */
  doc: JobDocument | null = null
  conflicts: readonly Conflict[] = []
  asides: readonly Aside[] = []
  /** changes shown and not yet written on the device: a moment, but one in which the page may be asked again */
  unwritten: readonly Change[] = []
  /** changes that could not be written: they go with the next */
  unkept: readonly Change[] = []
  /** numbers of changes that the server has not acknowledged */
  waiting: ReadonlySet<string> = new Set()
  noRoom: NoRoom | null = null

  private base: Base | null = null
  /** the same rows as `doc`, with the versions that the server last gave them */
  private rows: JobDocument | null = null
  /** changes that the server has and this device had no room for: shown until the base holds them */
  private sentAhead: readonly { sequence: number; changes: readonly Change[] }[] = []
  /** changes of this tab since the last look at the device began */
  private taken: Change[] = []
  private over = false

  constructor(
    readonly jobId: string,
    private readonly parts: {
      replica: Pick<Replica, 'read' | 'edit' | 'sendUnkept'>
      /** what must be at hand before rows that stand at that stop are shown */
      prepare: (stopId: string | null) => Promise<unknown>
      /** told when anything of what is held is another */
      changed: () => void
    },
  ) {}

  /** Nothing is told any more: the job was left, or the member. */
  end(): void {
    this.over = true
  }

  get sequence(): number {
    return this.base?.sequence ?? 0
  }
  /** whether the server has ever told the job to this device */
  get isKnown(): boolean {
    return this.base !== null
  }

  versionOf(table: TableName, rowId: string): number {
    return (this.rows?.[table] as { id: string; version?: number }[] | undefined)?.find(r => r.id === rowId)?.version ?? 0
  }

  /** Shows what the device holds now. Called one at a time. */
  async look(): Promise<void> {
    // What is taken, and even written, between this look and the end of it is in neither the look nor what is unwritten then.
    const before = this.unwritten
    this.taken = []
    const held = await this.parts.replica.read(this.jobId, this.base)
    const told = shown(held.base, held.pending)
    await this.parts.prepare(told.jobs[0]?.stopId ?? null)
    if (this.over) return
    this.base = held.base
    const known = new Set(held.pending.map(p => p.change.id))
    const open = [...new Set([...before, ...this.taken, ...this.unwritten])].filter(c => !known.has(c.id))
    this.waiting = new Set([...known, ...open.map(c => c.id)])
    this.asides = held.asides
    this.conflicts = held.conflicts
    this.sentAhead = this.sentAhead.filter(a => a.sequence > this.sequence)
    const ahead = this.sentAhead.flatMap(a => a.changes)
    const rows = applyChanges(told, [...ahead, ...open])
    if (rows.jobs.length) this.show(rows)
    this.parts.changed()
  }

  private show(rows: JobDocument): void {
    this.rows = rows
    this.doc = steady(this.doc, rows)
  }

  /**
   * Shows changes at once and writes them on the device.
   * @returns whether they lie there; otherwise `noRoom` says what became of them
   */
  async take(changes: readonly Change[]): Promise<boolean> {
    if (this.rows) this.show(applyChanges(this.rows, changes))
    this.unwritten = [...this.unwritten, ...changes]
    this.taken.push(...changes)
    this.waiting = new Set([...this.waiting, ...changes.map(c => c.id)])
    const writing = [...this.unkept, ...changes]
    this.unkept = []
    this.parts.changed()
    const kept = await this.parts.replica.edit(this.jobId, writing).then(
      () => true,
      () => false,
    )
    const sequence = kept ? null : await this.parts.replica.sendUnkept(this.jobId, writing)
    if (this.over) return kept
    const gone = new Set(writing.map(c => c.id))
    this.unwritten = this.unwritten.filter(c => !gone.has(c.id))
    if (kept) this.noRoom = null
    else if (sequence !== null) this.areAhead(sequence, writing)
    else this.areUnkept(writing)
    this.parts.changed()
    return kept
  }

  private areAhead(sequence: number, changes: readonly Change[]): void {
    const gone = new Set(changes.map(c => c.id))
    this.sentAhead = [...this.sentAhead, { sequence, changes }]
    this.waiting = new Set([...this.waiting].filter(c => !gone.has(c)))
    this.noRoom = 'sent at once'
  }

  private areUnkept(changes: readonly Change[]): void {
    this.unwritten = [...this.unwritten, ...changes]
    this.unkept = [...changes, ...this.unkept]
    this.noRoom = 'not kept'
  }
}
