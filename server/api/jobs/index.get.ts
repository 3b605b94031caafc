import { JOB_STATES } from '../../../shared/api'
import type { JobList } from '../../../shared/api'
import { KINDS } from '../../../core/job/schema'
import { listJobs } from '../../services/job-list'
import { queryNumber, queryText, queryWord } from '../../utils/validate'

/** The crew's jobs, newest work first, a page at a time: `search`, `state`, `kind`, `member`, `after` of the page before. */
export default defineEventHandler(async (event): Promise<JobList> => {
  const me = await requireMember(event)
  const member = queryText(event, 'member', 36)
  if (member !== null && !validUuid(member))
    problem(422, 'member must be a member’s id.', [{ field: 'member', message: 'is no id' }])
  const after = queryText(event, 'after', 100)
  const cursor = after === null ? null : /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{1,6}Z)_([0-9a-f-]{36})$/.exec(after)
  if (after !== null && (!cursor || !validUuid(cursor[2]) || Number.isNaN(Date.parse(cursor[1]!)))) {
    problem(422, 'after must be what the page before ended with.', [{ field: 'after', message: 'is no end of a page' }])
  }
  return listJobs(useDb(), me.crewId, {
    search: queryText(event, 'search', 100),
    state: queryWord(event, 'state', JOB_STATES),
    kind: queryWord(event, 'kind', KINDS),
    member,
    after: cursor ? { changedAt: cursor[1]!, id: cursor[2]! } : null,
    most: queryNumber(event, 'most', { low: 1, high: 200, whole: true, otherwise: 50 }),
  })
})
