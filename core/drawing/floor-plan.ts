/** The site from above: one floor with its walls, rooms, parts and cables; with a map of coverage where one was made. */
import { nth, sure } from '../sure'
import { movesAbout, siteOf } from '../job/schema'
import type { AntennaNode, TreeNode } from '../chain/tree'
import { facingOf } from '../chain/tree'
import { needAt } from '../coverage/floor'
import type { FloorCoverage } from '../coverage/floor'
import { levelAt } from '../coverage/map'
import type { Assessment } from '../judge/assess'
import type { JobDocument, Node } from '../job/schema'
import { toRad } from '../geo/angles'
import { buildingOf, floorAt, fromLocal, inside, toLocal } from '../site/building'
import type { Building } from '../site/building'
import { axisSign, between, round2 } from '../site/frame'
import { bearing, length, num } from '../units'
import type { Units } from '../units'
import type { Drawing, LabelWish, Primitive } from './primitives'
import { LabelSpace, polyline, textWidth } from './primitives'
import { drawPins } from './pins'
import type { Pinboard } from './pins'
import { boxWord, isBox, nameParts, numberOf, roleOf } from './section'

export interface PlanHandle {
  id: string
  /** `turn` is the end of an antenna's facing */
  kind: 'node' | 'spot' | 'turn' | 'fixture' | 'photo'
  x: number
  y: number
  label: string
  /** of a part: what it does in the design */
  role?: string
}

export interface PlanView {
  drawing: Drawing
  handles: PlanHandle[]
  /** a place on the drawing in the site frame */
  toSite: (x: number, y: number) => { eastM: number; northM: number }
  toXY: (p: { eastM: number; northM: number }) => [number, number]
}

export interface PlanOptions {
  width: number
  height: number
  units: Units
  /** the floor shown; every part of it is drawn, and what stands on the roof or outside besides */
  level: number
  coverage?: FloorCoverage | null
  /** a wall that is being drawn, or one more point of it */
  pending?: readonly { eastM: number; northM: number }[]
  /** places where antennas are proposed, with the share that is served with each */
  proposed?: readonly { eastM: number; northM: number; share: number }[]
  compact?: boolean
  /** sockets, roof units, a satellite terminal and photographs are drawn where they are */
  pins?: boolean
  /** a picture lies under it */
  hollow?: boolean
}

const MARGIN_PX = 26
/** What stands further outside than this does not widen the drawing, m. */
const OUTSIDE_M = 4

interface Sheet {
  p: Primitive[]
  labels: LabelSpace
  handles: PlanHandle[]
  doc: JobDocument
  a: Assessment
  building: Building
  toXY: PlanView['toXY']
  o: PlanOptions
  perM: number
}

export function layoutPlan(doc: JobDocument, a: Assessment, o: PlanOptions): PlanView {
  const site = siteOf(doc)
  const building = buildingOf(doc)
  const sign = axisSign(site, a.chosen?.path ? a.chosen.frameBearingDeg : null)
  const reach = (half: number, values: readonly number[]) => Math.min(half + OUTSIDE_M, Math.max(half, ...values.map(Math.abs)))
  const shown = (a.tree?.nodes ?? []).map(n => toLocal(building, n.node))
  const halfX = reach(
    building.halfLengthM,
    shown.map(p => p[0]),
  )
  const halfY = reach(
    building.halfDepthM,
    shown.map(p => p[1]),
  )
  const perM = Math.min((o.width - 2 * MARGIN_PX) / (2 * halfX), (o.height - 2 * MARGIN_PX - 14) / (2 * halfY))
  const cx = o.width / 2
  const cy = (o.height - 10) / 2
  // Turned with the section, never mirrored: across is clockwise of along.
  const toXY = (q: { eastM: number; northM: number }): [number, number] => {
    const [x, y] = toLocal(building, { ...q, upM: 0 })
    return [cx + sign * x * perM, cy + sign * y * perM]
  }
  const toSite = (px: number, py: number) => {
    const x = (sign * (px - cx)) / perM
    const y = (sign * (py - cy)) / perM
    const at = fromLocal(building.axisDeg, x, y)
    return { eastM: round2(at.eastM), northM: round2(at.northM) }
  }
  const p: Primitive[] = []
  const labels = new LabelSpace(14, { x: 2, y: 2, w: o.width - 4, h: o.height - 4 - FRAME_PX })
  const s: Sheet = { p, labels, handles: [], doc, a, building, toXY, o, perM }
  const [x, y, w, h] = [
    cx - building.halfLengthM * perM,
    cy - building.halfDepthM * perM,
    2 * building.halfLengthM * perM,
    2 * building.halfDepthM * perM,
  ]
  p.push({ kind: 'rect', style: o.hollow ? 'outline' : 'wall', x, y, w, h })
  for (const [x1, y1, x2, y2] of [
    [x, y, x + w, y],
    [x, y + h, x + w, y + h],
    [x, y, x, y + h],
    [x + w, y, x + w, y + h],
  ] as const)
    labels.keepOff(x1, y1, x2, y2)
  // Before any name is written: places proposed have a figure of their own in them.
  for (const q of o.proposed ?? []) {
    const [qx, qy] = toXY(q)
    labels.reserve(qx - 12, qy - 12, 24, 24)
  }
  if (o.coverage) drawCoverage(s, o.coverage, { x, y, w, h }, toSite)
  drawWalls(s)
  const pinNames = o.pins ? drawPins(pinboard(s), doc) : []
  drawSpots(s)
  drawRuns(s)
  drawParts(s)
  const distances = drawDistances(s)
  drawMast(s)
  nameSpots(s)
  numberAntennas(s)
  for (const w of distances) labels.put(p, w)
  drawProposed(s)
  drawPending(s)
  for (const w of pinNames) labels.put(p, w)
  nameParts(
    s,
    shownParts(s).map(at => {
      const [px, py] = toXY(at.node)
      return { at, x: px, y: py }
    }),
  )
  if (o.coverage) writeLevels(s, o.coverage, { x, y, w, h }, toSite)
  drawFrame(s, { x, y, w, h })
  return { drawing: { width: o.width, height: o.height, primitives: p }, handles: s.handles, toSite, toXY }
}

