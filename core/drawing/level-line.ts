/** The level line: RSRP along the signal's way, from what was read to what the last phone or the modem shows. */
import { shortName } from '../chain/names'
import { jointM } from '../chain/tree'
import { nth, sure } from '../sure'
import type { Levels, PortLevel } from '../chain/levels'
import type { Assessment } from '../judge/assess'
import type { JobDocument, Node } from '../job/schema'
import { rsrpToTotalDbm } from '../radio/levels'
import { length, num, signed } from '../units'
import type { Provenance, Units } from '../units'
import { LabelSpace, polyline, textWidth } from './primitives'
import type { LabelWish, Primitive } from './primitives'

export interface LevelLineOptions {
  width: number
  /** top and height of its part of the drawing, px */
  top: number
  height: number
  units: Units
  compact?: boolean
  xOf: (n: Pick<Node, 'eastM' | 'northM' | 'upM'>) => number
}

const AXIS_PX = 46
/** Between two lines of the grid a word fits, px. */
const LEAST_GRID_PX = 22
const RIGHT_PX = 44
/** Half the width an amplifier's rise takes, px. */
const AMP_PX = 16
/** Feeds that differ by less show the same level, dB. */
const SAME_FEED_DB = 0.5

export function drawLevelLine(p: Primitive[], doc: JobDocument, a: Assessment, o: LevelLineOptions): void {
  const levels = a.levels!
  // What most of the rooms need has its line; where others need more or less, the words say so.
  const needs = a.rooms.map(r => r.needDbm)
  const need = needs.length
    ? needs.reduce((x, y) => (needs.filter(n => n === y).length > needs.filter(n => n === x).length ? y : x))
    : null
  const alike = needs.every(n => n === need)
  const all = [
    ...levels.ports.flatMap(l => [l.entryRsrpDbm, l.rsrpDbm]),
    ...a.rooms.map(r => r.rsrpDbm),
    ...(need !== null ? [need] : []),
  ]
  const step = 20
  const high = Math.ceil((Math.max(...all) + 8) / step) * step
  const low = Math.floor((Math.min(...all) - 8) / step) * step
  const y = (dbm: number) => o.top + 34 + ((high - dbm) / (high - low)) * (o.height - 46)
  const labels = new LabelSpace(15, { x: AXIS_PX, y: o.top + 2, w: o.width - AXIS_PX - 4, h: o.height - 4 })
  p.push({ kind: 'rect', style: 'paper', x: 0, y: o.top, w: o.width, h: o.height })
  drawScales(p, labels, levels, {
    o,
    s: { high, low, step: (step * (o.height - 46)) / (high - low) < LEAST_GRID_PX ? 2 * step : step, y },
  })
  // What is to be written waits until every line has its place.
  const words: LabelWish[] = []
  if (need !== null)
    drawNeed(p, labels, { o, y, needed: { need, alike }, left: Math.min(...a.rooms.map(r => o.xOf(r.spot))) - 24, words })
  drawWays(p, labels, { levels, o, y, words })
  drawAmplifiers(p, labels, { a, o, y, words })
  drawModem(levels, doc, { o, y, words })
  drawRoomEnds(p, labels, { a, o, y, words })
  const keep = new Set(['figure', 'figureShort', 'labelShort'])
  const told = o.compact ? words.filter(x => keep.has(x.style)) : words
  for (const [i, w] of told.entries()) if (!told.slice(0, i).some(x => x.text === w.text && x.y === w.y)) labels.put(p, w)
}

function drawScales(
  p: Primitive[],
  labels: LabelSpace,
  levels: Levels,
  { o, s }: { o: LevelLineOptions; s: { high: number; low: number; step: number; y: (dbm: number) => number } },
): void {
  const { carrier } = levels
  const total = rsrpToTotalDbm(0, carrier.resourceBlocks)
  const width = `${num(carrier.bandwidthMHz)} MHz${carrier.assumed ? ' assumed' : ''}`
  p.push({
    kind: 'text',
    style: 'labelSoft',
    x: 12,
    y: o.top + 18,
    text: o.compact ? 'RSRP, dBm' : `RSRP, dBm · ${carrier.band.name} at ${num(carrier.frequencyMHz)} MHz`,
  })
  labels.reserve(0, o.top + 2, o.compact ? 80 : 240, 22)
  if (!o.compact) {
    const text = `total of the carrier, ${width}, dBm`
    const wide = textWidth(text, 'labelSoft') + 24
    p.push({ kind: 'text', style: 'labelSoft', x: o.width - 12, y: o.top + 18, text, anchor: 'end' })
    labels.reserve(o.width - wide, o.top + 2, wide, 22)
    drawLegend(p, labels, o, o.width - wide)
  }
  for (let d = s.high; d >= s.low; d -= s.step) {
    const y = s.y(d)
    if (y < o.top + 28 || y > o.top + o.height - 4) continue
    p.push({ kind: 'line', style: 'grid', x1: AXIS_PX, y1: y, x2: o.width - RIGHT_PX, y2: y })
    labels.keepOff(AXIS_PX, y, o.width - RIGHT_PX, y)
    p.push({ kind: 'text', style: 'figureSoft', x: AXIS_PX - 8, y: y + 4, text: num(d), anchor: 'end' })
    if (!o.compact) p.push({ kind: 'text', style: 'figureSoft', x: o.width - 6, y: y + 4, text: num(d + total), anchor: 'end' })
  }
  labels.reserve(o.width - RIGHT_PX, o.top, RIGHT_PX, o.height)
}

