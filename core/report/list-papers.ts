/** Papers of the list: for whoever buys and packs it, and the quote for whoever pays. */
import { jobOf } from '../job/schema'
import { entryOf } from '../sure'
import { moneyWords } from '../card/money'
import type { Money } from '../card/money'
import type { ListLine } from '../card/list'
import type { QuotedJob } from '../card/quote'
import { PICK_GROUPS } from '../install/pick-list'
import type { PickGroup } from '../install/pick-list'
import type { JobDocument } from '../job/schema'
import type { PromiseView } from '../promise/view'
import { num } from '../units'
import type { Block, Report } from './report'

interface Paper {
  document: JobDocument
  quoted: QuotedJob
  money: Money
  crew: string
  /** ISO day on which it is written */
  day: string
}

const quantityWords = (l: { quantity: number; unit: string }): string =>
  `${num(l.quantity, l.quantity % 1 ? 1 : 0)}${l.unit ? ` ${l.unit}` : ''}`

/** The list by supplier, so that each is one order; what is here already comes last. */
export function listPaper({ document, quoted, crew, day }: Paper): Report {
  const bySupplier = new Map<string, ListLine[]>()
  for (const l of quoted.lines) {
    const at = l.wanted ? (l.supplier ?? 'Supplier not noted') : 'Here already'
    bySupplier.set(at, [...(bySupplier.get(at) ?? []), l])
  }
  const names = [...bySupplier.keys()].sort(
    (a, b) => Number(a === 'Here already') - Number(b === 'Here already') || a.localeCompare(b),
  )
  const blocks = names.map((name): Block => ({
    kind: 'table',
    title: name,
    head: ['Number', 'State', 'Due', 'What'],
    rows: entryOf(bySupplier, name).map(l => [
      quantityWords(l),
      l.state,
      l.dueOn ?? '',
      `${l.name}${l.note ? ` (${l.note})` : ''}`,
    ]),
  }))
  return { title: 'List', subtitle: `${jobOf(document).name}, ${day}`, blocks, foot: crew }
}

/** What each group of the list is to a customer. */
const PLAIN: Record<PickGroup, string> = {
  ...PICK_GROUPS,
  parts: 'Antennas and boxes',
  apart: 'What belongs to them',
  own: 'Further',
}

const unpricedWords = (n: number): string[] => {
  if (!n) return []
  return [n === 1 ? 'One line has no price yet and is not in the sum.' : `${n} lines have no price yet and are not in the sum.`]
}

export interface QuotePaper extends Paper {
  promise: Pick<PromiseView, 'down' | 'where'> | null
}

/** The quote in plain words: what for, what it is made of, what it costs, what is not in it. */
export function quotePaper({ document, quoted, money, crew, day, promise }: QuotePaper): Report {
  const job = jobOf(document)
  const { quote, lines } = quoted
  const words = (minor: number) => moneyWords(minor, money.currency)
  const sold = new Map(quote.lines.map(l => [l.key, l.sellMinor]))
  const rows = (Object.keys(PLAIN) as PickGroup[]).flatMap(g => {
    const of = lines.filter(l => l.group === g)
    if (!of.length) return []
    return [
      [
        PLAIN[g],
        `${of.length} ${of.length === 1 ? 'line' : 'lines'}`,
        words(of.reduce((sum, l) => sum + (sold.get(l.key) ?? 0), 0)),
      ],
    ]
  })
  const sums = [
    ...rows,
    ['Work', `${num(quote.hours, 2)} hours of people`, words(quote.hoursMinor)],
    ...(money.taxPercent === null
      ? []
      : [['Tax', `${num(money.taxPercent, money.taxPercent % 1 ? 1 : 0)} %`, words(quote.taxMinor)]]),
    ['Together', '', words(quote.totalMinor)],
  ]
  const agreed = job.agreedDownMbps === null ? null : `${num(job.agreedDownMbps)} Mbit/s agreed`
  const expected = promise && `${num(promise.down.median)} ± ${num(promise.down.plusMinus)} Mbit/s expected in ${promise.where}`
  const blocks: Block[] = [
    {
      kind: 'facts',
      title: 'What for',
      rows: [
        ['Job', job.name],
        ...(job.customerName ? [['For', job.customerName] as [string, string]] : []),
        ['Aim', [agreed, expected].filter(Boolean).join('; ') || 'better reception'],
        ['Date', day],
      ],
    },
    { kind: 'table', title: 'What it costs', head: ['What', 'Of', 'Amount'], rows: sums },
    {
      kind: 'table',
      title: 'In detail',
      head: ['Number', 'Amount', 'What'],
      rows: lines.map(l => {
        const minor = sold.get(l.key) ?? null
        return [quantityWords(l), minor === null ? 'not priced yet' : words(minor), l.name]
      }),
    },
    {
      kind: 'list',
      title: 'What to know',
      items: [
        'The figure is expected from what was measured, not promised by the network: masts and their load change.',
        ...unpricedWords(quote.unpriced),
        'Not in it: work that local rules keep for an electrician, and leave of the building’s owner.',
        'A booster may need to be registered, or consented to, before it is switched on; whose duty that is depends on where.',
      ],
    },
  ]
  return { title: 'Quote', subtitle: job.name, blocks, foot: crew }
}
