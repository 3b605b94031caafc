/**
 * Diffraction over terrain: knife edge, smooth spherical earth, and the delta-Bullington method.
 * Inside this file distances are km and heights m, as the Recommendation prints them.
 */
import { inRange, positive } from '../check'

const EARTH_RADIUS_KM = 6371

/**
 * Knife-edge loss, dB, 0 for v ≤ −0.78.
 * @source ITU-R P.526-15 equation (31); within 0.12 dB of the exact Fresnel integral for v > −0.7
 */
export function knifeEdgeLossDb(v: number): number {
  if (v <= -0.78) return 0
  return 6.9 + 20 * Math.log10(Math.sqrt((v - 0.1) ** 2 + 1) + v - 0.1)
}

/**
 * @param heightM  edge above (positive) or below the straight ray, m
 * @returns the dimensionless parameter ν. @source ITU-R P.526-15 equation (26)
 */
export function diffractionParameter(heightM: number, d1M: number, d2M: number, wavelengthM: number): number {
  return heightM * Math.sqrt((2 * (d1M + d2M)) / (positive('wavelengthM', wavelengthM) * d1M * d2M))
}

export interface DiffractionPath {
  /** km from the transmitter, ascending from 0 */
  distanceKm: ArrayLike<number>
  /** ground above sea, m */
  groundM: ArrayLike<number>
  /** antenna above ground at each end, m */
  txHeightM: number
  rxHeightM: number
  frequencyMHz: number
  /** effective earth radius factor, 4/3 by default */
  k?: number
  polarisation?: 'horizontal' | 'vertical'
}

/**
 * Loss of a smooth sphere beyond (and just inside) the horizon, first term of the residue series.
 * Land of average ground: relative permittivity 22, conductivity 0.003 S/m.
 * @source ITU-R P.526-15 §3.2 and §3.1.1, equations (13)–(23)
 */
export function sphericalEarthLossDb(
  distanceKm: number,
  {
    h1M,
    h2M,
    frequencyMHz,
    aeKm,
    polarisation = 'vertical',
  }: { h1M: number; h2M: number; frequencyMHz: number; aeKm: number; polarisation?: 'horizontal' | 'vertical' },
): number {
  if (distanceKm <= 0) return 0
  const lambda = 299.792458 / frequencyMHz
  const h1 = Math.max(h1M, 0.01)
  const h2 = Math.max(h2M, 0.01)
  const horizonKm = Math.sqrt(2 * aeKm) * (Math.sqrt(0.001 * h1) + Math.sqrt(0.001 * h2))
  if (distanceKm >= horizonKm) return Math.max(0, firstTermLossDb(distanceKm, { h1, h2, fMHz: frequencyMHz, aeKm, polarisation }))
  const c = (h1 - h2) / (h1 + h2)
  const m = (250 * distanceKm * distanceKm) / (aeKm * (h1 + h2))
  const b =
    2 * Math.sqrt((m + 1) / (3 * m)) * Math.cos(Math.PI / 3 + Math.acos(((3 * c) / 2) * Math.sqrt((3 * m) / (m + 1) ** 3)) / 3)
  const d1 = (distanceKm / 2) * (1 + b)
  const d2 = distanceKm - d1
  const clearance = ((h1 - (500 * d1 * d1) / aeKm) * d2 + (h2 - (500 * d2 * d2) / aeKm) * d1) / distanceKm
  const required = 17.456 * Math.sqrt((d1 * d2 * lambda) / distanceKm)
  if (clearance > required) return 0
  const modified = 500 * (distanceKm / (Math.sqrt(h1) + Math.sqrt(h2))) ** 2
  const loss = firstTermLossDb(distanceKm, { h1, h2, fMHz: frequencyMHz, aeKm: modified, polarisation })
  return loss < 0 ? 0 : (1 - clearance / required) * loss
}

function firstTermLossDb(
  dKm: number,
  {
    h1,
    h2,
    fMHz,
    aeKm,
    polarisation,
  }: { h1: number; h2: number; fMHz: number; aeKm: number; polarisation: 'horizontal' | 'vertical' },
): number {
  const eps = 22
  const sigma = 0.003
  let k = 0.36 * (aeKm * fMHz) ** (-1 / 3) * ((eps - 1) ** 2 + ((18000 * sigma) / fMHz) ** 2) ** -0.25
  if (polarisation === 'vertical') k *= Math.sqrt(eps ** 2 + ((18000 * sigma) / fMHz) ** 2)
  const beta = (1 + 1.6 * k ** 2 + 0.67 * k ** 4) / (1 + 4.5 * k ** 2 + 1.53 * k ** 4)
  const x = 2.188 * beta * fMHz ** (1 / 3) * aeKm ** (-2 / 3) * dKm
  const yFactor = 9.575e-3 * beta * fMHz ** (2 / 3) * aeKm ** (-1 / 3)
  const fx = x >= 1.6 ? 11 + 10 * Math.log10(x) - 17.6 * x : -20 * Math.log10(x) - 5.6488 * x ** 1.425
  const gain = (h: number) => {
    const b = beta * yFactor * h
    const g = b > 2 ? 17.6 * Math.sqrt(b - 1.1) - 5 * Math.log10(b - 1.1) - 8 : 20 * Math.log10(b + 0.1 * b ** 3)
    return Math.max(g, 2 + 20 * Math.log10(k))
  }
  return -(fx + gain(h1) + gain(h2))
}

/**
 * Bullington's single equivalent edge over a profile.
 * @returns loss, dB; with the sample where the nearer horizons, or the tightest point, lie
 * @source ITU-R P.526-15 §4.5.1
 */
