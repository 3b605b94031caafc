/** The way of a cable, drawn: from part to part by its corners, what that needs of cable, and how it bends. */
import { nth } from '../sure'
import { toDeg } from '../geo/angles'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'

export interface WayPiece {
  /** its place among the stretches between stations, from 0 */
  index: number
  from: Point
  to: Point
  lengthM: number
  /** a tape said so; else it was only drawn */
  taped: boolean
  /** how it runs: mostly upright, or along */
  runs: 'up' | 'down' | 'along'
  /** by which it turns from the piece before, degrees, 0…180; 0 for the first */
  turnDeg: number
}

export interface Way {
  pieces: WayPiece[]
  /** of all pieces, m */
  lengthM: number
  /** with what bends, drip and both ends take, m */
  neededM: number
  /** corners that are more than a slight lean */
  bends: number
  turnedDeg: number
}

/** Slack for a drip loop, both ends and a second try at a plug, m. @source common practice (no source) */
export const SLACK_M = 1.5
/** A corner is rounded outside, m. @source common practice (no source) */
const CORNER_M = 0.05
/** A piece leans by less than this and is no corner, degrees. */
export const CORNER_DEG = 20
/** Most that a cable is pulled round between two places to pull from. @source NEC 358.26 and its like, 360° */
export const MOST_TURNED_DEG = 360

const vector = (a: Point, b: Point) => [b.eastM - a.eastM, b.northM - a.northM, b.upM - a.upM] as const

/**
 * @param corners  between the two ends, in order
 * @param taped  of each stretch what a tape said, m; the drawing stands where there is none
 * @returns pieces of no length left out
 */
export function wayThrough(
  from: Point,
  corners: readonly Point[],
  to: Point,
  taped: readonly (number | null)[] | null = null,
): Way {
  const stations = [from, ...corners, to]
  const pieces: WayPiece[] = []
  let before: readonly [number, number, number] | null = null
  for (let i = 1; i < stations.length; i++) {
    const [a, b] = [nth(stations, i - 1), nth(stations, i)]
    const v = vector(a, b)
    const drawnM = Math.hypot(...v)
    if (drawnM < 0.01) continue
    const tape = taped?.[i - 1] ?? null
    const upright = Math.abs(v[2]) > Math.hypot(v[0], v[1])
    pieces.push({
      index: i - 1,
      from: a,
      to: b,
      lengthM: tape ?? drawnM,
      taped: tape !== null,
      runs: upright ? (v[2] > 0 ? 'up' : 'down') : 'along',
      turnDeg: before ? angleDeg(before, v) : 0,
    })
    before = v
  }
  const lengthM = pieces.reduce((s, p) => s + p.lengthM, 0)
  const bends = pieces.filter(p => p.turnDeg > CORNER_DEG).length
  return {
    pieces,
    lengthM,
    neededM: round2(lengthM + SLACK_M + CORNER_M * bends),
    bends,
    turnedDeg: pieces.reduce((s, p) => s + (p.turnDeg > CORNER_DEG ? p.turnDeg : 0), 0),
  }
}

function angleDeg(a: readonly [number, number, number], b: readonly [number, number, number]): number {
  const dot = a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
  return toDeg(Math.acos(Math.min(1, Math.max(-1, dot / (Math.hypot(...a) * Math.hypot(...b))))))
}

/** The middle of the longest piece, where a new corner is put. */
export function nextCorner(w: Way): { index: number; at: Point } | null {
  const longest = w.pieces.reduce<number>((best, p, i) => (p.lengthM > nth(w.pieces, best).lengthM ? i : best), 0)
  const p = w.pieces[longest]
  if (!p) return null
  const mid = (x: number, y: number) => round2((x + y) / 2)
  return {
    index: longest,
    at: {
      eastM: mid(p.from.eastM, p.to.eastM),
      northM: mid(p.from.northM, p.to.northM),
      upM: mid(p.from.upM, p.to.upM),
    },
  }
}
