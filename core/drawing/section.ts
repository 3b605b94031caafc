/** The section of the house to scale, with the level line under it on the same axis. */
import { indoorLossDb } from '../coverage/indoor'
import { along, axisSign, ridgeM, rooms, storeyOf } from '../site/frame'
import type { JobDocument, Node, Site } from '../job/schema'
import type { Chain } from '../chain/levels'
import type { Assessment } from '../judge/assess'
import type { Provenance } from '../judge/finding'
import { totalToRsrpDbm } from '../radio/levels'
import type { Drawing, Primitive } from './primitives'
import { LabelSpace, polyline, textWidth } from './primitives'
import { drawGround, drawHull, standsOnM } from './hull'
import { bearing, distance, length, num, signed } from '../units'
import type { Units } from '../units'

export interface SectionView {
  drawing: Drawing
  /** where each part and spot was drawn, for picking and dragging */
  handles: { id: string; kind: 'node' | 'spot'; x: number; y: number; label: string; draggable: boolean }[]
  toX: (alongM: number) => number
  toAlong: (x: number) => number
  toY: (upM: number) => number
  toUp: (y: number) => number
  groundY: number
  sign: 1 | -1
}

export interface SectionOptions {
  width: number
  height: number
  units: Units
  /** draw the level line in the lower part */
  levels: boolean
  /** height of the level line's part, px */
  levelHeight?: number
  compact?: boolean
}

export function layoutSection(doc: JobDocument, a: Assessment, o: SectionOptions): SectionView {
  const site = doc.sites[0]!
  const levelHeight = o.levels ? (o.levelHeight ?? Math.round(o.height * 0.42)) : 0
  const pictureHeight = o.height - levelHeight
  const kind = doc.jobs[0]!.kind
  const sign = axisSign(site, a.chosen?.path ? a.chosen.frameBearingDeg : null)
  const top = Math.max(ridgeM(site), a.mountHeightM, ...doc.spots.map(s => s.upM)) + 1.4
  const groundBand = Math.max(30, pictureHeight * 0.1)
  const roomAbove = pictureHeight - groundBand - (o.compact ? 16 : 34)
  const perM = Math.min(roomAbove / top, (o.width * (o.compact ? 0.56 : 0.34)) / site.lengthM)
  const groundY = pictureHeight - groundBand
  const centre = o.width * (o.compact ? 0.5 : 0.46)
  const toX = (m: number) => centre + m * perM
  const toY = (m: number) => groundY - m * perM
  const p: Primitive[] = []
  const handles: SectionView['handles'] = []
  const labels = new LabelSpace()
  const view: SectionView = {
    drawing: { width: o.width, height: o.height, primitives: p },
    handles,
    toX,
    toY,
    groundY,
    sign,
    toAlong: x => (x - centre) / perM,
    toUp: y => (groundY - y) / perM,
  }
  p.push({ kind: 'rect', style: 'sky', x: 0, y: 0, w: o.width, h: groundY })
  drawBeam(p, labels, a, o, toX, toY, site, sign)
  drawGround(p, kind, o.width, groundY, groundBand)
  drawHull(p, kind, site, { toX, toY, sign })
  drawRooms(p, labels, doc, a, toX, toY, sign)
  drawSpots(p, handles, labels, doc, toX, toY, sign, site, o)
  drawKit(p, handles, labels, doc, a, toX, toY, sign, site, o)
  if (o.levels && a.chain) drawLevels(p, a.chain, doc, site, sign, toX, pictureHeight, levelHeight, o)
  else if (o.levels)
    p.push({
      kind: 'text',
      style: 'labelSoft',
      x: o.width / 2,
      y: pictureHeight + levelHeight / 2,
      text: 'The level line starts when a mast or a reading on the band, and an antenna, are known.',
      anchor: 'middle',
    })
  return view
}

