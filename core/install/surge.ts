/** The way of a surge to earth: from the arrestor by its conductor to an electrode that is bonded to the building's earthing. */
import { nth } from '../sure'
import type { TreeNode } from '../chain/tree'
import { movesAbout } from '../job/schema'
import type { Fixture, Job } from '../job/schema'
import { fromLocal, inside, roofOver, toLocal } from '../site/building'
import type { Building } from '../site/building'
import { between, round2, nearestTo } from '../site/frame'
import type { Point } from '../site/frame'
import { wayThrough } from '../fitting/way'
import type { Way } from '../fitting/way'

/** A conductor turns by no more than this at once, degrees. @source NEC 810.21(E): as straight as practicable */
export const SHARP_DEG = 100
/** Turned further than a full U it is a loop, degrees. */
const LOOP_DEG = 270
/** An arrestor deeper within than this leads a surge past people first, m. @source NEC 810.20(C), at or nearest the entrance */
export const DEEP_M = 0.5
/** What hangs so far below the roof's edge and so near the wall needs none. @source EN 60728-11, from memory */
const BELOW_EAVES_M = 2
const OFF_FACE_M = 1.5
/** A conductor beyond this is an antenna for the surge: a nearer electrode, m. @source NEC 820.100(A)(4), 20 ft in homes */
export const LONG_M = 6

export type SurgeCode = 'gas' | 'unbonded' | 'bond unknown' | 'rooms' | 'braid' | 'sharp' | 'loop' | 'long' | 'deep'

export interface SurgePath {
  arrestor: TreeNode
  electrode: Fixture
  way: Way
  /** what is wrong with it, the most dangerous first */
  wrong: SurgeCode[]
}

/** A conductor is led so far outside the wall, m. */
const OFF_WALL_M = 0.15

/** The nearest place beside a building: the same where it is beside it already. */
export function outsideOf(b: Building, p: Point): Point {
  const [x, y] = toLocal(b, p)
  const [overX, overY] = [b.halfLengthM - Math.abs(x), b.halfDepthM - Math.abs(y)]
  if (overX < 0 || overY < 0) return p
  const out = (v: number, half: number) => Math.sign(v || 1) * (half + OFF_WALL_M)
  const flat = overX < overY ? fromLocal(b.axisDeg, out(x, b.halfLengthM), y) : fromLocal(b.axisDeg, x, out(y, b.halfDepthM))
  return { eastM: round2(flat.eastM), northM: round2(flat.northM), upM: p.upM }
}

/** Height over ground at which an arrestor is reached, m. @source common practice (no source) */
export const REACHED_M = 1.2
/** @returns where a line meets the shell: beside the wall, in reach and no higher than it runs; never in the room below */
export const atEntrance = (b: Building, { eastM, northM }: Point, mostM: number): Point =>
  outsideOf(b, { eastM, northM, upM: Math.min(REACHED_M, mostM) })

/** How an arrestor's conductor runs where nobody has drawn it: out past the wall, straight down, then along. */
export function guessedCorners(from: Point, to: Point, b: Building): Point[] {
  const out = outsideOf(b, from)
  const corners = [out, { ...out, upM: to.upM }]
  const at = (p: Point, q: Point) => between(p, q).distanceM < 0.05
  return corners.filter((c, i) => !at(c, i ? nth(corners, i - 1) : from) && !at(c, to) && !(i && at(c, from)))
}

/**
 * @param aboard  a boat or a vehicle has rules of its own: no rod, no building
 * @returns each arrestor with the electrode nearest to it; none where no electrode is noted
 */
export function surgePaths(
  arrestors: readonly TreeNode[],
  electrodes: readonly Fixture[],
  b: Building,
  aboard: boolean,
): SurgePath[] {
  return arrestors.flatMap((arrestor): SurgePath[] => {
    const electrode = nearestTo(arrestor.node, electrodes)
    if (!electrode) return []
    const corners = electrode.corners ?? (aboard ? [] : guessedCorners(arrestor.node, electrode, b))
    const way = wayThrough(arrestor.node, corners, electrode)
    const wrong = [
      ...wrongElectrode(electrode, aboard),
      ...wrongConductor(electrode, way, aboard),
      ...(aboard ? [] : wrongPlace(arrestor, corners, b)),
    ]
    return [{ arrestor, electrode, way, wrong: wrong.sort((x, y) => ORDER.indexOf(x) - ORDER.indexOf(y)) }]
  })
}

/** The most dangerous first. */
const ORDER: readonly SurgeCode[] = ['gas', 'unbonded', 'bond unknown', 'rooms', 'deep', 'sharp', 'loop', 'braid', 'long']

function wrongElectrode(e: Fixture, aboard: boolean): SurgeCode[] {
  if (e.electrode === 'gas pipe') return ['gas']
  if (aboard || e.electrode === 'house earthing' || e.bonded === 'yes') return []
  return [e.bonded === 'no' ? 'unbonded' : 'bond unknown']
}

function wrongConductor(e: Fixture, way: Way, aboard: boolean): SurgeCode[] {
  const out: SurgeCode[] = []
  if (e.conductor === 'braid') out.push('braid')
  if (way.pieces.some(p => p.turnDeg > SHARP_DEG)) out.push('sharp')
  if (way.turnedDeg > LOOP_DEG) out.push('loop')
  if (!aboard && way.lengthM > LONG_M) out.push('long')
  return out
}

function wrongPlace({ node }: TreeNode, corners: readonly Point[], b: Building): SurgeCode[] {
  const out: SurgeCode[] = []
  if (corners.some(c => inside(b, c))) out.push('rooms')
  if (!arrestorFits(b, node)) out.push('deep')
  return out
}

/** How far a place indoors is from the nearest outside wall or the roof over it, m. */
function depthM(b: Building, p: Point): number {
  const [x, y] = toLocal(b, p)
  return Math.min(b.halfLengthM - Math.abs(x), b.halfDepthM - Math.abs(y), (roofOver(b, p) ?? Infinity) - p.upM)
}

/** @returns whether an arrestor stands outdoors, or just within where its line comes in */
export const arrestorFits = (b: Building, p: Point): boolean => !inside(b, p) || depthM(b, p) <= DEEP_M

/** Rule packs that let what hangs low on a wall go without. @source EN 60728-11, from memory */
const SPARES_LOW: ReadonlySet<Job['rules']> = new Set(['EU', 'UK'])

/**
 * Whether what stands outdoors at a building wants an arrestor and an earth. Vehicles and boats bond by rules of their own.
 * Where the country is not told the stricter rule holds.
 *
 * @source NEC 810 (every outside antenna); EN 60728-11 (not low on a wall); both from memory
 */
export function needsEarth(rules: Job['rules'], b: Building, p: Point): boolean {
  if (movesAbout(b.kind) || inside(b, p)) return false
  if (!SPARES_LOW.has(rules)) return true
  const [x, y] = toLocal(b, p)
  const offM = Math.hypot(Math.max(0, Math.abs(x) - b.halfLengthM), Math.max(0, Math.abs(y) - b.halfDepthM))
  return !(b.eavesM - p.upM > BELOW_EAVES_M && offM < OFF_FACE_M)
}
