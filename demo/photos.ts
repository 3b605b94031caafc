/** The demo's photographs: views over its own terrain, ridge behind ridge, as a camera on site would see them. */
import { PNG } from 'pngjs'
import type { JobDocument, Photo } from '../core/job'
import { horizonRing } from '../core/terrain'
import type { Horizon, Terrain } from '../core/terrain'

const FIELD_DEG = 44
const RAYS = 1440
/** Hills look higher to the eye than they measure. */
const UPRIGHT = 2.4
/** Ridges within these radii stand before one another, the nearer the darker. */
const LAYERS = [
  { radiusM: 40_000, colour: [150, 172, 186] },
  { radiusM: 9_000, colour: [110, 138, 138] },
  { radiusM: 2_500, colour: [78, 104, 84] },
  { radiusM: 400, colour: [64, 76, 54] },
] as const
const SKY = { top: [118, 156, 196], low: [222, 230, 232] } as const
const SEA = [92, 122, 140] as const

/** @returns the picture as PNG */
export function demoPhoto(terrain: Terrain, document: JobDocument, photo: Photo): Buffer {
  const site = document.sites[0]!
  const { widthPx, heightPx } = photo
  const at = { latDeg: site.latDeg!, lonDeg: site.lonDeg! }
  const eyeM = Math.max(1.6, photo.upM ?? 1.6)
  const layers = LAYERS.map(l => ({ ...l, ring: horizonRing(terrain, at, eyeM, { rays: RAYS, radiusM: l.radiusM }) }))
  const png = new PNG({ width: widthPx, height: heightPx })
  const perPx = FIELD_DEG / widthPx
  const middle = heightPx * 0.56
  for (let x = 0; x < widthPx; x++) {
    const bearing = (photo.bearingDeg ?? 0) - FIELD_DEG / 2 + x * perPx
    const ray = ((((bearing / 360) * RAYS) % RAYS) + RAYS) % RAYS
    const seen = layers.map(l => ({
      y: middle - (between(l.ring.elevationDeg, ray) * UPRIGHT) / perPx,
      colour: groundM(l.ring, ray) < SHORE_M ? SEA : l.colour,
    }))
    for (let y = 0; y < heightPx; y++) {
      const colour = pixel(seen, y, middle, heightPx)
      const i = (y * widthPx + x) * 4
      for (let c = 0; c < 3; c++) png.data[i + c] = Math.min(255, Math.max(0, Math.round(colour[c]!)))
      png.data[i + 3] = 255
    }
  }
  return PNG.sync.write(png)
}

/** The skyline between two rays; where no ground is known, the level. */
function between(elevationDeg: Float32Array, ray: number): number {
  const k = Math.floor(ray)
  const [a, b] = [elevationDeg[k]!, elevationDeg[(k + 1) % RAYS]!]
  const v = a + (b - a) * (ray - k)
  return Number.isFinite(v) ? v : 0
}

/** Height of what makes the skyline there, m; under a metre it is the sea. */
function groundM(h: Horizon, ray: number): number {
  const k = Math.round(ray) % RAYS
  const d = h.ridgeM[k]!
  return h.eyeM + d * Math.tan((h.elevationDeg[k]! * Math.PI) / 180) + (d * d) / (2 * (4 / 3) * EARTH_RADIUS_M)
}
const EARTH_RADIUS_M = 6_371_000
const SHORE_M = 1

/** The nearest of what stands over that line of sight, else the sky. */
function pixel(
  seen: readonly { y: number; colour: readonly number[] }[],
  y: number,
  middle: number,
  heightPx: number,
): readonly number[] {
  for (let l = seen.length - 1; l >= 0; l--) if (y > seen[l]!.y) return seen[l]!.colour
  if (y > middle) return SEA.map(c => c + ((y - middle) / heightPx) * 30)
  const share = y / middle
  return SKY.top.map((c, i) => c + (SKY.low[i]! - c) * share)
}
