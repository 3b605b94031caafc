/** The section of the site to scale with the signal tree in it, and the level line under it on the same axis. */
import { nth } from '../sure'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import type { AntennaNode, Joint, Tree, TreeNode } from '../chain/tree'
import { facingOf, isCable, jointM, lineOf } from '../chain/tree'
import { shortName } from '../chain/names'
import type { Assessment } from '../judge/assess'
import type { JobDocument, Node, Site } from '../job/schema'
import type { Part } from '../job/part'
import { toRad } from '../geo/angles'
import { drawnWay } from '../fitting/lengths'
import { poleOf } from '../install/mounts'
import { earthLacks } from '../judge/demands'
import { surgesOf } from '../judge/route-surge'
import { buildingOf, inside } from '../site/building'
import type { Building } from '../site/building'
import { along, axisSign, ridgeM, rooms } from '../site/frame'
import { bearing, distance, length, num, numBeside } from '../units'
import type { Units } from '../units'
import { drawGround, drawHull, standsOnM } from './hull'
import { drawLevelLine } from './level-line'
import { drawPins } from './pins'
import type { Drawing, LabelWish, Primitive } from './primitives'
import { LabelSpace, polyline, textWidth, wrapped } from './primitives'

export interface SectionView {
  drawing: Drawing
  /** where each part and spot was drawn, for picking and dragging */
  handles: {
    id: string
    kind: 'node' | 'spot' | 'fixture' | 'photo'
    x: number
    y: number
    label: string
    /** of a part: what it does in the design */
    role?: string
    draggable: boolean
  }[]
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
  /** sockets, roof units, a satellite terminal and photographs are drawn where they are */
  pins?: boolean
  /** how long the conductor of each arrestor is, and whether its electrode is bonded, written beside it */
  surgeWords?: boolean
  /** how far apart the ends of a booster are, and what that isolates */
  loops?: boolean
  /** the cable whose pieces are numbered along its way */
  numberedRunId?: string | null
  /** what was read at a spot, written over it; parts from the end are left out where a room is too narrow for all */
  badges?: (spotId: string) => readonly string[]
}

/** What the layers of one drawing share. */
interface Sheet {
  p: Primitive[]
  labels: LabelSpace
  handles: SectionView['handles']
  doc: JobDocument
  a: Assessment
  site: Site
  building: Building
  sign: 1 | -1
  toX: (alongM: number) => number
  toY: (upM: number) => number
  groundY: number
  o: SectionOptions
}

/** @returns what the level line takes of a drawing: more where that is small */
export const levelHeightPx = (height: number, compact = false): number => Math.round(height * (compact ? 0.46 : 0.42))

const LEVEL_EMPTY = 'The level line starts when a mast or a reading on the band, and an antenna, are known.'

export function layoutSection(doc: JobDocument, a: Assessment, o: SectionOptions): SectionView {
  const site = siteOf(doc)
  const building = buildingOf(doc)
  const levelHeight = o.levels ? (o.levelHeight ?? levelHeightPx(o.height, o.compact)) : 0
  const pictureHeight = o.height - levelHeight
  const sign = axisSign(site, a.chosen?.path ? a.chosen.frameBearingDeg : null)
  const highest = (a.tree?.nodes ?? []).map(n => n.node.upM)
  const top = Math.max(ridgeM(site), building.eavesM, a.mountHeightM, ...highest, ...doc.spots.map(s => s.upM)) + 1.4
  const groundBand = Math.max(30, pictureHeight * 0.1)
  const roomAbove = pictureHeight - groundBand - (o.compact ? 16 : 34)
  const widest = Math.max(
    site.lengthM / 2,
    ...[...doc.spots, ...(a.tree?.nodes ?? []).map(n => n.node)].map(n => Math.abs(along(site, n, sign))),
  )
  const acrossPerM = o.compact ? (o.width / 2 - 22) / widest : (o.width * acrossShare(site, o)) / site.lengthM
  const perM = Math.min(roomAbove / top, acrossPerM)
  const groundY = pictureHeight - groundBand
  const centre = o.width * (o.compact ? 0.5 : site.lengthM > 20 ? (o.levels ? 0.43 : 0.55) : o.levels ? 0.46 : 0.5)
  const toX = (m: number) => centre + m * perM
  const toY = (m: number) => groundY - m * perM
  const p: Primitive[] = []
  const handles: SectionView['handles'] = []
  const labels = new LabelSpace(15, { x: 2, y: 2, w: o.width - 4, h: pictureHeight - 4 })
  const s: Sheet = { p, labels, handles, doc, a, site, building, sign, toX, toY, groundY, o }
  p.push({ kind: 'rect', style: 'sky', x: 0, y: 0, w: o.width, h: groundY })
  const beamWords = drawBeams(s)
  drawGround(p, building.kind, { width: o.width, y: groundY, h: groundBand })
  labels.keepOff(0, groundY, o.width, groundY)
  drawHull(p, labels, { building, site, at: { toX, toY, sign } })
  const named = drawRooms(s)
  const shares = drawTree(s)
  if (o.pins) drawSurges(s)
  drawSheets(s)
  for (const spot of doc.spots) {
    const [x, y] = place(s, spot)
    labels.reserve(x - 6, y - 6, 12, 12)
  }
  const moves = movesAbout(building.kind)
  const pinNames = o.pins
    ? drawPins({ p, labels, handles, xy: at => place(s, at), perM, side: true, named: !o.compact, moves }, doc)
    : []
  if (o.loops !== false) drawLoops(s)
  for (const w of [...beamWords, ...shares]) labels.put(p, w)
  numberPieces(s)
  drawSpots(s)
  for (const write of named) write()
  for (const w of pinNames) labels.put(p, w)
  nameParts(
    s,
    (a.tree?.nodes ?? []).map(at => {
      const [x, y] = place(s, at.node)
      return { at, x, y }
    }),
  )
  if (o.levels && a.levels)
    drawLevelLine(p, doc, a, { ...o, top: pictureHeight, height: levelHeight, xOf: n => toX(along(site, n, sign)) })
  else if (o.levels)
    wrapped(LEVEL_EMPTY, o.width - 32, 'labelSoft').forEach((text, i, all) =>
      p.push({
        kind: 'text',
        style: 'labelSoft',
        x: o.width / 2,
        y: pictureHeight + levelHeight / 2 + (i - (all.length - 1) / 2) * 18,
        text,
        anchor: 'middle',
      }),
    )
  return {
    drawing: { width: o.width, height: o.height, primitives: p },
    handles,
    toX,
    toY,
    groundY,
    sign,
    toAlong: x => (x - centre) / perM,
    toUp: y => (groundY - y) / perM,
  }
}

