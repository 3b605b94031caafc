/** Hours of the day by the load that a cell usually carries then: speeds are compared like with like. */
import { nth } from '../sure'
import type { JobDocument } from '../job/schema'

export const HOUR_CLASSES = ['day', 'busy', 'night'] as const
export type HourClass = (typeof HOUR_CLASSES)[number]

/** Local hours between which the cell is busiest, from and to, where a job says none. @source evenings, common practice (no source) */
export const BUSY_HOURS: readonly [number, number] = [17, 23]
/** The night begins and ends, as far as it is not busy. Assumed. */
const NIGHT: readonly [number, number] = [23, 6]

/** By what an hour is classed: the site's zone, and what the job says of its busy hours. */
export interface Clock {
  zone: string
  busy: readonly [number, number]
}
export const clockAt = (doc: Pick<JobDocument, 'jobs' | 'sites'>): Clock => ({
  zone: doc.sites[0]?.zone ?? 'UTC',
  busy: (doc.jobs[0]?.busyHours as [number, number] | null | undefined) ?? BUSY_HOURS,
})

const within = (hour: number, [from, to]: readonly [number, number]): boolean =>
  from <= to ? hour >= from && hour < to : hour >= from || hour < to
const classAt = (hour: number, busy: Clock['busy']): HourClass =>
  within(hour, busy) ? 'busy' : within(hour, NIGHT) ? 'night' : 'day'

const CLASS_WORDS: Record<HourClass, string> = { day: 'by day', busy: 'busy hours', night: 'quiet night' }
/** @returns the classes that have an hour */
export const hourClasses = ({ busy }: Pick<Clock, 'busy'>): HourClass[] =>
  HOUR_CLASSES.filter(c => Array.from({ length: 24 }, (_, h) => classAt(h, busy)).includes(c))

/** @returns `by day, 6 to 17 h`, `by day, 6 to 9 and 17 to 23 h`; a class without an hour alone */
export function hourWords(of: HourClass, { busy }: Pick<Clock, 'busy'>): string {
  const mine = (hour: number) => classAt(hour % 24, busy) === of
  const begins = Array.from({ length: 24 }, (_, h) => h).filter(h => mine(h) && !mine(h + 23))
  const runs = begins.map(from => {
    let to = from
    while (mine(to)) to++
    return `${from} to ${to % 24}`
  })
  return runs.length ? `${CLASS_WORDS[of]}, ${runs.join(' and ')} h` : CLASS_WORDS[of]
}

/** Hours of a zone, remembered: a format costs more than a hundred readings. */
const clocks = new Map<string, Intl.DateTimeFormat>()
function clockOf(zone: string): Intl.DateTimeFormat {
  let clock = clocks.get(zone)
  if (!clock) {
    try {
      clock = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', hourCycle: 'h23' })
    } catch {
      // A zone that this machine does not know must not stop a job.
      clock = new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', hour: '2-digit', hourCycle: 'h23' })
    }
    clocks.set(zone, clock)
  }
  return clock
}

/** @param utc  ISO 8601  @param zone  IANA, UTC where it is unknown  @returns the hour there, 0…23 */
export const localHour = (utc: string, zone: string): number => Number(clockOf(zone).format(new Date(utc)))

export const hourClassOf = (utc: string, { zone, busy }: Clock): HourClass => classAt(localHour(utc, zone), busy)

export interface Alike<T> {
  rows: readonly (readonly T[])[]
  /** the class all are of; null where they have none in common, and all rows are given */
  hours: HourClass | null
  /** classes that were used where there was none in common */
  mixed: boolean
}

/**
 * Of several sides, the rows of the one class of hours that every side has, the one with the most rows in the side
 * that has fewest of it.
 */
export function likeWithLike<T extends { takenAtUtc: string }>(sides: readonly (readonly T[])[], clock: Clock): Alike<T> {
  // Each row is asked its hour once: a zone's clock costs.
  const classed = sides.map(side => side.map(row => ({ row, hours: hourClassOf(row.takenAtUtc, clock) })))
  const filled = classed.filter(s => s.length)
  const fewest = (h: HourClass) => (filled.length ? Math.min(...filled.map(side => side.filter(r => r.hours === h).length)) : 0)
  const hours = nth(
    [...HOUR_CLASSES].sort((a, b) => fewest(b) - fewest(a)),
    0,
  )
  if (fewest(hours) > 0)
    return { rows: classed.map(side => side.filter(r => r.hours === hours).map(r => r.row)), hours, mixed: false }
  return { rows: sides, hours: null, mixed: filled.length > 1 }
}