function drawBeam(
  p: Primitive[],
  labels: LabelSpace,
  a: Assessment,
  o: SectionOptions,
  toX: (m: number) => number,
  toY: (m: number) => number,
  site: Site,
  sign: 1 | -1,
): void {
  const mast = a.chosen
  if (!mast?.path) return
  const outside = a.kit?.outside?.node
  const x = outside ? toX(along(site, outside, sign)) : toX(-site.lengthM / 2)
  const y = toY(a.mountHeightM)
  const spread = Math.min(46, x * 0.11)
  p.push({
    kind: 'path',
    style: 'beam',
    d: polyline(
      [
        [0, y - 8 - spread],
        [x, y],
        [0, y - 8 + spread],
      ],
      true,
    ),
  })
  p.push({ kind: 'line', style: 'beamLine', x1: 0, y1: y - 8, x2: x, y2: y })
  if (o.compact) {
    p.push({
      kind: 'text',
      style: 'labelBlue',
      x: 8,
      y: 18,
      text: `${mast.mast.name}, ${distance(mast.distanceM, o.units)}, ${bearing(mast.bearingDeg)} true`,
    })
    labels.reserve(0, 4, 260, 18)
    return
  }
  p.push({
    kind: 'text',
    style: 'labelBlue',
    x: 16,
    y: y - 14 - spread * 0.2,
    text: `${mast.mast.name}, ${distance(mast.distanceM, o.units)}`,
  })
  const under = y + spread + 14
  const magnetic =
    mast.magneticDeg !== null && a.declination
      ? ` · ${bearing(mast.magneticDeg)} magnetic ± ${num(1.645 * a.declination.uncertaintyDeg, 1)}°`
      : ''
  p.push({ kind: 'text', style: 'labelSoft', x: 16, y: under, text: `bearing ${bearing(mast.bearingDeg)} true${magnetic}` })
  if (mast.best) {
    const c = mast.best.clearance
    p.push({
      kind: 'text',
      style: 'labelSoft',
      x: 16,
      y: under + 18,
      text:
        c.clearM >= 0
          ? `clear by ${length(c.clearM, o.units, 0)} at ${distance(c.atM, o.units)}`
          : `behind the ground at ${distance(c.atM, o.units)}, ${num(mast.best.diffractionDb)} dB`,
    })
  }
  labels.reserve(0, y - 40, 330, 90)
}

function drawRooms(
  p: Primitive[],
  labels: LabelSpace,
  doc: JobDocument,
  a: Assessment,
  toX: (m: number) => number,
  toY: (m: number) => number,
  sign: 1 | -1,
): void {
  const site = doc.sites[0]!
  if (doc.jobs[0]!.kind !== 'home') return drawPlacesAboard(p, labels, doc, a, toX, toY, sign)
  for (const room of rooms(site, doc.spots, sign)) {
    const floor = toY(room.storey * site.storeyHeightM)
    const ceiling = toY((room.storey + 1) * site.storeyHeightM)
    const x1 = toX(room.fromM)
    const x2 = toX(room.toM)
    if (room.fromM > -site.lengthM / 2 + 0.05) p.push({ kind: 'line', style: 'inner', x1, y1: floor, x2: x1, y2: ceiling })
    const level = a.chain?.rooms.find(r => r.spot.id === room.spotId)
    if (level) {
      for (let x = x1 + 6; x < x2 - 4; x += 10)
        p.push({
          kind: 'line',
          style: level.met ? 'metHatch' : 'shortHatch',
          x1: x,
          y1: floor - 1,
          x2: Math.min(x + 7, x2),
          y2: floor - (level.met ? 6 : 11),
        })
      if (!level.met)
        p.push({
          kind: 'text',
          style: 'labelShort',
          x: (x1 + x2) / 2,
          y: ceiling + 16,
          text: x2 - x1 > 110 ? `below need: ${num(level.rsrpDbm)} dBm` : `short ${num(level.rsrpDbm)}`,
          anchor: 'middle',
        })
    }
    if (x2 - x1 > textWidth(room.name) + 6) {
      const y = floor - 9
      p.push({ kind: 'text', style: 'labelSoft', x: (x1 + x2) / 2, y, text: room.name, anchor: 'middle' })
      labels.reserve((x1 + x2) / 2 - textWidth(room.name) / 2, y - 12, textWidth(room.name), 16)
    }
  }
}