function bullington(
  d: ArrayLike<number>,
  g: ArrayLike<number> | null,
  { h1, h2, lambda, ceKm }: { h1: number; h2: number; lambda: number; ceKm: number },
): { lossDb: number; index: number } {
  const n = d.length
  const total = d[n - 1]!
  const direct = (h2 - h1) / total
  let slope1 = -Infinity
  let index1 = 1
  let slope2 = -Infinity
  let index2 = n - 2
  // ν·|ν| grows with ν and wants no root at every sample.
  let most = -Infinity
  let vIndex = 1
  for (let i = 1; i < n - 1; i++) {
    const di = d[i]!
    const rest = total - di
    const raised = (g ? g[i]! : 0) + 500 * ceKm * di * rest
    const s1 = (raised - h1) / di
    if (s1 > slope1) {
      slope1 = s1
      index1 = i
    }
    const s2 = (raised - h2) / rest
    if (s2 > slope2) {
      slope2 = s2
      index2 = i
    }
    const over = raised - h1 - direct * di
    const square = (over * Math.abs(over)) / (di * rest)
    if (square > most) {
      most = square
      vIndex = i
    }
  }
  let knife: number
  let index: number
  if (slope1 < direct) {
    knife = knifeEdgeLossDb(Math.sign(most) * Math.sqrt((Math.abs(most) * 0.002 * total) / lambda))
    index = vIndex
  } else {
    const db = (h2 - h1 + slope2 * total) / (slope1 + slope2)
    const vb =
      (h1 + slope1 * db - (h1 * (total - db) + h2 * db) / total) * Math.sqrt((0.002 * total) / (lambda * db * (total - db)))
    knife = knifeEdgeLossDb(vb)
    index = index1 === index2 ? index1 : vIndex
  }
  return { lossDb: knife + (1 - Math.exp(-knife / 6)) * (10 + 0.02 * total), index }
}

export interface DiffractionResult {
  /** loss beyond free space, dB, >= 0 */
  lossDb: number
  /** Bullington part for the actual profile and for a smooth one, and the spherical-earth part, dB */
  bullingtonDb: number
  smoothBullingtonDb: number
  sphericalDb: number
  /** sample at which the ray is tightest or blocked most */
  index: number
}

/**
 * Loss over terrain by the delta-Bullington method.
 *
 * On one isolated edge it exceeds J(ν) by up to some 10 dB by construction. Left out: vegetation
 * and buildings, entry into the house, ducting, scatter off the path.
 *
 * @throws RangeError for fewer than three samples, or numbers out of range
 * @source ITU-R P.526-15 §4.5
 */
export function deltaBullington(path: DiffractionPath): DiffractionResult {
  const { distanceKm: d, groundM: g, frequencyMHz } = path
  const n = d.length
  if (n < 3 || g.length !== n)
    throw new RangeError(`profile must have at least 3 samples of both kinds, got ${n} and ${g.length}`)
  positive('frequencyMHz', frequencyMHz)
  const k = inRange('k', path.k ?? 4 / 3, 0.3, 1e6)
  const lambda = 299.792458 / frequencyMHz
  const aeKm = k * EARTH_RADIUS_KM
  const total = positive('path length km', d[n - 1]!)
  const tx = g[0]! + path.txHeightM
  const rx = g[n - 1]! + path.rxHeightM
  const actual = bullington(d, g, { h1: tx, h2: rx, lambda, ceKm: 1 / aeKm })
  const smooth = smoothEnds(d, g, total, { tx, rx })
  const h1 = tx - smooth.start
  const h2 = rx - smooth.end
  const flat = bullington(d, null, { h1, h2, lambda, ceKm: 1 / aeKm })
  const sphere = sphericalEarthLossDb(total, { h1M: h1, h2M: h2, frequencyMHz, aeKm, polarisation: path.polarisation })
  return {
    lossDb: actual.lossDb + Math.max(sphere - flat.lossDb, 0),
    bullingtonDb: actual.lossDb,
    smoothBullingtonDb: flat.lossDb,
    sphericalDb: sphere,
    index: actual.index,
  }
}

/** Smooth-surface heights at both ends. @source ITU-R P.526-15 §4.5.2, equations (53)–(60) */
function smoothEnds(
  d: ArrayLike<number>,
  g: ArrayLike<number>,
  total: number,
  { tx, rx }: { tx: number; rx: number },
): { start: number; end: number } {
  const n = d.length
  let v1 = 0
  let v2 = 0
  for (let i = 1; i < n; i++) {
    const step = d[i]! - d[i - 1]!
    v1 += step * (g[i]! + g[i - 1]!)
    v2 += step * (g[i]! * (2 * d[i]! + d[i - 1]!) + g[i - 1]! * (d[i]! + 2 * d[i - 1]!))
  }
  let start = (2 * v1 * total - v2) / total ** 2
  let end = (v2 - v1 * total) / total ** 2
  let obstruction = -Infinity
  let fromTx = -Infinity
  let fromRx = -Infinity
  for (let i = 1; i < n - 1; i++) {
    const di = d[i]!
    const h = g[i]! - (tx * (total - di) + rx * di) / total
    if (h > obstruction) obstruction = h
    if (h / di > fromTx) fromTx = h / di
    if (h / (total - di) > fromRx) fromRx = h / (total - di)
  }
  if (obstruction > 0) {
    start -= (obstruction * fromTx) / (fromTx + fromRx)
    end -= (obstruction * fromRx) / (fromTx + fromRx)
  }
  return { start: Math.min(start, g[0]!), end: Math.min(end, g[n - 1]!) }
}
