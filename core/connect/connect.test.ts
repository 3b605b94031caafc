import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { expectedBits, undecidedBits, updated } from '../infer'
import type { Appliance } from '../job/schema'
import { nth } from '../sure'
import { CHECK_BYTES, checkMbMonth, checkWithin, switchS } from './check'
import { CAUSES, clockOf, inferCause, REJECTS, TELLING, TEST_FACTS, TESTS } from './first-connection'
import { cardFits, iccidChecks, parseIccid } from './identity'
import { below, lastingMbps, mbDayCarried, mbDayOf, monthOf, periodOf, streamGb } from './month'

describe('numbers on cards', () => {
  it('takes a card’s number with spaces and a filling F', () => {
    expect(parseIccid('8999 9012 3456 7890 124')).toBe('8999901234567890124')
    expect(parseIccid('8999901234567890124F')).toBe('8999901234567890124')
  })
  it.each([
    ['eighteen digits', '899990123456789012', /19 or 20 digits, got 18/],
    ['another beginning', '7999901234567890128', /begins with 89/],
    ['letters', '89999012345O7890128', /digits only/],
  ])('refuses %s', (_what, text, why) => expect(() => parseIccid(text)).toThrow(why))
  // Luhn's published example: 7992739871 wants 3 (US patent 2,950,048 as commonly quoted).
  it('holds it against its check digit', () => {
    expect(iccidChecks('79927398713')).toBe(true)
    for (const d of '012456789') expect(iccidChecks(`7992739871${d}`)).toBe(false)
  })
  it('a smaller card goes in with an adapter, a larger one not at all', () => {
    expect(cardFits('nano', 'mini')).toBe('adapter')
    expect(cardFits('micro', 'micro')).toBe('fits')
    expect(cardFits('mini', 'nano')).toBe('too large')
    expect(cardFits(null, 'nano')).toBeNull()
    expect(cardFits('eSIM', 'nano')).toBeNull()
  })
})

describe('the check of a connection', () => {
  // Handbook figure of the trade: 168 bytes each 5 s are 87 MB a month.
  it('takes 87 MB a month when it asks every 5 s', () => {
    expect(CHECK_BYTES).toBe(168)
    expect(checkMbMonth({ checkS: 5, checkPlaces: 1, checkMisses: 3 })).toBeCloseTo(87.09, 2)
    expect(checkMbMonth({ checkS: null, checkPlaces: 2, checkMisses: 3 })).toBe(0)
  })
  it('is given up after its misses, and the other must attach', () => {
    expect(switchS({ checkS: 5, checkPlaces: 2, checkMisses: 3 }, false)).toBe(17)
    expect(switchS({ checkS: 5, checkPlaces: 2, checkMisses: 3 }, true)).toBe(75)
    expect(switchS({ checkS: null, checkPlaces: null, checkMisses: null }, true)).toBeNull()
  })
  it('is brought under a share of the allowance, never asked more often than before', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4000 }),
        fc.integer({ min: 1, max: 8 }),
        fc.double({ min: 0.05, max: 50, noNaN: true }),
        (checkS, checkPlaces, gb) => {
          const to = checkWithin({ checkS, checkPlaces, checkMisses: 3 }, gb, 0.02)
          if (to === null) return
          expect(to).toBeGreaterThanOrEqual(checkS)
          expect(checkMbMonth({ checkS: to, checkPlaces, checkMisses: 3 })).toBeLessThanOrEqual(gb * 20)
        },
      ),
    )
  })
})