/** Aboard there are no rooms side by side: each place is named where it is. */
function drawPlacesAboard(
  p: Primitive[],
  labels: LabelSpace,
  doc: JobDocument,
  a: Assessment,
  toX: (m: number) => number,
  toY: (m: number) => number,
  sign: 1 | -1,
): void {
  const site = doc.sites[0]!
  for (const { node } of a.kit?.order ?? []) {
    if (node.role === 'router' || node.role === 'amplifier')
      labels.reserve(toX(along(site, node, sign)) - 32, toY(node.upM) - 15, 64, 30)
  }
  for (const s of doc.spots) labels.reserve(toX(along(site, s, sign)) - 5, toY(s.upM) - 6, 10, 12)
  for (const s of doc.spots.filter(s => s.indoors)) {
    const level = a.chain?.rooms.find(r => r.spot.id === s.id)
    const text = level && !level.met ? `${s.name}, short ${num(level.rsrpDbm)}` : s.name
    const x = toX(along(site, s, sign))
    p.push({
      kind: 'text',
      style: level && !level.met ? 'labelShort' : 'labelSoft',
      x,
      y: labels.place(x, toY(s.upM) + 18, textWidth(text), 'middle'),
      text,
      anchor: 'middle',
    })
  }
}

function drawSpots(
  p: Primitive[],
  handles: SectionView['handles'],
  labels: LabelSpace,
  doc: JobDocument,
  toX: (m: number) => number,
  toY: (m: number) => number,
  sign: 1 | -1,
  site: Site,
  o: SectionOptions,
): void {
  for (const s of doc.spots) {
    const x = toX(along(site, s, sign))
    const y = toY(s.upM)
    handles.push({ id: s.id, kind: 'spot', x, y, label: s.name, draggable: true })
    p.push({ kind: 'circle', style: 'hollow', x, y, r: s.needed ? 4.5 : 3, id: s.id })
    if (!s.indoors && !o.compact) {
      const anchor = x < toX(-site.lengthM / 2) ? ('end' as const) : ('start' as const)
      const lx = anchor === 'end' ? x - 9 : x + 9
      p.push({
        kind: 'text',
        style: 'labelSoft',
        x: lx,
        y: labels.place(lx, y + 4, textWidth(s.name), anchor),
        text: s.name,
        anchor,
      })
    }
  }
}

/** The outline of an antenna, seen from the side, looking left. */
function antennaShape(p: Primitive[], shape: string, x: number, y: number, s: number, id: string): void {
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    p.push({ kind: 'line', style: 'antenna', x1: x + x1 * s, y1: y + y1 * s, x2: x + x2 * s, y2: y + y2 * s, id })
  if (shape === 'log-periodic' || shape === 'Yagi') {
    line(-42, 0, 0, 0)
    for (const [at, half] of [
      [-40, 6],
      [-31, 9],
      [-22, 12],
      [-12, 15],
      [-3, 18],
    ] as const)
      line(at, -half, at, half)
  } else if (shape === 'panel') p.push({ kind: 'rect', style: 'part', x: x - 9 * s, y: y - 17 * s, w: 9 * s, h: 34 * s, id })
  else if (shape === 'dome') {
    p.push({ kind: 'rect', style: 'part', x: x - 6, y: y - 8, w: 12, h: 8, id })
    p.push({
      kind: 'path',
      style: 'solid',
      d: polyline(
        [
          [x - 13, y],
          [x + 13, y],
          [x + 8, y + 10],
          [x - 8, y + 10],
        ],
        true,
      ),
      id,
    })
  } else {
    line(0, 0, 0, -30)
    p.push({ kind: 'rect', style: 'solid', x: x - 2.5, y: y - 30 * s, w: 5, h: 24 * s, id })
  }
}

