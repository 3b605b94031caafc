/** Which approach: each worked out as a real design on this site, and ranked. */
import type { Evidence } from '../aim/bearings'
import { kitChanges } from '../fitting/usual-kit'
import type { Kit } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import type { Design, JobDocument } from '../job/schema'
import { baselineOf, hardest, MAST_ELEMENT_DBM, readBeside, shareAt } from '../promise/inputs'
import { draw, metOf, sayExpected } from '../promise/promise'
import type { Expected, Met, PromiseInputs } from '../promise/promise'
import { ASSUMED_BANDWIDTH_MHZ } from '../survey/predict'
import { RECEIVER_NF_DB } from '../radio/levels'
import type { SpotSummary } from '../survey/spots'
import { moves } from '../survey/place'
import { given, num } from '../units'
import { capOfSim, promiseIn } from './assess'
import { contextOf, needForCallsDbm } from './context'
import type { Context } from './context'

export type Calls = 'as phones are' | 'over Wi-Fi' | 'not everywhere' | 'not known'

export interface Advice {
  id: 'nothing' | 'move' | Kit
  name: string
  /** Mbit/s where it is hardest, or at the router; null where too little is known */
  down: Expected | null
  up: Expected | null
  where: string
  calls: Calls
  /** of everything agreed the least sure; null where nothing was agreed, or too little is known */
  met: Met | null
  hours: number
  /** through an outside wall, and in ceilings */
  holes: { outside: number; inside: number }
  /** 0 nothing to buy, then low, middle and high */
  cost: 0 | 1 | 2 | 3
  cannot: string[]
  why: string
}

export interface Advised {
  advice: Advice[]
  /** where nothing outside is usable: what is left, as a class */
  none: string | null
}

/** Hours of two hands on an ordinary site, beside the way there. @source common practice (no source) */
const HOURS = { move: 0.5, outdoors: 3, router: 4, booster: 5, eachMoreAntenna: 1 } as const
/** Under both of these nothing that repeats or catches can help. @source thermal noise −123.2 dBm a resource element at NF 9 dB */
const UNUSABLE = { rsrpDbm: -124, sinrDb: -3 } as const
/** What a device's own antennas and the way it is held leave unsure when it is moved, dB. Assumed. */
const MOVED_SIGMA_DB = 2

const NAMES: Record<Advice['id'], string> = {
  nothing: 'Nothing: as it is',
  move: 'Move the router',
  outdoors: 'Modem outdoors, Ethernet in',
  router: 'Router inside, antenna outside',
  booster: 'Booster',
}

/**
 * Works every approach out and ranks them: first what costs nothing and may do, then what is likeliest to meet
 * everything agreed, of those alike the least work, then the most download.
 */
export function advise(document: JobDocument, evidence: Evidence, atUtc: string): Advised {
  const c = contextOf(document, evidence, atUtc)
  const { design } = c
  const base = baselineOf(c.job, c.log, c.before)
  const advice = base ? [asItIs(c, base), moved(c, base)].filter((a): a is Advice => a !== null) : []
  const kits: Kit[] = moves(c.doc) ? ['router', 'booster'] : ['outdoors', 'router', 'booster']
  if (design) for (const kit of kits) advice.push(laidOut(c, document, evidence, atUtc, design, kit))
  const ranked = advice.sort(byRank)
  ranked.forEach((a, i) => (a.why = whyThere(a, ranked[0]!, i, c)))
  return { advice: ranked, none: nothingOutside(c) }
}

/** From the surest; what is not known stands before what falls short. */
const MET_ORDER: readonly (Met | null)[] = ['likely', 'open', null, 'unlikely']

/** Where it is met already nothing stands first; then what costs nothing and may do; then by how surely it is met. */
function standing(a: Advice): number {
  if (a.id === 'nothing' && a.met === 'likely') return 0
  if (a.id === 'move' && (a.met === 'likely' || a.met === 'open')) return 1
  return 2 + MET_ORDER.indexOf(a.met)
}
const byRank = (a: Advice, b: Advice): number =>
  standing(a) - standing(b) || a.hours - b.hours || (b.down?.median ?? 0) - (a.down?.median ?? 0)

/** What was measured and nothing done about it. */
function asItIs(c: Context, base: SpotSummary): Advice | null {
  if (!base.down) return null
  const told = (s: NonNullable<SpotSummary['down']>): Expected => ({
    median: s.median,
    low: s.low,
    high: s.high,
    plusMinus: (s.high - s.low) / 2,
  })
  const [down, up] = [told(base.down), base.up ? told(base.up) : null]
  return rowOf(c, 'nothing', { down, up, where: `in ${base.spot.name}`, calls: callsNow(c), hours: 0, cost: 0 })
}

