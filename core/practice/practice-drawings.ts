/** Pictures of the exercises beside the aim: a house with a booster in it, a corridor of antennas, a skyline. */
import { HOUSE, SKYLINE_STEP_DEG, topDeg } from './practice-kit'
import type { BoosterPut, BoosterSwitched, SkylineExercise, TreeExercise } from './practice-kit'
import { num } from '../units'
import type { Drawing, Primitive } from '../drawing/primitives'
import { polyline } from '../drawing/primitives'

interface Size {
  width: number
  height: number
}

export interface BoosterView {
  drawing: Drawing
  handles: { what: 'donor' | 'server'; x: number; y: number; label: string }[]
  toAlong: (x: number) => number
  toUp: (y: number) => number
}

/** The house to scale, donor over the ridge, dome under the ceiling, and the way round between them. */
export function layoutBooster(put: BoosterPut, now: BoosterSwitched | null, size: Size): BoosterView {
  const topM = HOUSE.ridgeM + HOUSE.overM + 1.5
  const perM = Math.min((size.width - 40) / (2 * HOUSE.halfM + 6), (size.height - 50) / topM)
  const groundY = size.height - 34
  const toX = (alongM: number) => size.width / 2 + alongM * perM
  const toY = (upM: number) => groundY - upM * perM
  const p: Primitive[] = [
    { kind: 'rect', style: 'ground', x: 0, y: groundY, w: size.width, h: size.height - groundY },
    {
      kind: 'path',
      style: 'wall',
      d: polyline(
        [
          [toX(-HOUSE.halfM), groundY],
          [toX(-HOUSE.halfM), toY(4.6)],
          [toX(0), toY(HOUSE.ridgeM)],
          [toX(HOUSE.halfM), toY(4.6)],
          [toX(HOUSE.halfM), groundY],
        ],
        true,
      ),
    },
    {
      kind: 'line',
      style: 'slab',
      x1: toX(-HOUSE.halfM),
      y1: toY(HOUSE.ceilingM + 0.15),
      x2: toX(HOUSE.halfM),
      y2: toY(HOUSE.ceilingM + 0.15),
    },
  ]
  const wanted = toX(HOUSE.halfM - 0.5)
  p.push({ kind: 'circle', style: 'hollow', x: wanted, y: toY(1.2), r: 4.5 })
  p.push({ kind: 'text', style: 'labelSoft', x: wanted + 5, y: groundY + 18, anchor: 'end', text: 'wanted here' })
  const [dx, dy] = [toX(put.donorAlongM), toY(HOUSE.ridgeM + put.donorOverM)]
  const [sx, sy] = [toX(put.serverAlongM), toY(HOUSE.ceilingM)]
  const roofY = toY(HOUSE.ridgeM - (Math.abs(put.donorAlongM) / HOUSE.halfM) * (HOUSE.ridgeM - 4.6))
  p.push({ kind: 'line', style: 'pole', x1: dx, y1: roofY, x2: dx, y2: dy })
  const rings = now?.state === 'oscillates' || now?.state === 'overloaded'
  p.push({ kind: 'line', style: rings ? 'loop' : 'loopGood', x1: dx, y1: dy, x2: sx, y2: sy })
  p.push({
    kind: 'path',
    style: 'antenna',
    d: `M${dx} ${dy - 12}L${dx} ${dy + 12}M${dx} ${dy}L${dx - 22} ${dy}M${dx - 9} ${dy - 9}V${dy + 9}M${dx - 17} ${dy - 6}V${dy + 6}`,
  })
  p.push({ kind: 'path', style: 'part', d: `M${sx - 14} ${sy}A14 12 0 0 0 ${sx + 14} ${sy}Z` })
  p.push({ kind: 'text', style: 'label', x: dx + 12, y: dy - 10, text: `donor, ${num(put.donorOverM, 1)} m over the ridge` })
  p.push({ kind: 'text', style: 'label', x: sx, y: sy + 30, anchor: 'middle', text: 'dome' })
  if (now) {
    const [mx, my] = [(dx + sx) / 2, (dy + sy) / 2]
    p.push({ kind: 'text', style: rings ? 'figureShort' : 'figure', x: mx + 12, y: my, text: `${num(now.isolationDb)} dB round` })
  }
  return {
    drawing: { ...size, primitives: p },
    handles: [
      { what: 'donor', x: dx, y: dy, label: 'donor antenna' },
      { what: 'server', x: sx, y: sy + 4, label: 'dome' },
    ],
    toAlong: x => (x - size.width / 2) / perM,
    toUp: y => (groundY - y) / perM,
  }
}