function drawKit(
  p: Primitive[],
  handles: SectionView['handles'],
  labels: LabelSpace,
  doc: JobDocument,
  a: Assessment,
  toX: (m: number) => number,
  toY: (m: number) => number,
  sign: 1 | -1,
  site: Site,
  o: SectionOptions,
): void {
  const kit = a.kit
  if (!kit) return
  const at = (n: Node) => [toX(along(site, n, sign)), toY(n.upM)] as const
  // Runs first, so that parts stand over their cables.
  kit.order.slice(1).forEach((step, i) => {
    if (!step.run) return
    const [x1, y1] = at(kit.order[i]!.node)
    const [x2, y2] = at(step.node)
    const assumed = !step.run.measured
    p.push({
      kind: 'path',
      style: assumed ? 'assumed' : 'cable',
      d: cablePath(kit.order[i]!.node, step.node, x1, y1, x2, y2, toY(site.storeyHeightM - 0.12), doc.jobs[0]!.kind),
      id: step.run.id,
      title: `${step.line?.name ?? 'line'}, ${length(step.run.lengthM, o.units)}`,
    })
  })
  const loop = a.chain?.loop
  if (loop && kit.outside && kit.inside) {
    const [x1, y1] = at(kit.outside.node)
    const [x2, y2] = at(kit.inside.node)
    p.push({ kind: 'line', style: loop.state === 'stable' ? 'loopGood' : 'loop', x1, y1, x2, y2 })
    const text1 = `isolation ${num(loop.isolationDb)} dB, needs ${num(loop.neededDb)}`
    const text2 =
      loop.state === 'stable'
        ? 'stable'
        : loop.state === 'oscillating'
          ? 'it will oscillate'
          : `gain held back by ${num(loop.heldBackDb)} dB`
    const w = Math.max(textWidth(text1), textWidth(text2)) + 22
    const bx = Math.min(o.width - w - 8, x1 + (x2 - x1) * 0.2 + 14)
    const by = y1 + (y2 - y1) * 0.22
    p.push({ kind: 'rect', style: loop.state === 'stable' ? 'calloutPlain' : 'calloutFill', x: bx, y: by, w, h: 42, id: 'loop' })
    p.push({
      kind: 'text',
      style: loop.state === 'stable' ? 'labelBold' : 'labelShort',
      x: bx + 10,
      y: by + 17,
      text: text1,
      id: 'loop',
    })
    p.push({ kind: 'text', style: 'label', x: bx + 10, y: by + 34, text: text2, id: 'loop' })
    labels.reserve(bx, by, w, 42)
  }
  for (const { node } of kit.order) {
    const [x, y] = at(node)
    handles.push({ id: node.id, kind: 'node', x, y, label: node.role, draggable: true })
    if (node.role === 'outside') {
      const foot = Math.min(toY(standsOnM(doc.jobs[0]!.kind, site, along(site, node, sign))), toY(Math.max(0, node.upM - 2.2)))
      p.push({ kind: 'line', style: 'pole', x1: x, y1: y - 10, x2: x, y2: Math.max(foot, y + 16) })
      antennaShape(p, kit.outside!.part.shape, x, y, o.compact ? 0.8 : 1, node.id)
    } else if (node.role === 'inside') antennaShape(p, kit.inside?.part.shape ?? 'dome', x, y, 0.8, node.id)
    else if (node.role === 'arrestor') {
      p.push({ kind: 'rect', style: 'part', x: x - 8, y: y - 9, w: 16, h: 18, id: node.id })
      const groundY = toY(0)
      p.push({
        kind: 'path',
        style: 'earth',
        d: polyline([
          [x - 8, y],
          [x - 22, y],
          [x - 22, groundY + 24],
        ]),
      })
      p.push({ kind: 'line', style: 'earth', x1: x - 30, y1: groundY + 24, x2: x - 14, y2: groundY + 24 })
      if (!o.compact) p.push({ kind: 'text', style: 'labelMet', x: x - 34, y: groundY + 18, text: 'earth', anchor: 'end' })
    } else if (node.role === 'pad') p.push({ kind: 'rect', style: 'solid', x: x - 5, y: y - 4, w: 10, h: 8, id: node.id })
    else {
      const word = node.role === 'amplifier' ? 'amp' : 'router'
      const w = textWidth(word) + 14
      p.push({ kind: 'rect', style: 'solid', x: x - w / 2, y: y - 13, w, h: 26, id: node.id })
      p.push({ kind: 'text', style: 'labelInverse', x, y: y + 4.5, text: word, anchor: 'middle', id: node.id })
    }
  }
}