/** How much of the width the site may take: words of the beam stand to its left, callouts to its right. */
function acrossShare(site: Site, o: SectionOptions): number {
  if (o.levels) return site.lengthM > 20 ? 0.46 : 0.34
  return site.lengthM > 20 ? 0.5 : 0.36
}

const place = (s: Sheet, n: Pick<Node, 'eastM' | 'northM' | 'upM'>): [number, number] => [
  s.toX(along(s.site, n, s.sign)),
  s.toY(n.upM),
]

/** The wave from the chosen mast. @returns what is known of the way, to be written to its left */
function drawBeams(s: Sheet): LabelWish[] {
  const { p, labels, a, o } = s
  const mast = a.chosen
  if (!mast?.path) return []
  const donors = a.tree?.donors ?? []
  const [x, y] = donors[0] ? place(s, donors[0].node) : [s.toX(-s.site.lengthM / 2), s.toY(a.mountHeightM)]
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
  labels.keepOff(0, y - 8, x, y)
  if (o.compact) {
    p.push({
      kind: 'text',
      style: 'labelBlue',
      x: 8,
      y: 18,
      text: `${mast.mast.name}, ${distance(mast.distanceM, o.units)}, ${bearing(mast.bearingDeg)} true`,
    })
    labels.reserve(0, 4, 260, 18)
    return []
  }
  const under = y + spread + 14
  const magnetic =
    mast.magneticDeg !== null && mast.compassDeg !== null
      ? ` · ${bearing(mast.magneticDeg)} magnetic ± ${num(mast.compassDeg)}°`
      : ''
  const words: LabelWish[] = [
    { x: 16, y: y - 16 - spread * 0.2, style: 'labelBlue', text: `${mast.mast.name}, ${distance(mast.distanceM, o.units)}` },
    { x: 16, y: under, style: 'labelSoft', text: `bearing ${bearing(mast.bearingDeg)} true${magnetic}` },
  ]
  if (!mast.best) return words
  const c = mast.best.clearance
  words.push({
    x: 16,
    y: under + 18,
    style: 'labelSoft',
    text:
      c.clearM >= 0
        ? `clear by ${length(c.clearM, o.units, 0)} at ${distance(c.atM, o.units)}`
        : `behind the ground at ${distance(c.atM, o.units)}, ${num(mast.best.diffractionDb)} dB`,
  })
  return words
}

/** Height of the hatch along a room's floor that says whether its level is met. */
const HATCH_PX = 10

