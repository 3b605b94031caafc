/**
 * Keeps what the engine says of the open job up to date: one assessment at a time, edits made meanwhile gathered into
 * the next, and none where nothing changed that it reads.
 */
import type { Assessment } from '#core/judge'
import { TABLES } from '#core/job'
import type { JobDocument, TableName } from '#core/job'
import { inTurn } from '../utils/in-turn'
import { differs } from './steady'

/** Tables of which an assessment reads nothing: days, the state of the list, and what is only shown. */
export const UNREAD: ReadonlySet<TableName> = new Set<TableName>([
  'landmarks',
  'pictures',
  'floorPlans',
  'photos',
  'signatures',
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
  private over = false

  constructor(private readonly parts: AssessingParts) {}

  end(): void {
    this.over = true
  }

  /** What is shown is another document: worked out where that makes a difference. */
  show(doc: JobDocument): void {
    this.doc = doc
    if (differs(this.assessed, doc, READ)) void this.compute()
    if (differs(this.pathsOf, doc, PLACED)) void this.computePaths()
  }

  /** The ground has changed: paths and all that stands on them. */
  groundChanged(): void {
    void this.computePaths()
    void this.compute()
  }

  private readonly compute = inTurn(async () => {
    const { doc, parts } = this
    if (!doc || this.over) return
    this.assessed = doc
    await parts.assess(doc).then(
      r => !this.over && parts.said(r),
      (e: unknown) => !this.over && parts.failed(e),
    )
  })

  private readonly computePaths = inTurn(async () => {
    const { doc, parts } = this
    if (!doc || this.over) return
    this.pathsOf = doc
    parts.paths(null, true)
    try {
      const n = await parts.ensurePaths(doc, (done, of) => {
        if (this.over) return
        parts.paths({ done, of }, true)
        void this.compute()
      })
      if (n) void this.compute()
    } finally {
      if (!this.over) parts.paths(null, false)
    }
  })
}
