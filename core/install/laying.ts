/** How a cable is laid once its way is known: bends, clips, joints, plugs, and the order in which all are pulled. */
import { nth } from '../sure'
import { lineOf } from '../chain/tree'
import type { Joint } from '../chain/tree'
import type { LinePart } from '../job/part'
import type { Building } from '../site/building'
import { inside } from '../site/building'
import type { CableLength } from '../fitting/lengths'
import type { Way } from '../fitting/way'
import { CORNER_DEG } from '../fitting/way'

/** Clips along a wall or a joist, one every so many metres. @source common practice (no source) */
export const CLIP_EVERY_M = 0.4
/** A plug and what is held straight behind it, m. @source common practice (no source) */
const STRAIGHT_AT_PLUG_M = 0.05
/** Of cables whose maker says nothing, times their diameter. Assumed. */
const BEND_BY_DIAMETER = 10

export interface Laying {
  bendMm: number
  /** of the pieces: a corner has no room for the bend; places among `Way.pieces` */
  tightAt: number[]
  clips: number
  /** where no length that is sold reaches: so many joints, of two mated pairs less one each */
  joints: number
  /** a joint can lie indoors */
  jointIndoors: boolean
  /** ends at which the cable turns before it may: a right-angle plug */
  rightAngle: { from: boolean; to: boolean }
}

/** @returns the tightest bend that a line bears, mm */
export const bendOf = (line: Pick<LinePart, 'bendMm' | 'diameterMm'> | null): number =>
  line?.bendMm ?? BEND_BY_DIAMETER * (line?.diameterMm ?? 10)

/**
 * @param b  the building, to tell what lies indoors
 * @returns null where its way is only guessed
 */
export function layingOf(c: CableLength, b: Building): Laying | null {
  const { way, joint } = c
  if (!way) return null
  const bendMm = bendOf(lineOf(joint))
  const longest = Math.max(0, ...(joint.line?.stockM ?? []), ...(joint.line?.drumM ?? []))
  return {
    bendMm,
    tightAt: tightCorners(way, bendMm),
    clips: way.pieces.reduce((n, p) => n + Math.ceil(p.lengthM / CLIP_EVERY_M), 0),
    joints: longest > 0 ? Math.max(0, Math.ceil(c.neededM / longest) - 1) : 0,
    jointIndoors: [joint.from.at.node, ...(joint.run.way ?? []), joint.to.at.node].some(p => inside(b, p)),
    rightAngle: {
      from: turnsAtOnce(way, 0, bendMm),
      to: turnsAtOnce(way, way.pieces.length - 1, bendMm),
    },
  }
}

/** A corner takes the bend's radius from the pieces on both its sides; two corners share the piece between them. */
function tightCorners(way: Way, bendMm: number): number[] {
  const room = bendMm / 1000
  const turns = way.pieces.map(p => p.turnDeg > CORNER_DEG)
  return way.pieces.flatMap((p, i) => {
    const corners = Number(turns[i]) + Number(turns[i + 1] ?? false)
    // A tangent's length at a corner: radius × tan of half the turn.
    const takes = room * (tangent(turns[i] ? p.turnDeg : 0) + tangent(turns[i + 1] ? nth(way.pieces, i + 1).turnDeg : 0))
    return corners && p.lengthM < takes - 1e-9 ? [i] : []
  })
}
/** Beyond this a bend is a loop, degrees. */
const MOST_TURN_DEG = 150
const tangent = (turnDeg: number): number => Math.tan(((Math.min(turnDeg, MOST_TURN_DEG) / 2) * Math.PI) / 180)

/** The first or last piece has a corner nearer to the plug than bend and plug need. */
function turnsAtOnce(way: Way, end: number, bendMm: number): boolean {
  const piece = way.pieces[end]
  const turn = end === 0 ? way.pieces[1]?.turnDeg : piece?.turnDeg
  return piece !== undefined && (turn ?? 0) > CORNER_DEG && piece.lengthM < STRAIGHT_AT_PLUG_M + bendMm / 1000
}

/** Millimetres of diameter by metres: cables that differ by less are pulled as they are numbered. */
const ALIKE = 10

/**
 * The order in which cables are pulled: what hangs from the top first, of those the stiffest and longest, so that the
 * limp ones follow in what room is left.
 * @source common practice (no source)
 */
export function pullingOrder(cables: readonly CableLength[]): CableLength[] {
  const drop = ({ joint }: CableLength) => Math.max(joint.from.at.node.upM, joint.to.at.node.upM)
  const stiff = (c: CableLength) => (lineOf(c.joint)?.diameterMm ?? 10) * c.neededM
  return [...cables].sort((a, b) => Math.round(drop(b) - drop(a)) || Math.round((stiff(b) - stiff(a)) / ALIKE))
}

/** From which end it is pulled: the plug that is smaller, or the end that is higher, goes first. */
export const pulledFrom = ({ from, to }: Joint): 'from' | 'to' => (from.at.node.upM >= to.at.node.upM ? 'from' : 'to')
