/** What drawings are made of. The screen and the report render the same primitives. */
import { nth } from '../sure'
import { CHARACTERS, WIDTHS } from './face'

export type Role =
  'paper' | 'sheet' | 'ink' | 'soft' | 'line' | 'computed' | 'short' | 'met' | 'agreed' | 'sky' | 'ground' | 'beam' | 'none'

export interface Style {
  stroke?: Role
  fill?: Role
  width?: number
  dash?: string
  opacity?: number
  font?: 'sans' | 'mono'
  size?: number
  weight?: 400 | 600 | 700
}

interface Base {
  style: keyof typeof STYLES
  id?: string
  title?: string
}

export type Primitive =
  | (Base & { kind: 'line'; x1: number; y1: number; x2: number; y2: number })
  | (Base & { kind: 'path'; d: string })
  | (Base & { kind: 'rect'; x: number; y: number; w: number; h: number })
  | (Base & { kind: 'circle'; x: number; y: number; r: number })
  | (Base & { kind: 'text'; x: number; y: number; text: string; anchor?: 'start' | 'middle' | 'end' })

export interface Drawing {
  width: number
  height: number
  primitives: Primitive[]
}

const text = (fill: Role, size: number, weight: 400 | 600 | 700 = 400, font: 'sans' | 'mono' = 'sans'): Style => ({
  fill,
  size,
  weight,
  font,
})

