/** The demo crew's price book: invented figures in the currency that ISO 4217 keeps for tests. */
import type { Money, Price } from '../core/card'
import type { PickGroup, PickRow } from '../core/install'
import { seeded } from '../core/random'

export const DEMO_MONEY: Money = { currency: 'XTS', hourMinor: 54_00, marginPercent: 18, taxPercent: 12 }

/** What a thing of a group costs, least and most, in whole units of money. */
const RANGE: Record<PickGroup, readonly [number, number]> = {
  parts: [38, 420],
  cable: [14, 60],
  apart: [8, 40],
  fixings: [6, 70],
  feeds: [2, 16],
  consumables: [0.1, 6],
  own: [5, 20],
}
/** What is small is cheap: by the beginning of its key, in whole units of money. */
const SMALL: readonly (readonly [start: string, low: number, high: number])[] = [
  ['use:clips', 0.08, 0.14],
  ['use:labels', 0.05, 0.1],
  ['use:ties', 4, 7],
  ['use:tape', 5, 8],
  ['use:earth', 2, 4],
  ['screw:', 0.4, 1.4],
  ['lug:', 0.3, 0.8],
  ['wire:', 0.6, 2],
]
const SUPPLIERS: Record<PickGroup, readonly [name: string, leadDays: number]> = {
  parts: ['Radio stores, mainland', 4],
  cable: ['Radio stores, mainland', 4],
  apart: ['Radio stores, mainland', 4],
  fixings: ['Slipway ironmonger', 1],
  feeds: ['Slipway ironmonger', 1],
  consumables: ['Slipway ironmonger', 1],
  own: ['Slipway ironmonger', 1],
}
/** Of these the van always has some. */
const IN_VAN: Record<string, number> = { 'use:clips': 120, 'use:labels': 60, 'use:ties': 2, 'use:tape': 3, 'use:sealant': 2 }
/** Nobody has priced these yet. */
const UNPRICED = /^use:parting|:drum /

/** @returns a price for every row that the demo's plans make, the same every time */
export function demoPrices(rows: readonly PickRow[]): Price[] {
  const byKey = new Map(rows.map(r => [r.key, r]))
  return [...byKey.values()].map(({ key, group }) => {
    const random = seeded([...key].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 1_000_003, 7))
    const small = SMALL.find(([start]) => key.startsWith(start))
    const [low, high] = small ? [small[1], small[2]] : RANGE[group]
    const [supplier, leadDays] = SUPPLIERS[group]
    const minor = UNPRICED.test(key) ? null : Math.round((low + (high - low) * random() ** 2) * 100)
    return { key, minor, supplier, leadDays, inVan: IN_VAN[key] ?? 0 }
  })
}
