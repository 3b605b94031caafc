/** A place that cables pass: the way in, a duct, a pipe, a mast. Which of them, whether their plugs do, how full it gets. */
import { acrossCorners, bitFor, ductFill, holeMm } from './ducts'
import type { DuctFill, Passing } from './ducts'
import type { CableLength } from './lengths'
import type { Way } from './way'
import type { Joint, Tree } from '../chain/tree'
import type { Connector } from '../job/part'
import { movesAbout } from '../job/schema'
import type { Design, Fixture, JobDocument } from '../job/schema'
import type { Entry } from '../job/fixing'
import { fromLocal, inside, roofOver, toLocal } from '../site/building'
import type { Building } from '../site/building'
import { between, round2 } from '../site/frame'
import type { Point } from '../site/frame'

/** A cable goes through what its way comes as near to as this, m. Assumed. */
const NEAR_M = 0.6
/** Width of a plug whose cable nobody knows, mm. Assumed. */
const UNKNOWN_MM = 10

/** A cable, or a lead that is fixed to an antenna, as it passes. */
export interface Passer extends Passing {
  joint: Joint
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

/** Widest part of a plug on a thin lead, mm. @source IEC 61169 outlines and hexagon nuts, from memory */
const LEAD_PLUG_MM: Record<Connector, number> = {
  'N': 21,
  'SMA': 9.3,
  'RP-SMA': 9.3,
  'TS9': 6,
  'CRC9': 5,
  'F': 13,
  'FME': 10.5,
  'TNC': 15,
  'BNC': 14.5,
}
/** A lead that is fixed to an antenna is thin coax, mm. Assumed. */
const LEAD_MM = 5

/** Everything that may pass somewhere: cables, and leads fixed to antennas. */
export function passersOf(tree: Pick<Tree, 'joints'>, cables: readonly CableLength[], plugs: Design['plugs']): Passer[] {
  const byRun = new Map(cables.map(c => [c.joint.run.id, c]))
  return tree.joints.flatMap((joint): Passer[] => {
    const cable = byRun.get(joint.run.id)
    if (cable) {
      const jacketMm = joint.line?.diameterMm ?? UNKNOWN_MM
      const plugMm = plugs === 'crimped' ? null : (joint.line?.plugMm ?? acrossCorners(jacketMm))
      return [{ joint, way: cable.way, jacketMm, plugMm }]
    }
    const end = [joint.from, joint.to].find(e => e.at.part.tailM)
    return end ? [{ joint, way: null, jacketMm: LEAD_MM, plugMm: LEAD_PLUG_MM[end.port.connector] }] : []
  })
}

/** @returns every one with an end outdoors and the other within */
export const entering = (passers: readonly Passer[], b: Building): Passer[] =>
  passers.filter(({ joint }) => inside(b, joint.from.at.node) !== inside(b, joint.to.at.node))

/** Ways that go through what is overhead. */
const OVERHEAD: ReadonlySet<Entry> = new Set(['roof', 'deck', 'hatch'])

/** @returns the ways in and ducts of a plan: what another variant alone comes in by is none of its own */
export function placesOf(doc: Pick<JobDocument, 'fixtures' | 'designs'>, design: Pick<Design, 'wayInId'> | null): Fixture[] {
  const own = design?.wayInId ?? null
  const others = new Set(doc.designs.flatMap(d => (d.wayInId && d.wayInId !== own ? [d.wayInId] : [])))
  return doc.fixtures.filter(f => (f.kind === 'way in' || f.kind === 'duct') && !others.has(f.id))
}

/** Where a cable comes through the shell by a way in: straight over its end inside, or level with it through the side it comes from. */
export function entryPoint(entry: Entry, { joint }: Pick<Passer, 'joint'>, b: Building): Point {
  const [from, to] = [joint.from.at.node, joint.to.at.node]
  const [within, without] = inside(b, from) ? [from, to] : [to, from]
  if (OVERHEAD.has(entry) || (entry === 'window' && movesAbout(b.kind))) {
    const upM = roofOver(b, without) ?? roofOver(b, within) ?? b.eavesM
    const under = roofOver(b, without) === null ? within : without
    return { eastM: under.eastM, northM: under.northM, upM: round2(upM) }
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

function comesBy({ way, joint }: Passer, at: Point): boolean {
  if (way) return way.pieces.some(p => distanceM(at, p.from, p.to) <= NEAR_M)
  return Math.min(between(joint.from.at.node, at).distanceM, between(joint.to.at.node, at).distanceM) <= NEAR_M
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
  const bare = cables.map(c => ({ ...c, plugMm: c.joint.run.partId ? null : c.plugMm }))
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