const pinboard = (s: Sheet): Pinboard => ({
  p: s.p,
  labels: s.labels,
  handles: s.handles,
  xy: at => (!inside(s.building, at) || onFloor(s, at.upM) ? s.toXY(at) : null),
  perM: s.perM,
  side: false,
  look: (at, deg) => direction(s, at, deg),
  named: !s.o.compact,
  moves: movesAbout(s.building.kind),
})

interface Area {
  x: number
  y: number
  w: number
  h: number
}

/** Hatch: short of the need heavy and close, up to 10 dB over it light, well served left white. */
const HATCH_PX = 9
const WELL_OVER_DB = 10

function drawCoverage(s: Sheet, c: FloorCoverage, area: Area, toSite: PlanView['toSite']): void {
  let short = ''
  let just = ''
  for (let y = area.y + HATCH_PX / 2; y < area.y + area.h; y += HATCH_PX)
    for (let x = area.x + HATCH_PX / 2; x < area.x + area.w; x += HATCH_PX) {
      const [lx, ly] = toLocal(s.building, { ...toSite(x, y), upM: 0 })
      const level = levelAt(c.map, lx, ly)
      if (level === null) continue
      const need = needAt(c, lx, ly)
      if (level >= need + WELL_OVER_DB) continue
      if (level < need) short += `M${r1(x - 4)} ${r1(y + 4)}L${r1(x + 4)} ${r1(y - 4)}`
      else just += `M${r1(x - 1.5)} ${r1(y + 1.5)}L${r1(x + 1.5)} ${r1(y - 1.5)}`
    }
  if (short) s.p.push({ kind: 'path', style: 'coverShort', d: short })
  if (just) s.p.push({ kind: 'path', style: 'coverJust', d: just })
}

const r1 = (v: number): number => Math.round(v * 10) / 10
/** A figure each so many pixels, where nothing else is written. */
const FIGURE_X_PX = 74
const FIGURE_Y_PX = 46

function writeLevels(s: Sheet, c: FloorCoverage, area: Area, toSite: PlanView['toSite']): void {
  const columns = Math.max(2, Math.round(area.w / FIGURE_X_PX))
  const rows = Math.max(2, Math.round(area.h / FIGURE_Y_PX))
  for (let r = 0; r < rows; r++)
    for (let k = 0; k < columns; k++) {
      const x = area.x + ((k + 0.5) * area.w) / columns
      const y = area.y + ((r + 0.5) * area.h) / rows
      const [lx, ly] = toLocal(s.building, { ...toSite(x, y), upM: 0 })
      const level = levelAt(c.map, lx, ly)
      if (level === null) continue
      const text = num(level)
      const w = textWidth(text, 'figure') + 4
      if (
        !s.labels.put(s.p, {
          x,
          y: y + 4,
          anchor: 'middle',
          style: level < needAt(c, lx, ly) ? 'figureShort' : 'figure',
          text,
          optional: true,
          within: { x: x - w / 2 - 3, y: y - 16, w: w + 8, h: 28 },
        })
      )
        continue
      // The figure stands on a clean patch, under it the hatch.
      const written = sure(s.p.pop())
      s.p.push({ kind: 'rect', style: 'sheet', x: x - w / 2, y: y - 8, w, h: 15 }, written)
    }
}

