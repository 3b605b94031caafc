import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { splitterLossDb, tapLossDb } from './line'
import { distribute, feedTrees, overTargets, partsLossOf, WITHIN_DB } from './distribution'
import type { Branch, Outlet, Stock } from './distribution'

const STOCK: Stock = {
  splitters: [2, 3, 4, 6, 8].map(ways => ({ id: `spl-${ways}`, ways, excessDb: ways > 4 ? 0.7 : 0.4 })),
  taps: [5, 6, 8, 10, 15].map(couplingDb => ({ id: `tap-${couplingDb}`, couplingDb, excessDb: 0.3 })),
}
const SMALL: Stock = { splitters: STOCK.splitters.slice(0, 2), taps: STOCK.taps.slice(1, 3) }
const outlets = (losses: readonly number[], targetDbm = -50): Outlet[] =>
  losses.map((cableLossDb, i) => ({ id: String(i), cableLossDb, targetDbm }))
const one = (losses: readonly number[]): Branch[] => [{ id: 'floor', riserLossDb: 0, outlets: outlets(losses) }]

/** Every tree over a set of antennas, in every grouping: what it asks for, its parts and its spread. */
interface Found {
  parts: number
  asks: number
  spread: number
}
function exhaustive(asks: readonly number[], stock: Stock): Found[] {
  if (asks.length === 1) return [{ parts: 0, asks: asks[0]!, spread: 0 }]
  const out: Found[] = []
  for (const s of stock.splitters)
    for (const groups of partitions(asks, s.ways))
      for (const combination of product(groups.map(g => exhaustive(g, stock)))) {
        const most = Math.max(...combination.map(c => c.asks))
        out.push({
          parts: combination.reduce((n, c) => n + c.parts, 1),
          asks: most + splitterLossDb(s.ways, s.excessDb) + 0.3,
          spread: Math.max(...combination.map(c => c.spread + most - c.asks)),
        })
      }
  for (const t of stock.taps) {
    const { throughDb, tapDb } = tapLossDb(t.couplingDb, t.excessDb)
    for (const [a, b] of partitions(asks, 2) as [number[], number[]][])
      for (const [through, aside] of [
        [a, b],
        [b, a],
      ] as const)
        for (const [x, y] of product([exhaustive(through, stock), exhaustive(aside, stock)]) as [Found, Found][]) {
          const most = Math.max(x.asks + throughDb, y.asks + tapDb)
          out.push({
            parts: x.parts + y.parts + 1,
            asks: most + 0.3,
            spread: Math.max(x.spread + most - x.asks - throughDb, y.spread + most - y.asks - tapDb),
          })
        }
  }
  return out
}
function partitions<T>(items: readonly T[], groups: number): T[][][] {
  if (groups > items.length) return []
  if (groups === 1) return [[[...items]]]
  const [first, ...rest] = items as [T, ...T[]]
  const out: T[][][] = []
  for (let mask = 0; mask < 2 ** rest.length; mask++) {
    const withFirst = [first, ...rest.filter((_, i) => mask & (1 << i))]
    const others = rest.filter((_, i) => !(mask & (1 << i)))
    if (others.length < groups - 1) continue
    for (const p of partitions(others, groups - 1)) out.push([withFirst, ...p])
  }
  return out
}
const product = <T>(sets: T[][]): T[][] => sets.reduce<T[][]>((all, set) => all.flatMap(a => set.map(s => [...a, s])), [[]])