/** Every look a primitive may have. Provenance is line weight: measured heavy, computed thin, assumed dashed. */
export const STYLES = {
  sky: { fill: 'sky' },
  ground: { fill: 'ground' },
  sheet: { fill: 'sheet' },
  paper: { fill: 'paper' },
  wall: { stroke: 'ink', width: 2, fill: 'sheet' },
  inner: { stroke: 'soft', width: 1 },
  outline: { stroke: 'ink', width: 2.5, fill: 'none' },
  planWall: { stroke: 'ink', width: 1.6 },
  planHeavy: { stroke: 'ink', width: 4 },
  planRun: { stroke: 'ink', width: 1.6, fill: 'none' },
  planRunAssumed: { stroke: 'ink', width: 1.1, dash: '4 3', fill: 'none', opacity: 0.7 },
  antennaOut: { stroke: 'ink', width: 2, fill: 'sheet' },
  antennaIn: { stroke: 'ink', width: 1.6, fill: 'sheet' },
  coverShort: { stroke: 'short', width: 1.2, fill: 'none', opacity: 0.85 },
  coverJust: { stroke: 'soft', width: 1, fill: 'none', opacity: 0.8 },
  proposed: { stroke: 'computed', width: 2, fill: 'sheet', dash: '3 2' },
  grade: { stroke: 'ink', width: 2.5 },
  hatch: { stroke: 'soft', width: 0.7, opacity: 0.6 },
  measured: { stroke: 'ink', width: 3, fill: 'none' },
  computed: { stroke: 'computed', width: 1.6, fill: 'none' },
  assumed: { stroke: 'ink', width: 1.6, dash: '4 3', fill: 'none' },
  grid: { stroke: 'line', width: 1 },
  drop: { stroke: 'line', width: 1, dash: '2 3' },
  leader: { stroke: 'ink', width: 1 },
  rule: { stroke: 'ink', width: 1.2, fill: 'none' },
  cable: { stroke: 'ink', width: 2.2, fill: 'none' },
  pole: { stroke: 'ink', width: 3.4 },
  part: { stroke: 'ink', width: 1.6, fill: 'sheet' },
  solid: { fill: 'ink' },
  unit: { stroke: 'soft', width: 1.2, fill: 'ground' },
  unitAbove: { stroke: 'soft', width: 1.2, fill: 'none' },
  skyEdge: { stroke: 'computed', width: 1, dash: '3 3' },
  view: { fill: 'agreed', opacity: 0.25 },
  photo: { stroke: 'ink', width: 1.4, fill: 'sheet' },
  photoNumber: text('ink', 12, 700, 'mono'),
  antenna: { stroke: 'ink', width: 2, fill: 'none' },
  earth: { stroke: 'met', width: 2.2, fill: 'none' },
  loop: { stroke: 'short', width: 1.8, dash: '2 4', fill: 'none' },
  loopGood: { stroke: 'met', width: 1.4, dash: '2 4', fill: 'none' },
  beam: { fill: 'beam', opacity: 0.55 },
  beamLine: { stroke: 'computed', width: 1.4 },
  bad: { fill: 'short', opacity: 0.13 },
  badLine: { stroke: 'short', width: 1.4, dash: '6 4', fill: 'none' },
  limit: { stroke: 'short', width: 2 },
  good: { fill: 'met', opacity: 0.3 },
  goodSolid: { fill: 'met' },
  metHatch: { stroke: 'met', width: 1 },
  shortHatch: { stroke: 'ink', width: 1 },
  dot: { fill: 'ink' },
  wheel: { fill: 'ink' },
  wave: { stroke: 'computed', width: 1, opacity: 0.5, fill: 'none' },
  picket: { stroke: 'short', width: 1.6, dash: '3 3' },
  pin: { stroke: 'ink', width: 1.6, fill: 'sheet' },
  pinHidden: { stroke: 'soft', width: 1.4, fill: 'none', dash: '3 2' },
  pinChosen: { stroke: 'computed', width: 2.2, fill: 'computed' },
  sun: { stroke: 'agreed', width: 2, fill: 'agreed' },
  hollow: { fill: 'sheet', stroke: 'ink', width: 1.6 },
  measuredBar: { stroke: 'ink', width: 5 },
  ringOpen: { stroke: 'short', width: 1.8, fill: 'sheet', dash: '3 2' },
  ring: { stroke: 'ink', width: 1.2, fill: 'sheet' },
  tick: { stroke: 'ink', width: 1 },
  tickBold: { stroke: 'ink', width: 2.2 },
  needle: { fill: 'ink' },
  mastRay: { stroke: 'computed', width: 1.2 },
  otherRay: { stroke: 'soft', width: 1, dash: '3 3' },
  zone: { fill: 'beam', opacity: 0.4 },
  block: { fill: 'short', opacity: 0.55 },
  sea: { stroke: 'computed', width: 1 },
  label: text('ink', 12.5),
  labelSoft: text('soft', 12.5),
  labelBold: text('ink', 12.5, 700),
  labelBlue: text('computed', 12.5, 600),
  labelShort: text('short', 12.5, 600),
  labelMet: text('met', 12.5, 600),
  figure: text('ink', 12.5, 600, 'mono'),
  figureSoft: text('soft', 11.5, 400, 'mono'),
  figureShort: text('short', 12.5, 600, 'mono'),
  figureInverse: text('sheet', 12.5, 600, 'mono'),
  slab: { stroke: 'ink', width: 3 },
  partition: { stroke: 'soft', width: 1, dash: '1 3' },
  sheetLine: { stroke: 'ink', width: 4 },
  small: text('soft', 11.5),
  labelInverse: text('sheet', 12.5, 600),
  cardinal: text('ink', 15, 700),
  calloutFill: { fill: 'sheet', stroke: 'short', width: 1.6 },
  calloutPlain: { fill: 'sheet', stroke: 'ink', width: 1.2 },
} satisfies Record<string, Style>

/** Ink on paper, for print. */
export const PRINT_PALETTE: Record<Role, string> = {
  paper: '#ffffff',
  sheet: '#ffffff',
  ink: '#191d22',
  soft: '#5d636b',
  line: '#cfc9bb',
  computed: '#1d5c8f',
  short: '#b3341a',
  met: '#27633f',
  agreed: '#b8961a',
  sky: '#f1f4f5',
  ground: '#e6e0d3',
  beam: '#b9d0e2',
  none: 'none',
}

/** Attributes of a primitive's SVG element. @param colour  what a role is painted with */
export function attributes(p: Primitive, colour: (role: Role) => string): Record<string, string | number> {
  const s: Style = STYLES[p.style]
  const out: Record<string, string | number> = {}
  out.fill = s.fill ? colour(s.fill) : 'none'
  if (s.stroke) {
    out.stroke = colour(s.stroke)
    out['stroke-width'] = s.width ?? 1
    if (s.dash) out['stroke-dasharray'] = s.dash
    out['stroke-linejoin'] = 'round'
  }
  if (s.opacity !== undefined) out.opacity = s.opacity
  if (p.kind === 'line') Object.assign(out, { x1: r1(p.x1), y1: r1(p.y1), x2: r1(p.x2), y2: r1(p.y2) })
  if (p.kind === 'path') out.d = p.d
  if (p.kind === 'rect') Object.assign(out, { x: r1(p.x), y: r1(p.y), width: r1(Math.max(0, p.w)), height: r1(Math.max(0, p.h)) })
  if (p.kind === 'circle') Object.assign(out, { cx: r1(p.x), cy: r1(p.y), r: r1(p.r) })
  if (p.kind === 'text') {
    Object.assign(out, {
      'x': r1(p.x),
      'y': r1(p.y),
      'font-size': s.size ?? 12.5,
      'font-weight': s.weight ?? 400,
      'font-family': s.font === 'mono' ? 'Atkinson Hyperlegible Mono' : 'Atkinson Hyperlegible Next',
    })
    if (p.anchor) out['text-anchor'] = p.anchor
  }
  return out
}

