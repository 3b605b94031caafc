/**
 * Deviation: what the iron of a vehicle or boat does to its own compass.
 *
 * Convention: deviation is east positive and stands by the heading that the compass shows.
 * magnetic = compass + deviation; compass = magnetic − deviation.
 */
import { nth } from '../sure'
import { inRange } from '../check'
import { normalise360, toRad, turn } from './angles'

export interface CardEntry {
  headingDeg: number
  deviationDeg: number
}

export interface DeviationFit {
  /** A, B, C, D, E of δ = A + B·sin θ + C·cos θ + D·sin 2θ + E·cos 2θ, degrees */
  coefficients: [number, number, number, number, number]
  /** root mean square of what the fit leaves, degrees */
  residualDeg: number
}

/** Largest deviation a card may hold, degrees: beyond it the compass wants moving or correcting, not a card. */
export const MOST_DEVIATION_DEG = 45

const basis = (headingDeg: number): number[] => {
  const t = toRad(headingDeg)
  return [1, Math.sin(t), Math.cos(t), Math.sin(2 * t), Math.cos(2 * t)]
}

/**
 * One look of a swing: the compass's own heading, and the bearing it gives of a thing whose
 * magnetic bearing is known (a landmark, or the sun).
 */
export const deviationSeen = (compassBearingDeg: number, magneticBearingDeg: number): number =>
  turn(compassBearingDeg, magneticBearingDeg)

/**
 * Smooths a swing by its five usual coefficients; with fewer than six headings by the first three.
 * @throws RangeError for fewer than four headings, or ones that leave a gap of more than 150°
 * @source coefficients A…E of the deviation, N. Bowditch, The American Practical Navigator, from memory
 */
export function fitDeviation(card: readonly CardEntry[]): DeviationFit {
  if (card.length < 4) throw new RangeError(`a swing needs at least 4 headings, got ${card.length}`)
  const sorted = card.map(c => normalise360(c.headingDeg)).sort((a, b) => a - b)
  const gap = sorted.reduce((m, h, i) => Math.max(m, normalise360(nth(sorted, (i + 1) % sorted.length) - h)), 0)
  if (gap > 150) throw new RangeError(`the headings leave a gap of ${Math.round(gap)}°: go all the way round`)
  const terms = card.length >= 6 ? 5 : 3
  const a = Array.from({ length: terms }, () => new Array<number>(terms + 1).fill(0))
  for (const c of card) {
    const b = basis(c.headingDeg)
    const y = inRange('deviationDeg', c.deviationDeg, -MOST_DEVIATION_DEG, MOST_DEVIATION_DEG)
    for (let i = 0; i < terms; i++) {
      for (let j = 0; j < terms; j++) nth(a, i)[j]! += nth(b, i) * nth(b, j)
      nth(a, i)[terms]! += nth(b, i) * y
    }
  }
  const x = solve(a)
  const coefficients = [0, 1, 2, 3, 4].map(i => x[i] ?? 0) as DeviationFit['coefficients']
  const left = card.map(c => c.deviationDeg - deviationOf(coefficients, c.headingDeg))
  return { coefficients, residualDeg: Math.sqrt(left.reduce((s, v) => s + v * v, 0) / card.length) }
}

/** Gaussian elimination with pivoting on an augmented matrix. */
function solve(m: number[][]): number[] {
  const n = m.length
  for (let i = 0; i < n; i++) {
    let p = i
    for (let r = i + 1; r < n; r++) if (Math.abs(nth(nth(m, r), i)) > Math.abs(nth(nth(m, p), i))) p = r
    ;[m[i], m[p]] = [nth(m, p), nth(m, i)]
    if (Math.abs(nth(nth(m, i), i)) < 1e-9)
      throw new RangeError('the headings do not tell the coefficients apart: turn to others')
    for (let r = 0; r < n; r++) {
      if (r === i) continue
      const f = nth(nth(m, r), i) / nth(nth(m, i), i)
      for (let c = i; c <= n; c++) nth(m, r)[c]! -= f * nth(nth(m, i), c)
    }
  }
  return m.map((row, i) => nth(row, n) / nth(row, i))
}

/** @returns deviation by its coefficients at a compass heading, degrees */
export const deviationOf = (coefficients: DeviationFit['coefficients'], compassHeadingDeg: number): number =>
  basis(compassHeadingDeg).reduce((s, b, i) => s + b * nth(coefficients, i), 0)

/**
 * Deviation off a card at a compass heading: straight between the entries on either side.
 * @returns 0 for an empty card
 */
export function deviationFrom(card: readonly CardEntry[], compassHeadingDeg: number): number {
  if (!card.length) return 0
  const sorted = [...card].map(c => ({ h: normalise360(c.headingDeg), d: c.deviationDeg })).sort((a, b) => a.h - b.h)
  const h = normalise360(compassHeadingDeg)
  let after = sorted.findIndex(c => c.h >= h)
  if (after < 0) after = 0
  const b = nth(sorted, after)
  const a = nth(sorted, (after + sorted.length - 1) % sorted.length)
  const span = normalise360(b.h - a.h) || 360
  return a.d + ((b.d - a.d) * normalise360(h - a.h)) / span
}

export const compassToMagnetic = (compassDeg: number, card: readonly CardEntry[]): number =>
  normalise360(compassDeg + deviationFrom(card, compassDeg))

/**
 * @returns what the compass shows when the magnetic heading is this; found by going round a few times, since the card
 *   is kept by compass heading
 */
export function magneticToCompass(magneticDeg: number, card: readonly CardEntry[]): number {
  let compass = magneticDeg
  for (let i = 0; i < 60; i++) {
    const off = turn(compass + deviationFrom(card, compass), magneticDeg)
    compass = normalise360(compass + 0.7 * off)
    if (Math.abs(off) < 1e-9) break
  }
  return compass
}
