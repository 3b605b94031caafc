import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { BUSY_HOURS, hourClasses, hourClassOf, hourWords, likeWithLike, localHour } from './hours'
import { rankTried } from './rank'
import { logIndex } from './spots'
import { bandsToTry, nextStation, oneByOne, walkOf } from './walk'

const UTC = { zone: 'UTC', busy: BUSY_HOURS }
const at = (minutes: number) => new Date(Date.parse(AT) + minutes * 60_000).toISOString()

/** A kitchen tried by bands and SIMs: each with its downloads, a minute and a half apart. */
function tried(lists: Record<string, number[]>, fromMinute = 0): House {
  const h = new House('router').reads('Kitchen', -108, 3)
  const first = h.doc.setups[0]!
  let minute = fromMinute
  for (const [band, downs] of Object.entries(lists)) {
    const setupId = h.add('setups', { ...first, id: undefined, mark: null, bandLock: band })
    for (const downMbps of downs)
      h.add('speedRuns', {
        band: null,
        cellId: null,
        spotId: h.spot('Kitchen').id,
        setupId,
        stopId: null,
        takenAtUtc: at((minute += 1.5)),
        replacesId: null,
        withdrawn: false,
        downMbps,
        upMbps: null,
        pingMs: null,
        wouldNotLoad: false,
        via: null,
        doubted: false,
      })
  }
  return h
}
const rank = (h: House, by: 'down' | 'SINR' = 'down') => rankTried(h.doc, logIndex(h.doc), { by, spotId: h.spot('Kitchen').id })

describe('hours of the day', () => {
  it('are local: the same instant is evening here and night there', () => {
    expect(localHour('2026-11-26T22:30:00.000Z', 'Etc/GMT+3')).toBe(19)
    expect(hourClassOf('2026-11-26T22:30:00.000Z', { zone: 'Etc/GMT+3', busy: BUSY_HOURS })).toBe('busy')
    expect(hourClassOf('2026-11-26T23:30:00.000Z', UTC)).toBe('night')
    expect(hourClassOf('2026-11-26T06:00:00.000Z', UTC)).toBe('day')
    expect(hourClassOf('2026-11-26T05:59:00.000Z', { zone: 'No/Such', busy: BUSY_HOURS })).toBe('night')
  })
  it('are the crew’s own where they say so, and told by what is left of the day', () => {
    const office = { zone: 'UTC', busy: [9, 17] as const }
    expect(hourClassOf('2026-11-26T19:00:00.000Z', office)).toBe('day')
    expect(hourClassOf('2026-11-26T09:00:00.000Z', office)).toBe('busy')
    expect(hourWords('busy', office)).toBe('busy hours, 9 to 17 h')
    expect(hourWords('day', office)).toBe('by day, 6 to 9 and 17 to 23 h')
    expect(hourWords('day', UTC)).toBe('by day, 6 to 17 h')
    expect(hourWords('night', UTC)).toBe('quiet night, 23 to 6 h')
    // Busy past midnight: no hour is of two classes, and none of none.
    const late = { zone: 'UTC', busy: [20, 2] as const }
    expect(hourWords('busy', late)).toBe('busy hours, 20 to 2 h')
    expect(hourWords('night', late)).toBe('quiet night, 2 to 6 h')
    expect(hourClasses({ busy: [23, 6] })).toEqual(['day', 'busy'])
  })
  it('rank by the job’s own busy hours', () => {
    const h = tried({ B20: [4, 5, 4.5], B3: [12, 13, 11] })
    expect(rank(h)!.hours).toBe('by day, 6 to 17 h')
    expect(rank(h.job({ busyHours: [11, 15] }))!.hours).toBe('busy hours, 11 to 15 h')
  })
  it('like with like: the class that all sides have, with the most of it; mixed where there is none', () => {
    const rows = (...hours: number[]) => hours.map(h => ({ takenAtUtc: `2026-11-26T${String(h).padStart(2, '0')}:00:00.000Z` }))
    expect(likeWithLike([rows(9, 10, 19), rows(18, 19, 20)], UTC)).toMatchObject({ hours: 'busy', mixed: false })
    expect(likeWithLike([rows(9, 10, 19), rows(18, 19, 20)], UTC).rows.map(r => r.length)).toEqual([1, 3])
    expect(likeWithLike([rows(9), rows(19)], UTC)).toMatchObject({ hours: null, mixed: true })
    expect(likeWithLike([rows(9), []], UTC)).toMatchObject({ hours: 'day', mixed: false })
  })
})