function drawWalls(s: Sheet): void {
  const floor = s.building.floors[s.o.level]
  for (const w of s.doc.walls) {
    if (w.level !== s.o.level || !floor) continue
    const [x1, y1] = s.toXY({ eastM: w.fromEastM, northM: w.fromNorthM })
    const [x2, y2] = s.toXY({ eastM: w.toEastM, northM: w.toNorthM })
    const heavy = HEAVY.has(w.material)
    s.p.push({
      kind: 'line',
      style: heavy ? 'planHeavy' : 'planWall',
      x1,
      y1,
      x2,
      y2,
      id: w.id,
      title: `${w.material}${w.lossDb !== null ? `, ${num(w.lossDb)} dB measured` : ''}`,
    })
    s.labels.keepOff(x1, y1, x2, y2)
  }
}

const HEAVY: ReadonlySet<string> = new Set(['brick', 'block', 'concrete', 'reinforced concrete', 'sheet metal', 'foil'])

const onFloor = (s: Sheet, upM: number): boolean => floorAt(s.building.floors, upM).level === s.o.level

function drawSpots(s: Sheet): void {
  for (const spot of s.doc.spots) {
    if (!spot.indoors || !onFloor(s, spot.upM)) continue
    const [x, y] = s.toXY(spot)
    s.p.push({ kind: 'circle', style: 'hollow', x, y, r: spot.needed ? 4.5 : 3, id: spot.id })
    s.labels.reserve(x - 6, y - 6, 12, 12)
    s.handles.push({ id: spot.id, kind: 'spot', x, y, label: spot.name })
  }
}

/** Names of the rooms, off every cable and ray. */
function nameSpots(s: Sheet): void {
  for (const spot of s.doc.spots) {
    if (!spot.indoors || !onFloor(s, spot.upM)) continue
    const [x, y] = s.toXY(spot)
    const room = s.o.coverage?.rooms.find(r => r.spot.id === spot.id)
    const text = room ? `${spot.name} ${num(100 * room.share)} %` : spot.name
    s.labels.put(s.p, {
      x,
      y: y + 18,
      anchor: 'middle',
      style: room && room.share < SERVED ? 'labelShort' : room ? 'labelBold' : 'labelSoft',
      text,
      optional: !room,
    })
  }
}

/** A room is served where so much of it is. Assumed. */
const SERVED = 0.95

/** Parts of this floor, and the donors, which stand over all of them. */
const isShown = (s: Sheet, n: TreeNode): boolean =>
  onFloor(s, n.node.upM - 0.01) || !!s.a.tree?.donors.some(d => d.node.id === n.node.id)
const shownParts = (s: Sheet): TreeNode[] => (s.a.tree?.nodes ?? []).filter(n => isShown(s, n))

function drawRuns(s: Sheet): void {
  for (const j of s.a.tree?.joints ?? []) {
    if (!isShown(s, j.from.at) && !isShown(s, j.to.at)) continue
    // As its way was drawn: what climbs stands on one spot from above.
    const stations = [j.from.at.node, ...(j.run.way ?? []), j.to.at.node].map(p => s.toXY(p))
    const points = stations.filter(
      (p, i) => !i || Math.hypot(p[0] - nth(stations, i - 1)[0], p[1] - nth(stations, i - 1)[1]) >= 3,
    )
    if (points.length < 2) continue
    const known = j.run.measured || !j.run.partId || !!j.run.way?.length
    s.p.push({ kind: 'path', style: known ? 'planRun' : 'planRunAssumed', d: polyline(points), id: j.run.id })
    for (let i = 1; i < points.length; i++) s.labels.keepOff(...nth(points, i - 1), ...nth(points, i))
  }
}

/** Length of the line that shows which way an antenna looks, px. */
const FACING_PX = 34