/** Antennas along a corridor: cable between, what each gets as a bar over it. */
export function layoutCorridor(e: TreeExercise, taps: readonly number[], levels: readonly number[] | null, size: Size): Drawing {
  const p: Primitive[] = []
  const y = size.height - 90
  const allM = e.cablesM.reduce((a, b) => a + b, 0)
  const toX = (m: number) => 60 + (m / allM) * (size.width - 130)
  p.push({ kind: 'rect', style: 'part', x: 14, y: y - 16, w: 46, h: 32 })
  p.push({ kind: 'text', style: 'labelBold', x: 37, y: y + 4, anchor: 'middle', text: `${e.inDbm}` })
  p.push({ kind: 'line', style: 'cable', x1: 60, y1: y, x2: toX(allM), y2: y })
  const shown = levels ?? []
  const [low, high] = shown.length ? [Math.min(...shown) - 2, Math.max(...shown)] : [0, 1]
  const top = 46
  let m = 0
  e.cablesM.forEach((length, i) => {
    const from = m
    m += length
    const x = toX(m)
    p.push({ kind: 'text', style: 'small', x: (toX(from) + x) / 2, y: y + 18, anchor: 'middle', text: `${length} m` })
    p.push({ kind: 'line', style: 'leader', x1: x, y1: y, x2: x, y2: y + 34 })
    p.push({ kind: 'path', style: 'part', d: `M${x - 12} ${y + 34}A12 10 0 0 0 ${x + 12} ${y + 34}Z` })
    const tap = taps[i]
    if (i < e.cablesM.length - 1 && tap !== undefined) {
      p.push({ kind: 'circle', style: 'hollow', x, y, r: 5 })
      p.push({ kind: 'text', style: 'figure', x, y: y + 66, anchor: 'middle', text: `${tap} dB` })
    } else p.push({ kind: 'text', style: 'small', x, y: y + 66, anchor: 'middle', text: 'the rest' })
    const level = shown[i]
    if (level === undefined) return
    const barTop = top + (1 - (level - low) / (high - low || 1)) * (y - 30 - top)
    p.push({ kind: 'line', style: 'measuredBar', x1: x, y1: y - 14, x2: x, y2: barTop })
    p.push({ kind: 'text', style: 'figure', x, y: barTop - 8, anchor: 'middle', text: `${num(level, 1)} dBm` })
  })
  return { ...size, primitives: p }
}

/** The skyline by bearing and elevation; with `told` the masts' tops stand where they are. */
export function layoutSkylinePractice(e: SkylineExercise, told: boolean, size: Size): Drawing {
  const p: Primitive[] = []
  const spanDeg = (e.elevationDeg.length - 1) * SKYLINE_STEP_DEG
  const topOfAll = Math.ceil(Math.max(...e.elevationDeg, ...e.masts.map(topDeg)) + 0.5)
  const baseY = size.height - 42
  const toX = (deg: number) => 44 + ((deg - e.fromDeg) / spanDeg) * (size.width - 64)
  const toY = (deg: number) => baseY - (deg / topOfAll) * (baseY - 30)
  for (let deg = 0; deg <= topOfAll; deg++) {
    p.push({ kind: 'line', style: 'grid', x1: 44, y1: toY(deg), x2: size.width - 20, y2: toY(deg) })
    p.push({ kind: 'text', style: 'figureSoft', x: 36, y: toY(deg) + 4, anchor: 'end', text: `${deg}°` })
  }
  const line = e.elevationDeg.map((deg, i): [number, number] => [toX(e.fromDeg + i * SKYLINE_STEP_DEG), toY(deg)])
  p.push({ kind: 'path', style: 'ground', d: polyline([...line, [toX(e.fromDeg + spanDeg), baseY], [44, baseY]], true) })
  p.push({ kind: 'path', style: 'rule', d: polyline(line) })
  for (let deg = Math.ceil(e.fromDeg / 20) * 20; deg <= e.fromDeg + spanDeg; deg += 20)
    p.push({ kind: 'text', style: 'figureSoft', x: toX(deg), y: baseY + 16, anchor: 'middle', text: `${deg % 360}°` })
  for (const m of e.masts) {
    const x = toX(m.bearingDeg)
    p.push({ kind: 'line', style: 'drop', x1: x, y1: 30, x2: x, y2: baseY })
    p.push({ kind: 'text', style: 'labelBold', x, y: 20, anchor: 'middle', text: m.name })
    if (told) p.push({ kind: 'circle', style: 'pinChosen', x, y: toY(topDeg(m)), r: 5, title: `top of ${m.name}` })
  }
  p.push({ kind: 'text', style: 'small', x: size.width - 20, y: baseY + 32, anchor: 'end', text: 'bearing, true' })
  return { ...size, primitives: p }
}
