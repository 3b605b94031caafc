/** The ground between two points. */
import type { Position } from '../geo/geodesic'
import { alongGeodesic } from '../geo/geodesic'
import type { Terrain } from './blocks'
import { normalise360 } from '../geo/angles'
import { inRange } from '../check'

export interface Profile {
  /** metres from the first point, ascending, both ends included */
  distanceM: Float64Array
  /** metres above sea level; unknown ground is bridged linearly from its neighbours */
  groundM: Float64Array
  totalM: number
  /** share of the samples where the terrain held says nothing, 0…1 */
  unknown: number
}

/** What the terrain lacks, seen from the site: a tree line, a barn, a crane. */
export interface Screen {
  /** true bearings, clockwise from one to the other */
  fromDeg: number
  toDeg: number
  distanceM: number
  /** top above the ground there, m */
  heightM: number
}

/** @returns true where a bearing lies in the span from `fromDeg` clockwise to `toDeg` */
export const inSpan = (bearingDeg: number, fromDeg: number, toDeg: number): boolean =>
  normalise360(bearingDeg - fromDeg) <= (fromDeg === toDeg ? 360 : normalise360(toDeg - fromDeg))

/**
 * Land cover nearer to either end than this is left out: antennas stand clear of what is beside them.
 * @source common practice (no source)
 */
const CLEAR_ENDS_M = 60

/** @returns how many samples a path takes at the spacing asked, never fewer than 3 */
export const sampleCount = (totalM: number, stepM: number): number => Math.max(3, Math.ceil(totalM / stepM) + 1)

/**
 * @param stepM  spacing of the samples, m; 30 suits 1″ terrain, 90 suits 3″
 * @param screens  obstacles across the bearing; each becomes a sample of its own at its distance
 */
export function sampleProfile(
  terrain: Terrain,
  from: Position,
  {
    to,
    totalM,
    stepM,
    bearingDeg = 0,
    screens = [],
  }: { to: Position; totalM: number; stepM: number; bearingDeg?: number; screens?: readonly Screen[] },
): Profile {
  inRange('stepM', stepM, 1, 10_000)
  const count = sampleCount(totalM, stepM)
  const line = alongGeodesic(from, to, count)
  const distanceM = new Float64Array(count)
  const groundM = new Float64Array(count)
  let missing = 0
  terrain.heightsAlong(line.latDeg, line.lonDeg, groundM)
  for (let i = 0; i < count; i++) {
    distanceM[i] = (line.distanceM * i) / (count - 1)
    if (Number.isNaN(groundM[i])) missing++
  }
  if (missing) bridge(groundM)
  if (terrain.hasCover) {
    for (let i = 1; i < count - 1; i++) {
      if (distanceM[i]! < CLEAR_ENDS_M || line.distanceM - distanceM[i]! < CLEAR_ENDS_M) continue
      groundM[i]! += terrain.coverAt(line.latDeg[i]!, line.lonDeg[i]!)
    }
  }
  const profile: Profile = { distanceM, groundM, totalM: line.distanceM, unknown: missing / count }
  return screens.reduce<Profile>((p, s) => (inSpan(bearingDeg, s.fromDeg, s.toDeg) ? withScreen(p, s) : p), profile)
}

/** Puts an obstacle into a profile as one sample more, its top over the ground that lies there. */
function withScreen(p: Profile, s: Screen): Profile {
  if (s.distanceM <= 0 || s.distanceM >= p.totalM) return p
  const after = p.distanceM.findIndex(d => d >= s.distanceM)
  const before = after - 1
  const t = (s.distanceM - p.distanceM[before]!) / (p.distanceM[after]! - p.distanceM[before]!)
  const top = p.groundM[before]! + (p.groundM[after]! - p.groundM[before]!) * t + s.heightM
  if (t === 1 && after < p.distanceM.length - 1) {
    const groundM = p.groundM.slice()
    groundM[after] = Math.max(groundM[after]!, top)
    return { ...p, groundM }
  }
  const insert = (a: Float64Array, v: number): Float64Array => Float64Array.of(...a.subarray(0, after), v, ...a.subarray(after))
  return { ...p, distanceM: insert(p.distanceM, s.distanceM), groundM: insert(p.groundM, top) }
}

/** Fills NaN runs linearly between known neighbours; sea level where nothing at all is known. */
function bridge(groundM: Float64Array): void {
  let last = -1
  for (let i = 0; i <= groundM.length; i++) {
    if (i < groundM.length && Number.isNaN(groundM[i])) continue
    const left = last >= 0 ? groundM[last]! : i < groundM.length ? groundM[i]! : 0
    const right = i < groundM.length ? groundM[i]! : left
    for (let k = last + 1; k < i; k++) groundM[k] = left + ((right - left) * (k - last)) / (i - last)
    last = i
  }
}