describe('a first connection', () => {
  it('two minutes are usual, five the longest', () => {
    const on = '2026-04-01T10:00:00.000Z'
    expect(clockOf(on, '2026-04-01T10:01:59.000Z')).toEqual({ s: 119, stage: 'usual' })
    expect(clockOf(on, '2026-04-01T10:04:00.000Z').stage).toBe('long')
    expect(clockOf(on, '2026-04-01T10:05:01.000Z').stage).toBe('too long')
    expect(clockOf(on, '2026-04-01T09:59:00.000Z').s).toBe(0)
  })
  it('says what each state points at', () => {
    const first = (seen: Parameters<typeof inferCause>[0]) => nth(inferCause(seen).causes, 0).cause
    expect(first({ state: 'no SIM' })).toBe('SIM seated badly')
    expect(first({ state: 'PIN' })).toBe('PIN')
    expect(first({ state: 'no data' })).toBe('access point')
    expect(first({ state: 'searching' })).toBe('no signal')
    for (const [code, { cause }] of Object.entries(REJECTS)) expect(first({ state: 'denied', reject: Number(code) })).toBe(cause)
  })
  it('a test turns it round, and the one that tells most for its time is named', () => {
    const denied = inferCause({ state: 'denied' })
    expect(denied.next).not.toBeNull()
    const works = inferCause({ state: 'denied', tests: { 'SIM in a phone': true } })
    expect(nth(works.causes, 0).cause).toBe('identity refused')
    const not = inferCause({ state: 'denied', tests: { 'SIM in a phone': false } })
    expect(nth(not.causes, 0).cause).toBe('SIM not in service')
    expect(works.next?.test).not.toBe('SIM in a phone')
  })
  // Against full enumeration: the joint of cause, state and every answer, summed by hand in logarithms.
  it('agrees with full enumeration over all causes', () => {
    const ratio = (seen: Parameters<typeof inferCause>[0]) => new Map(inferCause(seen).causes.map(c => [c.cause, c.share]))
    const none = ratio({ state: null })
    for (const state of TELLING) {
      const only = ratio({ state })
      for (const test of TESTS)
        for (const yes of [true, false]) {
          const both = ratio({ state, tests: { [test]: yes } })
          const likely = (c: (typeof CAUSES)[number]) => (yes ? TEST_FACTS[test].yes[c] : 1 - TEST_FACTS[test].yes[c])
          const logs = CAUSES.map(c => Math.log(only.get(c)!) + Math.log(Math.max(1e-6, likely(c))))
          const top = Math.max(...logs)
          const sum = logs.reduce((s, l) => s + Math.exp(l - top), 0)
          CAUSES.forEach((c, i) => expect(both.get(c)).toBeCloseTo(Math.exp(logs[i]! - top) / sum, 9))
        }
    }
    expect([...none.values()].reduce((s, v) => s + v, 0)).toBeCloseTo(1, 12)
  })
  it('the order in which things were seen does not matter, and a question never takes knowledge away', () => {
    const shares = { a: 0.5, b: 0.3, c: 0.2 }
    const likely = fc.record({ y: fc.double({ min: 0.01, max: 0.99, noNaN: true }) }).map(({ y }) => ({ y, n: 1 - y }))
    const table = fc.record({ a: likely, b: likely, c: likely })
    fc.assert(
      fc.property(table, table, (one, two) => {
        const ab = updated(updated(shares, one, 'y'), two, 'n')
        const ba = updated(updated(shares, two, 'n'), one, 'y')
        for (const k of ['a', 'b', 'c'] as const) expect(ab[k]).toBeCloseTo(ba[k], 9)
        expect(expectedBits(shares, one)).toBeGreaterThanOrEqual(0)
        expect(expectedBits(shares, one)).toBeLessThanOrEqual(undecidedBits(shares) + 1e-9)
      }),
    )
  })
})

const appliance = (over: Partial<Appliance>): Appliance => ({
  id: 'a',
  networkId: 'n',
  name: 'x',
  backAtUtc: null,
  tunnel: false,
  usage: null,
  hoursDay: null,
  mbHour: null,
  ...over,
})

