/** Laying a picture on the ground: world files, and points that are known on both. */
import { finite } from '../check'
import { toRad } from './angles'
import type { Position } from './geodesic'

/** lon = a·x + b·y + c, lat = d·x + e·y + f; x right and y down in pixels from the top left corner. */
export type Affine = [a: number, b: number, c: number, d: number, e: number, f: number]

/**
 * Reads a world file: six lines A, D, B, E, C, F, the last two being the middle of the first pixel.
 * @throws RangeError where it does not hold six numbers, or lies outside degrees
 * @source the six-line world file, common practice
 */
export function readWorldFile(text: string): Affine {
  const v = text
    .trim()
    .split(/\s+/)
    .map(t => Number(t.replace(',', '.')))
  if (v.length !== 6 || v.some(x => !Number.isFinite(x))) throw new RangeError('a world file holds six numbers, one a line')
  const [A, D, B, E, C, F] = v as [number, number, number, number, number, number]
  if (Math.abs(C) > 360 || Math.abs(F) > 90)
    throw new RangeError(
      'the world file is in metres of some grid; one in degrees of longitude and latitude is wanted, or give two points',
    )
  return [A, B, C - A / 2 - B / 2, D, E, F - D / 2 - E / 2]
}

export interface TiePoint {
  x: number
  y: number
  at: Position
}

/**
 * Turn, size and place of a picture from two points known on it and on the ground, true to shape.
 * @throws RangeError where the points are one and the same, on the picture or on the ground
 * @source similarity transform in a plane east-north about the first point
 */
export function affineFromTies(p: TiePoint, q: TiePoint): Affine {
  const cos = Math.cos(toRad((p.at.latDeg + q.at.latDeg) / 2))
  const dx = finite('x', q.x - p.x)
  const dy = finite('y', -(q.y - p.y))
  const east = (q.at.lonDeg - p.at.lonDeg) * cos
  const north = q.at.latDeg - p.at.latDeg
  const size = dx * dx + dy * dy
  if (size < 25) throw new RangeError('the two points lie too close on the picture')
  if (Math.hypot(east, north) < 1e-7) throw new RangeError('the two points are the same place')
  // east + i·north = (m + i·n)·(dx + i·dy)
  const m = (east * dx + north * dy) / size
  const n = (north * dx - east * dy) / size
  const a = m / cos
  const b = n / cos
  return [a, b, p.at.lonDeg - a * p.x - b * p.y, n, -m, p.at.latDeg - n * p.x + m * p.y]
}

/** @returns where a pixel lies */
export const pixelToGround = (t: Affine, x: number, y: number): Position => ({
  latDeg: t[3] * x + t[4] * y + t[5],
  lonDeg: t[0] * x + t[1] * y + t[2],
})

/** @returns the pixel that shows a place. @throws RangeError where the picture has no area */
export function groundToPixel(t: Affine, at: Position): { x: number; y: number } {
  const det = t[0] * t[4] - t[1] * t[3]
  if (Math.abs(det) < 1e-20) throw new RangeError('the picture lies on a line')
  const u = at.lonDeg - t[2]
  const v = at.latDeg - t[5]
  return { x: (t[4] * u - t[1] * v) / det, y: (t[0] * v - t[3] * u) / det }
}

/** @returns west, south, east, north of a picture of this size */
export function extentOf(t: Affine, width: number, height: number): [number, number, number, number] {
  const corners = [
    [0, 0],
    [width, 0],
    [0, height],
    [width, height],
  ].map(([x, y]) => pixelToGround(t, x!, y!))
  return [
    Math.min(...corners.map(c => c.lonDeg)),
    Math.min(...corners.map(c => c.latDeg)),
    Math.max(...corners.map(c => c.lonDeg)),
    Math.max(...corners.map(c => c.latDeg)),
  ]
}
