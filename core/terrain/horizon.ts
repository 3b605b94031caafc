/** The skyline: how high the ground stands all round, and how far off its ridge is. */
import { inRange } from '../check'
import type { Position } from '../geo/geodesic'
import { direct } from '../geo/geodesic'
import { toDeg, turn } from '../geo/angles'
import type { Screen } from './profile'
import { inSpan } from './profile'
import type { Terrain } from './blocks'

export interface Horizon {
  /** rays all round, the first due north, clockwise */
  rays: number
  /** elevation of the skyline above the level, degrees, per ray; NaN where no ground is known */
  elevationDeg: Float32Array
  /** distance of the ridge that makes it, m */
  ridgeM: Float32Array
  /** the eye's height above sea, m */
  eyeM: number
  /** share of the samples where the terrain held says nothing, 0…1 */
  unknown: number
}

export interface HorizonOptions {
  /** rays all round, 720 is every half degree */
  rays?: number
  radiusM?: number
  k?: number
  /** ground at the site where it is known better than the terrain says, m */
  groundM?: number | null
  screens?: readonly Screen[]
}

const EARTH_RADIUS_M = 6_371_000
const LEGS = 4

/** Distances sampled along a ray: every 30 m near, then in steps of 1/250 of the distance. */
export function rayDistances(radiusM: number): Float64Array {
  const out: number[] = []
  for (let d = 30; d <= radiusM; d += Math.max(30, d / 250)) out.push(d)
  return Float64Array.from(out)
}

/**
 * Elevation angle of the skyline all round, over an earth of radius k·Re.
 *
 * A ray is exact at four points and straight in latitude and longitude between them, which strays
 * by about 2 m at 40 km. Left out: what the terrain does not hold, and the eye's own refraction
 * (k 7/6 for light against 4/3 for radio: 0.02° at 40 km).
 *
 * @param heightM  the eye above the ground, m
 * @throws RangeError where a number is out of range
 * @source geometry: (h − d²/(2·k·Re) − eye)/d, Re 6371 km
 */
export function horizonRing(terrain: Terrain, site: Position, heightM: number, o: HorizonOptions = {}): Horizon {
  const rays = inRange('rays', o.rays ?? 720, 4, 7200)
  const radiusM = inRange('radiusM', o.radiusM ?? 40_000, 100, 150_000)
  const groundM = o.groundM ?? terrain.heightAt(site.latDeg, site.lonDeg)
  const eyeM = (Number.isNaN(groundM) ? 0 : groundM) + inRange('heightM', heightM, 0, 1000)
  const curve = 1 / (2 * (o.k ?? 4 / 3) * EARTH_RADIUS_M)
  const distances = rayDistances(radiusM)
  const elevationDeg = new Float32Array(rays)
  const ridgeM = new Float32Array(rays)
  const knotLat = new Float64Array(LEGS + 1)
  const knotLon = new Float64Array(LEGS + 1)
  const legM = radiusM / LEGS
  const n = distances.length
  const lat = new Float64Array(n)
  const lon = new Float64Array(n)
  const ground = new Float64Array(n)
  /** leg of each distance and how far along it; slope = ground·over − fall, the earth's fall and the eye's height in it */
  const leg = Int32Array.from(distances, d => Math.min(Math.floor(d / legM), LEGS - 1))
  const part = distances.map((d, i) => d / legM - leg[i]!)
  const over = distances.map(d => 1 / d)
  const fall = distances.map(d => d * curve + eyeM / d)
  let missing = 0
  for (let r = 0; r < rays; r++) {
    const bearingDeg = (360 * r) / rays
    knotLat[0] = site.latDeg
    knotLon[0] = site.lonDeg
    for (let j = 1; j <= LEGS; j++) {
      const p = direct(site, bearingDeg, legM * j)
      knotLat[j] = p.latDeg
      // Unrolled, so that a ray over the antimeridian stays straight.
      knotLon[j] = knotLon[j - 1]! + turn(knotLon[j - 1]!, p.lonDeg)
    }
    for (let j = 0, i = 0; j < LEGS; j++) {
      const la = knotLat[j]!
      const lo = knotLon[j]!
      const up = knotLat[j + 1]! - la
      const along = knotLon[j + 1]! - lo
      for (; i < n && leg[i] === j; i++) {
        lat[i] = la + part[i]! * up
        lon[i] = lo + part[i]! * along
      }
    }
    terrain.heightsAlong(lat, lon, ground)
    let best = -Infinity
    let at = 0
    for (let i = 0; i < n; i++) {
      const slope = ground[i]! * over[i]! - fall[i]!
      if (slope > best) {
        best = slope
        at = distances[i]!
      } else if (slope !== slope) {
        missing++
      }
    }
    for (const s of o.screens ?? []) {
      if (!inSpan(bearingDeg, s.fromDeg, s.toDeg)) continue
      const p = direct(site, bearingDeg, s.distanceM)
      const h = terrain.heightAt(p.latDeg, p.lonDeg)
      const slope = ((Number.isNaN(h) ? groundM || 0 : h) + s.heightM - s.distanceM ** 2 * curve - eyeM) / s.distanceM
      if (slope > best) {
        best = slope
        at = s.distanceM
      }
    }
    elevationDeg[r] = best === -Infinity ? NaN : toDeg(Math.atan(best))
    ridgeM[r] = at
  }
  return { rays, elevationDeg, ridgeM, eyeM, unknown: missing / (rays * n) }
}

/** @returns elevation of a point above the level, degrees. @param topM  above sea, m */
export const elevationOf = (eyeM: number, topM: number, distanceM: number, k = 4 / 3): number =>
  toDeg(Math.atan((topM - (distanceM * distanceM) / (2 * k * EARTH_RADIUS_M) - eyeM) / distanceM))

/** @returns the skyline at a bearing, between the two rays beside it */
export function skylineAt(h: Horizon, bearingDeg: number): { elevationDeg: number; ridgeM: number } {
  const x = ((((bearingDeg % 360) + 360) % 360) / 360) * h.rays
  const i = Math.floor(x) % h.rays
  const j = (i + 1) % h.rays
  const t = x - Math.floor(x)
  const near = t < 0.5 ? i : j
  return { elevationDeg: h.elevationDeg[i]! + (h.elevationDeg[j]! - h.elevationDeg[i]!) * t, ridgeM: h.ridgeM[near]! }
}
