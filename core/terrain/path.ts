/** One mast seen from one site: what the worker (or the server, for the report) computes once and keeps. */
import { nth, sure } from '../sure'
import type { Position } from '../geo/geodesic'
import { alongGeodesic, inverse } from '../geo/geodesic'
import { bandByName, dlCentreMHz } from '../radio/bands'
import { freeSpaceLossDb } from '../radio/freespace'
import { keysAlong } from './blocks'
import type { Terrain } from './blocks'
import { sampleProfile } from './profile'
import type { Profile, Screen } from './profile'
import { deltaBullington } from './diffraction'
import { fresnelRadiusM, earthBulgeM, tightestClearance } from './clearance'

/** Antenna heights over ground for which losses are held; between them they are interpolated. */
export const PATH_HEIGHTS_M = [1.5, 3, 5, 7, 9, 12, 16, 22, 30] as const

/** Mast height over ground taken where none is given. Assumed. */
export const ASSUMED_MAST_HEIGHT_M = 30

export interface PathInput {
  key: string
  mastId: string
  site: Position
  siteGroundM: number | null
  mast: Position
  mastHeightM: number | null
  mastGroundM: number | null
  bands: string[]
  k: number
  /** obstacles about the site that the terrain lacks */
  screens: Screen[]
}

export interface BandPath {
  band: string
  frequencyMHz: number
  freeSpaceDb: number
  /** diffraction loss beyond free space at each of `PATH_HEIGHTS_M`, dB */
  diffractionDb: number[]
  /** clearance as a share of the first Fresnel radius at each height, and where it is tightest */
  clearance: { ratio: number; clearM: number; atM: number }[]
}

export interface PathResult {
  key: string
  mastId: string
  distanceM: number
  bearingDeg: number
  siteGroundM: number
  mastGroundM: number
  mastTopM: number
  /** share of the path with no terrain known, 0…1 */
  unknown: number
  k: number
  /** true where land cover was added to the ground */
  cover: boolean
  /** mean ground 3 to 15 km from the mast, m: the height Hata's formula counts the mast from */
  meanGroundM: number
  bands: BandPath[]
  /** the profile thinned for drawing, metres; empty where it was left out to keep a message small */
  sketch: { distanceM: number[]; groundM: number[] }
}

export const MAX_PATH_M = 150_000
const SKETCH_POINTS = 160

/** Inputs that fix a path's result, as one key. */
export const pathKey = (p: Omit<PathInput, 'key'>): string =>
  [
    p.mastId,
    p.site.latDeg,
    p.site.lonDeg,
    p.siteGroundM,
    p.mast.latDeg,
    p.mast.lonDeg,
    p.mastHeightM,
    p.mastGroundM,
    p.bands.join('+'),
    p.k,
    ...p.screens.flatMap(s => [s.fromDeg, s.toDeg, s.distanceM, s.heightM]),
  ].join('|')

/** Spacing of samples: fine terrain is honoured on near paths, 1,500 samples do on far ones. */
export const pathStepM = (distanceM: number): number => Math.max(30, distanceM / 1500)

/** Spacing of the points that tell which blocks a path crosses, m. */
const KEY_STEP_M = 500

/** @returns the blocks a path crosses; none where it is further than 150 km */
export function pathBlocks(input: Pick<PathInput, 'site' | 'mast'>): string[] {
  const { distanceM } = inverse(input.site, input.mast)
  if (distanceM > MAX_PATH_M) return []
  const line = alongGeodesic(input.site, input.mast, Math.max(2, Math.ceil(distanceM / KEY_STEP_M)))
  return keysAlong(line.latDeg, line.lonDeg)
}

/** @returns the ground between site and mast with both ends as given; null where they are the same place, or further apart than 150 km */
export function profileOf(
  terrain: Terrain,
  input: PathInput,
): { profile: Profile; bearingDeg: number; siteGroundM: number; mastGroundM: number; mastHeightM: number } | null {
  const { distanceM, bearingDeg } = inverse(input.site, input.mast)
  if (distanceM < 10 || distanceM > MAX_PATH_M) return null
  const profile = sampleProfile(terrain, input.site, {
    to: input.mast,
    totalM: distanceM,
    stepM: pathStepM(distanceM),
    bearingDeg,
    screens: input.screens,
  })
  const n = profile.groundM.length
  const siteGroundM = input.siteGroundM ?? nth(profile.groundM, 0)
  const mastGroundM = input.mastGroundM ?? nth(profile.groundM, n - 1)
  profile.groundM[0] = siteGroundM
  profile.groundM[n - 1] = mastGroundM
  return { profile, bearingDeg, siteGroundM, mastGroundM, mastHeightM: Math.max(1, input.mastHeightM ?? ASSUMED_MAST_HEIGHT_M) }
}

/** @returns the paths of all that can be computed, by their keys */
export function computePaths(terrain: Terrain, inputs: readonly PathInput[]): Record<string, PathResult> {
  const paths: Record<string, PathResult> = {}
  for (const input of inputs) {
    const path = computePath(terrain, input)
    if (path) paths[input.key] = path
  }
  return paths
}

/**
 * @returns null where mast and site are the same place, or further apart than 150 km
 */