function drawParts(s: Sheet): void {
  const { tree } = s.a
  if (!tree) return
  const shown = shownParts(s)
  for (const n of [...shown.filter(m => !isBox(m)), ...shown.filter(isBox)]) {
    const [x, y] = s.toXY(n.node)
    const role = roleOf(tree, n)
    s.handles.push({ id: n.node.id, kind: 'node', x, y, label: n.name, role })
    if (n.part.kind === 'antenna') drawAntenna(s, n as AntennaNode, { role, x, y })
    else if (isBox(n)) {
      const word = boxWord(n)
      const w = textWidth(word, 'labelInverse') + 10
      s.p.push({ kind: 'rect', style: 'solid', x: x - w / 2, y: y - 10, w, h: 20, id: n.node.id })
      s.p.push({ kind: 'text', style: 'labelInverse', x, y: y + 4, text: word, anchor: 'middle', id: n.node.id })
      s.labels.reserve(x - w / 2, y - 10, w, 20)
    } else if (n.part.kind === 'splitter' || n.part.kind === 'tap' || n.part.kind === 'injector' || n.part.kind === 'source')
      s.p.push({ kind: 'rect', style: 'part', x: x - 4, y: y - 4, w: 8, h: 8, id: n.node.id })
    else s.p.push({ kind: 'circle', style: 'dot', x, y, r: 2.2, id: n.node.id })
  }
}

function drawAntenna(s: Sheet, n: AntennaNode, { role, x, y }: { role: string; x: number; y: number }): void {
  const { tree, chosen } = s.a
  const round = n.part.shape === 'dome' || n.part.ranges.every(r => r.beamwidthDeg >= 180)
  const looks = role === 'inside' ? facingOf(tree!, n) : (n.node.azimuthDeg ?? (chosen?.path ? chosen.frameBearingDeg : 0))
  if (!round) {
    const [dx, dy] = direction(s, n.node, looks)
    const half = Math.min(80, nth(n.part.ranges, 0).beamwidthDeg) / 2
    const [ax, ay] = direction(s, n.node, looks - half)
    const [bx, by] = direction(s, n.node, looks + half)
    s.p.push({
      kind: 'path',
      style: 'beam',
      d: polyline(
        [
          [x, y],
          [x + ax * FACING_PX, y + ay * FACING_PX],
          [x + bx * FACING_PX, y + by * FACING_PX],
        ],
        true,
      ),
    })
    s.p.push({ kind: 'line', style: 'beamLine', x1: x, y1: y, x2: x + dx * FACING_PX, y2: y + dy * FACING_PX })
    s.labels.keepOff(x, y, x + dx * FACING_PX, y + dy * FACING_PX)
    s.handles.push({ id: n.node.id, kind: 'turn', x: x + dx * FACING_PX, y: y + dy * FACING_PX, label: n.name, role })
  }
  s.p.push({ kind: 'circle', style: role === 'inside' ? 'antennaIn' : 'antennaOut', x, y, r: 7, id: n.node.id })
  if (role === 'inside') s.p.push({ kind: 'circle', style: 'dot', x, y, r: 2.4, id: n.node.id })
  s.labels.reserve(x - 9, y - 9, 18, 18)
}

/** More inside antennas than these are told apart by numbers. */
const FEW_ANTENNAS = 4
/** A number stands so near its antenna, px. */
const NUMBER_PX = { aside: 9, over: 7, within: { x: -24, y: -26, w: 56, h: 44 } }

/** By its number an antenna is found on the list, the labels and the card. */
function numberAntennas(s: Sheet): void {
  const servers = s.a.tree?.servers ?? []
  // Over hatched floors the figures of the cells speak.
  if (servers.length <= FEW_ANTENNAS || s.o.coverage) return
  const inside = new Set(servers.map(n => n.node.id))
  for (const n of shownParts(s)) {
    const number = numberOf(n)
    if (!number || !inside.has(n.node.id)) continue
    const [x, y] = s.toXY(n.node)
    const { within } = NUMBER_PX
    s.labels.put(s.p, {
      x: x + NUMBER_PX.aside,
      y: y - NUMBER_PX.over,
      style: 'small',
      text: number,
      optional: true,
      within: { ...within, x: x + within.x, y: y + within.y },
    })
  }
}

/** Unit vector on the drawing of a bearing in the site frame. */
function direction(s: Sheet, at: Pick<Node, 'eastM' | 'northM'>, azimuthDeg: number): [number, number] {
  const t = toRad(azimuthDeg)
  const [x0, y0] = s.toXY(at)
  const [x1, y1] = s.toXY({ eastM: at.eastM + Math.sin(t), northM: at.northM + Math.cos(t) })
  const d = Math.hypot(x1 - x0, y1 - y0)
  return [(x1 - x0) / d, (y1 - y0) / d]
}