const LEGEND_PX = 285
const LEGEND_FROM_PX = 240

/** What heavy, thin and dashed lines say, where the head of the drawing has room for it up to `before`. */
function drawLegend(p: Primitive[], labels: LabelSpace, o: LevelLineOptions, before: number): void {
  const y = o.top + 18
  let x = Math.min(Math.max(LEGEND_FROM_PX, o.width * 0.34), before - LEGEND_PX)
  if (x < LEGEND_FROM_PX) return
  labels.reserve(x - 6, o.top + 2, LEGEND_PX, 22)
  for (const kind of ['measured', 'computed', 'assumed'] as const) {
    p.push({ kind: 'line', style: kind, x1: x, y1: y - 4, x2: x + 26, y2: y - 4 })
    p.push({ kind: 'text', style: 'label', x: x + 32, y, text: kind })
    x += 98
  }
}

function drawNeed(
  p: Primitive[],
  labels: LabelSpace,
  {
    o,
    y,
    needed: { need, alike },
    left,
    words,
  }: {
    o: LevelLineOptions
    y: (dbm: number) => number
    needed: { need: number; alike: boolean }
    left: number
    words: LabelWish[]
  },
): void {
  const [right, bottom] = [o.width - RIGHT_PX, o.top + o.height - 4]
  p.push({ kind: 'rect', style: 'bad', x: left, y: y(need), w: right - left, h: Math.max(0, bottom - y(need)) })
  p.push({ kind: 'line', style: 'badLine', x1: left, y1: y(need), x2: right, y2: y(need) })
  labels.keepOff(left, y(need), right, y(need))
  words.push({
    x: right - 4,
    y: y(need) - 5,
    anchor: 'end',
    style: 'labelShort',
    text: `${alike ? '' : 'most '}rooms need RSRP ${num(need)}`,
  })
}

/** Each cable slopes down to the part it leads to, each part stands as a step; ways that lie on each other are drawn once. */
interface Stroke {
  x1: number
  y1: number
  x2: number
  y2: number
}