/** The router where a room reads best, its Wi-Fi from there. */
function moved(c: Context, base: SpotSummary): Advice | null {
  if (!base.rsrp || !base.sinr) return null
  const rooms = c.before.filter(s => s.spot.indoors && s.spot.id !== base.spot.id && s.rsrp && s.sinr && s.band === base.band)
  const best = rooms.reduce<SpotSummary | null>((a, b) => (!a || b.sinr!.median > a.sinr!.median ? b : a), null)
  if (!best || best.sinr!.median <= base.sinr.median) return null
  const bandwidthMHz = base.readings.find(r => r.bandwidthMHz)?.bandwidthMHz ?? ASSUMED_BANDWIDTH_MHZ
  const cap = capOfSim(c)
  const { share } = shareAt(base, readBeside(c.log, base), bandwidthMHz)
  const common: Omit<PromiseInputs, 'readRsrpDbm' | 'readSinrDb'> = {
    mountRsrpDbm: { mean: best.rsrp!.median, sigma: MOVED_SIGMA_DB },
    netGainDb: { mean: 0, sigma: MOVED_SIGMA_DB },
    discriminationDb: { mean: 0, sigma: 0 },
    share,
    measuredUpMbps: base.up && base.up.median > 0 ? { mean: base.up.median, sigma: base.up.median * 0.2 } : null,
    bandwidthMHz,
    layers: 2,
    capMbps: cap.downMbps,
    capUpMbps: cap.upMbps,
    portLimitMbps: null,
    noiseFigureDb: RECEIVER_NF_DB,
    mastElementDbm: MAST_ELEMENT_DBM,
    booster: null,
    added: [],
  }
  const readAt = (s: SpotSummary) => ({
    readRsrpDbm: { mean: s.rsrp!.median, sigma: MOVED_SIGMA_DB },
    readSinrDb: { mean: s.sinr!.median, sigma: MOVED_SIGMA_DB },
  })
  // Down by what was read there; up by how much nearer the mast it has come, by level.
  const { down } = draw({ ...common, ...readAt(best) })
  const { up } = draw({ ...common, ...readAt(base) })
  return rowOf(c, 'move', {
    down,
    up,
    where: `at the router, to ${best.spot.name}`,
    calls: 'over Wi-Fi',
    hours: HOURS.move,
    cost: 0,
    cannot: [`leave its Wi-Fi where it was: what hung on it in ${base.spot.name} may lose it`],
  })
}

/** Ids of rows that no one keeps. */
function throwaway(): () => string {
  let n = 0
  return () => `00000000-0000-7000-8000-${(++n).toString().padStart(12, '0')}`
}

/** A kit laid out on a copy of the job. */
function laidOut(c: Context, doc: JobDocument, evidence: Evidence, atUtc: string, design: Design, kit: Kit): Advice {
  const bearingDeg = c.chosen?.path ? c.chosen.frameBearingDeg : null
  // Only what is promised is asked: none of it is judged.
  const laid = contextOf(applyChanges(doc, kitChanges(doc, design, kit, bearingDeg, throwaway())), evidence, atUtc)
  const promise = promiseIn(laid)
  const antennas = laid.tree?.servers.length ?? 0
  const booster = kit === 'booster'
  const drills = c.job.mayDrill !== 'no' ? 1 : 0
  return rowOf(c, kit, {
    down: promise?.down ?? null,
    up: promise?.up ?? null,
    where: promise?.where ?? '',
    calls: booster ? callsBy(laid) : 'over Wi-Fi',
    hours: HOURS[kit] + (booster ? Math.max(0, antennas - 1) * HOURS.eachMoreAntenna : 0),
    holes: { outside: drills, inside: booster ? drills * antennas : 0 },
    cost: booster ? (antennas > 3 ? 3 : 2) : 1,
    cannot: booster ? boosterCannot(laid) : routerCannot(kit),
  })
}

function boosterCannot({ main }: Context): string[] {
  const loops = main?.loops ?? []
  const held = loops.filter(l => l.state === 'held back').map(l => l.heldBackDb)
  const short = (main?.rooms ?? []).filter(r => !r.met).map(r => r.spot.name)
  return [
    'better the SINR outside, or the cell’s share',
    loops.some(l => l.state === 'oscillating') && 'run as laid out: it oscillates; move or part its antennas first',
    held.length && `use its whole gain as laid out: held back by ${num(Math.max(...held))} dB`,
    short.length && `reach every room: ${short.join(', ')} short`,
    'be switched on without the operator’s consent in most countries',
  ].filter((s): s is string => !!s)
}

