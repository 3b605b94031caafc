/** Every amplifier of a tree with the antennas that hear each other through it. */
import { nth } from '../sure'
import { amplifierOn } from '../job/part'
import type { IsolationRow } from '../job/schema'
import { toDb, toLinear } from '../radio/levels'
import { angleOff, gainToward } from '../radio/pattern'
import { crossedPolarDb } from '../radio/polarisation'
import { crossedDb, inside, surfacesBetween } from '../site/building'
import type { Building, Crossing } from '../site/building'
import { between } from '../site/frame'
import { asPart, exitsOf, facingOf, jointLossDb, turned } from '../chain/tree'
import type { AmplifierNode, AntennaNode, Tree, Turned } from '../chain/tree'
import { inFarField, isolation, marginFor, slantIsolationDb, willOscillate } from './isolation'
import type { Isolation, LoopState } from './isolation'

/** A donor and an inside antenna, and what parts them. */
export interface Pair extends Isolation {
  donor: AntennaNode
  server: AntennaNode
  alongM: number
  upM: number
  distanceM: number
  crossings: Crossing[]
  gainTowardDbi: readonly [number, number]
  /** what cables, splitters and pads take on both sides of the amplifier, dB */
  linesDb: number
  farField: boolean
  /** by the fitters' quick rule, with nothing between: of two that stand upright, and of no others */
  quickDb: number | null
  /** the sum itself, whichever is believed */
  computedDb: number
  /** what was entered for this pair, and which figure is in force */
  entered: IsolationRow | null
  inForce: IsolationRow['inForce']
}

export interface Loop {
  at: AmplifierNode
  pairs: Pair[]
  /** the pair that lets most past */
  worst: Pair
  /** of all pairs together, from port to port of the amplifier, dB */
  isolationDb: number
  neededDb: number
  marginDb: number
  state: LoopState
  heldBackDb: number
  gainDb: number
  /** how far the figure that is believed may be off, dB */
  uncertainDb: number
  /** it is stable, and stays so where the figure is off by that */
  isSure: boolean
}

/** The sum is good to this until it was measured, and a measurement to that, dB. @source numbers of this program, assumed */
const SUM_PLUS_MINUS_DB = 6
const MEASURED_PLUS_MINUS_DB = 2

/** Ways of an amplifier: to each donor before it and each server after it, with what lies between, dB. */
function waysOf(tree: Tree, at: AmplifierNode, frequencyMHz: number) {
  const donors = new Map<string, { antenna: AntennaNode; lossDb: number }>()
  const servers = new Map<string, { antenna: AntennaNode; lossDb: number }>()
  tree.visits.forEach((visit, i) => {
    if (visit.at.node.id === at.node.id && visit.entry?.role === 'donor') {
      const lossDb = lossBetween(tree, i, -1, frequencyMHz)
      const held = donors.get(visit.donor.node.id)
      if (!held || lossDb < held.lossDb) donors.set(visit.donor.node.id, { antenna: visit.donor, lossDb })
    }
    if (visit.at.part.kind !== 'antenna' || visit.parent < 0) return
    let up = visit.parent
    while (up >= 0 && nth(tree.visits, up).at.part.kind !== 'amplifier') up = nth(tree.visits, up).parent
    if (up < 0 || nth(tree.visits, up).at.node.id !== at.node.id) return
    servers.set(visit.at.node.id, { antenna: visit.at as AntennaNode, lossDb: lossBetween(tree, i, up, frequencyMHz) })
  })
  return { donors: [...donors.values()], servers: [...servers.values()] }
}

/** Passive loss from one visit down to another; from the donor where `from` is −1. */
function lossBetween(tree: Tree, to: number, from: number, frequencyMHz: number): number {
  let sum = 0
  for (let i = to; i !== from && i >= 0; i = nth(tree.visits, i).parent) {
    const v = nth(tree.visits, i)
    if (v.joint) sum += jointLossDb(v.joint, frequencyMHz)
    const p = v.parent >= 0 ? nth(tree.visits, v.parent) : null
    if (p && p.entry && v.parent !== from) sum -= exitsOf(p.at.part, p.entry).find(e => e.port.id === v.exit!.id)?.gainDb ?? 0
  }
  return sum
}

/** Gain toward the other antenna; within a metal skin the wave comes from everywhere, and none is taken below 0 dBi. Assumed. */
function gainFacing(a: Turned, azimuthDeg: number, elevationDeg: number, reverberant: boolean): number {
  const gain = gainToward(a.pattern, a, azimuthDeg, elevationDeg)
  return reverberant ? Math.max(0, gain) : gain
}

/** Degrees off the axis on which an antenna keeps its polarisation: of one alike all round, off the level. */
function offAxis(a: Turned, azimuthDeg: number, elevationDeg: number): number {
  if (a.pattern.aboutAxisDb || a.pattern.beamwidthDeg >= 360) return Math.abs(elevationDeg)
  return angleOff(a, azimuthDeg, elevationDeg)
}

