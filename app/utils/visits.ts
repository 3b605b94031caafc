/** The list of jobs by when each is next visited. */
import { dayShort } from '../../core/card'
import type { JobListItem } from '../../shared/api'

const DAY_MS = 86_400_000
export const VISIT_GROUPS = ['Late', 'Today', 'The next seven days', 'Later', 'No day set', 'Handed over'] as const
export type VisitGroup = (typeof VISIT_GROUPS)[number]

/** The day by this device's own clock and place, `2026-11-26`. */
export const dayOf = (d: Date): string =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`

const daysFrom = (today: string, day: string): number => Math.round((Date.parse(day) - Date.parse(today)) / DAY_MS)

/** @param today  as `dayOf` says it */
export function visitGroup(j: Pick<JobListItem, 'nextOn' | 'acts'>, today: string): VisitGroup {
  if (j.acts.keep) return 'Handed over'
  if (!j.nextOn) return 'No day set'
  const days = daysFrom(today, j.nextOn)
  return days < 0 ? 'Late' : days === 0 ? 'Today' : days <= 7 ? 'The next seven days' : 'Later'
}

/** @returns `2 days late`, `tomorrow`, `Fri 27 Nov`, `3 Mar 2027`; nothing where no day is set, or none is needed any more */
export function visitWords(j: Pick<JobListItem, 'nextOn' | 'acts'>, today: string): string {
  if (j.acts.keep || !j.nextOn) return ''
  const days = daysFrom(today, j.nextOn)
  if (days === 1) return 'tomorrow'
  if (days < 0) return days === -1 ? 'a day late' : `${-days} days late`
  if (days < 100) return dayShort(j.nextOn)
  return new Date(`${j.nextOn}T12:00:00`).toLocaleDateString('en-GB', { year: 'numeric', day: 'numeric', month: 'short' })
}

/** @returns `Thu 3 Dec`, as everywhere */
export const dayWords = dayShort

/** @returns the day so many days after one */
export function dayAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() + days)
  return at.toISOString().slice(0, 10)
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/** As the server orders them: by the next visit, without one after those, handed over last; of those alike the newest work first. */
export function byVisit(a: JobListItem, b: JobListItem): number {
  const queued = (j: JobListItem) => (j.acts.keep ? 'A' : (j.nextOn ?? '9999-12-31'))
  return compare(queued(a), queued(b)) || compare(b.changedAt, a.changedAt) || compare(b.id, a.id)
}

/** @returns the jobs under the headings that have any, in the order given */
export function grouped(jobs: readonly JobListItem[], today: string): { group: VisitGroup; jobs: JobListItem[] }[] {
  return VISIT_GROUPS.map(group => ({ group, jobs: jobs.filter(j => visitGroup(j, today) === group) })).filter(g => g.jobs.length)
}
