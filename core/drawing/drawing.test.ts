import { beforeAll, describe, expect, it } from 'vitest'
import { assess } from '../judge/assess'
import type { Assessment } from '../judge/assess'
import { pathInputs } from '../masts/bearings'
import type { JobDocument } from '../job/schema'
import { cutTile, Terrain } from '../terrain/blocks'
import { computePaths } from '../terrain/path'
import { demoScenario } from '../../demo/scenario'
import { demoTile } from '../../demo/terrain'
import { layoutDial } from './dial'
import { attributes, LabelSpace, polyline, PRINT_PALETTE, STYLES, textWidth, toSvg } from './primitives'
import type { Primitive } from './primitives'
import { layoutSection } from './section'
import { layoutSightLine } from './sightline'

type Text = Extract<Primitive, { kind: 'text' }>

let kiln: JobDocument
let loft: JobDocument
let ofKiln: Assessment
let ofLoft: Assessment

beforeAll(() => {
  const terrain = new Terrain(cutTile(demoTile()))
  const scenario = demoScenario()
  kiln = scenario.jobs[0]!.document
  loft = scenario.jobs[1]!.document
  const run = (doc: JobDocument) => {
    const paths = computePaths(terrain, pathInputs(doc))
    return assess(doc, { paths }, { atUtc: '2026-04-03T12:00:00.000Z' })
  }
  ofKiln = run(kiln)
  ofLoft = run(loft)
})

const texts = (p: readonly Primitive[]) => p.filter((x): x is Text => x.kind === 'text')
const desk = { width: 1280, height: 580, units: 'metric' as const, levels: true }

describe('the section', () => {
  it('is to scale: a metre along is a metre up', () => {
    const v = layoutSection(loft, ofLoft, desk)
    expect(v.toX(1) - v.toX(0)).toBeCloseTo(v.toY(0) - v.toY(1), 9)
    expect(v.toAlong(v.toX(3.3))).toBeCloseTo(3.3, 9)
    expect(v.toUp(v.toY(2.7))).toBeCloseTo(2.7, 9)
  })

  it('puts every part of the kit and every spot where its numbers say', () => {
    const v = layoutSection(loft, ofLoft, desk)
    expect(v.handles.filter(h => h.kind === 'node')).toHaveLength(ofLoft.tree!.nodes.length)
    expect(v.handles.filter(h => h.kind === 'spot')).toHaveLength(loft.spots.length)
    const donor = loft.nodes.find(n => n.part?.kind === 'antenna' && n.part.use === 'outside')!
    const handle = v.handles.find(h => h.id === donor.id)!
    expect(v.toUp(handle.y)).toBeCloseTo(donor.upM, 9)
  })

  it('looks so that the mast stands on the left', () => {
    const v = layoutSection(loft, ofLoft, desk)
    const donor = v.handles.find(h => h.label === 'Roof log-periodic')!
    const dome = v.handles.find(h => h.label.startsWith('Dome, '))!
    expect(donor.x).toBeLessThan(dome.x)
  })

  it('draws the level line on the same axis: each part has a dot under it', () => {
    const v = layoutSection(loft, ofLoft, desk)
    const top = desk.height * 0.58
    for (const role of ['Roof log-periodic', 'Arrestor', 'Dome, ']) {
      const h = v.handles.find(x => x.label.startsWith(role))!
      const dot = v.drawing.primitives.find(p => p.kind === 'circle' && p.id === h.id && p.y > top)
      expect(dot && dot.kind === 'circle' && Math.abs(dot.x - h.x), role).toBeLessThan(0.01)
    }
  })

  it('line weight tells provenance: read is heavy, unmeasured cable dashed', () => {
    const v = layoutSection(loft, ofLoft, desk)
    expect(v.drawing.primitives.some(p => p.style === 'measured' && p.kind === 'line')).toBe(true)
    expect(v.drawing.primitives.some(p => p.style === 'assumed')).toBe(true)
    expect(STYLES.measured.width).toBeGreaterThan(STYLES.computed.width)
    expect(STYLES.assumed.dash).toBeTruthy()
  })

  it('says isolation on the picture, red while it is short', () => {
    const words = texts(layoutSection(loft, ofLoft, desk).drawing.primitives)
    const isolation = words.find(t => t.text.startsWith('isolation'))!
    expect(isolation.style).toBe('labelShort')
    expect(isolation.text).toMatch(/^isolation \d+ dB, needs 72$/)
  })

  it('says what is missing where there is no chain', () => {
    const bare = { ...loft, nodes: [], runs: [] }
    const a = assess(bare, { paths: {} }, { atUtc: '2026-04-03T12:00:00.000Z' })
    expect(
      texts(layoutSection(bare, a, desk).drawing.primitives).some(t => t.text.startsWith('The level line starts when')),
    ).toBe(true)
  })

  it('draws in feet where asked', () => {
    const words = texts(layoutSection(kiln, ofKiln, { ...desk, units: 'imperial' }).drawing.primitives)
      .map(t => t.text)
      .join('|')
    expect(words).toContain('mi')
    expect(words).not.toMatch(/\d\u2009km/)
  })
})