/** Down the wall outside with a drip loop at the entrance; along ceilings inside. */
function cablePath(
  from: Node,
  to: Node,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  ceilingY: number,
  kind: 'home' | 'vehicle' | 'boat',
): string {
  if (kind !== 'home')
    return polyline([
      [x1, y1],
      [x1, y2],
      [x2, y2],
    ])
  if (from.role === 'outside') return `M${x1} ${y1}C${x1 + 4} ${y1 + 26} ${x2 + 2} ${y1 + 40} ${x2} ${y1 + 70}L${x2} ${y2 - 9}`
  if (from.role === 'arrestor') {
    const dip = Math.max(y1, y2) + 16
    return `M${x1} ${y1 + 9}C${x1} ${dip + 6} ${x1 + 16} ${dip + 6} ${x1 + 20} ${dip - 8}L${x1 + 20} ${y2}L${x2 - 14} ${y2}`
  }
  if (to.role === 'inside')
    return polyline([
      [x1 + 14, y1],
      [x1 + 26, y1],
      [x1 + 26, ceilingY],
      [x2, ceilingY],
      [x2, y2 - 8],
    ])
  return polyline([
    [x1, y1],
    [x2, y1],
    [x2, y2],
  ])
}

const strokeOf: Record<Provenance, 'measured' | 'computed' | 'assumed'> = {
  measured: 'measured',
  computed: 'computed',
  assumed: 'assumed',
}

