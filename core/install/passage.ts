/** A place that cables pass: the way in, a duct, a pipe, a mast. Which of them, whether their plugs do, how full it gets. */
import { entryOf, nth } from '../sure'
import { acrossCorners, bitFor, ductFill, holeMm } from './ducts'
import type { DuctFill, Passing } from './ducts'
import type { CableLength } from '../fitting/lengths'
import type { Way } from '../fitting/way'
import { isData, isSupply } from '../chain/data'
import { endNames, lineOf } from '../chain/tree'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { WINDOW_LEAD } from '../fitting/adapters'
import { hasOwnHole } from './own-hole'
import { movesAbout } from '../job/schema'
import type { Design, Fixture, JobDocument } from '../job/schema'
import type { Entry } from '../job/fixing'
import { fromLocal, inside, roofOver, toLocal } from '../site/building'
import type { Building } from '../site/building'
import { between, partWay, round2, nearestTo } from '../site/frame'
import type { Point } from '../site/frame'

/** A cable goes through what its way comes as near to as this, m. Assumed. */
const NEAR_M = 0.6
/** Width of a plug whose cable nobody knows, mm. Assumed. */
const UNKNOWN_MM = 10

/** A cable, a lead that is fixed to an antenna, or the data or supply lead of a box outdoors, as it passes. */
export interface Passer extends Passing {
  /** the cable's row, or the box whose lead it is */
  id: string
  name: string
  from: Point
  to: Point
  /** null of a box's data or supply lead, which is no run of the tree */
  joint: Joint | null
  /** as it was drawn; null where nobody has, and of a fixed lead */
  way: Way | null
}

export interface Passage {
  at: Fixture
  cables: Passer[]
  /** what all need with one plug passing at a time, mm; null where nothing passes */
  needsMm: number | null
  /** with the plugs crimped on afterwards; a fixed lead keeps its own */
  bareMm: number | null
  bitMm: number | null
  /** of its free opening; null where that is not known */
  fill: DuctFill | null
}

/** Data cable and its plug, mm. @source ISO/IEC 11801-1 and IEC 60603-7, from memory */
const DATA_MM = 6
const DATA_PLUG_MM = 11.7
/** Where a lead goes whose source nobody has noted: so far within the nearest wall, and so high, m. Assumed. */
const WITHIN_M = 0.3
const SOCKET_HIGH_M = 1
/** What the lead of a box comes from. */
const FEEDS: ReadonlySet<Fixture['kind']> = new Set(['mains socket', '12 V feed'])

/** Everything that may pass somewhere: cables, leads fixed to antennas, and the leads of boxes outdoors. */
export function passersOf(
  tree: Pick<Tree, 'joints' | 'amplifiers' | 'routers'>,
  cables: readonly CableLength[],
  plugs: Design['plugs'],
  site: { building: Building; fixtures: readonly Fixture[] },
): Passer[] {
  const byRun = new Map(cables.map(c => [c.joint.run.id, c]))
  const runs = tree.joints.flatMap((joint): Passer[] => {
    const [from, to] = [joint.from.at.node, joint.to.at.node]
    const base = { id: joint.run.id, from, to, joint, name: endNames(joint) }
    const cable = byRun.get(joint.run.id)
    if (!cable) return []
    const line = lineOf(joint)
    const jacketMm = line?.diameterMm ?? UNKNOWN_MM
    // A lead keeps the plug it came with; what is bought may be crimped after pulling.
    const bare = joint.run.partId !== null && (plugs === 'crimped' || isSupply(joint))
    const lead = joint.leads.length && !joint.run.partId ? [joint.from, joint.to].find(e => e.at.part.tailM) : null
    return [
      {
        ...base,
        ...(lead ? { name: `lead of ${lead.at.name}` } : {}),
        way: cable.way,
        jacketMm,
        plugMm: bare ? null : (line?.plugMm ?? acrossCorners(jacketMm)),
      },
    ]
  })
  // A box whose data cable or supply is planned has that; of another its lead is only supposed.
  const joined = new Set(tree.joints.filter(j => isData(j) || isSupply(j)).flatMap(j => [j.from.at.node.id, j.to.at.node.id]))
  const boxes = [...tree.amplifiers, ...tree.routers].filter(b => !inside(site.building, b.node) && !joined.has(b.node.id))
  return [...runs, ...boxes.map(b => leadOf(b, site))]
}

