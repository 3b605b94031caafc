/**
 * What a device knows of a job, as data and pure functions: what the server last said (the base), what
 * is not acknowledged (pending), and what is shown, which is always the second applied to the first.
 */
import { applyChanges, completeDocument, emptyDocument, modernised, TIME_FIELDS } from '#core/job'
import type { Change, FieldConflict, JobDocument } from '#core/job'
import type { Feed, FeedItem } from '../../shared/api'

/** The job's own rows as the server last told them; masts that are only lent are no part of it. */
export interface Base {
  sequence: number
  document: JobDocument
}

/** A change that waits for its acknowledgement. */
export interface Pending {
  /** ascending in the order of writing, over all tabs */
  key: number
  jobId: string
  change: Change
  /** what the clock was off by when it was written, ms; null where the server had not been heard yet */
  clockOffsetMs: number | null
}

/** A change that the server would not take, kept until a person mends it or lets it go. */
export interface Aside {
  id: string
  jobId: string
  change: Change
  detail: string
  errors: { field: string; message: string }[]
  atUtc: string
}

/** Two values of one field, kept until a person chooses. */
export interface Conflict extends FieldConflict {
  id: string
  jobId: string
}

export const conflictId = (jobId: string, c: Pick<FieldConflict, 'table' | 'rowId' | 'field'>): string =>
  [jobId, c.table, c.rowId, c.field].join('|')

/** @returns the document that a person sees */
export const shown = (base: Base | null, pending: readonly Pick<Pending, 'change'>[]): JobDocument =>
  applyChanges(
    completeDocument(base?.document ?? emptyDocument()),
    pending.map(p => modernised(p.change, base?.document.jobs[0]?.id ?? p.change.rowId)),
  )

const asChange = (i: FeedItem): Change => ({
  id: i.id,
  table: i.table,
  rowId: i.rowId,
  op: i.op,
  baseVersion: 0,
  fields: i.op === 'delete' ? {} : { ...i.fields, version: i.sequence },
})

/**
 * Takes what the server told since; what the base holds already does nothing.
 * @returns the same base where there is nothing new
 */
export function withFeed(base: Base, feed: Pick<Feed, 'sequence' | 'items'>): Base {
  if (feed.sequence <= base.sequence) return base
  const news = feed.items.filter(i => i.sequence > base.sequence && (i.op === 'delete' || Object.keys(i.fields).length))
  return { sequence: feed.sequence, document: applyChanges(base.document, news.map(asChange)) }
}

/** Bytes of a change on its way. */
export const bytesOf = (change: Change): number => new TextEncoder().encode(JSON.stringify(change)).length

/** Beyond this a clock is wrong enough to be said, ms. */
export const CLOCK_TOLERANCE_MS = 120_000

/**
 * Times that a wrong clock wrote while nobody could tell it so, moved by what it turned out to be off by.
 * @param offsetMs  what is to be added to the device's clock to get the server's
 */
export function withRightTimes(p: Pending, offsetMs: number | null): Change {
  if (p.clockOffsetMs !== null || offsetMs === null || Math.abs(offsetMs) <= CLOCK_TOLERANCE_MS) return p.change
  const fields = { ...p.change.fields }
  for (const f of TIME_FIELDS[p.change.table] ?? []) {
    const at = typeof fields[f] === 'string' ? Date.parse(fields[f] as string) : NaN
    if (!Number.isNaN(at)) fields[f] = new Date(at + offsetMs).toISOString()
  }
  return { ...p.change, fields }
}
