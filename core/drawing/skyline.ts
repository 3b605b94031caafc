/** The skyline strip: the hills all round unrolled, masts above or behind them, bearings as wide as they are unsure. */
import { entryOf, nth } from '../sure'
import { angleBetween, normalise360, turn } from '../geo/angles'
import type { Declination } from '../geo/declination'
import { trueToMagnetic } from '../geo/declination'
import type { MastView } from '../masts/bearings'
import { bearingHalfWidth } from '../masts/bearings'
import type { Horizon } from '../terrain/horizon'
import { elevationOf, skylineAt } from '../terrain/horizon'
import type { Drawing, Primitive } from './primitives'
import { LabelSpace, polyline, textWidth } from './primitives'
import { bearing, distance, num } from '../units'
import type { Units } from '../units'

export interface SkylineOptions {
  width: number
  height: number
  units: Units
  /** bearing in the middle of the strip, degrees true */
  centreDeg: number
  /** degrees shown: 360 all round, less to look closer */
  spanDeg?: number
  masts: readonly MastView[]
  selectedId: string | null
  declination: Declination | null
  /** label the axis by the compass */
  magnetic?: boolean
  sun?: { azimuthDeg: number; altitudeDeg: number } | null
  landmarks?: readonly { name: string; bearingDeg: number }[]
  obstacles?: readonly { name: string; fromDeg: number; toDeg: number }[]
  /** where nose or bow points, degrees true */
  headingDeg?: number | null
  bowWord?: string
  compact?: boolean
}