describe('the dial', () => {
  const o = { size: 400, masts: 4, showSweep: true, headingDeg: null, selectedId: null }

  it('puts a bearing where it points: east to the right, south below', () => {
    const d = layoutDial(ofKiln, { ...o, selectedId: ofKiln.chosen!.mast.id })
    const ray = d.primitives.find(p => p.kind === 'line' && p.style === 'mastRay')!
    // The chosen mast is at 182° true: down, a hair to the left.
    expect(ray.kind === 'line' && ray.y2 - ray.y1).toBeGreaterThan(100)
    expect(ray.kind === 'line' && ray.x2 - ray.x1).toBeLessThan(0)
  })

  it('draws one bar a heading, the best the longest', () => {
    const bars = layoutDial(ofKiln, o).primitives.filter(
      (p): p is Extract<Primitive, { kind: 'line' }> => p.kind === 'line' && p.style === 'measuredBar',
    )
    expect(bars).toHaveLength(ofKiln.sweep!.result!.byHeading.length)
    const long = (b: (typeof bars)[number]) => Math.hypot(b.x2 - b.x1, b.y2 - b.y1)
    const best = bars.reduce((a, b) => (long(b) > long(a) ? b : a))
    expect(best.title).toContain('180°')
  })

  it('hides the sweep where only bearings are wanted, and turns as a whole', () => {
    expect(layoutDial(ofKiln, { ...o, showSweep: false }).primitives.some(p => p.style === 'measuredBar')).toBe(false)
    const north = (offset: number) =>
      texts(layoutDial(ofKiln, { ...o, northOffsetDeg: offset }).primitives).find(t => t.text === 'N')!
    expect(north(0).x).toBeCloseTo(north(13).x, 9)
  })

  it('keeps the names of masts apart', () => {
    const names = texts(layoutDial(ofKiln, { ...o, masts: 6, width: 640 }).primitives).filter(t => /^\d+ /.test(t.text))
    expect(names.length).toBeGreaterThanOrEqual(6)
    for (const a of names)
      for (const b of names)
        if (a !== b && Math.abs(a.x - b.x) < 30 && a.anchor === b.anchor) expect(Math.abs(a.y - b.y)).toBeGreaterThan(8)
  })
})

describe('the sight line', () => {
  it('runs from the mount to the mast’s top and writes the cost on the blocking edge', () => {
    const near = ofKiln.masts.find(m => m.mast.name === 'Lee Harbour')!
    const d = layoutSightLine(near.path!, {
      width: 1000,
      height: 200,
      units: 'metric',
      band: near.best!.band,
      heightM: 8,
      mastName: near.mast.name,
      diffractionDb: near.best!.diffractionDb,
    })
    const cost = texts(d.primitives).find(t => t.style === 'labelShort')!
    expect(cost.text).toMatch(/^\d+ dB lost here, 3\.\d\u2009km out/)
    expect(d.primitives.some(p => p.style === 'limit')).toBe(true)
  })

  it('says by how much a clear one is clear', () => {
    const d = layoutSightLine(ofKiln.chosen!.path!, {
      width: 1000,
      height: 200,
      units: 'metric',
      band: 'B20',
      heightM: 8,
      mastName: 'Stack',
      diffractionDb: 0,
    })
    expect(texts(d.primitives).some(t => t.style === 'labelMet' && t.text.startsWith('clear by'))).toBe(true)
    expect(d.primitives.some(p => p.style === 'limit')).toBe(false)
  })
})

describe('primitives', () => {
  it('become SVG with every attribute a number or a colour', () => {
    for (const d of [
      layoutSection(loft, ofLoft, desk).drawing,
      layoutDial(ofKiln, { size: 300, masts: 3, showSweep: true, headingDeg: 90, selectedId: null }),
    ]) {
      for (const p of d.primitives)
        for (const [k, v] of Object.entries(attributes(p, r => PRINT_PALETTE[r])))
          expect(String(v), `${p.kind} ${k}`).not.toMatch(/NaN|undefined|Infinity/)
    }
  })

  it('escape what people type', () => {
    const svg = toSvg({ width: 10, height: 10, primitives: [{ kind: 'text', style: 'label', x: 0, y: 0, text: '<script>"&' }] })
    expect(svg).toContain('&lt;script&gt;&quot;&amp;')
  })

  it('polylines close where asked', () =>
    expect(
      polyline(
        [
          [0, 0],
          [1, 0.04],
        ],
        true,
      ),
    ).toBe('M0 0L1 0Z'))

  it('labels asked for one place are put apart', () => {
    const space = new LabelSpace()
    const ys = [0, 1, 2, 3].map(() => space.place(100, 100, { textLength: 80 }))
    expect(new Set(ys).size).toBe(4)
    for (const a of ys) for (const b of ys) if (a !== b) expect(Math.abs(a - b)).toBeGreaterThanOrEqual(7)
    expect(space.place(400, 100, { textLength: textWidth('far away') })).toBe(100)
  })
})

describe('a label that belongs to a room', () => {
  const within = { x: 0, y: 100, w: 60, h: 40 }
  const put = (text: string, ...kept: [number, number, number, number][]) => {
    const space = new LabelSpace()
    for (const line of kept) space.keepOff(...line)
    const p: Primitive[] = []
    space.put(p, { x: 30, y: 124, anchor: 'middle', style: 'labelSoft', text, within, optional: true })
    return p
  }
  it('is written in the room, past a line across its middle', () => {
    const [label, ...more] = put('Hall', [-50, 120, 150, 120])
    expect(more).toEqual([])
    expect(label).toMatchObject({ kind: 'text' })
    expect((label as { y: number }).y).toBeGreaterThan(100)
    expect((label as { y: number }).y).toBeLessThanOrEqual(140)
  })
  it('is left out where the room has no place for it', () => {
    expect(put('a name longer than the room')).toEqual([])
    expect(put('Hall', [0, 110, 60, 110], [0, 120, 60, 120], [0, 130, 60, 130])).toEqual([])
  })
})
