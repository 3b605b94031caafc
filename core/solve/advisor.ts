/** Which approach: each worked out as a real design on this site, and ranked. */
import { nth } from '../sure'
import type { Evidence } from '../masts/bearings'
import { wifiReach, wifiShort } from '../coverage/wifi'
import { heardByAir } from '../coverage/by-air'
import type { RoomLevel } from '../coverage/rooms'
import { costClassOf, costPoints, hoursOf } from '../fitting/cost'
import type { CostClass } from '../fitting/cost'
import { boosts } from '../fitting/usual-kit'
import type { PartChoice } from '../fitting/layer'
import type { Kit } from '../fitting/usual-kit'
import type { Design, Job, JobDocument } from '../job/schema'
import { baselineOf, hardest } from '../promise/inputs'
import { metOf, sayExpected } from '../promise/promise'
import type { Expected, Met } from '../promise/promise'
import { moves } from '../survey/place'
import { between } from '../site/frame'
import { given, num } from '../units'
import { promiseIn } from '../judge/assess'
import { callsOverWifi, contextOf, ownBefore } from '../judge/context'
import { needForCallsDbm } from '../site/use'
import type { Context } from '../judge/context'
import { freeCures, freeRemarks } from './free-cures'
import type { Calls, Free } from './free-cures'
import { ceilingHoles, holesOf } from '../judge/place'
import { tried } from './trial'
import type { Asked } from './trial'

export type { Calls } from './free-cures'

export interface Advice {
  id: Free['id'] | Kit
  /** what is laid out at a press; null where there is nothing to lay out */
  kit: Kit | null
  /** parts in the place of the usual ones, as it was worked out */
  choice: PartChoice
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
  cost: CostClass
  cannot: string[]
  why: string
}

export interface Advised {
  advice: Advice[]
  /** what the readings say that no kit changes */
  remarks: string[]
  /** where nothing outside is usable: what is left, as a class */
  none: string | null
}

/** Under both of these nothing that repeats or catches can help. @source thermal noise −123.2 dBm a resource element at NF 9 dB */
const UNUSABLE = { rsrpDbm: -124, sinrDb: -3 } as const

const KIT_NAMES: Record<Kit, string> = {
  'outdoors': 'Modem outdoors, Ethernet in',
  'router': 'Router inside, antenna outside',
  'window': 'Router at the window',
  'stick': 'Plug-in stick, small antenna outside',
  'extender': 'Indoor extender, two units',
  'booster': 'Booster',
  'booster and router': 'Booster, feeding a router by air',
}

/** What a way is called; a booster is an amplifier in a building. */
export const kitName = (kit: Kit, of: Job['kind']): string =>
  kit === 'booster' && of === 'building' ? 'Amplifier and inside antennas' : KIT_NAMES[kit]

/**
 * Works every approach out and ranks them: first what costs nothing and may do, then what is likeliest to meet
 * everything agreed, of those alike the least work, then the most download.
 *
 * @param each  is told what stands so far after each of them, ranked
 */
export function advise(document: JobDocument, evidence: Evidence, atUtc: string, each?: (soFar: Advised) => void): Advised {
  const c = contextOf(document, evidence, atUtc)
  const base = baselineOf(c.job, c.own, ownBefore(c))
  const out: Advice[] = base ? freeCures(c, base).map(f => fromFree(c, f)) : []
  const fixed = { remarks: freeRemarks(c, base), none: nothingOutside(c) }
  const ranked = (): Advised => {
    out.sort(byRank)
    return { advice: out.map((a, i) => ({ ...a, why: whyThere(a, nth(out, 0), i, c) })), ...fixed }
  }
  each?.(ranked())
  for (const kit of c.design ? KITS : []) {
    if (!ABOARD.has(kit) && moves(c.doc)) continue
    // Two units and a stick serve a room or two, not a building.
    if (SMALL_KITS.has(kit) && c.job.kind === 'building') continue
    out.push(laidOut({ document, evidence, atUtc, c }, c.design!, kit))
    each?.(ranked())
  }
  return ranked()
}