export function layoutSkyline(h: Horizon, o: SkylineOptions): Drawing {
  const p: Primitive[] = []
  const span = o.spanDeg ?? 360
  const bottom = 22
  const top = 20
  const x = (deg: number) => o.width / 2 + (turn(o.centreDeg, deg) / span) * o.width
  const inView = (deg: number) => angleBetween(o.centreDeg, deg) <= span / 2
  const at = (fraction: number) => normalise360(o.centreDeg + (fraction - 0.5) * span)
  const columns = Math.max(60, Math.round(o.width / 2))
  const line = Array.from({ length: columns + 1 }, (_, i) => skylineAt(h, at(i / columns)))
  const known = line.map(s => s.elevationDeg).filter(e => !Number.isNaN(e))
  const shown = o.masts.filter(m => m.path && inView(m.bearingDeg))
  const tops = new Map(shown.map(m => [m.mast.id, elevationOf(h.eyeM, m.path!.mastTopM, m.distanceM, m.path!.k)]))
  const high = Math.max(2.5, ...known, ...tops.values()) * 1.12 + 0.3
  const low = Math.min(-0.6, ...known) - 0.2
  const y = (e: number) => top + ((high - e) / (high - low)) * (o.height - top - bottom)
  p.push({ kind: 'rect', style: 'sky', x: 0, y: 0, w: o.width, h: o.height })
  for (const m of shown) {
    if (m.mast.id !== o.selectedId) continue
    const half = (Math.max(0.5, bearingHalfWidth(m, o.declination)) / span) * o.width
    p.push({
      kind: 'rect',
      style: 'beam',
      x: x(m.bearingDeg) - half,
      y: top,
      w: 2 * half,
      h: o.height - top - bottom,
      id: m.mast.id,
      title: `${bearing(m.bearingDeg)} ± ${num(bearingHalfWidth(m, o.declination))}°`,
    })
  }
  // Masts behind the hills are drawn first: the ground covers their feet.
  const labels = new LabelSpace(14, { x: 2, y: 2, w: o.width - 4, h: o.height - bottom - 2 })
  const pins = shown.map(m => {
    const e = entryOf(tops, m.mast.id)
    const s = skylineAt(h, m.bearingDeg)
    return { m, e, hidden: m.distanceM > s.ridgeM * 1.02 && e < s.elevationDeg, ridgeM: s.ridgeM, ridge: s.elevationDeg }
  })
  for (const { m, e, hidden } of pins) {
    if (hidden) continue
    p.push({
      kind: 'line',
      style: m.mast.id === o.selectedId ? 'mastRay' : 'pole',
      x1: x(m.bearingDeg),
      y1: y(e) - 8,
      x2: x(m.bearingDeg),
      y2: y(low),
      id: m.mast.id,
    })
  }
  p.push({
    kind: 'path',
    style: 'ground',
    d: polyline(
      [
        [0, y(low)],
        ...line.map((s, i) => [(i / columns) * o.width, y(Number.isNaN(s.elevationDeg) ? 0 : s.elevationDeg)] as const),
        [o.width, y(low)],
      ],
      true,
    ),
  })
  drawRidges(p, line, { columns, o, y })
  const ridgeY = (i: number) => y(Number.isNaN(nth(line, i).elevationDeg) ? 0 : nth(line, i).elevationDeg)
  for (let i = 0; i < columns; i++)
    labels.keepOff((i / columns) * o.width, ridgeY(i), ((i + 1) / columns) * o.width, ridgeY(i + 1))
  for (const e of high > 5 ? [0, 5] : [0]) {
    p.push({ kind: 'line', style: 'drop', x1: 0, y1: y(e), x2: o.width, y2: y(e) })
    labels.keepOff(0, y(e), o.width, y(e))
    labels.put(p, { x: 4, y: y(e) - 3, text: `${e}°`, style: 'figureSoft', optional: true })
  }
  if (h.unknown > 0.02) {
    const text = `${Math.round(h.unknown * 100)} % of the ground unknown`
    labels.put(p, { x: o.width - 8, y: 14, text, style: 'labelShort', anchor: 'end' })
  }
  const ordered = [...pins].sort(
    (a, b) => Number(b.m.mast.id === o.selectedId) - Number(a.m.mast.id === o.selectedId) || a.m.rank - b.m.rank,
  )
  const named = (id: string) => !o.compact || id === o.selectedId
  /** where a mast's pin stands, and where its name would best begin */
  const placeOf = ({ m, e, hidden, ridge }: (typeof pins)[number]) => ({
    px: x(m.bearingDeg),
    py: hidden ? Math.min(y(e), y(low) - 6) : y(e) - 8,
    topY: Math.min(y(e), y(ridge || 0)) - 12,
  })
  for (const pin of ordered) {
    const { m, e, hidden } = pin
    const chosen = m.mast.id === o.selectedId
    const { px, py, topY } = placeOf(pin)
    labels.reserve(px - 6, py - 6, 12, 12)
    // A mast behind the hill is joined to its name through the ground.
    if (hidden && named(m.mast.id)) {
      p.push({ kind: 'line', style: 'drop', x1: px, y1: topY, x2: px, y2: py - 5 })
      labels.keepOff(px, topY, px, py - 5)
    }
    if (!hidden) labels.keepOff(px, py, px, y(low))
    p.push({
      kind: 'circle',
      style: chosen ? 'pinChosen' : hidden ? 'pinHidden' : 'pin',
      x: px,
      y: py,
      r: chosen ? 5 : 4,
      id: m.mast.id,
      title: hidden
        ? `${m.mast.name}: behind the ridge at ${distance(pin.ridgeM, o.units)}, ${num(pin.ridge - e, 1)}° too low`
        : `${m.mast.name}: in sight, ${num(e, 1)}° up`,
    })
  }
  for (const ob of o.obstacles ?? []) {
    const from = x(ob.fromDeg)
    const to = x(ob.toDeg)
    if (to < from) continue
    p.push({ kind: 'line', style: 'picket', x1: from, y1: y(low) - 4, x2: to, y2: y(low) - 4, title: ob.name })
    labels.keepOff(from, y(low) - 4, to, y(low) - 4)
    if (to - from > textWidth(ob.name, 'labelShort'))
      labels.put(p, { x: (from + to) / 2, y: y(low) - 8, text: ob.name, style: 'labelShort', anchor: 'middle', optional: true })
  }
  axis(p, o, { x, inView, y: y(low), labels })
  if (o.sun && o.sun.altitudeDeg > -1 && inView(o.sun.azimuthDeg)) {
    const sy = o.sun.altitudeDeg <= high ? y(o.sun.altitudeDeg) : 12
    p.push({
      kind: 'circle',
      style: 'sun',
      x: x(o.sun.azimuthDeg),
      y: sy,
      r: 7,
      title: `sun ${bearing(o.sun.azimuthDeg)}, ${num(o.sun.altitudeDeg, 1)}° up without refraction`,
    })
    labels.reserve(x(o.sun.azimuthDeg) - 10, sy - 10, 20, 20)
  }
  for (const l of o.landmarks ?? []) {
    if (!inView(l.bearingDeg)) continue
    const lx = x(l.bearingDeg)
    const ly = y(Math.max(0, skylineAt(h, l.bearingDeg).elevationDeg || 0))
    p.push({
      kind: 'path',
      style: 'pin',
      d: polyline(
        [
          [lx - 5, ly],
          [lx, ly - 10],
          [lx + 5, ly],
        ],
        true,
      ),
    })
    labels.reserve(lx - 6, ly - 11, 12, 12)
    labels.put(p, { x: lx, y: ly - 14, text: l.name, style: 'labelSoft', anchor: 'middle' })
  }
  for (const pin of ordered) {
    const { m, e, hidden } = pin
    if (!named(m.mast.id)) continue
    const chosen = m.mast.id === o.selectedId
    const { px, topY } = placeOf(pin)
    const seen = hidden
      ? `${num(pin.ridge - e, 1)}° behind the ridge at ${distance(pin.ridgeM, o.units)}`
      : `${num(e, 1)}° up, in sight`
    const name = `${m.rank} ${m.mast.name}`
    const style = chosen ? 'labelBlue' : 'labelSoft'
    labels.put(p, { x: px, y: topY - 4, text: chosen ? `${name}, ${seen}` : name, style, anchor: 'middle', id: m.mast.id })
  }
  return { width: o.width, height: o.height, primitives: p }
}

