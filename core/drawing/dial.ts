/** One dial: bearings that were computed and headings that were measured. */
import { angleBetween, toRad } from '../geo/angles'
import { bearingHalfWidth } from '../masts/bearings'
import type { Horizon } from '../terrain/horizon'
import { skylineAt } from '../terrain/horizon'
import type { Assessment } from '../judge/assess'
import type { Drawing, Primitive } from './primitives'
import { LabelSpace, polyline } from './primitives'
import { bearing, num } from '../units'

/** Of the carriers of other SIMs the best two are drawn: enough to see that they lie elsewhere. */
const OTHER_SIMS_MASTS = 2

export interface DialOptions {
  size: number
  /** width of the drawing, where there is room beside the dial for names */
  width?: number
  /** masts of the carrier planned on that are drawn, best first; the chosen one is always among them */
  masts: number
  showSweep: boolean
  /** where the antenna points now, degrees true */
  headingDeg: number | null
  selectedId: string | null
  /** degrees added around the dial: 0 for true north up, −declination for magnetic north up */
  northOffsetDeg?: number
  labels?: boolean
  /** the skyline inside the ring: the higher the ground, the further in it reaches */
  horizon?: Horizon | null
  /** where nose or bow points, degrees true */
  bowDeg?: number | null
  sunDeg?: number | null
}

export function layoutDial(a: Assessment, o: DialOptions): Drawing {
  const c = o.size / 2
  const cx = (o.width ?? o.size) / 2
  const ring = c - (o.labels === false ? 31 : 34)
  const turnBy = o.northOffsetDeg ?? 0
  const { p, at } = compassRose([cx, c], ring, turnBy, o.headingDeg)
  const ticks = p.filter(t => t.kind === 'line')
  if (o.horizon) drawHorizon(p, at, o.horizon, ring)
  if (o.bowDeg !== null && o.bowDeg !== undefined) {
    const bow = [
      [-16, 0.34],
      [0, 0.5],
      [16, 0.34],
      [164, 0.3],
      [196, 0.3],
    ].map(([d, r]) => at(o.bowDeg! + d!, ring * r!))
    p.push({ kind: 'path', style: 'part', d: polyline(bow, true), title: 'the way it points' })
  }
  if (o.sunDeg !== null && o.sunDeg !== undefined) {
    const [x, y] = at(o.sunDeg, ring * 0.9)
    p.push({ kind: 'circle', style: 'sun', x, y, r: 6, title: 'the sun now' })
  }
  const shown = a.masts.filter(m => m.path && m.matchesCarrier).slice(0, o.masts)
  shown.push(...a.masts.filter(m => m.path && m.ofSim && !m.matchesCarrier).slice(0, OTHER_SIMS_MASTS))
  const selected = a.masts.find(m => m.mast.id === o.selectedId)
  if (selected?.path && !shown.includes(selected)) shown.push(selected)
  const space = new LabelSpace(14, { x: 1, y: 1, w: (o.width ?? o.size) - 2, h: o.size - 2 })
  for (const deg of [0, 90, 180, 270]) {
    const [x, y] = at(deg - turnBy, ring + 20)
    space.reserveWord(x - 10, y - 10, 20, 20)
  }
  for (const t of ticks) space.keepOff(t.x1, t.y1, t.x2, t.y2)
  if (o.headingDeg !== null) {
    const [x, y] = at(o.headingDeg, ring + 10)
    space.reserve(x - 16, y - 12, 32, 24)
  }
  for (const m of shown) {
    const chosen = m.mast.id === o.selectedId
    // A wedge as wide as its uncertainty: compass, its reading, and the mast's own place.
    const half = Math.max(bearingHalfWidth(m, a.declination), 2)
    if (chosen || m.positionDeg > 5)
      p.push({ kind: 'path', style: 'beam', d: wedge(at, [cx, c], { midDeg: m.bearingDeg, halfDeg: half, r: ring }) })
    const [x, y] = at(m.bearingDeg, ring)
    p.push({ kind: 'line', style: chosen ? 'mastRay' : 'otherRay', x1: cx, y1: c, x2: x, y2: y, id: m.mast.id })
    space.keepOff(cx, c, x, y)
  }
  const sweep = o.showSweep ? a.sweep?.result : null
  if (sweep) drawSweep(p, { at, sweep, ring, centre: [cx, c] })
  if (o.labels !== false) {
    for (const m of shown) {
      const chosen = m.mast.id === o.selectedId
      const text = `${m.rank} ${m.mast.name}`
      const [x, y] = at(m.bearingDeg, ring + 16)
      const anchor = Math.abs(x - cx) < ring * 0.25 ? ('middle' as const) : x > cx ? ('start' as const) : ('end' as const)
      space.put(p, { x, y: y + 4, text, style: chosen ? 'labelBlue' : 'labelSoft', anchor, id: m.mast.id })
    }
  }
  if (o.headingDeg !== null) drawNeedle(p, at, o.headingDeg, ring)
  p.push({ kind: 'circle', style: 'dot', x: cx, y: c, r: 3 })
  return { width: o.width ?? o.size, height: o.size, primitives: p }
}

/** So near a letter the needle would lie on it, degrees. */
const NEEDLE_HIDES_DEG = 10