describe('feeding several antennas', () => {
  it('four alike take one splitter of four', () => {
    const [best] = feedTrees(one([3, 3, 3, 3]), STOCK)
    expect(best).toMatchObject({ parts: 1, spreadDb: 0 })
    expect(best!.limb).toMatchObject({ kind: 'branch', limb: { kind: 'splitter', partId: 'spl-4' } })
  })
  it('one near and one far take a tap: the near one hangs on its side', () => {
    const [best] = feedTrees(one([1, 10]), STOCK)
    const limb = best!.limb
    expect(limb).toMatchObject({ kind: 'branch', limb: { kind: 'tap', tap: { id: '0' }, through: { id: '1' } } })
    expect(best!.spreadDb).toBeLessThanOrEqual(2 * WITHIN_DB)
  })
  it('what is split never sums to more than came in', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 14, noNaN: true }), { minLength: 2, maxLength: 12 }), losses => {
        for (const fed of feedTrees(one(losses), STOCK)) {
          const through = [...partsLossOf(fed.limb).values()]
          expect(through).toHaveLength(losses.length)
          expect(through.reduce((sum, db) => sum + 10 ** (-db / 10), 0)).toBeLessThanOrEqual(1)
        }
      }),
      { numRuns: 60 },
    ))
  it('what it says of level and spread is what a walk down the tree finds', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 12, noNaN: true }), { minLength: 2, maxLength: 10 }), losses => {
        const [best] = feedTrees(one(losses), STOCK)
        const got = [...overTargets(best!, one(losses), best!.asksDbm).values()]
        expect(Math.min(...got)).toBeCloseTo(0, 6)
        expect(Math.max(...got)).toBeCloseTo(best!.spreadDb, 6)
      }),
      { numRuns: 60 },
    ))
  it('on small trees it is the best of all there are, by exhaustive search', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 14 }), { minLength: 2, maxLength: 4 }), losses => {
        const all = exhaustive(
          losses.map(l => l - 50),
          SMALL,
        )
        const within = all.filter(f => f.spread <= 2 * WITHIN_DB + 1e-9)
        const [best] = feedTrees(one(losses), SMALL)
        if (within.length) {
          expect(best!.parts).toBe(Math.min(...within.map(f => f.parts)))
          expect(best!.spreadDb).toBeLessThanOrEqual(2 * WITHIN_DB + 0.1)
        } else expect(best!.spreadDb).toBeLessThanOrEqual(Math.min(...all.map(f => f.spread)) + 0.1)
      }),
      { numRuns: 40 },
    ))
  it('twenty-four on four floors come within 3 dB from one amplifier, or it says how many it takes', () => {
    const branches = [0, 1, 2, 3].map((f): Branch => ({
      id: `floor ${f}`,
      riserLossDb: 0.5 + f * 0.6,
      outlets: [3, 4, 5, 6, 7, 8].map((cableLossDb, i) => ({ id: `${f}.${i}`, cableLossDb, targetDbm: -52 })),
    }))
    const d = distribute(branches, STOCK, -26)
    expect(d).toMatchObject({ within: true, why: '' })
    expect(d.zones).toHaveLength(1)
    const weak = distribute(branches, STOCK, -36)
    expect(weak.zones.length).toBeGreaterThan(1)
    expect(weak.why).toMatch(/one amplifier is \d+\.\d dB short of feeding them all: \d zones/)
    expect(weak.zones.flatMap(z => z.branches.map(b => b.id))).toEqual(branches.map(b => b.id))
  })
  it('a strong amplifier lifts all of them alike, and says by how much', () => {
    const branches = one([3, 3, 4, 3])
    const [zone] = distribute(branches, STOCK, 0).zones
    const got = [...overTargets(zone!.fed, branches, 0).values()]
    expect(Math.min(...got)).toBeCloseTo(zone!.spareDb, 6)
    expect(Math.max(...got) - Math.min(...got)).toBeLessThanOrEqual(2 * WITHIN_DB)
  })
  it('the first is within the tolerance if any is; of those it has the fewest parts, then it asks for the least', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 12, noNaN: true }), { minLength: 2, maxLength: 5 }), losses => {
        const [first, ...rest] = feedTrees(one(losses), SMALL)
        // Within 3 dB of the middle: six from end to end.
        const within = (spread: number) => spread <= 2 * WITHIN_DB
        for (const t of rest) {
          if (!within(first!.spreadDb)) {
            expect(within(t.spreadDb)).toBe(false)
            expect(t.spreadDb).toBeGreaterThanOrEqual(first!.spreadDb - 1e-9)
          } else if (within(t.spreadDb)) {
            expect(t.parts).toBeGreaterThanOrEqual(first!.parts)
            if (t.parts === first!.parts) expect(t.asksDbm).toBeGreaterThanOrEqual(first!.asksDbm - 1e-9)
          }
        }
      }),
      { numRuns: 60 },
    ))
  it('refuses nothing to feed, and a loss that is no number', () => {
    expect(() => feedTrees([], STOCK)).toThrow('no antenna to feed')
    expect(() => feedTrees(one([NaN]), STOCK)).toThrow(RangeError)
  })
  it('antennas alike in what they ask for are fed alike, each by its own name, in whatever order they stand', () => {
    const losses = [3.1, 1.2, 4.7, 2.2, 3.9]
    const other = (ids: string[], list: number[]) => [
      { id: 'upper', riserLossDb: 2, outlets: list.map((cableLossDb, i) => ({ id: ids[i]!, cableLossDb, targetDbm: 0 })) },
    ]
    const first = feedTrees(one(losses), STOCK)
    const again = feedTrees(other(['p', 'q', 'r', 's', 't'], [...losses].reverse()), STOCK)
    // The same search without anything held: a stock of its own.
    const alone = feedTrees(other(['p', 'q', 'r', 's', 't'], [...losses].reverse()), structuredClone(STOCK))
    expect(again).toEqual(alone)
    expect(again.map(f => f.parts)).toEqual(first.map(f => f.parts))
    const ids = [...JSON.stringify(again[0]!.limb).matchAll(/"outlet","id":"(\w)"/g)].map(m => m[1])
    expect(ids.sort()).toEqual(['p', 'q', 'r', 's', 't'])
  })
})
