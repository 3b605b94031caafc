import { setField } from '#core/job'
import type { Edit, Fields } from '#core/job'

/** @returns what sets one field of the job itself, as a change called by the field's word */
export function useJobFields() {
  const store = useOpened()
  return (field: keyof Fields<'jobs'>) => (v: unknown) =>
    store.commit([setField('jobs', store.job.id, field, v) as Edit], fieldWord(field))
}
