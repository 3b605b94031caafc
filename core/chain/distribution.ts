/**
 * Splitters and taps between an amplifier and its inside antennas, so that each is fed about what its zone needs.
 *
 * Levels are in dB relative to the target of each antenna: a tree *asks* for the level at its input at which the
 * hungriest antenna gets just its target, and has a *spread*, the most that any other then gets over its own.
 */
import { entryOf, nth } from '../sure'
import { finite } from '../check'
import { splitterLossDb, tapLossDb } from './line'

export interface Outlet {
  id: string
  /** from its distribution point to the antenna, cable and connectors, dB, >= 0 */
  cableLossDb: number
  /** level wanted at the antenna, dBm */
  targetDbm: number
}

/** Antennas that hang on one point of the riser: a floor. */
export interface Branch {
  id: string
  /** from the amplifier to that point, dB, >= 0 */
  riserLossDb: number
  outlets: readonly Outlet[]
}

export interface StockSplitter {
  id: string
  ways: number
  excessDb: number
}
export interface StockTap {
  id: string
  couplingDb: number
  excessDb: number
}
export interface Stock {
  splitters: readonly StockSplitter[]
  taps: readonly StockTap[]
}

/** A part of the tree, or an antenna at its end. */
export type Limb =
  | { kind: 'outlet'; id: string }
  | { kind: 'branch'; id: string; limb: Limb }
  | { kind: 'splitter'; partId: string; lossDb: number; outs: Limb[] }
  | { kind: 'tap'; partId: string; throughDb: number; tapDb: number; through: Limb; tap: Limb }

export interface Fed {
  limb: Limb
  parts: number
  /** level at the input at which the hungriest antenna gets its target, dBm */
  asksDbm: number
  /** what the best fed gets over its target then, dB, >= 0 */
  spreadDb: number
}

/** Each antenna within this of its target, either way, dB. */
export const WITHIN_DB = 3
/** A joint between two parts screwed together by an adapter of two plugs. @source 0.1 dB each, common practice (no source) */
const JOINT_DB = 0.3
/**
 * Trees kept of one set of antennas: those that no other beats in parts, in what its hungriest antenna asks for and in
 * what its least hungry one asks for at once. Beside a set that asks for more the spread is counted from the latter, so
 * of two trees of one spread the one that asks for more may be the better.
 */
const MOST_KEPT = 10
/** Differences under this do not make another tree, dB. */
const GRAIN_DB = 0.05

/**
 * Every tree worth keeping over all branches, fewest parts first.
 *
 * Antennas are taken in the order of what they ask for, and each part feeds neighbours in that order: a splitter wants
 * likes, a tap one that asks for less.
 * @throws RangeError where there is no outlet, or a loss is not a number
 */
export function feedTrees(branches: readonly Branch[], stock: Stock): Fed[] {
  const limbs = branches.map(b => {
    if (!b.outlets.length) throw new RangeError(`no antenna on ${b.id}`)
    return kept(
      overOutlets(b.outlets, stock).map(f => ({
        ...f,
        limb: { kind: 'branch' as const, id: b.id, limb: f.limb },
        asksDbm: f.asksDbm + finite('riserLossDb', b.riserLossDb),
      })),
    )
  })
  if (!limbs.length) throw new RangeError('no antenna to feed')
  return over(limbs, stock).sort(byWorth)
}

/** Searches done for a stock, by what their antennas ask for; the oldest goes where there are more than these. */
const searched = new WeakMap<Stock, Map<string, { ids: readonly string[]; fed: readonly Fed[] }>>()
const MOST_SEARCHED = 8

