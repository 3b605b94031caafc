/** A cable's length follows its ends: what it needs, what is sold, what is left over. */
import { movesAbout } from '../job/schema'
import { isCable, jointM, leadsM } from '../chain/tree'
import type { Joint } from '../chain/tree'
import type { LinePart } from '../job/part'
import type { Job, Run } from '../job/schema'
import type { Building } from '../site/building'
import { inside } from '../site/building'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { SLACK_M, wayThrough } from './way'
import type { Way } from './way'

/** Parts this near are neighbours: a jumper between them needs no drip loop, m. */
const NEAR_M = 1.2
const NEAR_SLACK_M = 0.3

/**
 * What a cable between two places needs: down or up, then along the building's two directions, as cables run.
 * @returns m
 */
export function wayM(kind: Job['kind'], b: Building, from: Point, to: Point): number {
  const up = Math.abs(to.upM - from.upM)
  const east = Math.abs(to.eastM - from.eastM)
  const north = Math.abs(to.northM - from.northM)
  const straight = Math.hypot(up, east, north)
  if (straight <= NEAR_M) return round2(straight + NEAR_SLACK_M)
  const across = Math.hypot(east, north)
  // Indoors a cable follows walls and ceilings; on a mast or along a body it hangs or lies straight.
  const follows = !movesAbout(kind) && (inside(b, from) || inside(b, to))
  return round2(up + (follows ? Math.min(across * 1.15, east + north) : across) + SLACK_M)
}

/** @returns the way of a cable as it was drawn or taped; null where nobody has said anything of it */
export function drawnWay({ way, pieces }: Pick<Run, 'way' | 'pieces'>, from: Point, to: Point): Way | null {
  if (!way?.length && !pieces?.some(p => p !== null)) return null
  return wayThrough(from, way ?? [], to, pieces)
}

/** What a cable between two places needs: by its corners where its way was drawn, else guessed from its ends, m. */
export const neededM = (
  kind: Job['kind'],
  b: Building,
  run: Pick<Run, 'way' | 'pieces'>,
  { from, to }: { from: Point; to: Point },
): number => drawnWay(run, from, to)?.neededM ?? wayM(kind, b, from, to)

/** @returns a length to the next half metre: what has no plugs is cut so */
export const cutToHalfM = (neededM: number): number => Math.ceil(neededM * 2 - 1e-9) / 2

/** Shortest stock length that reaches, else the length itself to the next half metre. */
export function stockLengthM(line: Pick<LinePart, 'stockM'> | null, neededM: number): number {
  return line?.stockM.find(s => s >= neededM - 1e-9) ?? cutToHalfM(neededM)
}

/** @returns the stock length of what is bought for a joint, so that it reaches with the leads it goes on from, m */
export const stockFor = (j: Pick<Joint, 'line' | 'leads'>, neededM: number): number =>
  stockLengthM(j.line, Math.max(0.1, neededM - leadsM(j)))

/** A cable cut from a drum and crimped on site: to the next tenth, with a second try at each end, m. @source common practice (no source) */
export const cutLengthM = (neededM: number): number => Math.ceil((neededM + 0.2) * 10 - 1e-9) / 10

export interface CableLength {
  joint: Joint
  neededM: number
  /** from port to port, with the leads it goes on from */
  lengthM: number
  /** what it has over what it needs; negative where it does not reach */
  spareM: number
  /** the stock length that would reach; null of a lead alone, whose length is its maker's */
  stockM: number | null
  /** as drawn; null where it is guessed from its ends */
  way: Way | null
  /** a length measured on site, that the geometry contradicts */
  contradicted: boolean
}

/** Geometry is good to about a metre and a tenth; a measured length beyond that is doubted. Assumed. */
const DOUBT_M = 1
const DOUBT_SHARE = 0.25

export function cableLength(kind: Job['kind'], b: Building, joint: Joint): CableLength | null {
  if (!isCable(joint)) return null
  const { run } = joint
  const lengthM = jointM(joint)
  const bought = run.partId !== null
  const straightM = Math.hypot(
    joint.to.at.node.eastM - joint.from.at.node.eastM,
    joint.to.at.node.northM - joint.from.at.node.northM,
    joint.to.at.node.upM - joint.from.at.node.upM,
  )
  const way = drawnWay(run, joint.from.at.node, joint.to.at.node)
  const needs = neededM(kind, b, run, { from: joint.from.at.node, to: joint.to.at.node })
  return {
    joint,
    way,
    neededM: needs,
    lengthM,
    spareM: round2(lengthM - needs),
    stockM: bought ? stockFor(joint, needs) : null,
    // Shorter than a straight line cannot be; much longer than the way says the picture is wrong.
    contradicted:
      bought &&
      run.measured &&
      (lengthM < straightM - 0.2 || lengthM > needs + SLACK_M + Math.max(DOUBT_M, DOUBT_SHARE * needs) * 4),
  }
}
