/** Hours of the day by the load that a cell usually carries then: speeds are compared like with like. */

export const HOUR_CLASSES = ['day', 'evening', 'night'] as const
export type HourClass = (typeof HOUR_CLASSES)[number]

/** Local hours at which each class begins. @source evenings are the busiest, common practice (no source) */
const BEGINS: Record<HourClass, number> = { day: 6, evening: 17, night: 23 }
/** As told to a person: the busy hours and the quiet ones. */
export const HOUR_WORDS: Record<HourClass, string> = {
  day: 'by day, 6 to 17 h',
  evening: 'busy evening, 17 to 23 h',
  night: 'quiet night, 23 to 6 h',
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

export function hourClassOf(utc: string, zone: string): HourClass {
  const hour = localHour(utc, zone)
  if (hour >= BEGINS.night || hour < BEGINS.day) return 'night'
  return hour >= BEGINS.evening ? 'evening' : 'day'
}

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
export function likeWithLike<T extends { takenAtUtc: string }>(sides: readonly (readonly T[])[], zone: string): Alike<T> {
  // Each row is asked its hour once: a zone's clock costs.
  const classed = sides.map(side => side.map(row => ({ row, hours: hourClassOf(row.takenAtUtc, zone) })))
  const filled = classed.filter(s => s.length)
  const fewest = (h: HourClass) => (filled.length ? Math.min(...filled.map(side => side.filter(r => r.hours === h).length)) : 0)
  const hours = [...HOUR_CLASSES].sort((a, b) => fewest(b) - fewest(a))[0]!
  if (fewest(hours) > 0)
    return { rows: classed.map(side => side.filter(r => r.hours === hours).map(r => r.row)), hours, mixed: false }
  return { rows: sides, hours: null, mixed: filled.length > 1 }
}
