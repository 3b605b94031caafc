/** When it gets light and dark at a place, by its own clock. */
import * as SunCalc from 'suncalc'
import type { Position } from './geodesic'

/** @returns minutes after midnight by the clock of a zone; of an unknown zone by UTC */
export function minutesIn(zone: string, at: Date): number {
  const format = (timeZone: string) =>
    new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(at)
  let text: string
  try {
    text = format(zone)
  } catch {
    text = format('UTC')
  }
  const [h, m] = text.split(':').map(Number) as [number, number]
  return h * 60 + m
}

export interface Daylight {
  /** minutes after local midnight at which the sun is up and at which it is down */
  fromMin: number
  toMin: number
}

/**
 * @param day  ISO day of the place
 * @returns null where the sun does not set or does not rise that day
 * @source suncalc, after J. Meeus, Astronomical Algorithms: sunrise and sunset at −0.833°
 */
export function daylightOn(at: Position, day: string, zone: string): Daylight | null {
  const noon = new Date(Date.parse(`${day}T12:00:00Z`) - (at.lonDeg / 15) * 3_600_000)
  const { sunrise, sunset } = SunCalc.getTimes(noon, at.latDeg, at.lonDeg)
  if (!sunrise || !sunset || Number.isNaN(sunrise.valueOf()) || Number.isNaN(sunset.valueOf())) return null
  return { fromMin: minutesIn(zone, sunrise), toMin: minutesIn(zone, sunset) }
}

export const clockWords = (minutes: number): string => {
  const m = ((Math.round(minutes) % 1440) + 1440) % 1440
  return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
}
