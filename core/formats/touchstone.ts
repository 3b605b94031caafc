/**
 * Sweeps of a network analyser as Touchstone files of version 1, and what they say of a cable or an antenna: return
 * loss, VSWR, loss, and where along a cable it is at fault.
 *
 * @source Touchstone File Format Specification, revision 1.1, from memory: option line `# HZ|KHZ|MHZ|GHZ S DB|MA|RI R n`,
 *   `!` begins a comment, one-port files have 3 numbers a line, two-port files 9 in the order S11 S21 S12 S22
 */
import { lastOf, nth } from '../sure'
import { inRange, positive } from '../check'

export interface Complex {
  re: number
  im: number
}

export interface SweepPoint {
  frequencyMHz: number
  s11: Complex
  /** null in a one-port file */
  s21: Complex | null
}

export interface NetworkSweep {
  ports: 1 | 2
  referenceOhm: number
  points: SweepPoint[]
}

const IN_MHZ: Record<string, number> = { HZ: 1e-6, KHZ: 1e-3, MHZ: 1, GHZ: 1000 }
const MOST_POINTS = 100_000

/** @throws RangeError with the line, where it is not Touchstone of version 1, or not S-parameters of one or two ports */
export function readTouchstone(text: string): NetworkSweep {
  let unit = IN_MHZ.GHZ!
  let form = 'MA'
  let referenceOhm = 50
  let seen = false
  const numbers: number[] = []
  let perLine = 0
  const points: SweepPoint[] = []
  const lines = text.split(/\r?\n/)
  lines.forEach((raw, i) => {
    const line = raw.replace(/!.*/, '').trim()
    if (!line) return
    if (line.startsWith('[')) throw new RangeError(`line ${i + 1}: version 2 of the format; save it as version 1`)
    if (line.startsWith('#')) {
      if (seen) return
      seen = true
      const words = line.slice(1).trim().toUpperCase().split(/\s+/)
      for (let k = 0; k < words.length; k++) {
        const w = nth(words, k)
        if (w in IN_MHZ) unit = IN_MHZ[w]!
        else if (w === 'DB' || w === 'MA' || w === 'RI') form = w
        else if (w === 'R') referenceOhm = positive('reference', Number(words[++k]))
        else if (['Y', 'Z', 'H', 'G'].includes(w)) throw new RangeError(`line ${i + 1}: ${w}-parameters; S-parameters are wanted`)
      }
      return
    }
    const row = line.split(/\s+/).map(Number)
    if (row.some(v => !Number.isFinite(v))) throw new RangeError(`line ${i + 1}: “${line.slice(0, 40)}” is not numbers`)
    perLine ||= row.length
    if (row.length !== perLine || (row.length !== 3 && row.length !== 9))
      throw new RangeError(`line ${i + 1}: ${row.length} numbers; one port has 3 a line, two ports have 9`)
    numbers.push(...row)
    const [f, a, b, c, d] = row as [number, number, number, number, number]
    const frequencyMHz = positive('frequency', f * unit)
    if (points.length && frequencyMHz <= lastOf(points).frequencyMHz) throw new RangeError(`line ${i + 1}: frequencies must rise`)
    if (points.length >= MOST_POINTS) throw new RangeError(`more than ${MOST_POINTS} points`)
    points.push({ frequencyMHz, s11: complex(form, a, b), s21: row.length === 9 ? complex(form, c, d) : null })
  })
  if (points.length < 2) throw new RangeError('no sweep in the file: two points at least are wanted')
  return { ports: perLine === 9 ? 2 : 1, referenceOhm, points }
}

function complex(form: string, a: number, b: number): Complex {
  if (form === 'RI') return { re: a, im: b }
  const magnitude = form === 'DB' ? 10 ** (a / 20) : a
  const angle = (b * Math.PI) / 180
  return { re: magnitude * Math.cos(angle), im: magnitude * Math.sin(angle) }
}

/** @returns a sweep of one port, or of two, as a file of version 1 in real and imaginary parts */
export function writeTouchstone(s: NetworkSweep): string {
  const number = (v: number) => Number(v.toPrecision(9)).toString()
  const rows = s.points.map(p => {
    const parts = [p.frequencyMHz, p.s11.re, p.s11.im]
    // What goes through goes back alike in a passive part; the far end's match was not kept.
    if (p.s21) parts.push(p.s21.re, p.s21.im, p.s21.re, p.s21.im, 0, 0)
    return parts.map(number).join(' ')
  })
  return [`# MHZ S RI R ${number(s.referenceOhm)}`, ...rows, ''].join('\n')
}