function drawLevels(
  p: Primitive[],
  chain: Chain,
  doc: JobDocument,
  site: Site,
  sign: 1 | -1,
  toX: (m: number) => number,
  top: number,
  height: number,
  o: SectionOptions,
): void {
  const offset = -totalToRsrpDbm(0, chain.resourceBlocks)
  const need = chain.rooms[0] ? chain.rooms[0].needDbm + offset : null
  const levels = [
    ...chain.stages.map(s => s.levelDbm),
    ...chain.rooms.map(r => r.rsrpDbm + offset),
    ...(need !== null ? [need] : []),
    ...(chain.amplifier ? [chain.amplifier.outputLimitDbm] : []),
  ]
  const high = Math.ceil((Math.max(...levels) + 14) / 20) * 20
  const low = Math.floor((Math.min(...levels) - 12) / 20) * 20
  const axis = 16
  const y = (dbm: number) => top + axis + 8 + ((high - dbm) / (high - low)) * (height - axis - 20)
  p.push({ kind: 'rect', style: 'paper', x: 0, y: top, w: o.width, h: height })
  const labels = new LabelSpace(14)
  const bounds: [number, number] = [top + 4, top + height - 4]
  p.push({
    kind: 'text',
    style: 'labelSoft',
    x: 12,
    y: top + 18,
    text: o.compact
      ? 'dBm a carrier'
      : `dBm per carrier, ${chain.kit.band.name} ${num(chain.kit.frequencyMHz)} MHz, ${num(chain.bandwidthMHz)} MHz ` +
        `wide${chain.bandwidthAssumed ? ' assumed' : ''}`,
  })
  labels.reserve(0, top + 4, o.compact ? 90 : 360, 18)
  const grid = high - low > 100 ? 40 : 20
  for (let d = high; d >= low; d -= grid) {
    if (y(d) < top + 26) continue
    p.push({ kind: 'line', style: 'grid', x1: 46, y1: y(d), x2: o.width - 16, y2: y(d) })
    p.push({ kind: 'text', style: 'figureSoft', x: 38, y: y(d) + 4, text: num(d), anchor: 'end' })
  }
  const nodeX = (id: string) => {
    const n = doc.nodes.find(k => k.id === id)
    return n ? toX(along(site, n, sign)) : 0
  }
  const air = chain.stages[0]!
  let x = 46
  let level = air.levelDbm
  const words: { x: number; y: number; text: string; style: Primitive['style']; anchor: 'start' | 'middle' | 'end' }[] = []
  const outsideX = nodeX(chain.kit.outside!.node.id)
  p.push({ kind: 'line', style: strokeOf[air.provenance], x1: x, y1: y(level), x2: outsideX, y2: y(level) })
  words.push({
    x: 56,
    y: y(level) + 18,
    text: `${air.label}${chain.start.heightGainDb ? `, ${signed(chain.start.heightGainDb, 1)} dB by height` : ''}`,
    style: 'labelSoft',
    anchor: 'start',
  })
  x = outsideX
  for (const s of chain.stages.slice(1)) {
    const before = level
    level = s.levelDbm
    if (s.kind === 'line') {
      const run = doc.runs.find(r => r.id === s.subjectId)
      const toId = run?.toNodeId
      const x2 = toId ? nodeX(toId) : x
      p.push({ kind: 'line', style: strokeOf[s.provenance], x1: x, y1: y(before), x2, y2: y(level) })
      x = x2
      continue
    }
    const nx = nodeX(s.subjectId)
    p.push({ kind: 'line', style: 'drop', x1: nx, y1: top, x2: nx, y2: y(level) })
    if (s.kind === 'amplifier') {
      p.push({ kind: 'line', style: 'computed', x1: nx - 18, y1: y(before), x2: nx + 18, y2: y(level) })
      x = nx + 18
      const lim = chain.amplifier!.outputLimitDbm
      p.push({ kind: 'line', style: 'limit', x1: nx - 24, y1: y(lim), x2: nx + 34, y2: y(lim) })
      words.push({
        x: nx + 40,
        y: y(lim) + 4,
        text: `output limit ${signed(lim)}, ${chain.amplifier!.carriers} carriers${chain.amplifier!.carriersAssumed ? ' assumed' : ''}`,
        style: 'labelShort',
        anchor: 'start',
      })
      words.push({
        x: nx - 24,
        y: (y(before) + y(level)) / 2,
        text: `${signed(s.gainDb)} of ${num(chain.kit.amplifier!.part.gainDb)}`,
        style: 'label',
        anchor: 'end',
      })
    } else {
      p.push({ kind: 'line', style: strokeOf[s.provenance], x1: nx, y1: y(before), x2: nx, y2: y(level) })
      x = nx
    }
  }
  chain.stages.slice(1).forEach(s => {
    if (s.kind === 'line') return
    const nx = nodeX(s.subjectId) + (s.kind === 'amplifier' ? 18 : 0)
    p.push({ kind: 'circle', style: 'dot', x: nx, y: y(s.levelDbm), r: 3.6, id: s.subjectId })
  })
  const antenna = chain.stages.find(s => s.kind === 'antenna')!
  words.push({
    x: outsideX - 12,
    y: y(antenna.levelDbm) - 10,
    text: `antenna ${signed(antenna.gainDb, 1)} → ${num(antenna.levelDbm)}`,
    style: 'labelBold',
    anchor: 'end',
  })
  const port = chain.stages.find(s => s.kind === 'amplifier' || s.kind === 'router')
  if (port) {
    // Aboard the box may stand on the mast's side of its antenna: its words keep clear of the line.
    const px = Math.max(nodeX(port.subjectId), outsideX)
    words.push({
      x: px + 12,
      y: y(chain.portDbm) + 18,
      text:
        port.kind === 'router'
          ? `${num(chain.portDbm)} at the modem, RSRP ${num(chain.portRsrpDbm)}`
          : `${num(chain.portDbm)} in`,
      style: 'figure',
      anchor: 'start',
    })
    words.push({
      x: outsideX - 12,
      y: y(chain.portDbm) + 36,
      text: `${length(
        chain.kit.order.reduce(
          (sum, st) =>
            sum +
            (st.run && chain.stages.findIndex(g => g.subjectId === st.run!.id) < chain.stages.indexOf(port) ? st.run.lengthM : 0),
          0,
        ),
        o.units,
      )} of line${chain.kit.arrestor ? ' and arrestor' : ''} −${num(chain.feedLossDb, 1)}`,
      style: 'labelSoft',
      anchor: 'end',
    })
  }
  drawIndoor(p, words, chain, site, sign, toX, y, offset, need, o, top, height)
  if (chain.rooms.length === 0 && port?.kind === 'router' && !o.compact)
    words.push({
      x: Math.max(nodeX(port.subjectId), outsideX) + 12,
      y: y(chain.portDbm) - 12,
      text: 'from here on it is Wi-Fi or Ethernet',
      style: 'labelSoft',
      anchor: 'start',
    })
  // On the roof only what answers “does it come out?” is written.
  for (const w of o.compact
    ? words.filter(x => x.style === 'figure' || x.style === 'figureShort' || x.style === 'labelShort')
    : words) {
    const long = textWidth(w.text)
    const wx = w.anchor === 'start' ? Math.min(w.x, o.width - long - 6) : Math.max(w.x, long + 4)
    p.push({
      kind: 'text',
      style: w.style,
      x: wx,
      y: labels.place(wx, w.y, long, w.anchor, bounds),
      text: w.text,
      anchor: w.anchor,
    })
  }
  if (!o.compact) legend(p, o.width, top)
}