const r1 = (v: number): number => Math.round(v * 10) / 10

/** @returns the drawing as an SVG document, for print */
export function toSvg(d: Drawing, palette = PRINT_PALETTE): string {
  const body = d.primitives.map(p => {
    const a = Object.entries(attributes(p, r => palette[r]))
      .map(([k, v]) => `${k}="${escape(String(v))}"`)
      .join(' ')
    return p.kind === 'text' ? `<text ${a}>${escape(p.text)}</text>` : `<${p.kind} ${a}/>`
  })
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${d.width} ${d.height}" width="${d.width}" ` +
    `height="${d.height}">${body.join('')}</svg>`
  )
}

const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

export const polyline = (points: readonly (readonly [number, number])[], close = false): string =>
  points.map(([x, y], i) => `${i ? 'L' : 'M'}${r1(x)} ${r1(y)}`).join('') + (close ? 'Z' : '')

const INDEX = new Map([...CHARACTERS].map((c, i) => [c, i]))
/** Of a character that the shipped faces lack: what another face draws is about as wide as this, thousandths of the size. */
const UNKNOWN_WIDTH = 640

/** Width of a text in a style, px: by the shipped face's own widths, kerning left out (under 4 %). */
export function textWidth(s: string, style: TextStyle = 'label'): number {
  const { size = 12.5, font = 'sans', weight = 400 }: Style = STYLES[style]
  const widths = font === 'sans' ? WIDTHS[`sans${weight}`] : weight === 400 ? WIDTHS.mono400 : WIDTHS.mono600
  let sum = 0
  for (const c of s) sum += widths[INDEX.get(c) ?? -1] ?? UNKNOWN_WIDTH
  return (sum * size) / 1000
}

/** @returns a text in lines no wider than some px; a word that is wider alone stands alone */
export function wrapped(s: string, widthPx: number, style: TextStyle): string[] {
  const lines: string[] = []
  for (const word of s.split(' ')) {
    const longer = lines.length ? `${lines.at(-1)} ${word}` : word
    if (lines.length && textWidth(longer, style) <= widthPx) lines[lines.length - 1] = longer
    else lines.push(word)
  }
  return lines
}

export type Anchor = 'start' | 'middle' | 'end'
export type TextStyle = Primitive['style']

export interface LabelWish {
  x: number
  /** baseline it would like */
  y: number
  text: string
  style: TextStyle
  anchor?: Anchor
  /** left out rather than laid over something */
  optional?: boolean
  /** where it belongs: it is written nowhere else */
  within?: Box
  id?: string
}

/** How finely places are searched where none nearby is free, px; a space without an end is not searched. */
const SEARCH_PX = 8
const MOST_SEARCHED_PX = 10_000

const COLUMN_PX = 32
const columnOf = (x: number): number => Math.floor(x / COLUMN_PX)

/**
 * Keeps labels off each other and off lines. The rule: each label in its turn takes the free place
 * nearest to the one it asked for, looked for above and below it, then further to either side; one that
 * has to go further than a line's height gets a leader back to its place; one that belongs to a room is
 * written in that room, without a leader; one that is optional and finds no room is left out.
 */
export class LabelSpace {
  private readonly taken: Box[] = []
  /** lines by the columns of the drawing that they pass: a label looks at those of its own columns alone */
  private readonly lines = new Map<number, [number, number, number, number][]>()
  /** words, apart from parts: no leader crosses them */
  private readonly words: Box[] = []

  constructor(
    private readonly lineHeight = 15,
    private readonly bounds: Box = { x: -1e6, y: -1e6, w: 2e6, h: 2e6 },
  ) {}

