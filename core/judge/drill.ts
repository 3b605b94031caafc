/** Before you drill: everything that is still assumed, what it could cost, how it is known cheapest; and the dry run's card. */
import { nth } from '../sure'
import { INDOOR_SIGMA_DB } from '../coverage/indoor'
import { hardest } from '../promise/inputs'
import type { AssumptionCode } from '../promise/inputs'
import type { PromiseView } from '../promise/view'
import { ISOLATION_SIGMA_DB } from '../separation/isolation'
import { NINE_IN_TEN } from '../survey/stats'
import { num } from '../units'
import { metres, words } from '../words'
import { capOfSim } from './context'
import type { Context } from './context'
import { wayInById } from '../install/ways-in'
import type { DemandKind } from './demands'
import { drilledOf, passagesOf } from './passages'
import type { Words } from '../words'
import { lastCheck } from './ticks'

export interface Assumed {
  what: Words
  /** what it could cost, as a figure where there is one */
  cost: Words
  /** the cheapest way to know */
  know: string
  /** people can be hurt, or a hole is in the wrong place: known first */
  first: boolean
}

export interface DryRead {
  where: string
  quantity: 'RSRP' | 'SINR' | 'gain' | 'total at the donor port' | 'download'
  unit: string
  expected: number
  /** under this (of a total: over it) the dry run stops */
  stopAt: number
  stopWhen: 'under' | 'over'
}

export interface BeforeYouDrill {
  assumed: Assumed[]
  dryRun: DryRead[]
}

/** Two standard deviations: what is further off than this is not chance. */
const SIGMAS = 2
/** How well a donor's level is known once it stands where it was read, dB. Assumed. */
const AT_MOUNT_SIGMA_DB = 3

export function beforeYouDrill(c: Context, promise: PromiseView | null): BeforeYouDrill {
  if (!c.tree?.nodes.length) return { assumed: [], dryRun: [] }
  return { assumed: [...hurts(c), ...costs(c, promise)], dryRun: dryRun(c, promise) }
}

/** What can hurt people or is in the wrong place for good. A fact that was noted, and a hole that was made, are dropped. */
function hurts(c: Context): Assumed[] {
  const said = (key: string) => lastCheck(c.doc, 'fact', key)?.done ?? false
  const made = (id: string) => lastCheck(c.doc, 'step', `way:${id}`)?.done ?? false
  const unseen = drilledOf(passagesOf(c)).filter(({ at }) => !made(at.id) && at.behindFound === null && !said(`behind:${at.id}`))
  const behind = unseen.map(({ at }): Assumed => ({
    what: `what is behind ${at.name || wayInById(at.entry!).words}`,
    cost: 'a cable, a pipe, gas, a tank: people hurt',
    know: 'detector on both sides, plans, a look through an opening that is there; not known: no hole',
    first: true,
  }))
  const missing = c.demands.flatMap((d): Assumed[] => {
    const says = MISSING[d.kind]
    return d.state === 'missing' && says ? [{ what: d.asks, ...says }] : []
  })
  return [...behind, ...missing]
}

/** What a demand that is missing could cost, and how it is known cheapest. A seal follows its way in, a room is tested at the end. */
const MISSING: Partial<Record<DemandKind, Omit<Assumed, 'what'>>> = {
  'lines': {
    cost: 'death',
    know: 'look up all round; further away than the pole’s full length and 3 m, else stop and ask their owner',
    first: true,
  },
  'consent': { cost: 'the wall, and the customer', know: 'ask, in writing', first: true },
  'way in': {
    cost: 'a hole in the wrong place, or none that reaches',
    know: 'choose it in Route, look at both sides',
    first: true,
  },
  'earth': { cost: 'a surge through people and kit', know: 'find the building’s earthing; an electrician decides', first: true },
  'arrestor': { cost: 'a surge through people and kit', know: 'one in series in each line, where it comes in', first: true },
  'mount': {
    cost: 'an antenna that falls, a part that is not on the list',
    know: 'note bracket, pole and screws in Route',
    first: true,
  },
  'feed': {
    cost: 'the box hangs elsewhere, and every cable with it',
    know: 'look, and note it in Place; no extension lead for good',
    first: false,
  },
}

