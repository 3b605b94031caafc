/** The archipelago: one degree of open ocean with islands that exist nowhere, the same every time. */
import type { HeightTile } from '../core/terrain'

export const TILE = { southDeg: 46, westDeg: -42, side: 1201 } as const

/** An island's spine: centre, half-axes in degrees of latitude, heading of the long axis, height. */
const SPINES: [lat: number, lon: number, long: number, wide: number, headingDeg: number, topM: number][] = [
  [46.8, -41.4, 0.15, 0.06, 62, 150],
  [46.845, -41.33, 0.085, 0.022, 75, 300],
  [46.775, -41.48, 0.06, 0.024, 40, 260],
  [46.72, -41.36, 0.05, 0.034, 110, 170],
  [46.6, -41.62, 0.11, 0.045, 20, 190],
  [46.63, -41.64, 0.06, 0.016, 28, 330],
  [46.5, -41.28, 0.09, 0.05, 95, 140],
  [46.52, -41.3, 0.05, 0.014, 85, 270],
  [46.36, -41.7, 0.07, 0.04, 140, 210],
  [46.3, -41.42, 0.05, 0.04, 0, 120],
  [46.18, -41.15, 0.06, 0.03, 45, 160],
  [46.9, -41.72, 0.06, 0.032, 80, 180],
  [46.66, -41.1, 0.055, 0.03, 15, 200],
]

/** Value noise on a lattice, 0…1, from an integer hash. */
function noise(x: number, y: number): number {
  const xi = Math.floor(x)
  const yi = Math.floor(y)
  const fx = x - xi
  const fy = y - yi
  const s = (t: number) => t * t * (3 - 2 * t)
  const h = (i: number, j: number) => {
    let v = Math.imul(i, 374761393) + Math.imul(j, 668265263)
    v = Math.imul(v ^ (v >>> 13), 1274126177)
    return ((v ^ (v >>> 16)) >>> 0) / 4294967296
  }
  const a = h(xi, yi) + (h(xi + 1, yi) - h(xi, yi)) * s(fx)
  const b = h(xi, yi + 1) + (h(xi + 1, yi + 1) - h(xi, yi + 1)) * s(fx)
  return a + (b - a) * s(fy)
}

const fractal = (x: number, y: number): number =>
  0.5 * noise(x, y) +
  0.27 * noise(2.1 * x + 7, 2.1 * y + 3) +
  0.15 * noise(4.3 * x + 1, 4.3 * y + 9) +
  0.08 * noise(8.9 * x + 5, 8.9 * y + 2)

/** @returns height above sea, m, 0 at sea */
export function heightOf(latDeg: number, lonDeg: number): number {
  const cos = Math.cos((46.5 * Math.PI) / 180)
  const wobbleX = 0.02 * (fractal(lonDeg * 40 + 300, latDeg * 40) - 0.5)
  const wobbleY = 0.02 * (fractal(lonDeg * 40, latDeg * 40 + 500) - 0.5)
  let h = -28
  for (const [lat, lon, long, wide, heading, top] of SPINES) {
    const n = latDeg - lat + wobbleY
    const e = (lonDeg - lon) * cos + wobbleX
    const a = (heading * Math.PI) / 180
    const u = (n * Math.cos(a) + e * Math.sin(a)) / long
    const v = (-n * Math.sin(a) + e * Math.cos(a)) / wide
    h += top * Math.exp(-1.6 * (u * u + v * v))
  }
  const rough = fractal(lonDeg * 120 + 900, latDeg * 120)
  h += (rough - 0.5) * Math.min(90, Math.max(12, h * 0.55))
  return h > 0 ? h : 0
}

let made: HeightTile | null = null

export function demoTile(): HeightTile {
  if (made) return made
  const { side, southDeg, westDeg } = TILE
  const heights = new Int16Array(side * side)
  for (let y = 0; y < side; y++) {
    const lat = southDeg + 1 - y / (side - 1)
    for (let x = 0; x < side; x++) heights[y * side + x] = Math.round(heightOf(lat, westDeg + x / (side - 1)))
  }
  made = { southDeg, westDeg, side, heights }
  return made
}
