/** Cables in ducts, and holes: how many go in, whether three jam, and what a plug needs to pass. */
import { nth } from '../sure'
import { inRange, positive } from '../check'

/** Most of a duct's area that cables may fill. @source NEC chapter 9 table 1; for coax and data a rule of thumb, 800.110(B) */
const FILL = [0, 0.53, 0.31] as const
const FILL_MORE = 0.4
/** A count of equal cables is rounded up from here. @source NEC chapter 9 note 7 */
const ROUNDS_UP = 0.8

export const mostFill = (count: number): number => FILL[count] ?? FILL_MORE

const areaOf = (diameterMm: number): number => (Math.PI / 4) * positive('diameterMm', diameterMm) ** 2

export interface DuctFill {
  /** 0…1 of the duct's area */
  fill: number
  most: number
  fits: boolean
  /** three of a kind can wedge in a bend: their ratio to the duct is 2.8 to 3.2 */
  jams: boolean
}

/**
 * @param cablesMm  outer diameters, mm, of cables with their plugs off
 * @param insideMm  of the duct, mm
 */
export function ductFill(cablesMm: readonly number[], insideMm: number): DuctFill {
  const all = areaOf(insideMm)
  const fill = cablesMm.reduce((s, d) => s + areaOf(d), 0) / all
  const most = mostFill(cablesMm.length)
  const equal = cablesMm.length >= 3 && Math.max(...cablesMm) - Math.min(...cablesMm) < 0.05 * Math.max(...cablesMm)
  const ratio = equal ? (1.05 * insideMm) / nth(cablesMm, 0) : 0
  const widest = Math.max(...cablesMm, 0)
  return {
    fill,
    most,
    fits: fill <= most + 1e-9 && widest < insideMm,
    jams: cablesMm.length === 3 && ratio >= 2.8 && ratio <= 3.2,
  }
}

/** @returns how many equal cables a duct takes: never more than the rule. @source NEC chapter 9 table 1 with note 7 */
export function mostEqual(cableMm2: number, ductMm2: number): number {
  positive('cableMm2', cableMm2)
  positive('ductMm2', ductMm2)
  const more = (FILL_MORE * ductMm2) / cableMm2
  const rounded = Math.floor(more) + (more - Math.floor(more) >= ROUNDS_UP ? 1 : 0)
  if (rounded >= 3) return rounded
  if (2 * cableMm2 <= FILL[2] * ductMm2) return 2
  return cableMm2 <= FILL[1] * ductMm2 ? 1 : 0
}

/**
 * Diameter of a bundle in diameters of its cables, of none to twenty.
 * @source smallest circle about equal circles, best packings known, as published; the first by hand: 1, 2, 1 + 2/√3, 1 + √2
 */
const BUNDLE = [
  0, 1, 2, 2.1547, 2.4142, 2.7013, 3, 3, 3.3048, 3.6131, 3.8131, 3.9238, 4.0296, 4.2361, 4.3284, 4.5214, 4.6154, 4.792, 4.8637,
  4.8637, 5.1223,
] as const

/** @returns what a bundle of equal cables measures across, mm; beyond twenty by the area with a quarter of it lost between them */
export function bundleMm(count: number, diameterMm: number): number {
  inRange('count', count, 0, 1000)
  positive('diameterMm', diameterMm)
  const exact = BUNDLE[count]
  return (exact ?? Math.max(BUNDLE[20], Math.sqrt(count / 0.75))) * diameterMm
}

/** A nut is wider across its corners than across its flats. @source regular hexagon, 2/√3 */
export const acrossCorners = (flatsMm: number): number => positive('flatsMm', flatsMm) * (2 / Math.sqrt(3))
/** Room about what passes, mm. @source common practice (no source) */
const PLAY_MM = 1

export interface Passing {
  /** of the cable's jacket, mm */
  jacketMm: number
  /** of its plug at its widest, mm; null where it is crimped on afterwards */
  plugMm: number | null
}

/** The largest hole that is needed: one plug at a time beside the jackets that are through already. @returns mm */
export function holeMm(cables: readonly Passing[]): number {
  if (!cables.length) throw new RangeError('a hole for no cable')
  // In any order the worst moment has most in the hole: a plug beside all the other jackets.
  const jackets = cables.map(c => positive('jacketMm', c.jacketMm))
  const moments = cables.map((c, i) => about([c.plugMm ?? c.jacketMm, ...jackets.filter((_, j) => j !== i)]))
  return Math.max(...moments) + PLAY_MM
}

/**
 * Smallest circle about some circles: exact up to three, else the least upper bound with the rest in two bundles beside
 * the largest.
 */
function about(diametersMm: readonly number[]): number {
  const [largest, ...rest] = [...diametersMm].sort((a, b) => b - a) as [number, ...number[]]
  if (!rest.length) return largest
  if (rest.length === 1) return largest + nth(rest, 0)
  const all = bundleMm(diametersMm.length, largest)
  const parted = rest
    .slice(1)
    .map((_, i) => aboutThree(largest, bundleMm(i + 1, nth(rest, 0)), bundleMm(rest.length - i - 1, nth(rest, 0))))
  return Math.min(all, largest + bundleMm(rest.length, nth(rest, 0)), ...parted)
}

/** Diameter of the circle about three that touch one another. @source Descartes' circle theorem; two across where the third fits beside */
function aboutThree(...diametersMm: [number, number, number]): number {
  const [a, b, c] = diametersMm.map(d => 2 / d) as [number, number, number]
  const outer = a + b + c - 2 * Math.sqrt(a * b + b * c + c * a)
  const [first, second] = [...diametersMm].sort((x, y) => y - x) as [number, number]
  return Math.max(first + second, outer < 0 ? -2 / outer : 0)
}

/** Bits as they are sold, mm. @source metric hole saws and drills as sold */
export const BITS_MM = [6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 30, 32, 35, 38, 40, 44, 51, 57, 64, 76] as const
export const bitFor = (mm: number): number | null => BITS_MM.find(b => b >= mm - 1e-9) ?? null