/** The data or supply lead of a box outdoors: to the source that was chosen, else the nearest, else just within the nearest wall. */
function leadOf(
  { node, name }: TreeNode,
  { building: b, fixtures }: { building: Building; fixtures: readonly Fixture[] },
): Passer {
  const within = fixtures.filter(f => FEEDS.has(f.kind) && inside(b, f))
  const source = within.find(f => f.id === node.sourceId) ?? nearestTo(node, within)
  return {
    id: node.id,
    name: `lead of ${name}`,
    from: node,
    to: source ?? withinWall(b, node),
    joint: null,
    way: null,
    jacketMm: DATA_MM,
    plugMm: DATA_PLUG_MM,
  }
}

/** The place indoors that is nearest to one outdoors, a little within the shell. */
export function withinWall(b: Building, p: Point): Point {
  const [x, y] = toLocal(b, p)
  const clamp = (v: number, half: number) => Math.min(half - WITHIN_M, Math.max(WITHIN_M - half, v))
  const flat = fromLocal(b.axisDeg, clamp(x, b.halfLengthM), clamp(y, b.halfDepthM))
  return { eastM: round2(flat.eastM), northM: round2(flat.northM), upM: round2(Math.min(p.upM, SOCKET_HIGH_M)) }
}

/** @returns every one with an end outdoors and the other within */
export const entering = (passers: readonly Passer[], b: Building): Passer[] =>
  passers.filter(({ from, to }) => inside(b, from) !== inside(b, to))

/** Leads that come in by the hole of their antenna's own foot: they need no other. */
export const byOwnHole = ({ joint, from, to }: Passer, b: Building): boolean =>
  !!joint && [joint.from.at, joint.to.at].some(n => hasOwnHole(n) && !inside(b, n.node)) && inside(b, from) !== inside(b, to)

/** A flat lead under a window is a way in of its own: what is joined to it needs no other. */
export const byWindowLead = ({ joint }: Passer): boolean =>
  !!joint && [joint.from, joint.to].some(e => e.at.node.partId.startsWith(WINDOW_LEAD))

/** A gland stands so far from the foot of a mast, m. @source common practice (no source) */
export const BESIDE_FOOT_M = 0.4

/** Ways that go through what is overhead. */
const OVERHEAD: ReadonlySet<Entry> = new Set(['roof', 'deck', 'hatch'])

/** @returns the ducts of a site, and the ways in that a plan takes: the chosen one, and those that a drawn cable leads through */
export function placesOf(
  doc: Pick<JobDocument, 'fixtures' | 'designs' | 'nodes' | 'runs'>,
  design: Pick<Design, 'id' | 'wayInId'> | null,
): Fixture[] {
  const at = new Map(doc.nodes.map(n => [n.id, n]))
  const drawn = doc.runs.filter(r => r.designId === design?.id && r.way?.length && at.has(r.fromNodeId) && at.has(r.toNodeId))
  const leadsThrough = (f: Fixture) =>
    drawn.some(r => {
      const stations: Point[] = [entryOf(at, r.fromNodeId), ...r.way!, entryOf(at, r.toNodeId)]
      return stations.slice(1).some((p, i) => distanceM(f, nth(stations, i), p) <= NEAR_M)
    })
  const others = new Set(doc.designs.flatMap(d => (d.wayInId && d.wayInId !== design?.wayInId ? [d.wayInId] : [])))
  return doc.fixtures.filter(
    f => f.kind === 'duct' || (f.kind === 'way in' && (f.id === design?.wayInId || (!others.has(f.id) && leadsThrough(f)))),
  )
}

