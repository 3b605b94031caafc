/**
 * Keeps what the engine says of the open job up to date: one assessment at a time, edits made meanwhile gathered into
 * the next, and none where nothing changed that it reads.
 */
import type { Assessment } from '#core/judge'
import { TABLES } from '#core/job'
import type { JobDocument, TableName } from '#core/job'
import { differs } from './steady'

/** Tables of which an assessment reads nothing: days, the state of the list, and what is only shown. */
export const UNREAD: ReadonlySet<TableName> = new Set<TableName>([
  'landmarks',
  'pictures',
  'floorPlans',
  'photos',
  'labels',
  'visits',
  'supplies',
  'ownSteps',
])
const READ = TABLES.filter(t => !UNREAD.has(t))
/** Tables whose rows decide which paths are to be computed. */
const PLACED: readonly TableName[] = ['sites', 'stops', 'obstacles', 'fixtures', 'masts', 'cells', 'jobs']

export interface AssessingParts {
  assess: (doc: JobDocument) => Promise<Assessment>
  /** computes what is missing. @returns how many paths were computed */
  ensurePaths: (doc: JobDocument, progress: (done: number, of: number) => void) => Promise<number>
  said: (result: Assessment) => void
  failed: (e: unknown) => void
  /** how far the paths are; null where they stand still */
  paths: (progress: { done: number; of: number } | null, running: boolean) => void
}

export class Assessing {
  private doc: JobDocument | null = null
  private assessed: JobDocument | null = null
  private pathsOf: JobDocument | null = null
  private computing = false
  private again = false
  private pathsRunning = false
  private pathsAgain = false
  private over = false

  constructor(private readonly parts: AssessingParts) {}

  end(): void {
    this.over = true
  }

  /** What is shown is another document: worked out where that makes a difference. */
  show(doc: JobDocument): void {
    this.doc = doc
    if (differs(this.assessed, doc, READ)) this.compute()
    if (differs(this.pathsOf, doc, PLACED)) void this.computePaths()
  }

  /** The ground has changed: paths and all that stands on them. */
  groundChanged(): void {
    void this.computePaths()
    this.compute()
  }

  private compute(): void {
    const { doc, parts } = this
    if (!doc) return
    if (this.computing) {
      this.again = true
      return
    }
    this.computing = true
    this.assessed = doc
    parts
      .assess(doc)
      .then(
        r => !this.over && parts.said(r),
        (e: unknown) => !this.over && parts.failed(e),
      )
      .finally(() => {
        this.computing = false
        if (!this.again || this.over) return
        this.again = false
        this.compute()
      })
  }

  private async computePaths(): Promise<void> {
    const { doc, parts } = this
    if (!doc) return
    if (this.pathsRunning) {
      this.pathsAgain = true
      return
    }
    this.pathsRunning = true
    this.pathsOf = doc
    parts.paths(null, true)
    try {
      const n = await parts.ensurePaths(doc, (done, of) => {
        if (this.over) return
        parts.paths({ done, of }, true)
        this.compute()
      })
      if (n && !this.over) this.compute()
    } finally {
      this.pathsRunning = false
      if (!this.over) {
        parts.paths(null, false)
        if (this.pathsAgain) {
          this.pathsAgain = false
          void this.computePaths()
        }
      }
    }
  }
}
