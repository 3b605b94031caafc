/** Envelopes that app and server both speak. */
import type { Words } from '../core/words'
import type { Cell, Change, FieldConflict, JobDocument, Mast } from '../core/job'
import type { BoardVisit, Lesson, MethodPhoto } from '../core/card'

export interface ChangeResult {
  sequence: number
  /** version the server gave each row touched */
  versions: { changeId: string; table: Change['table']; rowId: string; version: number }[]
  conflicts: FieldConflict[]
  rejected: RefusedChange[]
  /** where the batch said up to where the browser knows the job: what came since, its own changes with it */
  items?: FeedItem[]
  more?: boolean
  reset?: boolean
}

export interface RefusedChange {
  changeId: string
  table: Change['table']
  rowId: string
  detail: string
  errors?: { field: string; message: string }[]
}

/** What became of a job after a sequence number. */
export interface Feed {
  sequence: number
  items: FeedItem[]
  /** there is more than one answer holds: read the job whole */
  more: boolean
  /** the server knows less than the browser: it was restored from an older backup */
  reset?: boolean
}

/** Masts of the crew's list near a place, with their cells; lent to a job, not its own. */
export interface NearMasts {
  masts: Mast[]
  cells: Cell[]
}

/** A job's own rows, and the crew's masts near its present place. */
export interface JobSnapshot {
  document: JobDocument
  sequence: number
  near: NearMasts
}

/** @returns the document as a person and the engine see it: with the masts that are lent */
export function withNear(document: JobDocument, near: NearMasts | null): JobDocument {
  if (!near?.masts.length) return document
  const own = new Set(document.masts.map(m => m.id))
  const masts = near.masts.filter(m => !own.has(m.id))
  const ids = new Set(masts.map(m => m.id))
  return {
    ...document,
    masts: [...document.masts, ...masts],
    cells: [...document.cells, ...near.cells.filter(c => ids.has(c.mastId))],
  }
}

/** The furthest act done. */
export type JobState = 'new' | 'scout' | 'plan' | 'fit' | 'prove' | 'keep'
export const JOB_STATES: readonly JobState[] = ['new', 'scout', 'plan', 'fit', 'prove', 'keep']

export interface JobListItem {
  id: string
  name: string
  kind: string
  state: JobState
  latDeg: number | null
  lonDeg: number | null
  changedAt: string
  spots: number
  readings: number
  customerName: string | null
  customerAddress: string | null
  agreedDownMbps: number | null
  /** day of the next visit */
  nextOn: string | null
  /** made from another: one of a fleet */
  fleet: boolean
  /** something on its card was done */
  cardBegun: boolean
  acts: Record<'scout' | 'plan' | 'fit' | 'prove' | 'keep', boolean>
  /** members who worked on it */
  workers: string[]
}

/** A handover in the list of those of a job. */
export interface HandoverItem {
  id: string
  engine: string
  madeAt: string
  madeBy: string
}

/** A customer's link, without itself. */
export interface CustomerPageItem {
  id: string
  handoverId: string
  madeAt: string
  madeBy: string
  endsAt: string
  withdrawnAt: string | null
  openings: number
  openedAt: string | null
}

/** One page of the list of jobs. */
export interface JobList {
  jobs: JobListItem[]
  /** what asks for the page that follows; null at the end */
  next: string | null
  /** how many there are in all; told with the first page */
  total: number | null
}

export interface FeedItem extends Pick<Change, 'id' | 'table' | 'rowId' | 'op' | 'fields'> {
  sequence: number
}

/** How far an import is; the same on every node and after a lost connection. */
export interface MastImportState {
  id: string
  name: string
  state: 'receiving' | 'merging' | 'done' | 'failed' | 'cancelled'
  /** the piece wanted next */
  nextPiece: number
  rows: number
  kept: number
  masts: number
  cells: number
  /** masts and cells that differ now from before */
  changed: number
  /** what the merge is at, in words */
  step: string | null
  error: string | null
}

export interface MastImportReport extends MastImportState {
  rejects: { line: number; reason: string; row: string }[]
}

export interface TerrainReport {
  name: string
  kind: 'ground' | 'cover'
  side: number
  blocks: number
  voids: number
  keys: string[]
}

export interface CoverClasses {
  classes: { value: number; share: number }[]
}

/** Of the promises that were handed over: within, less was measured, more was. */
export interface CrewRecord {
  inside: number
  less: number
  more: number
}

/** One of a fleet: how far it is, and where it is not as its method. */
export interface FleetUnit {
  id: string
  name: string
  /** the others were made from it */
  method: boolean
  /** steps of its card that are done */
  done: number
  state: JobState
  differences: Words[]
  serials: string[]
  nextOn: string | null
}

export interface Fleet {
  methodId: string
  /** steps that the method's card has; 0 where it is one alone */
  steps: number
  units: FleetUnit[]
  lessons: Lesson[]
  photos: MethodPhoto[]
}

/** Visits of a span of days. */
export interface Board {
  visits: BoardVisit[]
  teams: string[]
}

/** What a member may do in the crew. */
export type Role = 'lead' | 'installer' | 'viewer'

/** Who is signed in. */
export interface Me {
  crewId: string
  crewName: string
  memberId: string
  name: string
  email: string
  role: Role
  demo: boolean
  /** what the crew's lists of masts are known by: another where one of them has changed */
  listState: string
}