/** Rooms, parted half way between their spots. @returns what writes their names, once everything else has its place */
function drawRooms(s: Sheet): (() => void)[] {
  const { p, a, doc, site, building, sign, toX, toY } = s
  const ashore = !movesAbout(building.kind)
  if (!ashore) return placesAboard(s)
  const writes: (() => void)[] = []
  for (const room of rooms(building.floors, site, doc.spots, sign)) {
    const floor = toY(room.fromUpM)
    const ceiling = toY(room.toUpM)
    const x1 = toX(room.fromM)
    const x2 = toX(room.toM)
    if (room.fromM > -site.lengthM / 2 + 0.05) {
      p.push({ kind: 'line', style: 'partition', x1, y1: floor, x2: x1, y2: ceiling })
      s.labels.keepOff(x1, floor, x1, ceiling)
    }
    const level = a.rooms.find(r => r.spot.id === room.spotId)
    if (level)
      for (let x = x1 + 6; x < x2 - 4; x += 10)
        p.push({
          kind: 'line',
          style: level.met ? 'metHatch' : 'shortHatch',
          x1: x,
          y1: floor - 1,
          x2: Math.min(x + 7, x2),
          y2: floor - (level.met ? HATCH_PX / 2 : HATCH_PX),
        })
    const middle = (x1 + x2) / 2
    const within = { x: x1, y: ceiling, w: x2 - x1, h: floor - ceiling - HATCH_PX }
    writes.push(() => {
      if (level)
        s.labels.put(p, {
          x: middle,
          y: (floor + ceiling) / 2 + 4,
          anchor: 'middle',
          within,
          optional: true,
          style: level.met ? 'figure' : 'labelShort',
          text: level.met
            ? num(level.rsrpDbm)
            : x2 - x1 > 120
              ? `${numBeside(level.rsrpDbm, level.needDbm)}, needs ${num(level.needDbm)}`
              : numBeside(level.rsrpDbm, level.needDbm),
        })
      s.labels.put(p, { x: middle, y: floor - 11, anchor: 'middle', style: 'labelSoft', text: room.name, within, optional: true })
    })
  }
  return writes
}

/** Aboard there are no rooms side by side: each place is named where it is. */
function placesAboard(s: Sheet): (() => void)[] {
  return s.doc.spots
    .filter(spot => spot.indoors)
    .map(spot => () => {
      const level = s.a.rooms.find(r => r.spot.id === spot.id)
      const [x, y] = place(s, spot)
      s.labels.put(s.p, {
        x,
        y: y + 20,
        anchor: 'middle',
        style: level && !level.met ? 'labelShort' : 'labelSoft',
        text: level && !level.met ? `${spot.name}, RSRP ${num(level.rsrpDbm)}` : spot.name,
      })
    })
}

const OFF_WALL_PX = 4

function drawSpots(s: Sheet): void {
  const { p, handles, labels, doc, o } = s
  const boxes = (s.a.tree?.nodes ?? []).filter(isBox).map(n => place(s, n.node))
  for (const spot of doc.spots) {
    const [x, at] = place(s, spot)
    // What was read where a box now stands shows below it, not on its word.
    const y = boxes.some(b => Math.abs(b[0] - x) < 30 && Math.abs(b[1] - at) < BOX_PX / 2 + 5) ? at + BOX_PX / 2 + 6 : at
    handles.push({ id: spot.id, kind: 'spot', x, y, label: spot.name, draggable: true })
    p.push({ kind: 'circle', style: 'hollow', x, y, r: spot.needed ? 4.5 : 3, id: spot.id })
    labels.reserve(x - 5, y - 5, 10, 10)
  }
  if (o.compact) return
  const within = rooms(s.building.floors, s.site, doc.spots, s.sign)
  for (const spot of doc.spots) {
    const parts = o.badges?.(spot.id) ?? []
    const room = within.find(r => r.spotId === spot.id)
    const [x, y] = place(s, spot)
    // As wide as it may be about its spot, which stands nearer to one wall than to the other.
    const walls = room ? [s.toX(room.fromM), s.toX(room.toM)] : [-Infinity, Infinity]
    const wide = 2 * Math.min(...walls.map(w => Math.abs(w - x))) - 2 * OFF_WALL_PX
    const fitting = [...parts.keys()].reverse().map(n => parts.slice(0, n + 1).join(' · '))
    const text = fitting.find(t => textWidth(t, 'figure') <= wide) ?? fitting.at(-1)
    if (text) labels.put(p, { x, y: y - 12, anchor: 'middle', style: 'figure', text, id: spot.id })
  }
  for (const spot of doc.spots.filter(t => !t.indoors)) {
    const [x, y] = place(s, spot)
    const anchor = x < s.toX(-s.site.lengthM / 2) ? ('end' as const) : ('start' as const)
    labels.put(p, { x: anchor === 'end' ? x - 9 : x + 9, y: y + 4, anchor, style: 'labelSoft', text: spot.name, optional: true })
  }
}

/** What a part is called on its handle. */
export function roleOf(tree: Pick<Tree, 'donors' | 'servers'>, n: TreeNode): string {
  if (tree.donors.some(d => d.node.id === n.node.id)) return 'outside'
  if (tree.servers.some(d => d.node.id === n.node.id)) return 'inside'
  return n.part.kind
}

