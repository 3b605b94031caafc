import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { amountWords, minorDigits, moneyWords, parseMoney, quoteOf } from './money'
import type { Money } from './money'

const MONEY: Money = { currency: 'XTS', hourMinor: 5400, marginPercent: 20, taxPercent: 12 }
const line = (key: string, quantity: number, eachMinor: number | null) => ({ key, name: key, quantity, unit: '', eachMinor })

describe('money as a crew quotes', () => {
  it('digits after the point as ISO 4217 lists them: JPY 0, EUR 2, KWD 3', () => {
    expect(['JPY', 'EUR', 'KWD'].map(minorDigits)).toEqual([0, 2, 3])
  })
  it('reads a comma or a point, and refuses what is no price', () => {
    expect(parseMoney('12,50', 'XTS')).toBe(1250)
    expect(parseMoney('1 299.9', 'XTS')).toBe(129_990)
    expect(parseMoney('', 'XTS')).toBeNull()
    for (const bad of ['twelve', '1,2,3', 'NaN', '1e9', '-4', '12.345', '9999999999999'])
      expect(() => parseMoney(bad, 'XTS')).toThrow(RangeError)
  })
  it('what is written is read back as it was', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000_000 }), fc.constantFrom('JPY', 'EUR', 'KWD'), (minor, currency) => {
        expect(parseMoney(amountWords(minor, currency), currency)).toBe(minor)
      }),
    ))
  it('the sum equals its lines to the cent, whatever margin and tax', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            quantity: fc.double({ min: 0.1, max: 400, noNaN: true }),
            eachMinor: fc.option(fc.integer({ min: 0, max: 500_000 })),
          }),
        ),
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 200, noNaN: true }),
        (rows, marginPercent, hours) => {
          const lines = rows.map((r, i) => line(`l${i}`, r.quantity, r.eachMinor))
          const q = quoteOf({ lines, money: MONEY, marginPercent, hours })
          const printed = q.lines.reduce((sum, l) => sum + BigInt(l.sellMinor ?? 0), 0n)
          expect(printed + BigInt(q.hoursMinor) + BigInt(q.taxMinor)).toBe(BigInt(q.totalMinor))
          expect(q.marginMinor).toBeGreaterThanOrEqual(0)
          expect(q.unpriced).toBe(rows.filter(r => r.eachMinor === null).length)
        },
      ),
    ))
  it('by hand: 3 at 9.99 and 20 % are 35.96, two hours 108.00, 12 % of both 17.28', () => {
    const q = quoteOf({ lines: [line('a', 3, 999)], money: MONEY, marginPercent: 20, hours: 2 })
    expect(q).toMatchObject({ netMinor: 3596 + 10_800, taxMinor: 1728, totalMinor: 16_124, marginMinor: 599 })
    expect(moneyWords(q.totalMinor, 'XTS')).toBe('XTS\u00a0161.24')
  })
})