function drawWays(
  p: Primitive[],
  labels: LabelSpace,
  { levels, o, y, words }: { levels: Levels; o: LevelLineOptions; y: (dbm: number) => number; words: LabelWish[] },
): void {
  const drawn = new Set<string>()
  const line = (style: Provenance, { x1, y1, x2, y2 }: Stroke) => {
    const key = [x1, y1, x2, y2].map(Math.round).join()
    if (drawn.has(key)) return
    drawn.add(key)
    p.push({ kind: 'line', style, x1, y1, x2, y2 })
    labels.keepOff(x1, y1, x2, y2)
  }
  const dot = (x: number, at: number, id: string) => {
    const key = `dot ${Math.round(x)},${Math.round(at)}`
    if (drawn.has(key)) return
    drawn.add(key)
    p.push({ kind: 'circle', style: 'dot', x, y: at, r: 3.4, id })
    labels.reserve(x - 4, at - 4, 8, 8)
  }
  const told = new Set<string>()
  const byIndex = new Map(levels.ports.map(l => [l.index, l]))
  for (const port of levels.ports) {
    const { visit } = port
    const x = o.xOf(visit.at.node)
    if (visit.parent < 0) {
      const source = sure(levels.sources.find(s => s.donor.node.id === visit.donor.node.id))
      line(source.start.provenance, { x1: AXIS_PX, y1: y(port.entryRsrpDbm), x2: x, y2: y(port.entryRsrpDbm) })
      line(port.provenance, { x1: x, y1: y(port.entryRsrpDbm), x2: x, y2: y(port.rsrpDbm) })
      dot(x, y(port.rsrpDbm), visit.at.node.id)
      if (told.has(visit.at.node.id)) continue
      told.add(visit.at.node.id)
      words.push(...sourceWords(port, source.start, x, y))
      continue
    }
    const parent = byIndex.get(visit.parent)
    if (!parent) continue
    const leaves = port.entryRsrpDbm + port.jointDb
    const fromX = o.xOf(parent.visit.at.node) + (parent.visit.at.part.kind === 'amplifier' ? AMP_PX : 0)
    const style: Provenance = visit.joint!.run.measured || !visit.joint!.run.partId ? 'computed' : 'assumed'
    const splits = parent.visit.at.part.kind === 'splitter' || parent.visit.at.part.kind === 'tap'
    if (splits) line('computed', { x1: fromX, y1: y(parent.entryRsrpDbm), x2: fromX, y2: y(leaves) })
    line(style, { x1: fromX, y1: y(leaves), x2: x - (visit.at.part.kind === 'amplifier' ? AMP_PX : 0), y2: y(port.entryRsrpDbm) })
    if (visit.at.part.kind === 'amplifier' || visit.at.part.kind === 'splitter' || visit.at.part.kind === 'tap') continue
    if (visit.at.part.kind !== 'antenna') line('computed', { x1: x, y1: y(port.entryRsrpDbm), x2: x, y2: y(port.rsrpDbm) })
    dot(x, y(visit.at.part.kind === 'antenna' ? port.entryRsrpDbm : port.rsrpDbm), visit.at.node.id)
  }
}

function sourceWords(
  port: PortLevel,
  start: Levels['sources'][number]['start'],
  x: number,
  y: (dbm: number) => number,
): LabelWish[] {
  const by = [
    start.heightGainDb ? `${signed(start.heightGainDb, 1)} dB by height` : '',
    start.wallDb ? `${signed(start.wallDb, 1)} dB for the wall` : '',
  ].filter(Boolean)
  return [
    { x: AXIS_PX + 8, y: y(port.entryRsrpDbm) + 17, style: 'labelSoft', text: [start.words, ...by].join(', ') },
    {
      x: x - 10,
      y: y(port.rsrpDbm) - 8,
      anchor: 'end',
      style: 'labelBold',
      text: `antenna ${signed(port.gainDb, 1)} → ${num(port.rsrpDbm)}`,
    },
  ]
}

function drawAmplifiers(
  p: Primitive[],
  labels: LabelSpace,
  { a, o, y, words }: { a: Assessment; o: LevelLineOptions; y: (dbm: number) => number; words: LabelWish[] },
): void {
  const several = a.levels!.amplifiers.length > 1
  a.levels!.amplifiers.forEach(amp => {
    const x = o.xOf(amp.at.node)
    const [y1, y2] = [y(amp.inputRsrpDbm), y(amp.outputRsrpDbm)]
    p.push({ kind: 'line', style: 'computed', x1: x - AMP_PX, y1, x2: x + AMP_PX, y2 })
    labels.keepOff(x - AMP_PX, y1, x + AMP_PX, y2)
    p.push({ kind: 'circle', style: 'dot', x: x + AMP_PX, y: y2, r: 3.4, id: amp.at.node.id })
    const name = several ? `${shortName(amp.at.name)}: ` : ''
    words.push({
      x: x - AMP_PX - 4,
      y: (y1 + y2) / 2,
      anchor: 'end',
      style: amp.limitedBy === 'nothing' || amp.limitedBy === 'output' ? 'label' : 'labelShort',
      text: `${name}${signed(amp.gainDb)} of ${num(amp.at.part.gainDb)} dB`,
      optional: several,
    })
    const margin = Math.min(amp.inputMarginDb, amp.outputMarginDb)
    const which = amp.inputMarginDb <= amp.outputMarginDb ? 'input' : 'output'
    const total = which === 'input' ? amp.inputAllDbm : Math.min(amp.at.part.outputDbm, amp.inputAllDbm + amp.gainDb)
    const assumed = amp.carriersFrom === 'assumed' ? `, ${amp.carriers} carriers assumed` : ''
    words.push({
      x: x + AMP_PX + 8,
      y: y2 - 8,
      style: margin < 0.5 ? 'labelShort' : 'labelSoft',
      text: `${marginWords(margin)} its ${which} limit (total ${num(total)} dBm${assumed})`,
      // Of several those that are at it are told first.
      optional: several && margin >= 0.5,
    })
  })
}