const KITS: readonly Kit[] = ['outdoors', 'router', 'window', 'stick', 'booster', 'booster and router', 'extender']
/** What a vehicle or boat is fitted with. */
const ABOARD: ReadonlySet<Kit> = new Set<Kit>(['router', 'booster', 'booster and router'])
const SMALL_KITS: ReadonlySet<Kit> = new Set<Kit>(['window', 'stick', 'extender'])

/** From the surest; what is not known stands before what falls short. */
const MET_ORDER: readonly (Met | null)[] = ['likely', 'open', null, 'unlikely']
/** What may be tried before anything is bought. */
const TO_TRY: ReadonlySet<Advice['id']> = new Set(['move', 'band', 'sim'])

/** Where it is met already nothing stands first; then what costs nothing and may do; then by how surely it is met. */
function standing(a: Advice): number {
  if (a.id === 'nothing' && a.met === 'likely') return 0
  if (TO_TRY.has(a.id) && (a.met === 'likely' || a.met === 'open')) return 1
  return 2 + MET_ORDER.indexOf(a.met)
}
const byDown = (a: Advice, b: Advice): number => (b.down?.median ?? 0) - (a.down?.median ?? 0)
/** What falls short is worth by what it brings; what may do, by how little work it is. */
const byRank = (a: Advice, b: Advice): number =>
  standing(a) - standing(b) || (a.met === 'unlikely' ? byDown(a, b) : a.hours - b.hours || byDown(a, b))

const fromFree = (c: Context, { measured: _, ...f }: Free): Advice => ({
  ...f,
  kit: null,
  choice: {},
  holes: { outside: 0, inside: 0 },
  met: metBy(c, f),
  why: '',
})

/** A kit laid out on a copy of the job. */
function laidOut(asked: Asked, design: Design, kit: Kit): Advice {
  const { c } = asked
  const { laid, choice } = tried(asked, design, kit)
  const atRouter = kit === 'booster and router' ? byAir(laid) : null
  const promise = promiseIn(atRouter ? { ...laid, main: { ...laid.main!, rooms: [atRouter] } } : laid)
  const { tree } = laid
  const holes = {
    outside: tree && c.job.mayDrill !== 'no' ? holesOf({ tree, building: laid.building }).length : 0,
    inside: boosts(kit) && tree && c.job.mayDrill !== 'no' ? ceilingHoles(tree) : 0,
  }
  const worked = {
    down: promise?.down ?? null,
    up: promise?.up ?? null,
    where: atRouter ? 'at the router' : (promise?.where ?? ''),
    calls: boosts(kit) ? callsBy(laid) : ('over Wi-Fi' as const),
    hours: tree ? hoursOf(tree, holes.outside + holes.inside, design.plugs) : 0,
    cost: tree ? costClassOf(costPoints(tree)) : (1 as CostClass),
  }
  return {
    ...worked,
    id: kit,
    kit,
    choice,
    name: kitName(kit, c.job.kind),
    holes,
    cannot: boosts(kit) ? boosterCannot(laid, kit) : routerCannot(laid, kit),
    met: metBy(c, worked),
    why: '',
  }
}

/** What the router hears that stands by an inside antenna. */
const byAir = ({ doc, tree, building, main }: Context): RoomLevel | null =>
  (tree && main?.levels ? heardByAir(doc, tree, building, main.levels)[0]?.level : null) ?? null

function boosterCannot({ main }: Context, kit: Kit): string[] {
  const loops = main?.loops ?? []
  const held = loops.filter(l => l.state === 'held back').map(l => l.heldBackDb)
  const short = (main?.rooms ?? []).filter(r => !r.met).map(r => r.spot.name)
  return [
    'better the SINR outside, or the cell’s share',
    kit === 'booster and router' && 'give the router two layers: what comes through one inside antenna is one',
    loops.some(l => l.state === 'oscillating') && 'run as laid out: it oscillates; move or part its antennas first',
    held.length && `use its whole gain as laid out: held back by ${num(Math.max(...held))} dB`,
    short.length && `reach every room: ${short.join(', ')} short`,
    'be switched on without the operator’s consent in most countries',
  ].filter((s): s is string => !!s)
}

