import type { Assessment } from '#core/judge'
import type { Job, JobDocument, Site } from '#core/job'
import type { LogIndex } from '#core/survey'

/** A job that is open: its rows, itself, its site and what was worked out are there. */
export interface OpenJob {
  id: string
  /** every row, as shown */
  doc: JobDocument
  /** the same, standing at the present stop */
  here: JobDocument
  job: Job
  site: Site
  log: LogIndex
  result: Assessment
}

export type Opened = Omit<ReturnType<typeof useJob>, keyof OpenJob> & OpenJob

/**
 * The job of a screen that stands in its frame: the frame draws a screen only once the job is open and worked out, so that
 * nothing of it need be asked for twice.
 */
export const useOpened = (): Opened => useJob() as Opened