const marginWords = (db: number): string => (db < 0 ? `${num(-db, 1)} dB over` : db < 0.5 ? 'at' : `${num(db)} dB to`)

function drawModem(
  levels: Levels,
  doc: JobDocument,
  { o, y, words }: { o: LevelLineOptions; y: (dbm: number) => number; words: LabelWish[] },
): void {
  const modem = levels.modems[0]
  if (!modem) return
  const x = o.xOf(sure(doc.nodes.find(n => n.id === modem.routerId)))
  const at = y(modem.rsrpDbm)
  // On the side that the line does not come from; to the left it stands over what was read.
  const left = x < o.xOf(nth(levels.sources, 0).donor.node)
  const beside = left ? { x: x - 12, anchor: 'end' as const } : { x: x + 12 }
  words.push({ ...beside, y: left ? at - 4 : at + 17, style: 'figure', text: `RSRP ${num(modem.rsrpDbm)} at the modem` })
  const metresOf = (feed: string) =>
    levels.ports.filter(l => l.visit.feed === feed).reduce((sum, l) => sum + (l.visit.joint ? jointM(l.visit.joint) : 0), 0)
  const metres = metresOf(modem.feed)
  const others = levels.modems.filter(m => m !== modem && m.routerId === modem.routerId)
  const differs = others.find(m => metresOf(m.feed) !== metres || Math.abs(m.rsrpDbm - modem.rsrpDbm) >= SAME_FEED_DB)
  const alike = differs
    ? `, its other feed ${length(metresOf(differs.feed), o.units)}: ${num(differs.rsrpDbm)} dBm`
    : others.length
      ? ', each feed alike'
      : ''
  words.push({
    ...beside,
    y: left ? at - 21 : at + 34,
    style: 'labelSoft',
    text: `${length(metres, o.units)} of cable and its joints −${num(modem.feedLossDb, 1)} dB${alike}`,
    optional: true,
  })
  words.push({
    ...beside,
    y: left ? at - 38 : at - 10,
    style: 'labelSoft',
    text: 'from here on it is Wi-Fi or Ethernet',
    optional: true,
  })
}

/** From the antenna that serves it best, through the air, to the phone in each room. */
function drawRoomEnds(
  p: Primitive[],
  labels: LabelSpace,
  { a, o, y, words }: { a: Assessment; o: LevelLineOptions; y: (dbm: number) => number; words: LabelWish[] },
): void {
  for (const r of a.rooms) {
    const server = a.levels!.servers.find(s => s.at.node.id === r.server.node.id)
    if (!server) continue
    const [x1, y1] = [o.xOf(r.server.node), y(server.fedRsrpDbm)]
    const [x2, y2] = [o.xOf(r.spot), y(r.rsrpDbm)]
    const points = airCurve(x1, y1, x2, y2)
    p.push({ kind: 'path', style: 'computed', d: polyline(points) })
    for (let i = 1; i < points.length; i++) labels.keepOff(...nth(points, i - 1), ...nth(points, i))
    p.push({ kind: 'circle', style: r.met ? 'dot' : 'block', x: x2, y: y2, r: 3.6, id: r.spot.id })
    labels.reserve(x2 - 4, y2 - 4, 8, 8)
  }
  const weakest = a.rooms.reduce<Assessment['rooms'][number] | null>((b, c) => (!b || c.rsrpDbm < b.rsrpDbm ? c : b), null)
  for (const r of [...a.rooms].sort((b, c) => Number(c.spot.needed) - Number(b.spot.needed)))
    words.push({
      x: o.xOf(r.spot) + 8,
      y: y(r.rsrpDbm) + 5,
      style: r.met ? 'figure' : 'figureShort',
      text: `${num(r.rsrpDbm)} ${r.spot.name.toLowerCase()}`,
      id: r.spot.id,
      optional: (o.compact || a.rooms.length > FEW_ROOMS) && !r.spot.needed && r !== weakest,
    })
}

/** Of more rooms than these only those that are needed are told whatever lies there. */
const FEW_ROOMS = 3

/** Falling fast at first, then slower, as loss grows with the logarithm of distance. */
function airCurve(x1: number, y1: number, x2: number, y2: number): [number, number][] {
  const out: [number, number][] = []
  for (let i = 0; i <= 10; i++) {
    const t = i / 10
    out.push([x1 + t * (x2 - x1), y1 + (y2 - y1) * Math.log10(1 + 9 * t)])
  }
  return out
}