/** Where a router inside stands, else where it stood: its Wi-Fi goes out from there. */
function routerCannot(laid: Context, kit: Kit): string[] {
  const out = ['carry calls but over Wi-Fi']
  if (kit === 'outdoors')
    return [
      ...out,
      'do without power at the mast: by the Ethernet lead, and a box made for weather',
      'give Wi-Fi itself: an access point stays in the middle',
    ]
  const router = laid.tree?.routers[0]?.node
  const base = laid.doc.spots.find(s => s.id === laid.job.baselineSpotId)
  if (!router) return out
  const short = wifiShort(wifiReach(laid.doc, laid.building, router))
  if (short.length) out.push(`reach with its Wi-Fi from there: ${short.map(s => s.name).join(', ')}`)
  const hangs = laid.doc.spots.filter(s => s.hangs)
  if (base && hangs.length && between(base, router).distanceM > NEAR_M)
    out.push(`keep what hangs on today’s place: ${hangs.map(s => `${s.hangs} (${s.name})`).join(', ')}`)
  return out
}

/** A router set down this near to where it stood breaks nothing, m. Assumed. */
const NEAR_M = 2.5

function callsBy(laid: Context): Calls {
  const room = hardest(laid.main?.rooms ?? [])
  if (!room) return 'not known'
  return room.rsrpDbm >= needForCallsDbm(laid.job) ? 'as phones are' : 'not everywhere'
}

/** How sure calls are: over Wi-Fi by whether plan and phones carry them. */
function callsMet(c: Context, calls: Calls): Met {
  if (calls === 'over Wi-Fi') return ({ yes: 'likely', no: 'unlikely' } as const)[callsOverWifi(c) as 'yes' | 'no'] ?? 'open'
  return ({ 'as phones are': 'likely', 'not everywhere': 'unlikely', 'not known': 'open' } as const)[calls]
}

/** Of everything agreed the least sure. */
function metBy(c: Context, w: Pick<Advice, 'down' | 'up' | 'calls'>): Met | null {
  const { job } = c
  const one = (got: Expected | null, agreed: number | null): Met | null => (agreed === null || !got ? null : metOf(got, agreed))
  const calls: Met | null = job.agreedCalls ? callsMet(c, w.calls) : null
  if (job.agreedDownMbps !== null && !w.down) return null
  const each = [one(w.down, job.agreedDownMbps), one(w.up, job.agreedUpMbps), calls].filter((m): m is Met => m !== null)
  return each.length ? each.reduce((a, b) => (MET_ORDER.indexOf(b) > MET_ORDER.indexOf(a) ? b : a)) : null
}

const moreWork = (a: Advice, first: Advice): string =>
  a.hours > first.hours ? `${num(a.hours - first.hours, 1)} h more` : 'as much work'

/** What stands beside the verdict: the figures that are short, or the work. */
function whyThere(a: Advice, first: Advice, rank: number, c: Context): string {
  const { job } = c
  if (!a.down) return 'not worked out: a mast, or a reading outside on its band, is missing'
  if (a.met === 'likely') return `all that was agreed, ${rank === 0 ? 'with the least work' : `for ${moreWork(a, first)}`}`
  const short = (got: Expected | null, agreed: number | null, what: string): string =>
    agreed !== null && got && got.median < agreed ? `${what} ${sayExpected(got)} of ${given(agreed)} agreed` : ''
  const lacks = [
    short(a.down, job.agreedDownMbps, 'down'),
    short(a.up, job.agreedUpMbps, 'up'),
    job.agreedCalls && callsMet(c, a.calls) !== 'likely' ? `calls ${a.calls}` : '',
  ].filter(Boolean)
  const spread = a.met === 'open' ? 'the spread reaches under what was agreed' : 'the whole spread lies under what was agreed'
  const free = a.met === 'open' && TO_TRY.has(a.id) ? 'costs nothing to try: ' : ''
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
