/** Days on site over all jobs of a crew, and the same as a calendar. */
import { hoursWords } from '../../core/card'
import { and, asc, eq, gte, lte, ne, sql } from 'drizzle-orm'
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import { DateTime } from 'luxon'
import type { BoardVisit } from '../../core/card'
import { jobs, sites, supplies, visits } from '../data/schema'
import type { Db } from '../data/db'

export interface BoardQuery {
  from: string
  to: string
  jobId?: string | null
}

/** More than a crew has in the longest span that may be asked for. */
const MOST_VISITS = 2000

/** @returns visits of the days asked for, both with them, in the order of time */
export async function boardVisits(
  db: Db,
  crewId: string,
  q: BoardQuery,
): Promise<(BoardVisit & { zone: string; address: string | null })[]> {
  const dueOn = sql<
    string | null
  >`(select max(${supplies.dueOn})::text from ${supplies} where ${supplies.crewId} = ${visits.crewId}
    and ${supplies.jobId} = ${visits.jobId} and ${supplies.state} = 'ordered')`
  const zone = sql<string>`coalesce((select ${sites.zone} from ${sites} where ${sites.crewId} = ${visits.crewId}
    and ${sites.jobId} = ${visits.jobId} order by ${sites.id} limit 1), 'UTC')`
  const rows = await db
    .select({
      id: visits.id,
      version: visits.version,
      jobId: visits.jobId,
      jobName: jobs.name,
      address: jobs.customerAddress,
      onDay: visits.onDay,
      startsAt: visits.startsAt,
      hours: visits.hours,
      team: visits.team,
      people: visits.people,
      weather: visits.weather,
      state: visits.state,
      note: visits.note,
      dueOn,
      zone,
    })
    .from(visits)
    .innerJoin(jobs, and(eq(jobs.crewId, visits.crewId), eq(jobs.id, visits.jobId)))
    .where(
      and(
        eq(visits.crewId, crewId),
        gte(visits.onDay, q.from),
        lte(visits.onDay, q.to),
        q.jobId ? eq(visits.jobId, q.jobId) : undefined,
      ),
    )
    .orderBy(asc(visits.onDay), asc(visits.startsAt), asc(visits.id))
    .limit(MOST_VISITS)
  return rows as (BoardVisit & { zone: string; address: string | null })[]
}

/** Every team that a crew has ever sent out. */
export async function teamsOf(db: Db, crewId: string): Promise<string[]> {
  const rows = await db
    .selectDistinct({ team: visits.team })
    .from(visits)
    .where(and(eq(visits.crewId, crewId), ne(visits.state, 'called off')))
    .orderBy(asc(visits.team))
  return rows.flatMap(r => (r.team === null ? [] : [r.team]))
}

const STATUS = {
  'planned': ICalEventStatus.TENTATIVE,
  'confirmed': ICalEventStatus.CONFIRMED,
  'done': ICalEventStatus.CONFIRMED,
  'called off': ICalEventStatus.CANCELLED,
} as const

/** @returns the visits as RFC 5545, each under an id of its own, so that one read again replaces itself */
export function calendarOf(
  crewName: string,
  list: readonly (BoardVisit & { zone: string; address: string | null })[],
  stamp: Date,
): string {
  const calendar = ical({
    // A line of a calendar ends where a name has a line end: it has none.
    name: crewName.replace(/\p{Cc}+/gu, ' '),
    prodId: { company: 'Multivox', product: 'Visits', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const v of list) {
    const at = DateTime.fromISO(`${v.onDay}T${v.startsAt}`, { zone: v.zone })
    // A zone that this machine does not know must not cost the whole calendar.
    const { start, odd } = hourOf(at.isValid ? at : DateTime.fromISO(`${v.onDay}T${v.startsAt}`, { zone: 'UTC' }), v.startsAt)
    calendar.createEvent({
      id: `${v.id}@multivox`,
      sequence: v.version,
      stamp,
      start: start.toUTC().toJSDate(),
      end: start
        .plus({ minutes: Math.round(v.hours * 60) })
        .toUTC()
        .toJSDate(),
      summary: `${v.jobName}${v.team ? `, ${v.team}` : ''}`,
      description: [
        `${hoursWords(v)} local time, ${v.people} people`,
        odd,
        v.weather === 'any' ? '' : `needs it ${v.weather}`,
        v.note ?? '',
      ]
        .filter(Boolean)
        .join('\n'),
      location: v.address ?? undefined,
      status: STATUS[v.state],
    })
  }
  // RFC 5545, 3.1: every line ends with CR LF, the last one too.
  return `${calendar.toString().trimEnd()}\r\n`
}

/**
 * The instant that a local hour is: of one that comes twice when summer time ends the first, of one that is left out when
 * it begins the hour after. Both are said.
 */
function hourOf(at: DateTime, startsAt: string): { start: DateTime; odd: string } {
  const [first, second] = [...at.getPossibleOffsets()].sort((a, b) => a.toMillis() - b.toMillis())
  if (first && second) return { start: first, odd: `${startsAt} comes twice that day: the first is meant` }
  const real = at.toFormat('HH:mm')
  return { start: at, odd: real === startsAt ? '' : `${startsAt} is left out that day as summer time begins: ${real} is meant` }
}