const magnitudeOf = (c: Complex): number => Math.hypot(c.re, c.im)
/** Better than this no analyser of the trade tells, |Γ|. */
const LEAST_GAMMA = 1e-4

/** @returns dB, >= 0 for a passive part. @source −20·log10|Γ| */
export const returnLossDb = (s11: Complex): number => -20 * Math.log10(Math.max(LEAST_GAMMA, magnitudeOf(s11)))

/** Above this everything comes back, as from an open end: a VSWR says nothing of it. */
const MOST_GAMMA = 0.98

/** @returns >= 1; Infinity where everything comes back. @source (1 + |Γ|)/(1 − |Γ|) */
export function vswrFrom(s11: Complex): number {
  const gamma = magnitudeOf(s11)
  return gamma >= MOST_GAMMA ? Infinity : (1 + gamma) / (1 - gamma)
}

/** Loss straight through, dB; null in a one-port sweep. @source −20·log10|S21| */
export const throughLossDb = (p: SweepPoint): number | null =>
  p.s21 ? -20 * Math.log10(Math.max(1e-9, magnitudeOf(p.s21))) : null

/**
 * Loss of a cable from one end, its far end open or shorted: half of what comes back, dB.
 * @source one-port cable loss, common practice
 */
export const openEndLossDb = (s11: Complex): number => returnLossDb(s11) / 2

export interface Fault {
  distanceM: number
  /** of what comes back there, dB, >= 0: the less the worse */
  returnLossDb: number
}

/** No cable of a job is longer, m. */
const MOST_M = 300
/** Distances worked out in each length that the sweep's width can tell apart. */
const PER_CELL = 4
/**
 * Beside a place the window leaves lobes of its own, so much under it, dB: what is that far under the worst place may be
 * no place at all.
 * @source Hann window, highest side lobe −31.5 dB, Harris 1978
 */
export const SIDE_LOBES_DB = 31.5

/**
 * What comes back from each distance along a cable: the sweep turned from frequencies into lengths.
 *
 * Steps of the sweep set how far one can see, c·v/(2·step); its width how finely, c·v/(2·width).
 *
 * @param velocityFactor  of the cable, 0.5…1
 * @returns return loss by distance, cable loss left in
 * @throws RangeError where the sweep is too short
 * @source inverse Fourier transform of Γ(f) with a Hann window; d = c·v·t/2
 */
export function distanceToFault(points: readonly SweepPoint[], velocityFactor: number): Fault[] {
  inRange('velocityFactor', velocityFactor, 0.5, 1)
  const n = points.length
  if (n < 16) throw new RangeError('a sweep of 16 points at least is wanted')
  const width = nth(points, n - 1).frequencyMHz - nth(points, 0).frequencyMHz
  const stepHz = (positive('width of the sweep', width) * 1e6) / (n - 1)
  const farM = (299_792_458 * velocityFactor) / (2 * stepHz)
  const window = points.map((_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / (n - 1)))
  const total = window.reduce((a, b) => a + b, 0)
  const distances = PER_CELL * (n - 1)
  const shown = Math.min(distances, Math.ceil((distances * MOST_M) / farM))
  return Array.from({ length: shown }, (_, k): Fault => {
    // From point to point the phase turns by the same angle: no more is asked of a sine than once a distance.
    const turn = (2 * Math.PI * k) / distances
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    let [phaseRe, phaseIm] = [1, 0]
    let [re, im] = [0, 0]
    for (let i = 0; i < n; i++) {
      const { s11 } = points[i]!
      re += window[i]! * (s11.re * phaseRe - s11.im * phaseIm)
      im += window[i]! * (s11.re * phaseIm + s11.im * phaseRe)
      ;[phaseRe, phaseIm] = [phaseRe * c - phaseIm * s, phaseRe * s + phaseIm * c]
    }
    const gamma = Math.hypot(re, im) / total
    return { distanceM: (farM * k) / distances, returnLossDb: -20 * Math.log10(Math.max(LEAST_GAMMA, gamma)) }
  })
}

/** The worst place along a cable, its near end left out. */
export function worstFault(faults: readonly Fault[], fromM = 0.5): Fault {
  return faults.filter(f => f.distanceM >= fromM).reduce((a, b) => (b.returnLossDb < a.returnLossDb ? b : a))
}
