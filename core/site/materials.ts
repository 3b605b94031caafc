/**
 * What walls, slabs, roofs, panes and skins take from a wave that goes straight through.
 *
 * @source electrical constants ITU-R P.2040-3 table 3, εr = a·f^b, σ = c·f^d, f in GHz, from memory, and beside them
 *   those of edition 1; thicknesses common practice; what is given by level is common practice (no source), assumed
 *   until measured
 */
import { positive } from '../check'
import type { MaterialId } from '../job/materials'
import { toLinear } from '../radio/levels'
import { num } from '../units'

interface Constants {
  a: number
  b: number
  c: number
  d: number
}
interface Layer extends Constants {
  thicknessM: number
  /** as edition 1 of the recommendation has it */
  first: Constants
}

const of =
  (now: Constants, first: Constants) =>
  (thicknessM: number): Layer => ({ ...now, thicknessM, first })
const board = of({ a: 2.73, b: 0, c: 0.0085, d: 0.9395 }, { a: 2.94, b: 0, c: 0.0116, d: 0.7076 })
const wood = of({ a: 1.99, b: 0, c: 0.0047, d: 1.0718 }, { a: 1.99, b: 0, c: 0.0047, d: 1.0718 })
const brick = of({ a: 3.91, b: 0, c: 0.0238, d: 0.16 }, { a: 3.75, b: 0, c: 0.038, d: 0 })
const concrete = of({ a: 5.24, b: 0, c: 0.0462, d: 0.7822 }, { a: 5.31, b: 0, c: 0.0326, d: 0.8095 })
const pane = of({ a: 6.31, b: 0, c: 0.0036, d: 1.3394 }, { a: 6.27, b: 0, c: 0.0043, d: 1.1925 })

export interface Material {
  words: string
  layers?: readonly Layer[]
  /** known by level rather than by its constants: dB at 700, 2000 and 3500 MHz */
  takesDb?: readonly [number, number, number]
}

/** A metal skin with windows, doors or seams, until it is measured. @source common practice (no source) */
export const METAL_SKIN_DB = 15

export const MATERIALS: Record<MaterialId, Material> = {
  'open': { words: 'nothing', takesDb: [0, 0, 0] },
  'plasterboard': { words: 'plasterboard on studs', layers: [board(0.0125), board(0.0125)] },
  'timber': { words: 'timber', layers: [wood(0.05), board(0.0125)] },
  'brick': { words: 'brick', layers: [brick(0.22)] },
  'block': { words: 'concrete block', layers: [concrete(0.12)] },
  'concrete': { words: 'concrete', layers: [concrete(0.2)] },
  'reinforced concrete': { words: 'reinforced concrete', takesDb: [11, 16, 22] },
  'timber floor': { words: 'timber floor', takesDb: [2, 4, 5] },
  'tiles': { words: 'tiles on battens', takesDb: [3, 4, 6] },
  'sheet metal': { words: 'sheet metal', takesDb: [METAL_SKIN_DB, METAL_SKIN_DB, METAL_SKIN_DB] },
  'foil': { words: 'foil-faced insulation', takesDb: [14, 18, 20] },
  'glass': { words: 'plain glass', layers: [pane(0.008)] },
  'coated glass': { words: 'coated glass', takesDb: [22, 26, 30] },
  'plastic': { words: 'glass-fibre or plastic', takesDb: [0.5, 1, 1.5] },
}

const EPSILON_0 = 8.8541878128e-12
const LIGHT = 299_792_458

/**
 * Loss of one slab at normal incidence, dB, >= 0.
 *
 * Both faces reflect, the inside absorbs. The reflections within the slab are added as powers, so that
 * a thickness nobody knows to the millimetre makes no resonance.
 * @source ITU-R P.2040 §3.1 (complex permittivity) and Fresnel's coefficient at normal incidence
 */
export function slabLossDb(layer: Constants & { thicknessM: number }, frequencyMHz: number): number {
  const ghz = positive('frequencyMHz', frequencyMHz) / 1000
  const real = layer.a * ghz ** layer.b
  const imaginary = (layer.c * ghz ** layer.d) / (2 * Math.PI * ghz * 1e9 * EPSILON_0)
  const modulus = Math.hypot(real, imaginary)
  // n − jκ is the root of the complex permittivity.
  const n = Math.sqrt((modulus + real) / 2)
  const kappa = Math.sqrt((modulus - real) / 2)
  const reflected = ((1 - n) ** 2 + kappa ** 2) / ((1 + n) ** 2 + kappa ** 2)
  const kept = Math.exp((-4 * Math.PI * kappa * layer.thicknessM * ghz * 1e9) / LIGHT)
  return -10 * Math.log10(((1 - reflected) ** 2 * kept) / (1 - reflected ** 2 * kept ** 2))
}

/** Loss straight through a material, dB, >= 0. */
export function throughDb(id: MaterialId, frequencyMHz: number): number {
  positive('frequencyMHz', frequencyMHz)
  const m = MATERIALS[id]
  if (m.layers) return m.layers.reduce((sum, l) => sum + slabLossDb(l, frequencyMHz), 0)
  const [low, mid, high] = m.takesDb!
  const between = (a: number, b: number, from: number, to: number) =>
    a + (b - a) * Math.min(1, Math.max(0, Math.log(frequencyMHz / from) / Math.log(to / from)))
  return frequencyMHz <= 2000 ? between(low, mid, 700, 2000) : between(mid, high, 2000, 3500)
}

/** @returns what edition 1 of P.2040 has for a material, dB; null where it is known by level alone */
export function byFirstEditionDb(id: MaterialId, frequencyMHz: number): number | null {
  const { layers } = MATERIALS[id]
  return layers ? layers.reduce((sum, l) => sum + slabLossDb({ ...l.first, thicknessM: l.thicknessM }, frequencyMHz), 0) : null
}

/** Editions further apart than this are told, dB. */
const EDITIONS_APART_DB = 0.5

/**
 * Where a figure comes from, for one who would not believe it: a builder thinks of a wall as thick and wet, and met at a
 * slant; the sum has it dry and goes straight through.
 */
export function whyDb(id: MaterialId, frequencyMHz: number): string {
  const first = byFirstEditionDb(id, frequencyMHz)
  if (first === null) return 'common practice, assumed until both sides of it are read'
  const { layers } = MATERIALS[id]
  const cm = num(100 * layers!.reduce((sum, l) => sum + l.thicknessM, 0), 1)
  const apart = Math.abs(first - throughDb(id, frequencyMHz)) >= EDITIONS_APART_DB ? `, edition 1 has ${num(first, 1)} dB` : ''
  return (
    `ITU-R P.2040-3 for ${cm} cm, dry, met squarely${apart}; steel in it, wet, thicker, or crossed at a slant it takes more: ` +
    'both sides read tell'
  )
}

/**
 * A wall with panes in it: what gets through is the sum of both, by their share of the area.
 * @param paneShare  0…1
 */
export function mixedDb(wall: MaterialId, pane: MaterialId, paneShare: number, frequencyMHz: number): number {
  const through =
    (1 - paneShare) * toLinear(-throughDb(wall, frequencyMHz)) + paneShare * toLinear(-throughDb(pane, frequencyMHz))
  return -10 * Math.log10(through)
}