/** Height of a box that has its word on it. */
const BOX_PX = 26

const BOXES: ReadonlySet<Part['kind']> = new Set(['amplifier', 'router'])
export const isBox = (n: TreeNode): boolean => BOXES.has(n.part.kind)

/** @returns what splitters and taps give, to be written once all else has its place */
function drawTree(s: Sheet): LabelWish[] {
  const { p, a, labels, handles } = s
  const { tree } = a
  if (!tree) return []
  // Runs first, so that parts stand over their cables; then small parts, so that none lies on a box's word.
  const lanes = new Map<string, number>()
  for (const joint of tree.joints) drawRun(s, joint, lanes)
  const shares: LabelWish[] = []
  for (const n of [...tree.nodes.filter(m => !isBox(m)), ...tree.nodes.filter(isBox)]) {
    const [x, y] = place(s, n.node)
    const role = roleOf(tree, n)
    handles.push({ id: n.node.id, kind: 'node', x, y, label: n.name, role, draggable: true })
    if (n.part.kind === 'antenna') drawAntenna(s, n as AntennaNode, { role, x, y })
    else if (n.part.kind === 'service' && n.part.does === 'antenna') {
      antennaShape(p, 'whip', { x, y, s: 0.7, facing: -1, id: n.node.id })
      labels.reserve(x - 6, y - 22, 12, 26)
    } else if (n.part.kind === 'arrestor') drawArrestor(s, n, x, y)
    else if (isBox(n)) {
      const word = boxWord(n)
      const w = textWidth(word, 'labelInverse') + 14
      p.push({ kind: 'rect', style: 'solid', x: x - w / 2, y: y - BOX_PX / 2, w, h: BOX_PX, id: n.node.id })
      p.push({ kind: 'text', style: 'labelInverse', x, y: y + 4.5, text: word, anchor: 'middle', id: n.node.id })
      labels.reserve(x - w / 2 - 2, y - BOX_PX / 2 - 2, w + 4, BOX_PX + 4)
    } else if (n.part.kind === 'splitter' || n.part.kind === 'tap') {
      p.push({ kind: 'rect', style: 'part', x: x - 6, y: y - 6, w: 12, h: 12, id: n.node.id })
      labels.reserve(x - 7, y - 7, 14, 14)
      if (!s.o.compact)
        shares.push({
          x: x - 10,
          y: y + 18,
          anchor: 'end',
          style: 'small',
          text: shareWord(n.part),
          optional: true,
          within: { x: x - 52, y: y - 26, w: 104, h: 52 },
        })
    } else if (n.part.kind === 'injector' || n.part.kind === 'source' || n.part.kind === 'service') {
      p.push({ kind: 'rect', style: 'part', x: x - 5, y: y - 8, w: 10, h: 16, id: n.node.id })
      labels.reserve(x - 6, y - 9, 12, 18)
    } else if (n.part.kind === 'pad') p.push({ kind: 'rect', style: 'solid', x: x - 5, y: y - 4, w: 10, h: 8, id: n.node.id })
    else p.push({ kind: 'circle', style: 'dot', x, y, r: 2.6, id: n.node.id })
  }
  return shares
}

/** A name of somebody may be long: what a box on a picture holds, characters. */
const MOST_CHARS = 18
/** @returns a name cut to what a box holds; the number by which it is told from others stays */
export function fitting(name: string): string {
  if (name.length <= MOST_CHARS) return name
  const number = / \d+$/.exec(name)?.[0] ?? ''
  return `${name.slice(0, MOST_CHARS - 1 - number.length).trimEnd()}…${number}`
}

/** @returns the number by which a part is told from others of its name; undefined where it needs none */
export const numberOf = (n: TreeNode): string | undefined => /\d+$/.exec(shortName(n.name))?.[0]

/** What stands on a box: as short as it is still told apart. */
export const boxWord = (n: TreeNode): string =>
  fitting(shortName(n.name))
    .replace(/^Amplifier\b/, 'Amp')
    .replace(/^Outdoor modem\b/, 'Modem')

/** Beside which parts their names stand. */
const NAMED: ReadonlySet<Part['kind']> = new Set(['antenna', 'arrestor', 'injector', 'source', 'service'])

const isDome = ({ part }: TreeNode): boolean => part.kind === 'antenna' && part.use === 'inside'

