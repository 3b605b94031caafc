import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { changePercent, looksCapped, median, quantile, ratioRange, sigmaOfMedian, summarise } from './stats'

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
  it('shows as one round figure both ways', () => {
    expect(looksCapped([5.1, 4.9], [5.0, 4.8])).toBe(5)
    expect(looksCapped([24, 31], [5, 6])).toBeNull()
    expect(looksCapped([5], [5])).toBeNull()
  })
})