describe('a ranking of what was tried', () => {
  it('names the best, the test, and what is only chance', () => {
    const r = rank(tried({ B20: [4, 5, 4.5, 4.2, 4.8], B3: [12, 13, 11, 12.5, 12.2], B7: [11.5, 12.4, 12.9, 11.8, 12.1] }))!
    expect(r.tried.map(t => t.band)).toEqual(['B3', 'B7', 'B20'])
    expect(r.test).toContain('Holm’s correction for 3 pairs')
    expect(r.tried[1]!.behind).toMatchObject({ beyondChance: false, traits: ['band lock'] })
    expect(r.tried[2]!.behind!.beyondChance).toBe(true)
    expect(r.hours).toBe('by day, 6 to 17 h')
  })
  it('few tests: by what is assumed, and said so', () => {
    const r = rank(tried({ B20: [10, 11], B3: [11, 12] }))!
    expect(r.test).toContain('of a test and 25 % of load between blocks (assumed)')
    expect(r.tried[1]!.behind!.beyondChance).toBe(false)
  })
  it('levels: a dwell counts as one, however often it was read', () => {
    const h = new House('router')
    for (let i = 0; i < 20; i++) h.reads('Kitchen', -108, 3, { takenAtUtc: at(i / 60) })
    for (let i = 0; i < 20; i++) h.reads('Kitchen', -100, 9, { takenAtUtc: at(30 + i / 60), band: 'B3' })
    const r = rank(h, 'SINR')!
    expect(r.tried.map(t => [t.band, t.summary.count])).toEqual([
      ['B3', 1],
      ['B20', 1],
    ])
    expect(r.test).toContain('2.0 dB of a dwell (assumed)')
  })
  it('other hours are another load, and are said', () => {
    const h = tried({ B20: [4, 5, 4.5] })
    const setupId = h.add('setups', { ...h.doc.setups[0]!, id: undefined, mark: null, bandLock: 'B3' })
    for (const m of [0, 2, 4])
      h.add('speedRuns', { ...h.doc.speedRuns[0]!, id: undefined, setupId, downMbps: 9, takenAtUtc: at(8 * 60 + m) })
    expect(rank(h)!.reserve).toContain('different hours')
    expect(rank(h)!.hours).toBeNull()
  })
  it('one thing alone is no ranking', () => {
    expect(rank(tried({ B20: [4, 5] }))).toBeNull()
  })
})

describe('the walk', () => {
  it('begins at the device, and goes on to what was not read', () => {
    const h = new House('router').job({})
    h.job({ baselineSpotId: h.spot('Kitchen').id })
    expect(nextStation(walkOf(h.doc, logIndex(h.doc)))!.station).toBe('device')
    h.reads('Kitchen', -108, 3)
    expect(nextStation(walkOf(h.doc, logIndex(h.doc)))!.station).toBe('corner')
    h.set('spots', h.spot('Study').id, { station: 'corner' }).reads('Study', -110, 1)
    expect(nextStation(walkOf(h.doc, logIndex(h.doc)))!.station).toBe('window')
  })
  it('bands one by one: those of the carrier’s masts, each with how often it was tried here', () => {
    const h = tried({ B20: [4, 5], B3: [] })
    const mastId = h.doc.masts[0]!.id
    h.add('cells', { ...h.doc.cells[0]!, id: undefined, mastId, band: 'B3' })
    expect(bandsToTry(h.doc, h.doc.sims[0]!)).toEqual(['B3', 'B20'])
    const here = { doc: h.doc, log: logIndex(h.doc), spotId: h.spot('Kitchen').id, atUtc: AT }
    const of = (setupId: string | null) => {
      const { id: _id, name: _name, mark: _mark, ...same } = h.doc.setups.find(s => s.id === setupId)!
      return same
    }
    const from = of(h.doc.setups[0]!.id)
    expect(oneByOne('band', { ...here, from }).map(t => [t.words, t.taken])).toEqual([
      ['B3', 0],
      ['B20', 2],
    ])
    // A whole row, with its id and its name, is the same set-up.
    const whole = h.doc.setups[0]!
    expect(oneByOne('band', { ...here, from: whole }).map(t => t.taken)).toEqual([0, 2])
    const read = of(h.doc.readings[0]!.setupId)
    expect(oneByOne('hours', { ...here, from: read })).toMatchObject([
      { key: 'day', now: true, taken: 1 },
      { key: 'busy', now: false, taken: 0 },
      { key: 'night', now: false },
    ])
  })
})