/** Names of small parts beside them, once all else is written: where there is room. */
export function nameParts(
  { p, labels, o }: Pick<Sheet, 'p' | 'labels'> & { o: { compact?: boolean; coverage?: unknown } },
  parts: readonly { at: TreeNode; x: number; y: number }[],
): void {
  // Over hatched floors a name is not read: there the figures speak.
  if (o.compact || o.coverage) return
  const many = parts.filter(q => isDome(q.at)).length > MANY_ANTENNAS
  for (const { at, x, y } of parts)
    if (NAMED.has(at.part.kind))
      labels.put(p, {
        x: x + NAME_PX,
        y: y - NAME_PX,
        style: 'small',
        // Of many, the number that also stands on the floor's plan.
        text: (many && isDome(at) && numberOf(at)) || fitting(shortName(at.name)),
        optional: true,
        within: { x: x - NAME_FAR_PX, y: y - NAME_HIGH_PX, w: 2 * NAME_FAR_PX, h: 2 * NAME_HIGH_PX },
      })
}
/** A name stands so far off its part, and no further, px. */
const NAME_PX = 10
const NAME_FAR_PX = 120
const NAME_HIGH_PX = 48

/** `½`, `⅓`, `tap 6`. */
function shareWord(part: Part): string {
  if (part.kind === 'tap') return `tap ${num(part.couplingDb)}`
  if (part.kind !== 'splitter') return ''
  const ways = part.ports.filter(q => q.role === 'out').length
  return { 2: '½', 3: '⅓', 4: '¼' }[ways] ?? `1/${ways}`
}

/** Pixels between cables that run side by side. */
const LANE_PX = 4

function drawRun(s: Sheet, joint: Joint, lanes: Map<string, number>): void {
  const { p, labels, o } = s
  const [from, to] = [joint.from.at.node, joint.to.at.node]
  const [x1, y1] = place(s, from)
  const [x2, y2] = place(s, to)
  const key = [Math.round(x1 / 6), Math.round(y1 / 6), Math.round(x2 / 6), Math.round(y2 / 6)].join()
  const lane = lanes.get(key) ?? 0
  lanes.set(key, lane + 1)
  const drawn = joint.run.way?.length ? joint.run.way.map(w => place(s, w)) : null
  const points = drawn
    ? [[x1, y1] as [number, number], ...drawn, [x2, y2] as [number, number]]
    : runPoints(s, joint, { from: [x1, y1], to: [x2, y2], aside: lane * LANE_PX })
  const title = `${lineOf(joint)?.name ?? 'screwed together'}${isCable(joint) ? `, ${length(jointM(joint), o.units)}` : ''}`
  // Measured heavy, drawn thin, guessed dashed; each piece of a drawn way by itself.
  const whole = joint.run.measured || !joint.run.partId ? 'cable' : 'assumed'
  if (!drawn) p.push({ kind: 'path', style: whole, d: polyline(points), id: joint.run.id, title })
  else
    for (let i = 1; i < points.length; i++) {
      const taped = joint.run.measured || joint.run.pieces?.[i - 1] != null
      const d = polyline([nth(points, i - 1), nth(points, i)])
      p.push({ kind: 'path', style: taped ? 'cable' : 'rule', d, id: joint.run.id, title })
    }
  for (let i = 1; i < points.length; i++) labels.keepOff(...nth(points, i - 1), ...nth(points, i))
}

/** Down the wall outside with a drip loop at the entrance; along ceilings inside; straight down aboard. */
function runPoints(
  s: Sheet,
  joint: Joint,
  { from: [x1, y1], to: [x2, y2], aside }: { from: [number, number]; to: [number, number]; aside: number },
): [number, number][] {
  const { building } = s
  const [from, to] = [joint.from.at.node, joint.to.at.node]
  if (!isCable(joint) || Math.hypot(x2 - x1, y2 - y1) < 24)
    return [
      [x1, y1],
      [x2, y2],
    ]
  if (movesAbout(building.kind))
    return [
      [x1 + aside, y1],
      [x1 + aside, y2],
      [x2, y2],
    ]
  const [within1, within2] = [inside(building, from), inside(building, to)]
  if (!within1 && within2) {
    // From above it comes down a riser; from beside, under its drip loop.
    if (from.upM >= building.eavesM)
      return [
        [x1 + aside, y1],
        [x1 + aside, y2],
        [x2, y2],
      ]
    const dip = Math.max(y1, y2) + 14
    return [
      [x1, y1 + 6],
      [x1, dip],
      [x1 + 9, dip + 4],
      [x1 + 18 + aside, dip - 6],
      [x1 + 18 + aside, y2],
      [x2, y2],
    ]
  }
  if (!within1)
    return [
      [x1 + aside, y1],
      [x2 + aside, y1 + Math.min(40, Math.abs(y2 - y1) * 0.4)],
      [x2 + aside, y2],
    ]
  // The level way is always the upper one: along the ceiling.
  return y2 < y1
    ? [
        [x1 + aside, y1],
        [x1 + aside, y2],
        [x2, y2],
      ]
    : [
        [x1, y1 + aside],
        [x2, y1 + aside],
        [x2, y2],
      ]
}

