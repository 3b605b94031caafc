/** Envelopes that app and server both speak. */
import type { Change, JobDocument } from '../core/job/schema'
import type { FieldConflict } from '../core/job/changes'

export interface ChangeResult {
  sequence: number
  /** version the server gave each row touched */
  versions: { table: Change['table'], rowId: string, version: number }[]
  conflicts: FieldConflict[]
  rejected: { changeId: string, table: Change['table'], rowId: string, detail: string, errors?: { field: string, message: string }[] }[]
}

/** The document with the crew's masts near its present place in it; those are named, since they are not the job's own. */
export interface JobSnapshot { document: JobDocument, sequence: number, nearMastIds: string[] }

export interface JobListItem { id: string, name: string, kind: string, latDeg: number | null, lonDeg: number | null, changedAt: string, spots: number, readings: number, customerName: string | null, agreedDownMbps: number | null, acts: Record<'scout' | 'plan' | 'fit' | 'prove' | 'keep', boolean> }

export interface FeedItem extends Pick<Change, 'id' | 'table' | 'rowId' | 'op' | 'fields'> { sequence: number }

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

export interface MastImportReport extends MastImportState { rejects: { line: number, reason: string, row: string }[] }

export interface TerrainReport { name: string, kind: 'ground' | 'cover', side: number, blocks: number, voids: number, keys: string[] }

export interface CoverClasses { classes: { value: number, share: number }[] }
