/** What drawings are made of. The screen and the report render the same primitives. */

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

/** Width of a text, px, near enough to keep labels apart. */
export const textWidth = (s: string, size = 12.5): number => s.length * size * 0.54

/** Keeps labels apart: each asks for a place and gets the nearest free one above or below it. */
export class LabelSpace {
  private readonly taken: { x: number; y: number; w: number; h: number }[] = []

  constructor(private readonly lineHeight = 15) {}

  reserve(x: number, y: number, w: number, h: number): void {
    this.taken.push({ x, y, w, h })
  }

  /** @returns the baseline y given */
  place(
    x: number,
    y: number,
    textLength: number,
    anchor: 'start' | 'middle' | 'end' = 'start',
    bounds: [number, number] = [-Infinity, Infinity],
  ): number {
    const left = anchor === 'start' ? x : anchor === 'middle' ? x - textLength / 2 : x - textLength
    const free = (at: number) =>
      at - this.lineHeight >= bounds[0] &&
      at <= bounds[1] &&
      !this.taken.some(
        t => left < t.x + t.w + 4 && t.x < left + textLength + 4 && at - this.lineHeight + 3 < t.y + t.h && t.y < at + 3,
      )
    let best = y
    for (let k = 0; k < 24; k++) {
      const candidates = [y - k * this.lineHeight * 0.5, y + k * this.lineHeight * 0.5]
      const hit = candidates.find(free)
      if (hit !== undefined) {
        best = hit
        break
      }
    }
    this.reserve(left, best - this.lineHeight + 3, textLength, this.lineHeight)
    return best
  }
}
