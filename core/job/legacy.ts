/** Changes written by an older app, kept on a device until it had a connection: taken as they were meant. */
import { GONE_FIELDS, without } from './schema'
import type { Change } from './schema'

/** @returns the change in today's words; the very same one where it is of today */
export function modernised(change: Change): Change {
  const gone = GONE_FIELDS[change.table]
  if (!gone?.some(f => f in change.fields)) return change
  const fields = without(change.fields, gone)
  // A gain entered on a part stood in a field of its own: it is one of the maker's figures.
  if (change.table === 'nodes' && typeof change.fields.gainDb === 'number')
    fields.own = { gainDb: change.fields.gainDb, gainDbi: change.fields.gainDb }
  return { ...change, fields }
}
