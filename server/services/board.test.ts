import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { calendarOf } from './board'
import type { BoardVisit } from '../../core/card/visits'

type Placed = BoardVisit & { zone: string; address: string | null }
const visit = (more: Partial<Placed> = {}): Placed => ({
  id: '0192f000-0001-7000-8000-000000000001',
  jobId: '0192f000-0001-7000-8000-000000000002',
  jobName: 'Net loft, West quay; upper',
  version: 3,
  onDay: '2026-07-01',
  startsAt: '08:30',
  hours: 4.5,
  team: 'Roof team',
  people: 2,
  weather: 'dry',
  state: 'confirmed',
  note: 'key at the smokehouse\nsecond line, with a comma',
  dueOn: null,
  zone: 'Europe/Lisbon',
  address: 'Net loft, West quay',
  ...more,
})
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map(e => new ICAL.Event(e))
const STAMP = new Date('2026-06-01T00:00:00Z')

describe('visits as a calendar, read back by ical.js', () => {
  it('begin and end are the local hours of the site, summer time with them', () => {
    const [e] = read(calendarOf('Harbour crew', [visit()], STAMP))
    // Lisbon in July is one hour before UTC.
    expect(e!.startDate.toJSDate().toISOString()).toBe('2026-07-01T07:30:00.000Z')
    expect(e!.endDate.toJSDate().toISOString()).toBe('2026-07-01T12:00:00.000Z')
    expect(e!.summary).toBe('Net loft, West quay; upper, Roof team')
    expect(e!.location).toBe('Net loft, West quay')
    expect(e!.description).toContain('second line, with a comma')
    expect(e!.uid).toBe('0192f000-0001-7000-8000-000000000001@multivox')
    expect(e!.sequence).toBe(3)
  })
  it('one that was called off is cancelled, one that is only planned tentative', () => {
    const status = (state: BoardVisit['state']) =>
      read(calendarOf('c', [visit({ state })], STAMP))[0]!.component.getFirstPropertyValue('status')
    expect(status('called off')).toBe('CANCELLED')
    expect(status('planned')).toBe('TENTATIVE')
    expect(status('confirmed')).toBe('CONFIRMED')
  })
  it('a zone that nobody knows does not cost the calendar; none at all is a calendar without events', () => {
    const [e] = read(calendarOf('c', [visit({ zone: 'Nowhere/None' })], STAMP))
    expect(e!.startDate.toJSDate().toISOString()).toBe('2026-07-01T08:30:00.000Z')
    expect(read(calendarOf('c', [], STAMP))).toEqual([])
  })
  it('of an hour that comes twice the first is meant, of one that is left out the next: both are said', () => {
    // Lisbon 2026: summer time ends on 25 October at 2:00 (1:30 comes twice) and begins on 29 March at 1:00.
    const [twice] = read(calendarOf('c', [visit({ onDay: '2026-10-25', startsAt: '01:30', hours: 2 })], STAMP))
    expect(twice!.startDate.toJSDate().toISOString()).toBe('2026-10-25T00:30:00.000Z')
    expect(twice!.endDate.toJSDate().toISOString()).toBe('2026-10-25T02:30:00.000Z')
    expect(twice!.description).toContain('01:30 comes twice that day')
    const [none] = read(calendarOf('c', [visit({ onDay: '2026-03-29', startsAt: '01:30' })], STAMP))
    expect(none!.startDate.toJSDate().toISOString()).toBe('2026-03-29T01:30:00.000Z')
    expect(none!.description).toContain('02:30 is meant')
    expect(read(calendarOf('c', [visit()], STAMP))[0]!.description).not.toContain('meant')
  })
  it('lines are folded at 75 octets and end with CR LF (RFC 5545, 3.1)', () => {
    const text = calendarOf('c', [visit({ note: 'long '.repeat(80) })], STAMP)
    const lines = text.split('\r\n')
    expect(lines.every(l => Buffer.byteLength(l) <= 75)).toBe(true)
    expect(text).not.toMatch(/[^\r]\n/)
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true)
    expect(text.endsWith('\r\n\r\n')).toBe(false)
  })
})