  reserve(x: number, y: number, w: number, h: number): void {
    this.taken.push({ x, y, w, h })
  }

  /** A word that is written elsewhere: no label and no leader lies on it. */
  reserveWord(x: number, y: number, w: number, h: number): void {
    this.reserve(x, y, w, h)
    this.words.push({ x, y, w, h })
  }

  /** A line that no label may cross. */
  keepOff(x1: number, y1: number, x2: number, y2: number): void {
    for (let c = columnOf(Math.min(x1, x2)); c <= columnOf(Math.max(x1, x2)); c++) {
      const there = this.lines.get(c)
      if (there) there.push([x1, y1, x2, y2])
      else this.lines.set(c, [[x1, y1, x2, y2]])
    }
  }

  /** Whether a box lies on no label and no part; lines may cross it. */
  private apart(box: Box): boolean {
    return inside(box, this.bounds) && !this.taken.some(t => overlaps(t, box))
  }

  private free(box: Box): boolean {
    if (!this.apart(box)) return false
    for (let c = columnOf(box.x); c <= columnOf(box.x + box.w); c++)
      if (this.lines.get(c)?.some(l => crosses(l, box))) return false
    return true
  }

  /** @returns the corner of the nearest box within the bounds that is as asked, looked for over the whole of them */
  private nearest(
    [x, y]: readonly [number, number],
    { w, h }: { w: number; h: number },
    good: (b: Box) => boolean,
    within: Box = this.bounds,
  ): readonly [number, number] | null {
    if (within.w > MOST_SEARCHED_PX) return null
    const at = (v: number, from: number, room: number) => Math.min(Math.max(v, from), from + Math.max(0, room))
    const [cx, cy] = [at(x, within.x, within.w - w), at(y, within.y, within.h - h)]
    let best: readonly [number, number] | null = null
    let away = Infinity
    for (let dy = 0; dy <= within.h; dy += SEARCH_PX)
      for (const py of dy ? [cy - dy, cy + dy] : [cy])
        for (let dx = 0; dx <= within.w; dx += 2 * SEARCH_PX)
          for (const px of dx ? [cx - dx, cx + dx] : [cx]) {
            const far = Math.hypot(px - x, 2 * (py - y))
            if (far >= away || !inside({ x: px, y: py, w, h }, within) || !good({ x: px, y: py, w, h })) continue
            best = [px, py]
            away = far
          }
    return best
  }

  /**
   * @returns the first of some places at which a box lies on nothing, else the nearest to the first that is free within the
   *   bounds, else the nearest that lies on lines alone. It is then taken.
   */
  settle(w: number, h: number, places: readonly (readonly [number, number])[]): readonly [number, number] {
    const first = nth(places, 0)
    const found =
      places.find(([x, y]) => this.free({ x, y, w, h })) ??
      this.nearest(first, { w, h }, b => this.free(b)) ??
      this.nearest(first, { w, h }, b => this.apart(b)) ??
      first
    this.taken.push({ x: found[0], y: found[1], w, h })
    return found
  }

  /** @returns the baseline y given: the nearest free one above or below */
  place(
    x: number,
    y: number,
    {
      textLength,
      anchor = 'start',
      bounds = [-Infinity, Infinity],
    }: { textLength: number; anchor?: Anchor; bounds?: [number, number] },
  ): number {
    const left = leftOf(x, textLength, anchor)
    const box = (at: number): Box => ({ x: left, y: at - this.lineHeight + 3, w: textLength, h: this.lineHeight })
    const fits = (at: number) => at - this.lineHeight >= bounds[0] && at <= bounds[1] && this.free(box(at))
    let best = y
    for (let k = 0; k < 24; k++) {
      const hit = [y - k * this.lineHeight * 0.5, y + k * this.lineHeight * 0.5].find(fits)
      if (hit !== undefined) {
        best = hit
        break
      }
    }
    this.taken.push(box(best))
    return best
  }

