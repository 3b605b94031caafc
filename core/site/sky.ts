/** How much of the sky that a satellite terminal uses is hidden, and by what. */
import { inRange } from '../check'
import { normalise360, toDeg, toRad } from '../geo/angles'
import { roofOver } from './building'
import type { Building } from './building'
import { between } from './frame'
import type { Point } from './frame'

/** The cone of sky that a terminal uses, in the site frame. */
export interface SkyWindow {
  azimuthDeg: number
  /** of its axis from the zenith */
  tiltDeg: number
  halfFieldDeg: number
}

/** What hides the sky up to an elevation, between two azimuths of the site frame, clockwise. */
export interface Blocker {
  name: string
  fromDeg: number
  toDeg: number
  elevationDeg: number
}

export interface SkyView {
  /** of the window's solid angle, 0…1 */
  hidden: number
  /** most first; a direction that two hide counts for the one that stands higher there */
  by: { name: string; share: number }[]
}

/** Window of a terminal whose maker says nothing. Assumed. */
export const USUAL_WINDOW: SkyWindow = { azimuthDeg: 0, tiltDeg: 0, halfFieldDeg: 55 }

/** @returns the window of a terminal, as far as it was entered */
export const windowOf = (f: { [K in keyof SkyWindow]: number | null }): SkyWindow => ({
  azimuthDeg: f.azimuthDeg ?? USUAL_WINDOW.azimuthDeg,
  tiltDeg: f.tiltDeg ?? USUAL_WINDOW.tiltDeg,
  halfFieldDeg: f.halfFieldDeg ?? USUAL_WINDOW.halfFieldDeg,
})
const RINGS = 64
const ROUND = 96

/**
 * Share of a window's solid angle that lies under what stands about it.
 *
 * The cone is sampled in rings of equal solid angle, good to about one and a half per cent of the window, against a
 * skyline by whole degrees; what stands there is taken as opaque from the ground to its top: a bare tree counts as a full one.
 *
 * @throws RangeError where the window is no cone of the upper sky
 * @source solid angle of a cone 2π(1 − cos θ)
 */
export function skyView(window: SkyWindow, blockers: readonly Blocker[]): SkyView {
  const half = toRad(inRange('halfFieldDeg', window.halfFieldDeg, 1, 90))
  const tilt = toRad(inRange('tiltDeg', window.tiltDeg, 0, 90))
  const azimuth = toRad(window.azimuthDeg)
  const [sinA, cosA, sinT, cosT] = [Math.sin(azimuth), Math.cos(azimuth), Math.sin(tilt), Math.cos(tilt)]
  const skyline = Array.from({ length: 360 }, (_, deg) => highest(blockers, deg))
  const counts = new Map<string, number>()
  let all = 0
  for (let i = 0; i < RINGS; i++) {
    const cos = 1 - ((i + 0.5) / RINGS) * (1 - Math.cos(half))
    const sin = Math.sqrt(1 - cos * cos)
    for (let k = 0; k < ROUND; k++) {
      const round = ((k + 0.5) * 2 * Math.PI) / ROUND
      const [a, b] = [sin * Math.cos(round), sin * Math.sin(round)]
      const east = cos * sinT * sinA + a * cosT * sinA + b * cosA
      const north = cos * sinT * cosA + a * cosT * cosA - b * sinA
      const up = cos * cosT - a * sinT
      all++
      const hider = skyline[Math.round(normalise360(toDeg(Math.atan2(east, north)))) % 360]
      // What points into the ground is hidden by the ground.
      const name = up < 0 ? 'the ground' : hider && toDeg(Math.asin(up)) < hider.elevationDeg ? hider.name : null
      if (name) counts.set(name, (counts.get(name) ?? 0) + 1)
    }
  }
  const by = [...counts].map(([name, n]) => ({ name, share: n / all })).sort((x, y) => y.share - x.share)
  return { hidden: by.reduce((sum, x) => sum + x.share, 0), by }
}

const within = (deg: number, b: Blocker): boolean => normalise360(deg - b.fromDeg) <= normalise360(b.toDeg - b.fromDeg)

const highest = (blockers: readonly Blocker[], azimuthDeg: number): Blocker | null =>
  blockers.reduce<Blocker | null>(
    (best, b) => (within(azimuthDeg, b) && (!best || b.elevationDeg > best.elevationDeg) ? b : best),
    null,
  )

/** A thing of a width and a top, as it stands before a point; null where the point is over it. */
export function blockerOf(name: string, from: Point, thing: Point, widthM: number): Blocker | null {
  const { groundM, upM, bearingDeg } = between(from, thing)
  if (upM <= 0) return null
  const half = groundM > 0.01 ? Math.min(90, toDeg(Math.atan2(widthM / 2, groundM))) : 180
  return {
    name,
    fromDeg: normalise360(bearingDeg - half),
    toDeg: half >= 180 ? normalise360(bearingDeg + 179.999) : normalise360(bearingDeg + half),
    elevationDeg: toDeg(Math.atan2(upM, Math.max(groundM, 0.01))),
  }
}

const ROOF_STEP_DEG = 5
const ROOF_STEP_M = 0.25

/** The site's own roof as it hides the sky from a point over or beside it. */
export function roofBlockers(building: Building, from: Point): Blocker[] {
  const out: Blocker[] = []
  if (from.upM >= building.eavesM + building.riseM) return out
  const reachM = 2 * Math.hypot(building.halfLengthM, building.halfDepthM) + Math.hypot(from.eastM, from.northM)
  for (let azimuthDeg = 0; azimuthDeg < 360; azimuthDeg += ROOF_STEP_DEG) {
    const [sin, cos] = [Math.sin(toRad(azimuthDeg)), Math.cos(toRad(azimuthDeg))]
    let best = 0
    for (let d = ROOF_STEP_M; d < reachM; d += ROOF_STEP_M) {
      const top = roofOver(building, { eastM: from.eastM + d * sin, northM: from.northM + d * cos })
      if (top !== null && top > from.upM) best = Math.max(best, toDeg(Math.atan2(top - from.upM, d)))
    }
    if (best > 0)
      out.push({
        name: 'the roof',
        fromDeg: normalise360(azimuthDeg - ROOF_STEP_DEG / 2),
        toDeg: normalise360(azimuthDeg + ROOF_STEP_DEG / 2),
        elevationDeg: best,
      })
  }
  return out
}
