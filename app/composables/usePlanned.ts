import type { JobDocument, TableName } from '#core/job'

/** Rows that are written down beside a plan and change nothing of it. */
const BESIDE: readonly TableName[] = ['checks', 'photos', 'labels', 'visits', 'supplies']

/** The document at the present stop, the same one until something of the plan changes: a tick draws no picture anew. */
export function usePlanned() {
  const store = useOpened()
  const same = (a: JobDocument, b: JobDocument) => (Object.keys(b) as TableName[]).every(t => a[t] === b[t] || BESIDE.includes(t))
  return computed<JobDocument>(before => (before && same(before, store.doc) ? before : store.doc))
}
