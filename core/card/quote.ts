/** The quote of a job: its list by the crew's prices, its hours by the card. */
import { jobOf } from '../job/schema'
import type { JobDocument } from '../job/schema'
import { listOf } from './list'
import type { ListLine, Price } from './list'
import { BARE_MONEY, quoteOf } from './money'
import type { Money, Quote } from './money'
import { byOne } from './order'
import { stepsOf } from './steps'
import type { Planned, Step } from './step'

/** What the crew has entered once for all its jobs. */
export interface PriceBook {
  money: Money
  prices: Price[]
}

export const NO_PRICES: PriceBook = { money: BARE_MONEY, prices: [] }

export interface QuotedJob {
  lines: ListLine[]
  quote: Quote
  marginPercent: number
  /** hours of people by the card, done steps with the open ones */
  cardHours: number
}

/** A quarter of an hour is the least that is charged. @source common practice (no source) */
const HOURS_STEP = 0.25

const peopleHours = (steps: readonly Step[]): number => {
  const minutes = steps.reduce((sum, s) => sum + s.people * byOne([s]).likely, 0)
  return Math.ceil(minutes / 60 / HOURS_STEP) * HOURS_STEP
}

export function quoteJob(doc: JobDocument, a: Planned, book: PriceBook): QuotedJob {
  const job = jobOf(doc)
  const lines = listOf(doc, a.tree, new Map(book.prices.map(p => [p.key, p])))
  const cardHours = peopleHours(stepsOf(doc, a))
  const marginPercent = job.quoteMarginPercent ?? book.money.marginPercent
  const quote = quoteOf({ lines, money: book.money, marginPercent, hours: job.quoteHours ?? cardHours })
  return { lines, quote, marginPercent, cardHours }
}