function drawIndoor(
  p: Primitive[],
  words: { x: number; y: number; text: string; style: Primitive['style']; anchor: 'start' | 'middle' | 'end' }[],
  chain: Chain,
  site: Site,
  sign: 1 | -1,
  toX: (m: number) => number,
  y: (dbm: number) => number,
  offset: number,
  need: number | null,
  o: SectionOptions,
  top: number,
  height: number,
): void {
  if (!chain.rooms.length || need === null || !chain.kit.inside) return
  p.push({ kind: 'rect', style: 'bad', x: o.width * 0.44, y: y(need), w: o.width * 0.56 - 16, h: top + height - 4 - y(need) })
  p.push({ kind: 'line', style: 'badLine', x1: o.width * 0.44, y1: y(need), x2: o.width - 16, y2: y(need) })
  words.push({ x: o.width - 18, y: y(need) - 6, text: `phones need ${num(need)}`, style: 'labelShort', anchor: 'end' })
  const inside = chain.kit.inside.node
  const from = along(site, inside, sign)
  const fed = chain.stages.find(s => s.kind === 'inside')!.levelDbm
  const storey = storeyOf(site, inside.upM - 0.01)
  for (const side of [-1, 1]) {
    const points: [number, number][] = []
    for (let d = 0.3; d <= site.lengthM; d *= 1.25) {
      const m = from + side * d
      if (Math.abs(m) > site.lengthM / 2) break
      points.push([
        toX(m),
        y(fed - indoorLossDb(Math.hypot(d, inside.upM - storey * site.storeyHeightM - 1), chain.kit.frequencyMHz, 0) - 3),
      ])
    }
    if (points.length > 1) p.push({ kind: 'path', style: 'computed', d: polyline([[toX(from), y(fed)], ...points]) })
  }
  for (const r of chain.rooms) {
    const rx = toX(along(site, r.spot, sign))
    const ry = y(r.rsrpDbm + offset)
    p.push({ kind: 'circle', style: r.met ? 'dot' : 'block', x: rx, y: ry, r: 3.6, id: r.spot.id })
    words.push({
      x: rx + 7,
      y: ry + 5,
      text: `${num(r.rsrpDbm + offset)} ${r.spot.name.toLowerCase()}`,
      style: r.met ? 'figure' : 'figureShort',
      anchor: 'start',
    })
  }
}

function legend(p: Primitive[], width: number, top: number): void {
  const y = top + 18
  let x = width - 300
  for (const kind of ['measured', 'computed', 'assumed'] as const) {
    p.push({ kind: 'line', style: kind, x1: x, y1: y - 4, x2: x + 26, y2: y - 4 })
    p.push({ kind: 'text', style: 'label', x: x + 32, y, text: kind })
    x += 100
  }
}