/** The ridge line, heavier where it is near: what stands close is what can be seen to stand there. */
function drawRidges(
  p: Primitive[],
  line: readonly { elevationDeg: number; ridgeM: number }[],
  { columns, o, y }: { columns: number; o: SkylineOptions; y: (e: number) => number },
): void {
  let run: [number, number][] = []
  let near: boolean | null = null
  const flush = () => {
    if (run.length > 1) p.push({ kind: 'path', style: near ? 'measured' : 'rule', d: polyline(run) })
  }
  line.forEach((s, i) => {
    const point: [number, number] = [(i / columns) * o.width, y(Number.isNaN(s.elevationDeg) ? 0 : s.elevationDeg)]
    const isNear = s.ridgeM < 2000
    if (near !== null && isNear !== near) {
      run.push(point)
      flush()
      run = []
    }
    near = isNear
    run.push(point)
  })
  flush()
}

const NAMES: Record<number, string> = { 0: 'N', 45: 'NE', 90: 'E', 135: 'SE', 180: 'S', 225: 'SW', 270: 'W', 315: 'NW' }

function axis(
  p: Primitive[],
  o: SkylineOptions,
  { x, inView, y, labels }: { x: (deg: number) => number; inView: (deg: number) => boolean; y: number; labels: LabelSpace },
): void {
  const span = o.spanDeg ?? 360
  const step = span > 200 ? (o.width < 620 ? 45 : 15) : span > 80 ? 10 : 5
  const labelled = [5, 10, 15, 30, 45].find(d => d % step === 0 && (o.width / span) * d >= 48) ?? 90
  p.push({ kind: 'rect', style: 'paper', x: 0, y, w: o.width, h: o.height - y })
  p.push({ kind: 'line', style: 'rule', x1: 0, y1: y, x2: o.width, y2: y })
  for (let d = 0; d < 360; d += step) {
    if (!inView(d)) continue
    const label =
      o.magnetic && o.declination ? bearing(trueToMagnetic(d, o.declination.declinationDeg)) : (NAMES[d] ?? bearing(d))
    p.push({ kind: 'line', style: NAMES[d] ? 'tickBold' : 'tick', x1: x(d), y1: y, x2: x(d), y2: y + (NAMES[d] ? 7 : 4) })
    const style = NAMES[d] && !o.magnetic ? 'labelBold' : 'figureSoft'
    const half = textWidth(label, style) / 2 + 1
    const tx = x(d)
    if (tx > half && tx < o.width - half && d % labelled === 0)
      p.push({
        kind: 'text',
        style,
        x: tx,
        y: y + 18,
        text: label,
        anchor: 'middle',
      })
  }
  if (o.headingDeg !== null && o.headingDeg !== undefined && inView(o.headingDeg)) {
    const hx = x(o.headingDeg)
    p.push({
      kind: 'path',
      style: 'needle',
      d: polyline(
        [
          [hx - 6, y + 1],
          [hx + 6, y + 1],
          [hx, y - 9],
        ],
        true,
      ),
    })
    labels.reserve(hx - 7, y - 10, 14, 10)
    labels.put(p, { x: hx + 9, y: y - 5, text: o.bowWord ?? 'ahead', style: 'labelBold' })
  }
}