describe('the month', () => {
  // The trade's rule of thumb: GB = 0.45 · Mbit/s · h; 100 GB over 30 days is 0.309 Mbit/s.
  it('turns rates into data and back', () => {
    expect(streamGb(5, 1)).toBeCloseTo(2.25, 9)
    expect(lastingMbps(100, 30)).toBeCloseTo(0.309, 3)
  })
  it('takes what was not said for nothing, and a tunnel from what may have none', () => {
    expect(mbDayOf(appliance({}))).toBe(0)
    const rows = [
      appliance({ usage: 'films', hoursDay: 3 }),
      appliance({ usage: 'calls', hoursDay: 1 }),
      appliance({ usage: 'work', hoursDay: 4, tunnel: true }),
    ]
    expect(mbDayCarried(rows, 'everything')).toBe(3 * 2250 + 72 + 600)
    expect(mbDayCarried(rows, 'no tunnels')).toBe(3 * 2250 + 72)
    expect(mbDayCarried(rows, 'calls and mail')).toBe(72)
    expect(mbDayCarried(rows, 'only its check')).toBe(0)
  })
  // Worked by hand: 1 GB a day for ten days with a day of 7 between; 16 GB by the tenth; 20 days left at 1.6.
  it('goes on as it went: a sheet worked by hand', () => {
    const mb = [1000, 1000, 1000, 1000, 1000, 7000, 1000, 1000, 1000, 1000]
    const m = monthOf(
      { allowanceGb: 40, days: 30, expectedMbDay: 0 },
      mb.map((v, i) => ({ day: i + 1, mb: v })),
    )!
    expect(m.usedGb).toBe(16)
    expect(m.countedTo).toBe(10)
    expect(m.endGb.mid).toBeCloseTo(48, 9)
    expect(m.runsOutDay).toBe(25)
    const sd = sampleStandardDeviation(mb) * Math.sqrt(20 + 400 / 10)
    expect(mean(mb)).toBe(1600)
    expect(m.endGb.high).toBeCloseTo((48_000 + 1.2816 * sd) / 1000, 6)
    expect(m.runsOutChance).toBeCloseTo(below((48_000 - 40_000) / sd), 9)
  })
  it('without a count it goes by what hangs on it', () => {
    const m = monthOf({ allowanceGb: 10, days: 30, expectedMbDay: 200 }, [])!
    expect(m.endGb.mid).toBeCloseTo(6, 9)
    expect(m.runsOutDay).toBeNull()
    expect(m.runsOutChance).toBeGreaterThan(0)
    expect(m.runsOutChance).toBeLessThan(0.5)
  })
  it('what is used up is used up on the day it was; nothing used runs out never; no allowance none', () => {
    expect(
      monthOf({ allowanceGb: 2, days: 30, expectedMbDay: 0 }, [
        { day: 1, mb: 1500 },
        { day: 2, mb: 800 },
      ])!.runsOutDay,
    ).toBe(2)
    expect(monthOf({ allowanceGb: 2, days: 30, expectedMbDay: 0 }, [])!.runsOutChance).toBe(0)
    expect(monthOf({ allowanceGb: null, days: 30, expectedMbDay: 5 }, [])).toBeNull()
    expect(() => monthOf({ allowanceGb: 0, days: 30, expectedMbDay: 5 }, [])).toThrow(/above 0/)
    // of another month: nothing of it counts
    expect(monthOf({ allowanceGb: 2, days: 30, expectedMbDay: 0 }, [{ day: 40, mb: 9000 }])!.usedGb).toBe(0)
  })
  // Table of the normal curve: Φ(1.2816) = 0.9, Φ(1.645) = 0.95, Φ(0) = 0.5.
  it('knows the normal curve', () => {
    expect(below(0)).toBeCloseTo(0.5, 6)
    expect(below(1.2816)).toBeCloseTo(0.9, 4)
    expect(below(-1.645)).toBeCloseTo(0.05, 4)
  })
  it('a period begins at its day, or at the last of a shorter month', () => {
    expect(periodOf('2026-11-14', 1)).toEqual({ from: '2026-11-01', days: 30 })
    expect(periodOf('2026-11-14', 20)).toEqual({ from: '2026-10-20', days: 31 })
    expect(periodOf('2026-03-05', 31)).toEqual({ from: '2026-02-28', days: 31 })
    expect(periodOf('2026-01-01', 15)).toEqual({ from: '2025-12-15', days: 31 })
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: 1, max: 31 }), (day, reset) => {
        const at = new Date(day * 86_400_000).toISOString().slice(0, 10)
        const { from, days } = periodOf(at, reset)
        const since = (Date.parse(at) - Date.parse(from)) / 86_400_000
        expect(since).toBeGreaterThanOrEqual(0)
        expect(since).toBeLessThan(days)
        expect(days).toBeGreaterThanOrEqual(28)
        expect(days).toBeLessThanOrEqual(31)
      }),
    )
  })
})
