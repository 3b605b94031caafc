/** Laying a floor's plan on the building, and reading walls off a drawing that has them as lines. */
import { finite, positive } from '../check'
import { fromLocal } from './building'
import { round2 } from './frame'

/** East = a·x + b·y + c, north = d·x + e·y + f, m; x right and y down in pixels from the top left corner. */
export type PlanAffine = [a: number, b: number, c: number, d: number, e: number, f: number]

interface Pixel {
  x: number
  y: number
}
interface Ground {
  eastM: number
  northM: number
}

export interface PlanTies {
  /** the outside corners at both ends of the wall at the top of the plan as it is shown, on the picture */
  left: Pixel
  right: Pixel
  /** how far apart they are, m */
  distanceM: number
  axisDeg: number
  /** of the building, from the wall to its middle, m */
  halfDepthM: number
  /** 1 as the building's axis runs, −1 where the plan is shown turned half round */
  sign: 1 | -1
}

/**
 * Turn, size and place of a plan from the two ends of one wall, true to shape: never mirrored.
 * @throws RangeError where the points are one and the same, or the distance is none
 */
export function planAffine({ left, right, distanceM, axisDeg, halfDepthM, sign }: PlanTies): PlanAffine {
  positive('distance between the two points', distanceM)
  const dx = finite('x', right.x - left.x)
  const dy = finite('y', right.y - left.y)
  const long2 = dx * dx + dy * dy
  if (long2 < 1) throw new RangeError('the two points are one and the same')
  // (u, v) = k·(x, y) + w as complex numbers: u to the right, v down, as the plan is shown.
  const k = { re: (distanceM * dx) / long2, im: (-distanceM * dy) / long2 }
  const at = (p: Pixel) => ({ u: k.re * p.x - k.im * p.y, v: k.im * p.x + k.re * p.y })
  const from = at(left)
  const w = { u: -distanceM / 2 - from.u, v: -halfDepthM - from.v }
  const [x, y, o] = [at({ x: 1, y: 0 }), at({ x: 0, y: 1 }), w].map(q => fromLocal(axisDeg, sign * q.u, sign * q.v)) as [
    Ground,
    Ground,
    Ground,
  ]
  return [x.eastM, y.eastM, o.eastM, x.northM, y.northM, o.northM]
}

/** @returns where a pixel of a plan lies */
export const onGround = ([a, b, c, d, e, f]: PlanAffine, p: Pixel): Ground => ({
  eastM: a * p.x + b * p.y + c,
  northM: d * p.x + e * p.y + f,
})

/** A line of a drawing, in its own units and directions. */
export interface DrawnLine {
  x1: number
  y1: number
  x2: number
  y2: number
}

/** Metres in a unit of a DXF drawing, by its `$INSUNITS`. @source AutoCAD DXF reference, header variables, from memory */
const DXF_UNITS: Record<number, number> = { 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1 }

/** @throws RangeError where the drawing does not say its unit, or one that no building is drawn in */
export function dxfUnitM(insUnits: number | undefined): number {
  if (!insUnits) throw new RangeError('the drawing does not say what its unit is: say it here, or save it with units')
  const m = DXF_UNITS[insUnits]
  if (!m) throw new RangeError(`the drawing’s unit (number ${insUnits}) is none that buildings are drawn in`)
  return m
}

/** Shorter lines are furniture, m. More walls than this are no floor plan, but everything at once. */
const LEAST_M = 0.3
const MOST_WALLS = 400

export interface ReadWall {
  fromEastM: number
  fromNorthM: number
  toEastM: number
  toNorthM: number
}

/**
 * Lines of a drawing as walls of a floor: its middle on the building's, its longer side along the building's axis.
 * @param unitM  metres in one unit of the drawing
 * @throws RangeError where nothing is left, or too much
 */
export function wallsFromLines(lines: readonly DrawnLine[], unitM: number, axisDeg: number): ReadWall[] {
  const sound = lines.filter(l => [l.x1, l.y1, l.x2, l.y2].every(Number.isFinite))
  const long = sound.filter(l => Math.hypot(l.x2 - l.x1, l.y2 - l.y1) * unitM >= LEAST_M)
  if (!long.length) throw new RangeError('the drawing has no line as long as a wall')
  if (long.length > MOST_WALLS)
    throw new RangeError(`the drawing has ${long.length} lines; a floor has ${MOST_WALLS} walls at most: save its walls alone`)
  const xs = long.flatMap(l => [l.x1, l.x2])
  const ys = long.flatMap(l => [l.y1, l.y2])
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const turned = north - south > east - west
  /** along the axis, and to the left of it */
  const place = (x: number, y: number): Ground => {
    const dx = (x - (west + east) / 2) * unitM
    const dy = (y - (south + north) / 2) * unitM
    const [along, left] = turned ? [dy, -dx] : [dx, dy]
    const at = fromLocal(axisDeg, along, -left)
    return { eastM: round2(at.eastM), northM: round2(at.northM) }
  }
  return long.map(l => {
    const [a, b] = [place(l.x1, l.y1), place(l.x2, l.y2)]
    return { fromEastM: a.eastM, fromNorthM: a.northM, toEastM: b.eastM, toNorthM: b.northM }
  })
}
