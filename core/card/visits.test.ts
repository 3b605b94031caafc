import { describe, expect, it } from 'vitest'
import { againstCard, clashesOf, endOf, hoursWords, messageFor } from './visits'
import type { BoardVisit } from './visits'
import { daylightOn, minutesIn } from '../geo/daylight'

const TODAY = '2026-05-04'
const visit = (id: string, more: Partial<BoardVisit> = {}): BoardVisit => ({
  id,
  jobId: `job ${id}`,
  jobName: `Job ${id}`,
  version: 1,
  onDay: TODAY,
  startsAt: '08:00',
  hours: 4,
  team: 'Roof team',
  people: 2,
  weather: 'dry',
  state: 'planned',
  note: null,
  dueOn: null,
  ...more,
})
const words = (...v: BoardVisit[]) => clashesOf(v, TODAY).map(c => `${c.visitId}: ${c.words}`)

describe('visits beside each other', () => {
  it('one team at two places at once is said at both; one after the other is not', () => {
    expect(words(visit('a'), visit('b', { startsAt: '10:00' }))).toEqual([
      'a: Roof team is at Job b then, 10:00 to 14:00',
      'b: Roof team is at Job a then, 08:00 to 12:00',
    ])
    expect(words(visit('a'), visit('b', { startsAt: '12:00' }))).toEqual([])
    expect(words(visit('a'), visit('b', { onDay: '2026-05-05' }))).toEqual([])
    expect(words(visit('a', { team: null }), visit('b', { team: null }))).toEqual([])
  })
  it('two crews on one ladder: two teams at one job at once', () => {
    const both = words(visit('a', { jobId: 'j' }), visit('b', { jobId: 'j', team: 'Yard team' }))
    expect(both).toHaveLength(2)
    expect(both[0]).toContain('two crews on one ladder')
  })
  it('a day that is past, an end after midnight, and parts that come later are said; a done visit is left alone', () => {
    expect(words(visit('a', { onDay: '2026-05-03' }))[0]).toContain('past')
    expect(words(visit('a', { startsAt: '22:00', hours: 3 }))[0]).toContain('midnight')
    expect(words(visit('a', { dueOn: '2026-05-06' }))[0]).toContain('parts come Wed 6 May')
    expect(words(visit('a', { onDay: '2026-05-03', state: 'done' }))).toEqual([])
  })
  it('08:30 and four and a half hours end at 13:00', () => {
    expect(hoursWords({ startsAt: '08:30', hours: 4.5 })).toBe('08:30 to 13:00')
    expect(endOf({ startsAt: '08:30', hours: 4.5 })).toBe(780)
  })
  it('the card says what does not fit: hours, weather, dark, what comes late', () => {
    const said = againstCard(visit('a', { hours: 2, weather: 'any' }), {
      hoursLeft: 6,
      dry: 3,
      darkMin: 17 * 60,
      dark: 2,
      late: [{ name: 'Arrestor', dueOn: '2026-05-07' }],
    })
    expect(said).toEqual([
      '6.0 h of work are left, the visit holds 4.0',
      '3 steps need it dry',
      'dark at 17:00: 2 steps up there after it',
      'Arrestor: comes Thu 7 May',
    ])
  })
  it('the message names day, hours and rooms, and no word of the trade', () => {
    const text = messageFor({
      visit: visit('a'),
      customer: 'S. Ame',
      crew: 'Harbour crew',
      rooms: ['Kitchen'],
      drills: true,
      day: 'Tuesday',
    })
    expect(text).toContain('2 of us from Harbour crew will come on Tuesday, 08:00 to 12:00, if that suits you.')
    expect(text).toContain('Kitchen')
    expect(text).toContain('before you have said yes')
    expect(text).not.toMatch(/RSRP|SINR|dBm|donor/)
  })
})

describe('daylight', () => {
  it('at the equator on an equinox it is light from about six to six (from memory of any almanac)', () => {
    const light = daylightOn({ latDeg: 0, lonDeg: 0 }, '2026-03-20', 'UTC')!
    expect(light.fromMin).toBeGreaterThan(5 * 60 + 50)
    expect(light.fromMin).toBeLessThan(6 * 60 + 15)
    expect(light.toMin - light.fromMin).toBeGreaterThan(12 * 60)
    expect(light.toMin - light.fromMin).toBeLessThan(12 * 60 + 15)
  })
  it('beyond the circle there is none in midwinter', () => {
    expect(daylightOn({ latDeg: 78, lonDeg: 15 }, '2026-12-21', 'UTC')).toBeNull()
  })
  it('by the clock of the place; an unknown zone falls back to UTC', () => {
    const at = new Date('2026-05-04T12:34:00Z')
    expect(minutesIn('Etc/GMT+3', at)).toBe(9 * 60 + 34)
    expect(minutesIn('Nowhere/None', at)).toBe(12 * 60 + 34)
  })
})
