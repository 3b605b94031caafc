/** The site frame: east, north, up in metres; and the section's axis through it. */
import { nth } from '../sure'
import { normalise360, toDeg, toRad } from '../geo/angles'
import type { Site } from '../job/schema'

export interface Point {
  eastM: number
  northM: number
  upM: number
}

/** The section looks so that the chosen mast stands on the left: −1 flips the axis. */
export function axisSign(site: Pick<Site, 'axisDeg'>, mastBearingDeg: number | null): 1 | -1 {
  if (mastBearingDeg === null) return 1
  return Math.cos(toRad(mastBearingDeg - site.axisDeg)) > 0 ? -1 : 1
}

/** @returns metres along the section, left to right, from the middle of the house */
export function along(site: Pick<Site, 'axisDeg'>, p: Pick<Point, 'eastM' | 'northM'>, sign: 1 | -1): number {
  const a = toRad(site.axisDeg)
  return sign * (p.eastM * Math.sin(a) + p.northM * Math.cos(a))
}

/** Moves a point so that it stands `alongM` along the section, keeping its place across. */
export function moveAlong(
  site: Pick<Site, 'axisDeg'>,
  p: Point,
  alongM: number,
  sign: 1 | -1,
): { eastM: number; northM: number } {
  const a = toRad(site.axisDeg)
  const shift = sign * (alongM - along(site, p, sign))
  return { eastM: round2(p.eastM + shift * Math.sin(a)), northM: round2(p.northM + shift * Math.cos(a)) }
}

export const round2 = (v: number): number => Math.round(v * 100) / 100

/** A place some metres from one point toward another, never further than a share of the way. */
export function partWay(from: Point, to: Point, distanceM: number, mostShare: number): Point {
  const away = Math.hypot(to.eastM - from.eastM, to.northM - from.northM, to.upM - from.upM)
  const share = away > 0 ? Math.min(mostShare, distanceM / away) : 0
  return {
    eastM: round2(from.eastM + share * (to.eastM - from.eastM)),
    northM: round2(from.northM + share * (to.northM - from.northM)),
    upM: round2(from.upM + share * (to.upM - from.upM)),
  }
}

/** @returns ground distance, height difference, true bearing and elevation from one point to another */
export function between(
  a: Point,
  b: Point,
): { groundM: number; upM: number; distanceM: number; bearingDeg: number; elevationDeg: number } {
  const e = b.eastM - a.eastM
  const n = b.northM - a.northM
  const groundM = Math.hypot(e, n)
  const upM = b.upM - a.upM
  return {
    groundM,
    upM,
    distanceM: Math.hypot(groundM, upM),
    bearingDeg: groundM > 0 ? normalise360(toDeg(Math.atan2(e, n))) : 0,
    elevationDeg: toDeg(Math.atan2(upM, groundM)),
  }
}

/** @returns the one of a list that is nearest to a place, the first of equals; null of none */
export function nearestTo<T extends Point>(p: Point, list: readonly T[]): T | null {
  return list.reduce<T | null>((a, x) => (!a || between(p, x).distanceM < between(p, a).distanceM ? x : a), null)
}

export const eavesM = (site: Pick<Site, 'storeys' | 'storeyHeightM'>): number => site.storeys * site.storeyHeightM
export const ridgeM = (site: Pick<Site, 'storeys' | 'storeyHeightM' | 'roofRiseM'>): number => eavesM(site) + site.roofRiseM

/** A floor's heights over the ground, m. */
interface Storey {
  fromM: number
  toM: number
}

/** Rooms are the indoor spots of a floor, parted half way between neighbours. */
export function rooms(
  floors: readonly Storey[],
  site: Site,
  spots: readonly { id: string; name: string; eastM: number; northM: number; upM: number; indoors: boolean }[],
  sign: 1 | -1,
): { spotId: string; name: string; level: number; fromUpM: number; toUpM: number; fromM: number; toM: number }[] {
  const half = site.lengthM / 2
  const out: ReturnType<typeof rooms> = []
  floors.forEach((floor, level) => {
    const last = level === floors.length - 1
    const here = spots
      .filter(s => s.indoors && (level === 0 || s.upM >= floor.fromM) && (last || s.upM < floor.toM))
      .map(s => ({ s, x: Math.min(half, Math.max(-half, along(site, s, sign))) }))
      .sort((a, b) => a.x - b.x)
    here.forEach(({ s, x }, i) => {
      const fromM = i ? (nth(here, i - 1).x + x) / 2 : -half
      const toM = i < here.length - 1 ? (x + nth(here, i + 1).x) / 2 : half
      out.push({ spotId: s.id, name: s.name, level, fromUpM: floor.fromM, toUpM: floor.toM, fromM, toM })
    })
  })
  return out
}
