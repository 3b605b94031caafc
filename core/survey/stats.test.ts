import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { capOf, capsSeen } from './caps'
import { logIndex, summariseSpot } from './spots'
import { changePercent, median, quantile, ratioRange, sigmaOfMedian, summarise } from './stats'

describe('medians', () => {
  it('of an even count lies between the two', () => expect(median([-90, -100, -94, -96])).toBe(-95))
  it('quantiles are those of R’s type 7', () => {
    // R: quantile(c(1,2,4,8,16), c(.1,.25,.9), type=7) = 1.4, 2, 12.8
    const v = [1, 2, 4, 8, 16]
    expect([quantile(v, 0.1), quantile(v, 0.25), quantile(v, 0.9)]).toEqual([1.4, 2, 12.8])
  })
  it('skip what was not read', () => {
    expect(summarise([null, -90, undefined, NaN, -94])).toEqual({ count: 2, median: -92, low: -94, high: -90, spread: 4 })
    expect(summarise([null])).toBeNull()
    expect(() => quantile([], 0.5)).toThrow(RangeError)
  })
  it('lie within their range whatever is read', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -140, max: -40, noNaN: true }), { minLength: 1 }), v => {
        const s = summarise(v)!
        expect(s.median).toBeGreaterThanOrEqual(s.low)
        expect(s.median).toBeLessThanOrEqual(s.high)
      }),
    )
  })
  it('three readings are surer than one', () => expect(sigmaOfMedian(summarise([-90, -91, -92]), 3)).toBeLessThan(3))
})

describe('changes in the right words', () => {
  it('2 to 6 Mbit/s is +200 % and threefold', () => {
    expect(changePercent(2, 6)).toBe(200)
    expect(ratioRange(2, 6, 0)?.mid).toBe(3)
  })
  it('from nothing there is no percentage', () => {
    expect(changePercent(0, 6)).toBeNull()
    expect(ratioRange(0, 6, 0.1)).toBeNull()
  })
  it('0.1 shown to a tenth may be 0.05 to 0.15, so 3 is 19.7 to 61 times it', () => {
    const r = ratioRange(0.1, 3, 0.1)!
    expect(r.low).toBeCloseTo(2.95 / 0.15, 6)
    expect(r.high).toBeCloseTo(3.05 / 0.05, 6)
  })
})

describe('a plan’s cap', () => {
  it('is the round figure at which several tests end', () => {
    expect(capOf([5.1, 4.9, 5.0])).toBe(5)
    expect(capOf([24, 31, 27])).toBeNull()
    expect(capOf([5, 5])).toBeNull()
  })
  it('bursts over it are left out, a test below it says it is none', () => {
    expect(capOf([5.0, 4.9, 5.05, 9.7])).toBe(5)
    expect(capOf([5.0, 4.9, 5.05, 3.1])).toBeNull()
  })
  it('is told by SIM: two SIMs do not make one another’s cap', () => {
    const h = new House('router').reads('Ridge', -90, 20)
    for (const d of [5.0, 4.9, 5.05]) h.speed('Kitchen', d, 4.95)
    const other = h.add('sims', {
      name: 'Other',
      carrier: null,
      plan: null,
      capDownMbps: null,
      capUpMbps: null,
      allowanceGb: null,
    })
    const setup = h.doc.setups.find(s => s.mark === 'before')!
    const setupId = h.add('setups', { ...setup, id: undefined, simId: other })
    for (const d of [21, 34, 28]) h.add('speedRuns', { ...h.doc.speedRuns[0]!, id: undefined, setupId, downMbps: d, upMbps: 6 })
    expect(capsSeen(logIndex(h.doc), h.doc.sims)).toMatchObject([{ simName: 'Tern SIM', downMbps: 5 }])
  })
})

describe('medians', () => {
  it('never mix set-ups or bands', () => {
    const h = new House(null).reads('Kitchen', -100, 10).reads('Kitchen', -102, 10).reads('Kitchen', -80, 20, { band: 'B3' })
    h.reads('Kitchen', -70, 20, { device: 'router', takenAtUtc: '2026-04-03T11:00:00.000Z' })
    const s = summariseSpot(logIndex(h.doc), h.spot('Kitchen'), 'before')
    expect(s).toMatchObject({ band: 'B20', setups: 2 })
    expect(s.rsrp).toMatchObject({ median: -101, count: 2 })
    expect(summariseSpot(logIndex(h.doc), h.spot('Kitchen'), 'before', { band: 'B3' }).rsrp?.median).toBe(-80)
  })
})