/** Antennas that ask for the same are fed the same: floors and zones of a building are often alike, and searched once. */
function overOutlets(outlets: readonly Outlet[], stock: Stock): Fed[] {
  const asked = outlets
    .map(o => ({ id: o.id, asksDbm: finite('targetDbm', o.targetDbm) + finite('cableLossDb', o.cableLossDb) }))
    .sort((a, b) => a.asksDbm - b.asksDbm)
  const key = asked.map(a => a.asksDbm.toFixed(9)).join()
  const ids = asked.map(a => a.id)
  const known = searched.get(stock) ?? new Map<string, { ids: readonly string[]; fed: readonly Fed[] }>()
  searched.set(stock, known)
  const held = known.get(key)
  if (held) {
    const nameOf = new Map(held.ids.map((id, i) => [id, nth(ids, i)]))
    return held.fed.map(f => ({ ...f, limb: renamed(f.limb, nameOf) }))
  }
  const leaves = asked.map(({ id, asksDbm }): Fed[] => [{ limb: { kind: 'outlet', id }, parts: 0, asksDbm, spreadDb: 0 }])
  const fed = over(leaves, stock)
  known.set(key, { ids, fed })
  const [oldest] = known.keys()
  if (known.size > MOST_SEARCHED && oldest !== undefined) known.delete(oldest)
  return fed
}

/** A tree over other antennas that ask for the same. */
function renamed(limb: Limb, nameOf: ReadonlyMap<string, string>): Limb {
  switch (limb.kind) {
    case 'outlet':
      return { kind: 'outlet', id: entryOf(nameOf, limb.id) }
    case 'branch':
      return { ...limb, limb: renamed(limb.limb, nameOf) }
    case 'splitter':
      return { ...limb, outs: limb.outs.map(o => renamed(o, nameOf)) }
    case 'tap':
      return { ...limb, through: renamed(limb.through, nameOf), tap: renamed(limb.tap, nameOf) }
  }
}

/** Within the tolerance first; of those the fewest parts, then the least level asked for. */
const byWorth = (a: Fed, b: Fed): number =>
  Number(isWithin(b)) - Number(isWithin(a)) ||
  (isWithin(a) ? 0 : a.spreadDb - b.spreadDb) ||
  a.parts - b.parts ||
  a.asksDbm - b.asksDbm

/** Trees over several sets, each of which has some trees of its own. */
function over(sets: readonly Fed[][], stock: Stock): Fed[] {
  const n = sets.length
  if (n === 1) return nth(sets, 0)
  const order = [...sets].sort((a, b) => asksOf(a) - asksOf(b))
  const mostWays = Math.max(2, ...stock.splitters.map(s => s.ways))
  /** whole[i][j]: trees over sets i…j; side[c][i][j]: c of them beside each other, on outputs that are alike */
  const whole: Fed[][][] = Array.from({ length: n }, () => Array.from({ length: n }, () => []))
  const side: Beside[][][][] = Array.from({ length: mostWays + 1 }, () =>
    Array.from({ length: n }, () => Array.from({ length: n }, () => [])),
  )
  for (let span = 1; span <= n; span++) {
    for (let i = 0; i + span <= n; i++) {
      const j = i + span - 1
      const found: Fed[] = span === 1 ? [...nth(order, i)] : []
      for (let c = 2; c <= Math.min(span, mostWays); c++) {
        nth(nth(side, c), i)[j] = kept(
          range(i, j - 1).flatMap(m =>
            (c === 2 ? nth(nth(whole, i), m).map(alone) : nth(nth(nth(side, c - 1), i), m)).flatMap(a =>
              nth(nth(whole, m + 1), j).map(b => joined(a, b)),
            ),
          ),
        )
        for (const splitter of stock.splitters)
          if (splitter.ways === c) for (const s of nth(nth(nth(side, c), i), j)) found.push(split(splitter, s))
      }
      if (span > 1)
        for (const m of range(i, j - 1))
          for (const less of nth(nth(whole, i), m))
            for (const more of nth(nth(whole, m + 1), j)) for (const tap of stock.taps) found.push(tapped(tap, more, less))
      // A splitter with an output to spare, closed by a terminator, where none has just so many ways.
      if (span > 1 && !stock.splitters.some(s => s.ways === span))
        for (const splitter of stock.splitters)
          if (splitter.ways > span && splitter.ways <= span + 2 && span <= mostWays)
            for (const s of nth(nth(nth(side, span), i), j)) found.push(split(splitter, s))
      nth(whole, i)[j] = kept(found)
    }
  }
  return nth(nth(whole, 0), n - 1)
}