export function computePath(terrain: Terrain, input: PathInput): PathResult | null {
  const found = profileOf(terrain, input)
  if (!found) return null
  const { profile, bearingDeg, siteGroundM, mastGroundM, mastHeightM } = found
  const distanceM = profile.totalM
  const distanceKm = profile.distanceM.map(d => d / 1000)
  const bands = input.bands.map((name): BandPath => {
    const frequencyMHz = dlCentreMHz(bandByName(name) ?? sure(bandByName('B20')))
    return {
      band: name,
      frequencyMHz,
      freeSpaceDb: freeSpaceLossDb(distanceM, frequencyMHz),
      diffractionDb: PATH_HEIGHTS_M.map(
        h =>
          deltaBullington({
            distanceKm,
            groundM: profile.groundM,
            txHeightM: h,
            rxHeightM: mastHeightM,
            frequencyMHz,
            k: input.k,
          }).lossDb,
      ),
      clearance: PATH_HEIGHTS_M.map(h =>
        tightestClearance(profile, siteGroundM + h, { toM: mastGroundM + mastHeightM, frequencyMHz, k: input.k }),
      ),
    }
  })
  return {
    key: input.key,
    mastId: input.mastId,
    distanceM,
    bearingDeg,
    siteGroundM,
    mastGroundM,
    mastTopM: mastGroundM + mastHeightM,
    unknown: profile.unknown,
    k: input.k,
    cover: terrain.hasCover,
    meanGroundM: meanGround(profile),
    bands,
    sketch: thin(profile.distanceM, profile.groundM),
  }
}

/** Mean ground between 3 and 15 km from the mast, or over what there is of that on a short path. */
function meanGround(p: Profile): number {
  let sum = 0
  let n = 0
  for (let i = 0; i < p.distanceM.length; i++) {
    const fromMast = p.totalM - nth(p.distanceM, i)
    if (fromMast > 15_000 || fromMast < Math.min(3000, p.totalM / 2)) continue
    sum += nth(p.groundM, i)
    n++
  }
  return n ? sum / n : nth(p.groundM, 0)
}

/** Keeps the highest ground of each stretch, so that no ridge is lost in the drawing. */
function thin(distanceM: Float64Array, groundM: Float64Array): PathResult['sketch'] {
  const n = distanceM.length
  if (n <= SKETCH_POINTS) return { distanceM: [...distanceM], groundM: [...groundM] }
  const out = { distanceM: [nth(distanceM, 0)], groundM: [nth(groundM, 0)] }
  const per = (n - 2) / (SKETCH_POINTS - 2)
  for (let i = 0; i < SKETCH_POINTS - 2; i++) {
    let top = Math.floor(1 + i * per)
    for (let k = top; k < Math.floor(1 + (i + 1) * per); k++) if (nth(groundM, k) > nth(groundM, top)) top = k
    out.distanceM.push(nth(distanceM, top))
    out.groundM.push(nth(groundM, top))
  }
  out.distanceM.push(nth(distanceM, n - 1))
  out.groundM.push(nth(groundM, n - 1))
  return out
}

/** @returns the value at a height, linear between the heights held and level beyond them */
export function atHeight(values: readonly number[], heightM: number): number {
  const h = PATH_HEIGHTS_M
  if (heightM <= h[0]) return nth(values, 0)
  for (let i = 1; i < h.length; i++) {
    if (heightM <= nth(h, i))
      return (
        nth(values, i - 1) + ((nth(values, i) - nth(values, i - 1)) * (heightM - nth(h, i - 1))) / (nth(h, i) - nth(h, i - 1))
      )
  }
  return nth(values, values.length - 1)
}

/** Clearance at a height: share and metres interpolated, the place that of the nearest height held. */
export function clearanceAt(band: BandPath, heightM: number): { ratio: number; clearM: number; atM: number } {
  const gap = (i: number) => Math.abs(nth(PATH_HEIGHTS_M, i) - heightM)
  const nearest = PATH_HEIGHTS_M.reduce<number>((best, _, i) => (gap(i) < gap(best) ? i : best), 0)
  return {
    ratio: atHeight(
      band.clearance.map(c => c.ratio),
      heightM,
    ),
    clearM: atHeight(
      band.clearance.map(c => c.clearM),
      heightM,
    ),
    atM: nth(band.clearance, nearest).atM,
  }
}

/** Sight line for drawing: ray, first zone at 60 %, ground raised by the earth's bulge, at each sketch point. */
export function sightLine(
  path: PathResult,
  band: BandPath,
  heightM: number,
  k = path.k,
): { distanceM: number[]; groundM: number[]; rayM: number[]; zoneM: number[] } {
  const total = path.distanceM
  const from = path.siteGroundM + heightM
  const wavelength = 299.792458 / band.frequencyMHz
  const { distanceM } = path.sketch
  return {
    distanceM,
    groundM: path.sketch.groundM.map((g, i) => g + earthBulgeM(nth(distanceM, i), total - nth(distanceM, i), k)),
    rayM: distanceM.map(d => from + ((path.mastTopM - from) * d) / total),
    zoneM: distanceM.map(d => (d <= 0 || d >= total ? 0 : 0.6 * fresnelRadiusM(wavelength, d, total - d))),
  }
}
