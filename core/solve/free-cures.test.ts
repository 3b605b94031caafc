import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { advise } from './advisor'
import type { Advice } from './advisor'

/** A kitchen that reads badly, tried before anything is bought. */
const house = (job: Record<string, unknown> = {}) =>
  new House('router', 'home', { agreedDownMbps: 8, agreedUpMbps: null, agreedCalls: false, ...job })
    .reads('Kitchen', -108, 5)
    .reads('Kitchen', -109, 4)
    .speed('Kitchen', 3, 0.6)
    .speed('Kitchen', 3.2, 0.6)
    .reads('Ridge', -92, 15)
const of = (h: House) => advise(h.doc, h.evidence, AT)
const get = (h: House, id: Advice['id']) => of(h).advice.find(a => a.id === id)

/** Tests in the kitchen with one thing changed. */
function tried(h: House, setup: Record<string, unknown>, downs: number[], at = AT) {
  const setupId = h.add('setups', { ...h.doc.setups[0]!, id: undefined, mark: 'before', ...setup })
  for (const downMbps of downs)
    h.add('speedRuns', {
      band: null,
      cellId: null,
      spotId: h.spot('Kitchen').id,
      takenAtUtc: at,
      setupId,
      replacesId: null,
      withdrawn: false,
      stopId: null,
      downMbps,
      upMbps: 1,
      pingMs: 40,
      wouldNotLoad: false,
    })
  return h
}

describe('what costs nothing to try', () => {
  it('a band that was faster is proposed, with what it was measured at, before anything is bought', () => {
    const h = tried(house(), { bandLock: 'B3' }, [11, 12, 11.5])
    h.job({ baselineSpotId: h.spot('Kitchen').id })
    // The set-up of the baseline is the one that its readings were made with.
    const base = h.doc.readings.find(r => r.spotId === h.spot('Kitchen').id)!.setupId
    h.reads('Kitchen', -108, 5, { setupId: base, takenAtUtc: '2026-04-04T12:00:00.000Z' })
    const band = get(h, 'band')
    expect(band).toMatchObject({ name: 'Lock to B3', cost: 0, kit: null, holes: { outside: 0, inside: 0 } })
    expect(band!.down!.median).toBeCloseTo(11.5, 6)
    expect(of(h).advice[0]!.id).toBe('band')
  })
  it('a slower band is not', () => expect(get(tried(house(), { bandLock: 'B3' }, [1, 1.2]), 'band')).toBeUndefined())
  it('another SIM that was faster is named', () => {
    const h = house()
    const simId = h.add('sims', { ...h.doc.sims[0]!, id: undefined, name: 'Gannet SIM', carrier: 'Gannet' })
    tried(h, { simId }, [9, 9.5, 10])
    const base = h.doc.readings.find(r => r.spotId === h.spot('Kitchen').id)!.setupId
    h.reads('Kitchen', -108, 5, { setupId: base, takenAtUtc: '2026-04-04T12:00:00.000Z' })
    expect(get(h, 'sim')).toMatchObject({ name: 'Another SIM: Gannet SIM', cannot: [expect.stringContaining('contract')] })
  })
  it('moving the router names what hangs on today’s place, and the modem by itself leaves the Wi-Fi there', () => {
    const h = house()
    for (let i = 0; i < 3; i++) h.reads('Study', -98, 13)
    h.job({ baselineSpotId: h.spot('Kitchen').id })
    h.set('spots', h.spot('Kitchen').id, { hangs: 'wired printer' })
    expect(get(h, 'move')!.cannot.join()).toContain('wired printer (Kitchen)')
    expect(get(h, 'window')!.name).toBe('Modem in Study, Wi-Fi left in the middle')
    expect(get(h, 'window')!.cannot.join()).not.toContain('wired printer')
  })
})

describe('what no kit changes', () => {
  it('tests that end at one round figure both ways are the plan’s cap', () => {
    const h = house()
    for (let i = 0; i < 4; i++) h.speed('Kitchen', 5, 5)
    for (const r of h.doc.speedRuns.filter(x => x.downMbps !== 5)) h.set('speedRuns', r.id, { withdrawn: true })
    expect(of(h).remarks.join()).toContain('Tests end at 5 Mbit/s both ways')
  })
  it('a plan that stops under what was agreed is said before anything is fitted', () => {
    const h = house()
    h.set('sims', h.doc.sims[0]!.id, { capDownMbps: 4 })
    expect(of(h).remarks.join()).toContain('The plan stops at 4 Mbit/s, agreed are 8')
  })
  it('two hours of the day far apart are the cell’s load', () => {
    const h = house()
    const setupId = h.doc.speedRuns[0]!.setupId
    for (const downMbps of [9, 9.4])
      h.add('speedRuns', { ...h.doc.speedRuns[0]!, id: undefined, setupId, downMbps, takenAtUtc: '2026-04-03T05:10:00.000Z' })
    expect(of(h).remarks.join()).toMatch(/Kitchen had 9\.\d Mbit\/s at one hour and 3\.\d at another/)
  })
  it('calls over Wi-Fi decide whether a router can bring calls', () => {
    const h = house({ agreedDownMbps: null, agreedCalls: true })
    const met = (v: string | null) => {
      h.set('sims', h.doc.sims[0]!.id, { callsOverWifi: v })
      return get(h, 'router')!.met
    }
    expect(met(null)).toBe('open')
    expect(met('yes')).toBe('likely')
    expect(met('no')).toBe('unlikely')
    expect(of(h).remarks.join()).toContain('a booster does')
  })
})

describe('ranking as it is worked out', () => {
  it('is told after every approach, ranked each time, and ends as the whole', () => {
    const h = house()
    const seen: string[][] = []
    const all = advise(h.doc, h.evidence, AT, soFar => seen.push(soFar.advice.map(a => a.id)))
    expect(seen.map(s => s.length)).toEqual([1, 2, 3, 4, 5, 6, 7, 8])
    expect(seen.at(-1)).toEqual(all.advice.map(a => a.id))
  })
  it('a booster that feeds a router says that it gives it one layer', () => {
    const a = get(house(), 'booster and router')!
    expect(a.cannot.join()).toContain('two layers')
    expect(a.where).toBe('at the router')
  })
})