/** A ring with its ticks and the four winds; `at` is a bearing and a distance from the middle. */
function compassRose(
  [cx, cy]: [number, number],
  ring: number,
  turnBy: number,
  needleDeg: number | null,
): { p: Primitive[]; at: At } {
  const p: Primitive[] = []
  const at: At = (deg, r) => [cx + r * Math.sin(toRad(deg + turnBy)), cy - r * Math.cos(toRad(deg + turnBy))]
  p.push({ kind: 'circle', style: 'ring', x: cx, y: cy, r: ring })
  for (let d = 0; d < 360; d += 15) {
    const bold = d % 45 === 0
    const [x1, y1] = at(d - turnBy, ring)
    const [x2, y2] = at(d - turnBy, ring + (bold ? 8 : 5))
    p.push({ kind: 'line', style: bold ? 'tickBold' : 'tick', x1, y1, x2, y2 })
  }
  for (const [d, word] of [
    [0, 'N'],
    [90, 'E'],
    [180, 'S'],
    [270, 'W'],
  ] as const) {
    // The needle stands there itself.
    if (needleDeg !== null && angleBetween(needleDeg + turnBy, d) < NEEDLE_HIDES_DEG) continue
    const [x, y] = at(d - turnBy, ring + 20)
    p.push({ kind: 'text', style: 'cardinal', x, y: y + 5, text: word, anchor: 'middle' })
  }
  return { p, at }
}

/** Where the antenna points. */
function drawNeedle(p: Primitive[], at: At, headingDeg: number, ring: number): void {
  const tip = [at(headingDeg, ring - 2), at(headingDeg - 5, ring + 18), at(headingDeg + 5, ring + 18)]
  p.push({ kind: 'path', style: 'needle', d: polyline(tip, true) })
}

export interface PracticeDial {
  size: number
  headingDeg: number
  beamwidthDeg: number
  taken: readonly { headingDeg: number; value: number }[]
  /** positions that cannot be reached */
  struckDeg: readonly number[]
  /** once it is locked: where it hears best, and where the mast is */
  truth: { bestDeg: number; mastDeg: number } | null
}

/** The dial of an exercise: the beam as wide as it is, what was read, and at the end what was hidden. */
export function layoutPractice(o: PracticeDial): Drawing {
  const c = o.size / 2
  const ring = c - 34
  const { p, at } = compassRose([c, c], ring, 0, o.headingDeg)
  p.push({
    kind: 'path',
    style: 'beam',
    d: wedge(at, [c, c], { midDeg: o.headingDeg, halfDeg: Math.min(85, o.beamwidthDeg / 2), r: ring - 6 }),
  })
  for (const deg of o.struckDeg)
    p.push({ kind: 'path', style: 'bad', d: wedge(at, [c, c], { midDeg: deg, halfDeg: 14, r: ring }) })
  if (o.truth) {
    p.push({ kind: 'path', style: 'good', d: wedge(at, [c, c], { midDeg: o.truth.bestDeg, halfDeg: 2, r: ring }) })
    const [x, y] = at(o.truth.mastDeg, ring)
    p.push({ kind: 'circle', style: 'pinChosen', x, y, r: 7, title: 'the mast' })
  }
  drawBars(p, at, o.taken, ring)
  drawNeedle(p, at, o.headingDeg, ring)
  p.push({ kind: 'circle', style: 'dot', x: c, y: c, r: 3 })
  return { width: o.size, height: o.size, primitives: p }
}

/** Elevation at which the skyline reaches the middle of the dial, degrees. */
const FULL_DEG = 18

function drawHorizon(p: Primitive[], at: At, h: Horizon, ring: number): void {
  const outer: [number, number][] = []
  const inner: [number, number][] = []
  for (let d = 0; d <= 360; d += 2) {
    const e = skylineAt(h, d).elevationDeg
    outer.push(at(d, ring))
    inner.push(at(d, ring * (1 - Math.min(0.7, Math.max(0, Number.isNaN(e) ? 0 : e) / FULL_DEG))))
  }
  p.push({ kind: 'path', style: 'ground', d: polyline([...outer, ...inner.reverse()], true) })
  p.push({ kind: 'path', style: 'hatch', d: polyline(inner) })
}

type At = (deg: number, r: number) => [number, number]

function wedge(at: At, centre: [number, number], { midDeg, halfDeg, r }: { midDeg: number; halfDeg: number; r: number }): string {
  const points: [number, number][] = [centre]
  for (let k = -6; k <= 6; k++) points.push(at(midDeg + (halfDeg * k) / 6, r))
  return polyline(points, true)
}

function drawSweep(
  p: Primitive[],
  {
    at,
    sweep,
    ring,
    centre,
  }: { at: At; sweep: NonNullable<NonNullable<Assessment['sweep']>['result']>; ring: number; centre: [number, number] },
): void {
  p.push({
    kind: 'path',
    style: 'good',
    d: wedge(at, centre, { midDeg: sweep.headingDeg, halfDeg: Math.max(sweep.plusMinusDeg, 2), r: ring }),
  })
  drawBars(p, at, sweep.byHeading, ring)
}

/** What was read at each heading, the longer the better, against the best of them. */
function drawBars(p: Primitive[], at: At, taken: readonly { headingDeg: number; value: number }[], ring: number): void {
  const low = Math.min(...taken.map(h => h.value))
  const span = Math.max(6, Math.max(...taken.map(h => h.value)) - low)
  const inner = ring * 0.24
  for (const h of taken) {
    const r = inner + (ring * 0.86 - inner) * Math.max(0.06, (h.value - low + span * 0.08) / (span * 1.08))
    const [x1, y1] = at(h.headingDeg, inner)
    const [x2, y2] = at(h.headingDeg, r)
    p.push({ kind: 'line', style: 'measuredBar', x1, y1, x2, y2, title: `${bearing(h.headingDeg)}: ${num(h.value, 1)} dB` })
  }
}