/** More inside antennas than these are drawn small, and told by their numbers on the floor’s plan. */
const MANY_ANTENNAS = 12

function drawAntenna(s: Sheet, n: AntennaNode, { role, x, y }: { role: string; x: number; y: number }): void {
  const { p, labels, o } = s
  const size = o.compact ? 0.8 : 1
  if (role === 'outside' && !inside(s.building, n.node)) drawPole(s, n, { x, y })
  const facing = role === 'outside' ? -1 : acrossSign(s, n)
  const many = (s.a.tree?.servers.length ?? 0) > MANY_ANTENNAS
  const inner = many ? 0.5 : 0.8
  const scale = role === 'outside' ? size : inner
  const half = n.part.shape === 'dome' ? (many ? 8 : 14) : 20
  // A beam of elements lies ahead of its foot.
  const long = n.part.shape === 'log-periodic' || n.part.shape === 'Yagi' ? LONG_PX * scale : half
  // A whip or an omni stands up from its foot.
  const over = n.part.shape === 'whip' || n.part.shape === 'omni' ? 32 : 18
  antennaShape(p, n.part.shape, { x, y, s: scale, facing, id: n.node.id })
  labels.reserve(facing < 0 ? x - long : x - half, y - over, half + long, over + 18)
}
/** From the foot of a beam to its foremost element, px. */
const LONG_PX = 44

/** What an antenna outdoors stands on: its own pole, or a crossbar on that of the other of its pair. */
function drawPole(
  { p, site, building, sign, labels, a, toX, toY }: Sheet,
  n: AntennaNode,
  { x, y }: { x: number; y: number },
): void {
  const pole = a.tree ? poleOf(a.tree, n) : null
  if (pole) {
    const toPole = toX(along(site, pole.node, sign))
    p.push({ kind: 'line', style: 'pole', x1: x, y1: y, x2: toPole, y2: y })
    return labels.keepOff(Math.min(x, toPole), y, Math.max(x, toPole), y)
  }
  const foot = Math.min(toY(standsOnM(building, along(site, n.node, sign))), toY(Math.max(0, n.node.upM - 2.2)))
  // A pole of which nobody said anything is only supposed.
  const style = n.node.fixing ? 'pole' : 'assumed'
  p.push({ kind: 'line', style, x1: x, y1: y - 10, x2: x, y2: Math.max(foot, y + 16) })
  labels.keepOff(x, y - 10, x, Math.max(foot, y + 16))
}

/** Which way along the section an inside panel looks: −1 left, 1 right. */
function acrossSign(s: Sheet, n: AntennaNode): 1 | -1 {
  const azimuth = toRad(facingOf(s.a.tree!, n))
  const ahead = { eastM: Math.sin(azimuth), northM: Math.cos(azimuth) }
  return along(s.site, ahead, s.sign) < 0 ? -1 : 1
}

/** The outline of an antenna, seen from the side, looking left or right. */
function antennaShape(
  p: Primitive[],
  shape: string,
  { x, y, s, facing, id }: { x: number; y: number; s: number; facing: 1 | -1; id: string },
): void {
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    p.push({
      kind: 'line',
      style: 'antenna',
      x1: x - facing * x1 * s,
      y1: y + y1 * s,
      x2: x - facing * x2 * s,
      y2: y + y2 * s,
      id,
    })
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
  } else if (shape === 'panel') {
    p.push({ kind: 'rect', style: 'part', x: facing < 0 ? x - 9 * s : x, y: y - 17 * s, w: 9 * s, h: 34 * s, id })
    line(-13, -9, -13, 9)
  } else if (shape === 'dome') {
    const k = s / 0.8
    p.push({ kind: 'rect', style: 'part', x: x - 6 * k, y: y - 8 * k, w: 12 * k, h: 8 * k, id })
    p.push({
      kind: 'path',
      style: 'solid',
      d: polyline(
        [
          [x - 13 * k, y],
          [x + 13 * k, y],
          [x + 8 * k, y + 10 * k],
          [x - 8 * k, y + 10 * k],
        ],
        true,
      ),
      id,
    })
  } else {
    p.push({ kind: 'line', style: 'antenna', x1: x, y1: y, x2: x, y2: y - 30 * s, id })
    p.push({ kind: 'rect', style: 'solid', x: x - 2.5, y: y - 30 * s, w: 5, h: 24 * s, id })
  }
}