/** How far donor and inside antenna stand apart, along and up: what the quick rule asks for. @returns the words of it */
function drawDistances(s: Sheet): LabelWish[] {
  return s.a.loops.flatMap((loop): LabelWish[] => {
    const { donor, server } = loop.worst
    if (!isShown(s, server)) return []
    const [x1, y1] = s.toXY(donor.node)
    const [x2, y2] = s.toXY(server.node)
    s.p.push({ kind: 'line', style: loop.isSure ? 'loopGood' : 'loop', x1, y1, x2, y2 })
    s.labels.keepOff(x1, y1, x2, y2)
    const g = between(donor.node, server.node)
    return [
      {
        x: (x1 + x2) / 2,
        y: (y1 + y2) / 2 - 8,
        anchor: 'middle',
        style: 'label',
        text: `${length(g.groundM, s.o.units)} along, ${length(Math.abs(g.upM), s.o.units)} up`,
        // One pair is told; of several those that have the room: all of them stand in the isolation sheet.
        optional: s.a.loops.length > 1,
      },
    ]
  })
}

/** What the scale and the floor's name take at the foot, px. */
const FRAME_PX = 22

function drawMast(s: Sheet): void {
  const { chosen, tree } = s.a
  const donor = tree?.donors[0]
  if (!chosen?.path || !donor) return
  const [x, y] = s.toXY(donor.node)
  const [dx, dy] = direction(s, donor.node, chosen.frameBearingDeg)
  const reach = Math.min(
    dx ? Math.abs((dx > 0 ? s.o.width - x : x) / dx) : 1e6,
    dy ? Math.abs((dy > 0 ? s.o.height - FRAME_PX - y : y) / dy) : 1e6,
  )
  const end = Math.max(FACING_PX, reach - 4)
  s.p.push({ kind: 'line', style: 'mastRay', x1: x + dx * 8, y1: y + dy * 8, x2: x + dx * end, y2: y + dy * end })
  s.labels.keepOff(x + dx * 8, y + dy * 8, x + dx * end, y + dy * end)
  s.labels.put(s.p, {
    x: x + dx * end * 0.6,
    y: y + dy * end * 0.6 - 6,
    anchor: 'middle',
    style: 'labelBlue',
    text: `${chosen.mast.name} ${bearing(chosen.bearingDeg)}`,
    optional: s.o.compact,
  })
}

function drawProposed(s: Sheet): void {
  s.o.proposed?.forEach((q, i) => {
    const [x, y] = s.toXY(q)
    s.p.push({ kind: 'circle', style: 'proposed', x, y, r: 11 })
    s.p.push({ kind: 'text', style: 'labelBlue', x, y: y + 4.5, text: String(i + 1), anchor: 'middle' })
  })
}

function drawPending(s: Sheet): void {
  const points = (s.o.pending ?? []).map(q => s.toXY(q))
  if (points.length > 1) s.p.push({ kind: 'path', style: 'badLine', d: polyline(points) })
  for (const [x, y] of points) s.p.push({ kind: 'circle', style: 'pinChosen', x, y, r: 4 })
}

/** Which floor, how large, and where north is. */
function drawFrame(s: Sheet, area: Area): void {
  const floor = s.building.floors[s.o.level]
  const ashore = !movesAbout(s.building.kind)
  const name = !ashore ? 'from above' : (floor?.name ?? (s.o.level === 0 ? 'ground floor' : `floor ${s.o.level}`))
  const metres = (m: number) => length(m, s.o.units, 0)
  const bar = [1, 2, 5, 10, 20, 50].find(m => m * s.perM > 44) ?? 100
  const y = s.o.height - 10
  s.p.push({ kind: 'line', style: 'tickBold', x1: 10, y1: y, x2: 10 + bar * s.perM, y2: y })
  s.p.push({
    kind: 'text',
    style: 'labelSoft',
    x: 16 + bar * s.perM,
    y: y + 4,
    text: `${metres(bar)} · ${name} · ${metres(area.w / s.perM)} × ${metres(area.h / s.perM)}`,
  })
  const [dx, dy] = direction(s, { eastM: 0, northM: 0 }, 0)
  const [nx, ny] = [s.o.width - 20, s.o.height - 20]
  s.p.push({ kind: 'line', style: 'tickBold', x1: nx - dx * 11, y1: ny - dy * 11, x2: nx + dx * 11, y2: ny + dy * 11 })
  s.p.push({ kind: 'circle', style: 'dot', x: nx + dx * 11, y: ny + dy * 11, r: 3 })
  s.p.push({ kind: 'text', style: 'labelSoft', x: nx - dy * 12 - 4, y: ny + dx * 12 + 4, text: 'N', anchor: 'middle' })
}