export interface Surroundings {
  building: Building
  frequencyMHz: number
  /** whose figures the amplifier has on it; of all its bands where left out */
  band?: string
  /** of the mast in the site frame: where a donor looks that was not turned by hand */
  bearingDeg: number | null
  /** pairs for which something else than the sum is believed */
  entered?: readonly IsolationRow[]
}

/** @returns the figure that was put in force over the sum; null where there is none, or where it was never entered */
function believedDb(row: IsolationRow | null, quickDb: number | null): { by: IsolationRow['inForce']; db: number } | null {
  if (!row || row.inForce === 'computed') return null
  const db = { quick: quickDb, maker: row.makerDb, measured: row.measuredDb }[row.inForce]
  return db === null ? null : { by: row.inForce, db }
}

/** @returns what parts two antennas; null where they stand in the same place */
export function pairOf(
  donor: AntennaNode,
  server: AntennaNode,
  s: Surroundings,
  { linesDb = 0, facingDeg = server.node.azimuthDeg }: { linesDb?: number; facingDeg?: number | null } = {},
): Pair | null {
  const g = between(donor.node, server.node)
  if (g.distanceM < 0.05) return null
  const crossings = surfacesBetween(s.building, donor.node, server.node, s.frequencyMHz)
  const metal = s.building.wall === 'sheet metal' && inside(s.building, server.node)
  const a = turned(donor, s.frequencyMHz, s.bearingDeg)
  const b = turned(server, s.frequencyMHz, facingDeg ?? g.bearingDeg)
  const gainTowardDbi = [
    gainFacing(a, g.bearingDeg, g.elevationDeg, false),
    gainFacing(b, g.bearingDeg + 180, -g.elevationDeg, metal),
  ] as const
  const upright = a.polarisation === 'vertical' && b.polarisation === 'vertical'
  const offDeg = Math.max(offAxis(a, g.bearingDeg, g.elevationDeg), offAxis(b, g.bearingDeg + 180, -g.elevationDeg))
  const sum = isolation({
    distanceM: g.distanceM,
    frequencyMHz: s.frequencyMHz,
    gainTowardDbi,
    crossedDb: crossedDb(crossings.filter(c => c.kind !== 'sheet')),
    sheetsDb: crossedDb(crossings.filter(c => c.kind === 'sheet')),
    // Within a metal skin a wave has lost how it was turned.
    crossedPolarDb: metal ? 0 : crossedPolarDb(a.polarisation, b.polarisation, offDeg),
    uprightElevationDeg: upright ? g.elevationDeg : null,
  })
  const quickDb = upright ? slantIsolationDb(g.groundM, g.upM, s.frequencyMHz, gainTowardDbi[0] + gainTowardDbi[1]) : null
  const entered = s.entered?.find(r => r.donorId === donor.node.id && r.serverId === server.node.id) ?? null
  const believed = believedDb(entered, quickDb)
  return {
    ...sum,
    isolationDb: believed?.db ?? sum.isolationDb,
    computedDb: sum.isolationDb,
    entered,
    inForce: believed?.by ?? 'computed',
    donor,
    server,
    alongM: g.groundM,
    upM: Math.abs(g.upM),
    distanceM: g.distanceM,
    crossings,
    gainTowardDbi,
    linesDb,
    farField: inFarField(g.groundM, g.upM, Math.max(donor.part.sizeM, server.part.sizeM), s.frequencyMHz),
    quickDb,
  }
}

/** @param marginDb  as entered for the design; null takes what the amplifier asks for */
export function loopsOf(tree: Tree, s: Surroundings, marginDb: number | null): Loop[] {
  return tree.amplifiers.flatMap((at): Loop[] => {
    const { donors, servers } = waysOf(tree, at, s.frequencyMHz)
    const pairs = donors.flatMap(d =>
      servers.flatMap(
        v => pairOf(d.antenna, v.antenna, s, { linesDb: d.lossDb + v.lossDb, facingDeg: facingOf(tree, v.antenna) }) ?? [],
      ),
    )
    if (!pairs.length) return []
    const past = (p: Pair) => p.isolationDb + p.linesDb
    const worst = pairs.reduce((a, b) => (past(b) < past(a) ? b : a))
    const isolationDb = -toDb(pairs.reduce((sum, p) => sum + toLinear(-past(p)), 0))
    const part = s.band ? amplifierOn(at.part, s.band) : at.part
    const margin = marginDb ?? marginFor(part)
    const { gainDb } = part
    const uncertainDb = worst.inForce === 'measured' ? MEASURED_PLUS_MINUS_DB : SUM_PLUS_MINUS_DB
    return [
      {
        uncertainDb,
        isSure: isolationDb - gainDb - margin >= uncertainDb,
        at: asPart(at, part),
        pairs,
        worst,
        isolationDb,
        marginDb: margin,
        neededDb: gainDb + margin,
        ...willOscillate(isolationDb, gainDb, margin, Math.min(part.lowestGainDb, gainDb)),
      },
    ]
  })
}