function drawArrestor(s: Sheet, n: TreeNode, x: number, y: number): void {
  const { p, labels, o } = s
  p.push({ kind: 'rect', style: 'part', x: x - 8, y: y - 9, w: 16, h: 18, id: n.node.id })
  labels.reserve(x - 9, y - 10, 18, 20)
  const groundY = s.toY(0)
  if (movesAbout(s.building.kind)) return
  const electrodes = s.doc.fixtures.filter(f => f.kind === 'electrode')
  if (s.o.pins && electrodes.length) return
  // Green is an earth of which electrode, conductor and bond are noted; what is only supposed is dashed, and says so.
  const isKnown = electrodes.some(e => !earthLacks(e).length)
  const style = isKnown ? 'earth' : 'assumed'
  // Two leads share the one earth.
  const onRoof = (m: TreeNode) => !inside(s.building, m.node) && m.node.upM > s.building.eavesM
  const roof = onRoof(n)
  const arrestors = s.a.tree!.nodes.filter(m => m.part.kind === 'arrestor')
  const before = arrestors.slice(
    0,
    arrestors.findIndex(m => m.node.id === n.node.id),
  )
  if (before.some(m => (roof && onRoof(m)) || Math.abs(place(s, m.node)[0] - x) < 30)) return
  const run = roof ? s.toX(-s.site.lengthM / 2) - 12 : x - 22
  p.push({
    kind: 'path',
    style,
    d: polyline([
      [x - 8, y],
      [run, y],
      [run, groundY + 24],
    ]),
  })
  labels.keepOff(x - 8, y, run, y)
  labels.keepOff(run, y, run, groundY + 24)
  p.push({ kind: 'line', style, x1: run - 8, y1: groundY + 24, x2: run + 8, y2: groundY + 24 })
  if (!o.compact)
    labels.put(p, {
      x: run - 12,
      y: groundY + 20,
      anchor: 'end',
      style: isKnown ? 'labelMet' : 'labelShort',
      text: isKnown ? 'earth' : electrodes.length ? 'earth, not all known' : 'earth: not planned',
    })
}

/** The conductor of each arrestor to its electrode, as drawn or as it usually runs. */
function drawSurges(s: Sheet): void {
  const { tree } = s.a
  if (!tree) return
  const told = new Set<string>()
  for (const { way, electrode, wrong } of surgesOf({ doc: s.doc, tree, building: s.building, job: jobOf(s.doc) })) {
    const points = way.pieces.length ? [nth(way.pieces, 0).from, ...way.pieces.map(w => w.to)].map(w => place(s, w)) : []
    const lacks = earthLacks(electrode, movesAbout(s.building.kind))
    const isKnown = !lacks.length
    s.p.push({ kind: 'path', style: isKnown ? 'earth' : 'assumed', d: polyline(points) })
    for (let i = 1; i < points.length; i++) s.labels.keepOff(...nth(points, i - 1), ...nth(points, i))
    if (!s.o.surgeWords || told.has(electrode.id)) continue
    told.add(electrode.id)
    const [x, y] = place(s, electrode)
    const left = x < s.o.width / 2
    const bond = lacks.length
      ? `not known: ${lacks.join(', ')}`
      : electrode.electrode === 'house earthing'
        ? 'house earthing'
        : 'bonded'
    s.labels.put(s.p, {
      x: left ? x + 14 : x - 14,
      // Under the ground line, where nothing else is written.
      y: Math.max(y + 4, s.groundY + 18),
      anchor: left ? 'start' : 'end',
      style: lacks.length || wrong.some(w => w !== 'long') ? 'labelShort' : 'labelMet',
      text: `${length(way.lengthM, s.o.units)}, ${way.bends === 1 ? 'one bend' : `${way.bends} bends`}, ${bond}`,
    })
  }
}

/** Numbers stand beside the middle of their piece, so far off the line. */
const NUMBER_OFF_PX = 16
const NUMBER_R_PX = 10

/** The pieces of one cable by their number, as the ribbon below has them. */
function numberPieces(s: Sheet): void {
  const joint = s.a.tree?.joints.find(j => j.run.id === s.o.numberedRunId)
  if (!joint) return
  const way = drawnWay(joint.run, joint.from.at.node, joint.to.at.node)
  for (const piece of way?.pieces ?? []) {
    const [x1, y1] = place(s, piece.from)
    const [x2, y2] = place(s, piece.to)
    const long = Math.hypot(x2 - x1, y2 - y1)
    if (long < 6) continue
    const [ux, uy] = [(x2 - x1) / long, (y2 - y1) / long]
    const size = 2 * NUMBER_R_PX
    const beside = [0.5, 0.35, 0.65].flatMap(t =>
      [-1, 1].map(
        side =>
          [
            x1 + t * (x2 - x1) + side * uy * NUMBER_OFF_PX - NUMBER_R_PX,
            y1 + t * (y2 - y1) - side * ux * NUMBER_OFF_PX - NUMBER_R_PX,
          ] as const,
      ),
    )
    const [left, top] = s.labels.settle(size, size, beside)
    const [x, y] = [left + NUMBER_R_PX, top + NUMBER_R_PX]
    s.p.push({ kind: 'circle', style: 'solid', x, y, r: NUMBER_R_PX })
    s.p.push({ kind: 'text', style: 'labelInverse', x, y: y + 4.5, text: String(piece.index + 1), anchor: 'middle' })
  }
}