  /** Writes a label where there is room for it. @returns whether it was written */
  put(p: Primitive[], w: LabelWish): boolean {
    const anchor = w.anchor ?? 'start'
    const long = textWidth(w.text, w.style)
    const boxAt = (x: number, y: number): Box => ({
      x: leftOf(x, long, anchor) - 2,
      y: y - this.lineHeight + 3,
      w: long + 4,
      h: this.lineHeight,
    })
    for (const [dx, dy] of PLACES) {
      const x = w.x + dx * long * 0.5
      const y = w.y + dy * this.lineHeight
      const box = boxAt(x, y)
      if ((w.within && !inside(box, w.within)) || !this.free(box)) continue
      const leader = this.leaderTo(w, { x, y, box })
      if (leader && !this.clear(leader)) continue
      return this.write(p, w, { anchor, x, y, box })
    }
    if (w.optional) return false
    // Nowhere free nearby: the nearest place of all that is, or that only lines cross.
    const box = boxAt(w.x, w.y)
    const room = w.within ?? this.bounds
    const corner = [box.x, box.y] as const
    const found = this.nearest(corner, box, b => this.free(b), room) ?? this.nearest(corner, box, b => this.apart(b), room)
    if (found) {
      const [dx, dy] = [found[0] - box.x, found[1] - box.y]
      return this.write(p, w, { anchor, x: w.x + dx, y: w.y + dy, box: { ...box, x: found[0], y: found[1] } })
    }
    // None: held within the drawing, or its room, at its own height.
    const shift = Math.max(room.x - box.x, 0) - Math.max(box.x + box.w - room.x - room.w, 0)
    return this.write(p, w, { anchor, x: w.x + shift, y: w.y, box: { ...box, x: box.x + shift } })
  }

  /** @returns the line from where a label would have stood to where it stands; null where that is as good as there */
  private leaderTo(w: LabelWish, { x, y, box }: { x: number; y: number; box: Box }): [number, number, number, number] | null {
    if (w.within || Math.hypot(x - w.x, y - w.y) <= this.lineHeight * 1.6) return null
    return [w.x, w.y - 4, clamp(w.x, box.x, box.x + box.w), y < w.y ? y + 3 : y - 11]
  }

  private clear(line: [number, number, number, number]): boolean {
    return !this.words.some(b => crosses(line, b))
  }

  private write(p: Primitive[], w: LabelWish, { anchor, x, y, box }: { anchor: Anchor; x: number; y: number; box: Box }): true {
    const leader = this.leaderTo(w, { x, y, box })
    if (leader && this.clear(leader)) {
      const [x1, y1, x2, y2] = leader
      p.push({ kind: 'line', style: 'drop', x1, y1, x2, y2 })
      this.keepOff(x1, y1, x2, y2)
    }
    this.taken.push(box)
    this.words.push(box)
    p.push({ kind: 'text', style: w.style, x, y, text: w.text, anchor, ...(w.id ? { id: w.id } : {}) })
    return true
  }
}

export interface Box {
  x: number
  y: number
  w: number
  h: number
}

const clamp = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v))
const leftOf = (x: number, long: number, anchor: Anchor): number =>
  anchor === 'start' ? x : anchor === 'middle' ? x - long / 2 : x - long
const inside = (a: Box, b: Box): boolean => a.x >= b.x && a.y >= b.y && a.x + a.w <= b.x + b.w && a.y + a.h <= b.y + b.h
const overlaps = (a: Box, b: Box): boolean => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** Places to try, in halves of the label's length and in line heights, nearest first. */
const PLACES: readonly (readonly [number, number])[] = [0, 0.5, 1, 1.5, 2, 2.5, 3, 4, 5]
  .flatMap(dy => [0, 0.4, -0.4, 1, -1, 2, -2].flatMap(dx => (dy ? [[dx, -dy] as const, [dx, dy] as const] : [[dx, 0] as const])))
  .sort((a, b) => Math.hypot(2 * a[0], a[1]) - Math.hypot(2 * b[0], b[1]))

/** Whether a line enters a box. @source Liang and Barsky 1984 */
function crosses([x1, y1, x2, y2]: readonly [number, number, number, number], b: Box): boolean {
  let t0 = 0
  let t1 = 1
  const dx = x2 - x1
  const dy = y2 - y1
  for (const [p, q] of [
    [-dx, x1 - b.x],
    [dx, b.x + b.w - x1],
    [-dy, y1 - b.y],
    [dy, b.y + b.h - y1],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false
      continue
    }
    const t = q / p
    if (p < 0) t0 = Math.max(t0, t)
    else t1 = Math.min(t1, t)
    if (t0 > t1) return false
  }
  return true
}
