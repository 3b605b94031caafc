import { JOB_STATES } from '../../../shared/api'
import type { JobList } from '../../../shared/api'
import { KINDS } from '../../../core/job'
import { listJobs } from '../../services/job-list'
import { queryNumber, queryText, queryWord } from '../../http/validate'
import { validUuid } from '../../data/check'
import { useDb } from '../../data/db'
import { requireMember } from '../../http/member'
import { problem } from '../../http/problem'

/** What a page ended with: the day it was queued for, the time it was changed, its id. */
const PAGE_END = /^(\d{4}-\d{2}-\d{2}|infinity)_(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{1,6}Z)_([0-9a-f-]{36})$/
/** A day that the calendar has, of the years that are kept: the database knows no year 0 and no 30th of February. */
const validDay = (day: string): boolean =>
  day === 'infinity' || (day >= '1970' && !!new Date(`${day}T00:00:00Z`).toJSON()?.startsWith(day))
const validTime = (at: string): boolean => validDay(at.slice(0, 10)) && !Number.isNaN(Date.parse(at))

/**
 * The crew's jobs, next visit first, then newest work, a page at a time: `search`, `state`, `kind`, `member`,
 * `after` of the page before.
 */
export default defineEventHandler(async (event): Promise<JobList> => {
  const me = await requireMember(event)
  const member = queryText(event, 'member', 36)
  if (member !== null && !validUuid(member))
    problem(422, 'member must be a member’s id.', [{ field: 'member', message: 'is no id' }])
  const after = queryText(event, 'after', 100)
  const cursor = after === null ? null : PAGE_END.exec(after)
  const real = cursor && validUuid(cursor[3]) && validDay(cursor[1]!) && validTime(cursor[2]!)
  if (after !== null && !real) {
    problem(422, 'after must be what the page before ended with.', [{ field: 'after', message: 'is no end of a page' }])
  }
  return listJobs(useDb(), me.crewId, {
    search: queryText(event, 'search', 100),
    state: queryWord(event, 'state', JOB_STATES),
    kind: queryWord(event, 'kind', KINDS),
    member,
    after: cursor ? { queued: cursor[1]!, changedAt: cursor[2]!, id: cursor[3]! } : null,
    most: queryNumber(event, 'most', { low: 1, high: 200, whole: true, otherwise: 50 }),
  })
})