const routerCannot = (kit: Kit): string[] => [
  'carry calls but over Wi-Fi',
  ...(kit === 'outdoors' ? ['do without power at the mast: by the Ethernet lead, and a box made for weather'] : []),
]

const callsAt = (weakestDbm: number, c: Context): Calls =>
  weakestDbm >= needForCallsDbm(c.job) ? 'as phones are' : 'not everywhere'

function callsNow(c: Context): Calls {
  const rooms = c.before.filter(s => s.spot.needed && s.rsrp)
  return rooms.length ? callsAt(Math.min(...rooms.map(s => s.rsrp!.low)), c) : 'not known'
}

function callsBy(laid: Context): Calls {
  const room = hardest(laid.main?.rooms ?? [])
  return room ? callsAt(room.rsrpDbm, laid) : 'not known'
}

type Worked = Pick<Advice, 'down' | 'up' | 'where' | 'calls' | 'hours' | 'cost'> & Partial<Pick<Advice, 'holes' | 'cannot'>>

function rowOf(c: Context, id: Advice['id'], w: Worked): Advice {
  const name = id === 'booster' && c.job.kind === 'building' ? 'Amplifier and inside antennas' : NAMES[id]
  return { id, name, holes: { outside: 0, inside: 0 }, cannot: [], why: '', met: metBy(c, w), ...w }
}

/** Of everything agreed the least sure. */
function metBy({ job }: Context, w: Worked): Met | null {
  const one = (got: Expected | null, agreed: number | null): Met | null => (agreed === null || !got ? null : metOf(got, agreed))
  const calls: Met | null = !job.agreedCalls
    ? null
    : ({ 'as phones are': 'likely', 'over Wi-Fi': 'open', 'not everywhere': 'unlikely', 'not known': 'open' } as const)[w.calls]
  if (job.agreedDownMbps !== null && !w.down) return null
  const each = [one(w.down, job.agreedDownMbps), one(w.up, job.agreedUpMbps), calls].filter((m): m is Met => m !== null)
  return each.length ? each.reduce((a, b) => (MET_ORDER.indexOf(b) > MET_ORDER.indexOf(a) ? b : a)) : null
}

const moreWork = (a: Advice, first: Advice): string =>
  a.hours > first.hours ? `${num(a.hours - first.hours, 1)} h more` : 'as much work'

/** What stands beside the verdict: the figures that are short, or the work. */
function whyThere(a: Advice, first: Advice, rank: number, { job }: Context): string {
  if (!a.down) return 'not worked out: a mast, or a reading outside on its band, is missing'
  if (a.met === 'likely') return `all that was agreed, ${rank === 0 ? 'with the least work' : `for ${moreWork(a, first)}`}`
  const short = (got: Expected | null, agreed: number | null, what: string): string =>
    agreed !== null && got && got.median < agreed ? `${what} ${sayExpected(got)} of ${given(agreed)} agreed` : ''
  const lacks = [
    short(a.down, job.agreedDownMbps, 'down'),
    short(a.up, job.agreedUpMbps, 'up'),
    job.agreedCalls && a.calls !== 'as phones are' ? `calls ${a.calls}` : '',
  ].filter(Boolean)
  const spread = a.met === 'open' ? 'the spread reaches under what was agreed' : 'the whole spread lies under what was agreed'
  const free = a.met === 'open' && a.id === 'move' ? 'costs nothing to try: ' : ''
  if (a.met) return `${free}${lacks.join('; ') || spread}`
  return `${sayExpected(a.down)} Mbit/s down; nothing was agreed to measure it by`
}

/** @returns what is left where no reading outside can be used; null where one can, or none was taken */
function nothingOutside(c: Context): string | null {
  const outside = c.before.filter(s => !s.spot.indoors && s.rsrp)
  if (!outside.length) return null
  const usable = outside.some(s => s.rsrp!.median >= UNUSABLE.rsrpDbm || (s.sinr && s.sinr.median >= UNUSABLE.sinrDb))
  if (usable) return null
  const best = Math.max(...outside.map(s => s.rsrp!.median))
  return (
    `Nothing read outside can be used: RSRP ${num(best)} dBm at best. None of these helps. What is left: a fixed line, a ` +
    'satellite terminal, or a link of one’s own from where there is coverage.'
  )
}