const range = (from: number, to: number): number[] => Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => from + k)
const asksOf = (set: readonly Fed[]): number => Math.min(...set.map(f => f.asksDbm))

/** Trees on outputs that all carry the same level. */
interface Beside extends Weighed {
  limbs: Limb[]
}

const alone = (f: Fed): Beside => ({ limbs: [f.limb], parts: f.parts, asksDbm: f.asksDbm, spreadDb: f.spreadDb })

function joined(a: Beside, b: Fed): Beside {
  const asksDbm = Math.max(a.asksDbm, b.asksDbm)
  return {
    limbs: [...a.limbs, b.limb],
    parts: a.parts + b.parts,
    asksDbm,
    spreadDb: Math.max(a.spreadDb + asksDbm - a.asksDbm, b.spreadDb + asksDbm - b.asksDbm),
  }
}

const split = (s: StockSplitter, b: Beside): Fed => {
  const lossDb = splitterLossDb(s.ways, s.excessDb)
  return {
    limb: { kind: 'splitter', partId: s.id, lossDb, outs: b.limbs },
    parts: b.parts + 1,
    asksDbm: b.asksDbm + lossDb + JOINT_DB,
    spreadDb: b.spreadDb,
  }
}

/** What asks for more goes on through a tap, what asks for less hangs on its side. */
function tapped(t: StockTap, more: Fed, less: Fed): Fed {
  const { throughDb, tapDb } = tapLossDb(t.couplingDb, t.excessDb)
  const through = more.asksDbm + throughDb
  const aside = less.asksDbm + tapDb
  const asks = Math.max(through, aside)
  return {
    limb: { kind: 'tap', partId: t.id, throughDb, tapDb, through: more.limb, tap: less.limb },
    parts: more.parts + less.parts + 1,
    asksDbm: asks + JOINT_DB,
    spreadDb: Math.max(more.spreadDb + asks - through, less.spreadDb + asks - aside),
  }
}

type Weighed = Pick<Fed, 'parts' | 'asksDbm' | 'spreadDb'>

/** What the least hungry antenna asks for, dBm. */
const leastAskedDbm = (f: Weighed): number => f.asksDbm - f.spreadDb

/** Those that no other beats in all three, the more promising first; no more than are worth carrying on. */
function kept<T extends Weighed>(all: T[]): T[] {
  const sorted = all.sort((a, b) => a.parts - b.parts || a.asksDbm - b.asksDbm || a.spreadDb - b.spreadDb)
  const out: T[] = []
  for (const f of sorted) {
    const beaten = out.some(
      o => o.parts <= f.parts && o.asksDbm <= f.asksDbm + GRAIN_DB && leastAskedDbm(o) >= leastAskedDbm(f) - GRAIN_DB,
    )
    if (!beaten) out.push(f)
    if (out.length > 4 * MOST_KEPT) break
  }
  if (out.length <= MOST_KEPT) return out
  // The fewest parts, the least spread, the least level at either end, and what lies between.
  const by = (of: (f: T) => number) => [...out].sort((a, b) => of(a) - of(b)).slice(0, 3)
  const chosen = [...out.slice(0, MOST_KEPT - 6), ...by(f => f.spreadDb), ...by(f => f.asksDbm), ...by(f => -leastAskedDbm(f))]
  return [...new Set(chosen)]
}

export interface Distribution {
  /** one tree an amplifier, with the branches that it feeds, and what its least fed antenna gets over its target */
  zones: { fed: Fed; branches: Branch[]; spareDb: number }[]
  /** whether every antenna is within 3 dB of its target */
  within: boolean
  /** why not, or why more than one amplifier; empty where one feeds all */
  why: string
}

/**
 * Feeds all antennas from one amplifier where it can; else from as few as can, branches kept in their order.
 * @param outputDbm  that an amplifier sends at its port on the design's band, dBm
 */