/** Sheets, edge on or as the section sees them. */
function drawSheets(s: Sheet): void {
  for (const row of s.doc.sheets) {
    const [x, y] = place(s, row)
    const azimuth = toRad(row.azimuthDeg)
    const tilt = toRad(row.tiltDeg)
    const flat = { eastM: Math.sin(azimuth), northM: Math.cos(azimuth) }
    const perM = s.toX(1) - s.toX(0)
    const across = along(s.site, { eastM: flat.northM, northM: -flat.eastM }, s.sign) * row.widthM * 0.5
    const rise = (Math.cos(tilt) * row.heightM) / 2
    const lean =
      along(s.site, { eastM: -flat.eastM * Math.sin(tilt), northM: -flat.northM * Math.sin(tilt) }, s.sign) * row.heightM * 0.5
    // The longer of its two sides, as the section shows it.
    const [dx, dy] = Math.hypot(lean, rise) >= Math.abs(across) ? [lean, rise] : [across, 0]
    const [x1, y1, x2, y2] = [x - dx * perM, y + dy * perM, x + dx * perM, y - dy * perM]
    s.p.push({ kind: 'line', style: 'sheetLine', x1, y1, x2, y2, id: row.id, title: row.name })
    s.labels.keepOff(x1, y1, x2, y2)
    if (!s.o.compact)
      s.labels.put(s.p, {
        x: Math.max(x1, x2) + 8,
        y: Math.min(y1, y2) - 4,
        style: 'labelSoft',
        text: `${row.name.toLowerCase()}, ${length(row.widthM, s.o.units)} × ${length(row.heightM, s.o.units)}`,
        optional: true,
      })
  }
}

/** The way round each amplifier, and whether it holds: written where it bites. */
function drawLoops(s: Sheet): void {
  const { p, labels, o, a } = s
  a.loops.forEach(loop => {
    const good = loop.isSure
    if (good && a.loops.length > 1) return
    const [x1, y1] = place(s, loop.worst.donor.node)
    const [x2, y2] = place(s, loop.worst.server.node)
    p.push({ kind: 'line', style: good ? 'loopGood' : 'loop', x1, y1, x2, y2 })
    labels.keepOff(x1, y1, x2, y2)
    const name = a.loops.length > 1 ? `${boxWord(loop.at)}: ` : ''
    const text1 = `${name}isolation ${num(loop.isolationDb)} dB, needs ${num(loop.neededDb)}`
    const text2 = good
      ? 'stable'
      : loop.state === 'stable'
        ? `runs, with ${num(loop.isolationDb - loop.neededDb, 1)} dB to spare of ±${num(loop.uncertainDb)}`
        : loop.state === 'oscillating'
          ? 'it will oscillate'
          : `gain held back by ${num(loop.heldBackDb)} dB`
    const w = Math.max(textWidth(text1, 'labelBold'), textWidth(text2)) + 22
    const h = 42
    const within = (x: number) => Math.max(8, Math.min(o.width - w - 8, x))
    // Beside the middle of the way where that is free, else over or under its ends, else off to the left in the open.
    const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2]
    const [bx, by] = labels.settle(
      w,
      h,
      (
        [
          [mx + 14, my - h - 6],
          [Math.max(x1, x2) + 26, Math.min(y1, y2) - h - 14],
          [x1 + 26, y1 - h - 24],
          [mx + 14, my + 8],
          [Math.min(x1, x2) - w - 30, Math.max(y1, y2) + 30],
          [Math.min(x1, x2) - w - 30, Math.min(y1, y2) - h - 30],
          [mx + 14, Math.max(y1, y2) + 20],
        ] as const
      ).map(([x, y]) => [within(x), Math.max(4, y)] as const),
    )
    const nearest = (v: number, from: number, to: number) => Math.min(Math.max(v, from), to)
    const [lx, ly] = [nearest(mx, bx, bx + w), nearest(my, by, by + h)]
    p.push({ kind: 'line', style: 'leader', x1: mx, y1: my, x2: lx, y2: ly })
    labels.keepOff(mx, my, lx, ly)
    p.push({ kind: 'rect', style: good ? 'calloutPlain' : 'calloutFill', x: bx, y: by, w, h: 42, id: 'loop' })
    p.push({ kind: 'text', style: good ? 'labelBold' : 'labelShort', x: bx + 10, y: by + 17, text: text1, id: 'loop' })
    p.push({ kind: 'text', style: 'label', x: bx + 10, y: by + 34, text: text2, id: 'loop' })
  })
}
