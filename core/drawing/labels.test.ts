/** Every drawing of every demo job, at four widths: no word lies on another, on a line, or beyond the paper. */
import { beforeAll, describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { demoTile } from '../../demo/terrain'
import { floorCoverage } from '../coverage/floor'
import type { JobDocument } from '../job/schema'
import { assess } from '../judge/assess'
import type { Assessment } from '../judge/assess'
import { pathInputs } from '../masts/bearings'
import { cutTile, Terrain } from '../terrain/blocks'
import { computePaths } from '../terrain/path'
import { layoutDial } from './dial'
import { layoutPlan } from './floor-plan'
import { STYLES, textWidth } from './primitives'
import type { Box, Drawing, Primitive, Style } from './primitives'
import { layoutSection } from './section'
import { layoutSightLine } from './sightline'
import { layoutZones } from './zone-map'
import { buildingOf } from '../site/building'

type Text = Extract<Primitive, { kind: 'text' }>
/** What letters take of their size over and under the baseline. @source the face's cap height 668, descent of g 205 of 1000 */
const OVER = 0.67
const UNDER = 0.2

function boxOf(t: Text): Box {
  const w = textWidth(t.text, t.style)
  const { size = 12.5 }: Style = STYLES[t.style]
  const x = t.anchor === 'middle' ? t.x - w / 2 : t.anchor === 'end' ? t.x - w : t.x
  return { x, y: t.y - OVER * size, w, h: (OVER + UNDER) * size }
}
const overlap = (a: Box, b: Box): number => {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x)
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y)
  return w > 1 && h > 1 ? w * h : 0
}

/** Straight pieces of what is drawn as a line. */
function strokes(p: Primitive): [number, number, number, number][] {
  if (p.kind === 'line') return [[p.x1, p.y1, p.x2, p.y2]]
  if (p.kind !== 'path' || /[^MLZ\d\s.,-]/.test(p.d)) return []
  const points = p.d.split(/[MLZ]/).filter(Boolean).map(q => q.trim().split(/[\s,]+/).map(Number))
  return points.slice(1).map((q, i) => [points[i]![0]!, points[i]![1]!, q[0]!, q[1]!])
}
/** Whether a piece enters a box, its edges shrunk by a pixel. */
function enters([x1, y1, x2, y2]: readonly [number, number, number, number], b: Box): boolean {
  const N = 200
  for (let i = 0; i <= N; i++) {
    const x = x1 + ((x2 - x1) * i) / N
    const y = y1 + ((y2 - y1) * i) / N
    if (x > b.x + 1 && x < b.x + b.w - 1 && y > b.y + 1 && y < b.y + b.h - 1) return true
  }
  return false
}

function troubles(d: Drawing): string[] {
  const texts = d.primitives.filter((p): p is Text => p.kind === 'text' && p.text.trim() !== '')
  const boxes = texts.map(boxOf)
  const out: string[] = []
  texts.forEach((t, i) => {
    const a = boxes[i]!
    if (a.x < -1 || a.y < -1 || a.x + a.w > d.width + 1 || a.y + a.h > d.height + 1) out.push(`beyond: ${t.text}`)
    for (let k = i + 1; k < texts.length; k++)
      if (overlap(a, boxes[k]!) && !(texts[k]!.text === t.text)) out.push(`${t.text} / ${texts[k]!.text}`)
  })
  for (const p of d.primitives) {
    if ((STYLES[p.style] as Style).stroke === undefined) continue
    for (const l of strokes(p))
      texts.forEach((t, i) => { if (enters(l, boxes[i]!)) out.push(`line ${p.style} x ${t.style}: ${t.text}`) })
  }
  return out
}

let jobs: { name: string; doc: JobDocument; a: Assessment }[]
beforeAll(() => {
  const terrain = new Terrain(cutTile(demoTile()))
  jobs = demoScenario().jobs.map(({ document: doc }) => ({
    name: doc.jobs[0]!.name,
    doc,
    a: assess(doc, { paths: computePaths(terrain, pathInputs(doc)) }, { atUtc: '2026-04-03T12:00:00.000Z' }),
  }))
}, 60_000)

const SIZES = [
  { width: 390, height: 320, compact: true },
  { width: 768, height: 560, compact: false },
  { width: 1280, height: 580, compact: false },
  { width: 1920, height: 860, compact: false },
]
describe('labels', () => {
  it('count', () => {
    const all: string[] = []
    for (const { name, doc, a } of jobs)
      for (const s of SIZES)
        for (const units of ['metric', 'imperial'] as const) {
          const put = (what: string, d: Drawing) => all.push(...troubles(d).map(x => `${name} ${what} ${s.width} ${units}: ${x}`))
          put('place', layoutSection(doc, a, { ...s, units, levels: false, pins: true }).drawing)
          put('ask', layoutSection(doc, a, { ...s, units, levels: false }).drawing)
          put('route', layoutSection(doc, a, { ...s, units, levels: false, pins: true, loops: false, surgeWords: true }).drawing)
          put(
            'level',
            layoutSection(doc, a, {
              ...s,
              units,
              height: s.compact ? 450 : s.height,
              levels: true,
              levelHeight: s.compact ? 207 : undefined,
            }).drawing,
          )
          for (const f of a.floors)
            put(`plan ${f.level}`, layoutPlan(doc, a, { ...s, units, level: f.level, pins: true }).drawing)
          put(
            'dial',
            layoutDial(a, {
              size: Math.min(s.width, s.height),
              width: s.width,
              masts: 6,
              showSweep: true,
              headingDeg: null,
              selectedId: a.chosen?.mast.id ?? null,
            }),
          )
          for (const m of a.masts.slice(0, 3))
            if (m.path && m.best)
              put(
                `sightline`,
                layoutSightLine(m.path, {
                  width: s.width,
                  height: 200,
                  units,
                  band: m.best.band,
                  heightM: 8,
                  mastName: m.mast.name,
                  diffractionDb: 3,
                  compact: s.compact,
                }),
              )
          if (doc.zones.length)
            for (const f of a.floors) put('zones', layoutZones(buildingOf(doc), doc.zones, { level: f.level, width: s.width }))
        }
    console.log(all.length)
    const by = new Map<string, number>()
    for (const x of all) {
      const k = /line (\S+ x \S+):/.exec(x)?.[1] ?? x.split(':')[0]!
      by.set(k, (by.get(k) ?? 0) + 1)
    }
    console.log([...by].map(x => x.join(' ')).join('\n'))
    console.log(all.filter((_, i) => i % 9 === 0).slice(0,150).join('\n'))
    expect(all).toEqual([])
  }, 60_000)
})