/** Under an antenna aloft stands the foot of its mast: a gland is beside it, toward where the cable goes. */
function besideFoot(foot: Point, within: Point): Point {
  const level = { ...within, upM: foot.upM }
  return between(foot, level).groundM > BESIDE_FOOT_M
    ? partWay(foot, level, BESIDE_FOOT_M, 1)
    : { ...foot, northM: round2(foot.northM - BESIDE_FOOT_M) }
}

/** Where a cable comes through the shell by a way in: straight over its end inside, or level with it through the side it comes from. */
export function entryPoint(entry: Entry, { from, to }: Pick<Passer, 'from' | 'to'>, b: Building): Point {
  const [within, without] = inside(b, from) ? [from, to] : [to, from]
  if (OVERHEAD.has(entry) || (entry === 'window' && movesAbout(b.kind))) {
    const upM = roofOver(b, without) ?? roofOver(b, within) ?? b.eavesM
    const under = roofOver(b, without) === null ? within : without
    const flat = b.kind === 'boat' && under === without ? besideFoot(under, within) : under
    return { eastM: flat.eastM, northM: flat.northM, upM: round2(upM) }
  }
  const [x, y] = toLocal(b, within)
  const [outX, outY] = toLocal(b, without)
  const byEnd = b.halfLengthM - Math.abs(outX) < b.halfDepthM - Math.abs(outY)
  const flat = byEnd
    ? fromLocal(b.axisDeg, Math.sign(outX || 1) * b.halfLengthM, y)
    : fromLocal(b.axisDeg, x, Math.sign(outY || 1) * b.halfDepthM)
  return { eastM: round2(flat.eastM), northM: round2(flat.northM), upM: round2(within.upM) }
}

function distanceM(p: Point, from: Point, to: Point): number {
  const v = [to.eastM - from.eastM, to.northM - from.northM, to.upM - from.upM] as const
  const w = [p.eastM - from.eastM, p.northM - from.northM, p.upM - from.upM] as const
  const length2 = v[0] ** 2 + v[1] ** 2 + v[2] ** 2
  const t = length2 ? Math.min(1, Math.max(0, (v[0] * w[0] + v[1] * w[1] + v[2] * w[2]) / length2)) : 0
  return Math.hypot(w[0] - t * v[0], w[1] - t * v[1], w[2] - t * v[2])
}

/** By its drawn way; along a duct by its ends too. A way in that nobody took is none because something happens to stand near it. */
function comesBy({ way, from, to }: Passer, at: Fixture): boolean {
  if (way) return way.pieces.some(p => distanceM(at, p.from, p.to) <= NEAR_M)
  return at.kind === 'duct' && Math.min(between(from, at).distanceM, between(to, at).distanceM) <= NEAR_M
}

/** What a passage is looked at in: all that may pass, and the way in that the plan takes. */
export interface Passers {
  passers: readonly Passer[]
  building: Building
  /** what comes in and passes no other goes through it */
  chosenId: string | null
  entries: readonly Fixture[]
}

export function passageAt(at: Fixture, p: Passers): Passage {
  // Through a way in goes what comes in; through a duct whatever is led along it.
  const may = at.kind === 'way in' ? entering(p.passers, p.building) : p.passers
  const elsewhere = (c: Passer) => p.entries.some(o => o.id !== at.id && comesBy(c, o))
  const cables = may.filter(c => comesBy(c, at) || (p.chosenId === at.id && !elsewhere(c)))
  const needsMm = cables.length ? holeMm(cables) : null
  const bare = cables.map(c => ({ ...c, plugMm: c.joint?.run.partId || !c.joint ? null : c.plugMm }))
  const jacketsMm = cables.map(c => c.jacketMm)
  return {
    at,
    cables,
    needsMm,
    bareMm: cables.length ? holeMm(bare) : null,
    bitMm: needsMm === null ? null : bitFor(needsMm),
    fill: at.openMm !== null && cables.length ? ductFill(jacketsMm, at.openMm) : null,
  }
}