function costs(c: Context, promise: PromiseView | null): Assumed[] {
  const out: Assumed[] = []
  const work = c.main
  const start = work?.levels?.sources[0]?.start
  const mbps = (side: 'down' | 'up') =>
    promise ? `± ${num(promise[side].plusMinus, 1)} Mbit/s as it stands` : 'the whole promise'
  if (start && start.provenance !== 'measured')
    out.push({
      what: start.spot
        ? `the level at the mount, reckoned from ${start.spot.name}`
        : 'the level at the mount, reckoned from the mast',
      cost: `± ${num(NINE_IN_TEN * start.sigmaDb)} dB`,
      know: 'phone on a pole or at the ridge, 30 s, three readings',
      first: false,
    })
  for (const a of promise?.assumptions ?? []) {
    // Cable lengths are told below, each against what is to spare.
    if (a.code === 'lengths') continue
    out.push({ what: a.words, cost: mbps(a.code === 'upload' ? 'up' : 'down'), know: KNOWING[a.code], first: false })
  }
  const unmeasured = c.lengths.filter(l => !l.joint.run.measured)
  const tight = unmeasured.filter(l => l.spareM < 1)
  if (unmeasured.length)
    out.push({
      what: `${unmeasured.length} cable length${unmeasured.length === 1 ? '' : 's'}, from the picture`,
      cost: tight.length
        ? words`${tight.length} with under ${metres(1)} to spare: one metre short is another day`
        : 'a metre or two each way',
      know: 'tape or string along the way, then tick “measured”',
      first: false,
    })
  for (const loop of work?.loops ?? []) {
    if (loop.pairs.every(p => p.inForce === 'measured')) continue
    const short = loop.isolationDb - loop.neededDb - SIGMAS * ISOLATION_SIGMA_DB
    out.push({
      what: `isolation of ${loop.at.name}, ${num(loop.isolationDb)} dB by the sum`,
      cost: short < 0 ? `up to ${num(-short)} dB of gain held back` : 'nothing: stable even two sigmas lower',
      know: 'dry run: both antennas loose in their places, read the gain in use or the lamps',
      first: false,
    })
  }
  return out
}

/** The cheapest way to know what was assumed. */
const KNOWING: Record<Exclude<AssumptionCode, 'lengths'>, string> = {
  sinr: 'read SINR outside on that band, 30 s',
  share: 'three speed tests with SINR where the device stands today',
  upload: 'a speed test and the level, at one spot with one set-up',
  width: 'the modem’s page names it',
  wall: 'the same phone inside and outside of the wall',
  mast: 'any reading outside on that band',
  leads: 'its maker’s sheet: type of coax and loss a metre',
  carriers: 'a list of what each carrier sends there, or the booster’s own input figure',
  lost: 'read it on site',
}

/** What should be read where with everything loose, and at what figure to stop. */
function dryRun(c: Context, promise: PromiseView | null): DryRead[] {
  const work = c.main
  if (!work?.levels) return []
  const out: DryRead[] = []
  const under = (
    where: string,
    { quantity, unit, expected, by }: { quantity: DryRead['quantity']; unit: string; expected: number; by: number },
  ): DryRead => ({
    where,
    quantity,
    unit,
    expected,
    stopAt: expected - by,
    stopWhen: 'under',
  })
  const sigma = Math.max(AT_MOUNT_SIGMA_DB, nth(work.levels.sources, 0).start.sigmaDb)
  const modem = work.levels.modems[0]
  if (modem)
    out.push(
      under(`at the router, port ${modem.port}`, { quantity: 'RSRP', unit: 'dBm', expected: modem.rsrpDbm, by: SIGMAS * sigma }),
    )
  const sinr = nth(work.levels.sources, 0).start.sinr?.median
  if (modem && sinr !== undefined) out.push(under('at the router', { quantity: 'SINR', unit: 'dB', expected: sinr, by: 5 }))
  for (const a of work.levels.amplifiers) {
    out.push({
      where: a.at.name,
      quantity: 'total at the donor port',
      unit: 'dBm',
      expected: a.inputAllDbm,
      stopAt: a.at.part.inputLimitDbm,
      stopWhen: 'over',
    })
    out.push(under(a.at.name, { quantity: 'gain', unit: 'dB', expected: a.gainDb, by: SIGMAS * ISOLATION_SIGMA_DB }))
  }
  const room = hardest(work.rooms)
  if (room)
    out.push(
      under(`in ${room.spot.name}`, {
        quantity: 'RSRP',
        unit: 'dBm',
        expected: room.rsrpDbm,
        by: SIGMAS * INDOOR_SIGMA_DB * 0.75,
      }),
    )
  if (promise)
    out.push({
      ...under(promise.where, { quantity: 'download', unit: 'Mbit/s', expected: promise.down.median, by: 0 }),
      stopAt: stopUnder(c, promise),
    })
  return out
}

/** A speed test that reaches this share of a plan's cap has reached the cap. @source common practice (no source) */
const CAP_SHARE = 0.9
/** One test in twenty falls lower than so many standard deviations below. */
const ONE_IN_TWENTY = 1.645

/** Download at which a single test speaks against the plan: below the low end by what one test strays, and never above the cap. */
function stopUnder(c: Context, promise: PromiseView): number {
  const strays = Math.exp(-ONE_IN_TWENTY * c.log.usual.speed)
  const cap = capOfSim(c).downMbps
  return Math.min(promise.down.low * strays, cap === null ? Infinity : CAP_SHARE * cap)
}
