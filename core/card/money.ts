/** Money as a crew quotes: whole numbers of the smallest unit of its currency, so that a sum equals its lines. */
import * as Type from '@sinclair/typebox'
import type { Static } from '@sinclair/typebox'
import { parseNumber } from '../formats/csv'
import { Num, opt, Whole } from '../job/fields'

/** Most that a thing or an hour may cost, in the smallest unit. */
export const MOST_MINOR = 100_000_000_00

export const MoneySchema = Type.Object(
  {
    /** ISO 4217 */
    currency: Type.String({ pattern: '^[A-Z]{3}$' }),
    /** of one hour of one person; null where hours are not charged */
    hourMinor: opt(Whole(0, MOST_MINOR)),
    /** on what is bought, % */
    marginPercent: Num(0, 500),
    /** on the whole, %; null where none is charged */
    taxPercent: opt(Num(0, 100)),
  },
  { additionalProperties: false },
)
export type Money = Static<typeof MoneySchema>

/** The code that ISO 4217 keeps for tests: nobody's money until the crew says whose. */
export const BARE_MONEY: Money = { currency: 'XXX', hourMinor: null, marginPercent: 0, taxPercent: null }

/** @returns digits after the point of a currency: 2 of most, 0 or 3 of some. @source ISO 4217, through Intl */
export const minorDigits = (currency: string): number =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2

/** @returns the amount with its currency, as a reader of that language writes it */
export function moneyWords(minor: number, currency: string, locale = 'en-GB'): string {
  const digits = minorDigits(currency)
  return new Intl.NumberFormat(locale, { style: 'currency', currency, currencyDisplay: 'code' }).format(minor / 10 ** digits)
}

/** @returns the amount alone, with the currency's own digits after the point */
export const amountWords = (minor: number, currency: string): string =>
  (minor / 10 ** minorDigits(currency)).toFixed(minorDigits(currency))

/**
 * Reads an amount with a comma or a point.
 * @returns the smallest unit; null for an empty field
 * @throws RangeError where it is no number, negative, finer than the currency, or more than a thing costs
 */
export function parseMoney(text: string, currency: string): number | null {
  const value = parseNumber(text)
  if (value === null) return null
  const digits = minorDigits(currency)
  const minor = Math.round(value * 10 ** digits)
  if (Math.abs(value * 10 ** digits - minor) > 1e-6) throw new RangeError(`no finer than ${digits} digits after the point`)
  if (minor < 0 || minor > MOST_MINOR) throw new RangeError(`a price is 0 to ${MOST_MINOR / 10 ** digits}, got ${text.trim()}`)
  return minor
}

/** @returns what a line costs, rounded once; null while it has no price */
export const costOf = (l: { quantity: number; eachMinor: number | null }): number | null =>
  l.eachMinor === null ? null : Math.round(l.eachMinor * l.quantity)

export interface QuoteInput {
  lines: readonly { key: string; name: string; quantity: number; unit: string; eachMinor: number | null }[]
  money: Money
  marginPercent: number
  /** hours of people: two for three hours are six */
  hours: number
}

export interface QuoteLine {
  key: string
  name: string
  quantity: number
  unit: string
  /** as bought, and as quoted; null while it has no price */
  costMinor: number | null
  sellMinor: number | null
}

export interface Quote {
  lines: QuoteLine[]
  hours: number
  hoursMinor: number
  netMinor: number
  taxMinor: number
  totalMinor: number
  /** what the crew keeps of it, before its hours */
  marginMinor: number
  /** lines that nobody has priced: they are not in the sum */
  unpriced: number
}

/** The quote of a list: each line is rounded once, so that what is printed adds up. */
export function quoteOf({ lines, money, marginPercent, hours }: QuoteInput): Quote {
  const quoted = lines.map(({ key, name, quantity, unit, eachMinor }): QuoteLine => {
    const costMinor = costOf({ quantity, eachMinor })
    const sellMinor = costMinor === null ? null : Math.round(costMinor * (1 + marginPercent / 100))
    return { key, name, quantity, unit, costMinor, sellMinor }
  })
  const sum = (of: (l: QuoteLine) => number | null) => quoted.reduce((total, l) => total + (of(l) ?? 0), 0)
  const hoursMinor = Math.round(hours * (money.hourMinor ?? 0))
  const netMinor = sum(l => l.sellMinor) + hoursMinor
  const taxMinor = Math.round((netMinor * (money.taxPercent ?? 0)) / 100)
  return {
    lines: quoted,
    hours,
    hoursMinor,
    netMinor,
    taxMinor,
    totalMinor: netMinor + taxMinor,
    marginMinor: sum(l => l.sellMinor) - sum(l => l.costMinor),
    unpriced: quoted.filter(l => l.costMinor === null).length,
  }
}
