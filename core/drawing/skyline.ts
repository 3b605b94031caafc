/** The skyline strip: the hills all round unrolled, masts above or behind them, bearings as wide as they are unsure. */
import { entryOf } from '../sure'
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
  const labels = new LabelSpace(14)
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
  p.push({ kind: 'line', style: 'drop', x1: 0, y1: y(0), x2: o.width, y2: y(0) })
  p.push({ kind: 'text', style: 'figureSoft', x: 4, y: y(0) - 3, text: '0°' })
  if (high > 5) {
    p.push({ kind: 'line', style: 'drop', x1: 0, y1: y(5), x2: o.width, y2: y(5) })
    p.push({ kind: 'text', style: 'figureSoft', x: 4, y: y(5) - 3, text: '5°' })
  }
  for (const ob of o.obstacles ?? []) {
    const from = x(ob.fromDeg)
    const to = x(ob.toDeg)
    if (to < from) continue
    p.push({ kind: 'line', style: 'picket', x1: from, y1: y(low) - 4, x2: to, y2: y(low) - 4, title: ob.name })
    if (to - from > textWidth(ob.name, 'labelShort'))
      p.push({ kind: 'text', style: 'labelShort', x: (from + to) / 2, y: y(low) - 8, text: ob.name, anchor: 'middle' })
  }
  axis(p, o, { x, inView, y: y(low) })
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
    p.push({
      kind: 'text',
      style: 'labelSoft',
      x: lx,
      y: labels.place(lx, ly - 14, { textLength: textWidth(l.name), anchor: 'middle', bounds: [14, o.height - bottom] }),
      text: l.name,
      anchor: 'middle',
    })
  }
  for (const pin of [...pins].sort(
    (a, b) => Number(b.m.mast.id === o.selectedId) - Number(a.m.mast.id === o.selectedId) || a.m.rank - b.m.rank,
  )) {
    const { m, e, hidden } = pin
    const chosen = m.mast.id === o.selectedId
    const px = x(m.bearingDeg)
    const py = y(e)
    labels.reserve(px - 6, (hidden ? Math.min(py, y(low) - 6) : py - 8) - 6, 12, 12)
    p.push({
      kind: 'circle',
      style: chosen ? 'pinChosen' : hidden ? 'pinHidden' : 'pin',
      x: px,
      y: hidden ? Math.min(y(e), y(low) - 6) : py - 8,
      r: chosen ? 5 : 4,
      id: m.mast.id,
      title: hidden
        ? `${m.mast.name}: behind the ridge at ${distance(pin.ridgeM, o.units)}, ${num(pin.ridge - e, 1)}° too low`
        : `${m.mast.name}: in sight, ${num(e, 1)}° up`,
    })
    if (o.compact && !chosen) continue
    const text = chosen
      ? `${m.rank} ${m.mast.name}, ` +
        `${hidden ? `${num(pin.ridge - e, 1)}° behind the ridge at ${distance(pin.ridgeM, o.units)}` : `${num(e, 1)}° up, in sight`}`
      : `${m.rank} ${m.mast.name}`
    const w = textWidth(text, chosen ? 'labelBlue' : 'labelSoft')
    const tx = Math.min(o.width - w / 2 - 4, Math.max(w / 2 + 4, px))
    const ty = labels.place(tx, Math.min(py, y(pin.ridge || 0)) - 16, {
      textLength: w,
      anchor: 'middle',
      bounds: [14, o.height - bottom],
    })
    // A mast behind the hill is joined to its name through the ground.
    if (hidden) p.push({ kind: 'line', style: 'drop', x1: px, y1: ty + 4, x2: px, y2: Math.min(py, y(low)) - 5 })
    p.push({ kind: 'text', style: chosen ? 'labelBlue' : 'labelSoft', x: tx, y: ty, text, anchor: 'middle', id: m.mast.id })
  }
  if (h.unknown > 0.02)
    p.push({
      kind: 'text',
      style: 'labelShort',
      x: o.width - 8,
      y: 14,
      text: `${Math.round(h.unknown * 100)} % of the ground unknown`,
      anchor: 'end',
    })
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
  { x, inView, y }: { x: (deg: number) => number; inView: (deg: number) => boolean; y: number },
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
    const tx = x(d)
    if (tx > 12 && tx < o.width - 12 && d % labelled === 0)
      p.push({
        kind: 'text',
        style: NAMES[d] && !o.magnetic ? 'labelBold' : 'figureSoft',
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
    p.push({ kind: 'text', style: 'labelBold', x: hx + 9, y: y - 4, text: o.bowWord ?? 'ahead' })
  }
}