export function distribute(branches: readonly Branch[], stock: Stock, outputDbm: number): Distribution {
  finite('outputDbm', outputDbm)
  const whole = chosen(feedTrees(branches, stock), outputDbm)
  if (whole.enough) return { zones: [zoneOf(whole.fed, branches, outputDbm)], within: isWithin(whole.fed), why: whyOf(whole.fed) }
  const [only] = branches
  if (branches.length === 1 && only && only.outlets.length > 1)
    return distribute(
      only.outlets.map(o => ({ ...only, outlets: [o] })),
      stock,
      outputDbm,
    )
  const zones: Distribution['zones'] = []
  let rest = [...branches]
  while (rest.length) {
    let take = rest.length
    let found = chosen(feedTrees(rest, stock), outputDbm)
    while (!found.enough && take > 1) {
      take--
      found = chosen(feedTrees(rest.slice(0, take), stock), outputDbm)
    }
    zones.push(zoneOf(found.fed, rest.slice(0, take), outputDbm))
    rest = rest.slice(take)
  }
  const lacksDb = whole.fed.asksDbm - WITHIN_DB - outputDbm
  return {
    zones,
    within: zones.every(z => isWithin(z.fed) && z.fed.asksDbm - WITHIN_DB <= outputDbm),
    why:
      zones.length > 1
        ? `one amplifier is ${lacksDb.toFixed(1)} dB short of feeding them all: ${zones.length} zones, an amplifier each`
        : `the amplifier is ${lacksDb.toFixed(1)} dB short: thicker cable, another antenna, or more output`,
  }
}

/** Of the trees that the amplifier can feed the first; where it can feed none, the one that asks for least. */
function chosen(trees: readonly Fed[], outputDbm: number): { fed: Fed; enough: boolean } {
  const able = trees.filter(t => t.asksDbm - WITHIN_DB <= outputDbm)
  const least = () => trees.reduce((a, b) => (b.asksDbm < a.asksDbm ? b : a))
  return able.length ? { fed: nth(able, 0), enough: true } : { fed: least(), enough: false }
}

const isWithin = (f: Fed): boolean => f.spreadDb <= 2 * WITHIN_DB

const whyOf = (f: Fed): string =>
  isWithin(f)
    ? ''
    : `stock splitters and taps leave ${f.spreadDb.toFixed(1)} dB between them: the cables differ by more than a tap can take up`

/** What the hungriest antenna gets over its target: all of them stand so much higher, evenly. Negative where it lacks. */
const zoneOf = (fed: Fed, branches: readonly Branch[], outputDbm: number): Distribution['zones'][number] => ({
  fed,
  branches: [...branches],
  spareDb: outputDbm - fed.asksDbm,
})

/** @returns loss of the parts to each antenna, dB, riser and cables left out */
export function partsLossOf(limb: Limb, soFarDb = 0): Map<string, number> {
  if (limb.kind === 'outlet') return new Map([[limb.id, soFarDb]])
  if (limb.kind === 'branch') return partsLossOf(limb.limb, soFarDb)
  const ways: [Limb, number][] =
    limb.kind === 'splitter'
      ? limb.outs.map(o => [o, limb.lossDb])
      : [
          [limb.through, limb.throughDb],
          [limb.tap, limb.tapDb],
        ]
  return new Map(ways.flatMap(([l, db]) => [...partsLossOf(l, soFarDb + db + JOINT_DB)]))
}

/** What each antenna gets over its target where the tree is fed at a level, dB; another band's losses may be given. */
export function overTargets(fed: Fed, branches: readonly Branch[], inputDbm: number): Map<string, number> {
  const losses = partsLossOf(fed.limb)
  return new Map(
    branches.flatMap(b =>
      b.outlets.map((o): [string, number] => [
        o.id,
        inputDbm - entryOf(losses, o.id) - b.riserLossDb - o.cableLossDb - o.targetDbm,
      ]),
    ),
  )
}
