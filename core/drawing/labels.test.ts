/** Every drawing of every demo job, at four widths and in both units: no word lies on another, on a line, or beyond the paper. */
import { beforeAll, describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { demoTile } from '../../demo/terrain'
import { kitChanges } from '../fitting/usual-kit'
import { applyChanges } from '../job/changes'
import type { JobDocument } from '../job/schema'
import { assess } from '../judge/assess'
import type { Assessment } from '../judge/assess'
import { pathInputs } from '../masts/bearings'
import { buildingOf } from '../site/building'
import { landmarksSeen } from '../survey/landmarks'
import { moves, obstaclesHere, positionOf, screensHere } from '../survey/place'
import { cutTile, Terrain } from '../terrain/blocks'
import { horizonRing } from '../terrain/horizon'
import { computePaths } from '../terrain/path'
import { layoutDial } from './dial'
import { layoutPlan } from './floor-plan'
import { STYLES, textWidth } from './primitives'
import type { Box, Drawing, Primitive, Style } from './primitives'
import { layoutSection } from './section'
import { layoutSkyline } from './skyline'
import { layoutSightLine } from './sightline'
import { layoutZones } from './zone-map'

type Text = Extract<Primitive, { kind: 'text' }>
type Stroke = readonly [x1: number, y1: number, x2: number, y2: number]

/** What letters take of their size over and under the baseline. @source the face: cap height 668, descent of g 205, of 1000 */
const [OVER, UNDER] = [0.67, 0.2]
/** Words on a filled plate, drawn over what it covers. */
const ON_A_PLATE: ReadonlySet<string> = new Set(['labelInverse', 'photoNumber'])
/** Fillings, not lines. */
const TEXTURES: ReadonlySet<string> = new Set(['hatch', 'metHatch', 'shortHatch'])

function boxOf(t: Text): Box {
  const w = textWidth(t.text, t.style)
  const { size = 12.5 }: Style = STYLES[t.style]
  const x = t.anchor === 'middle' ? t.x - w / 2 : t.anchor === 'end' ? t.x - w : t.x
  return { x, y: t.y - OVER * size, w, h: (OVER + UNDER) * size }
}
const overlap = (a: Box, b: Box): boolean =>
  Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x) > 1 && Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y) > 1

/** Straight pieces of what is drawn as a line. */
function strokes(p: Primitive): Stroke[] {
  if (p.kind === 'line') return [[p.x1, p.y1, p.x2, p.y2]]
  if (p.kind !== 'path' || /[^MLZ\d\s.,-]/.test(p.d)) return []
  const points = p.d
    .split(/[MLZ]/)
    .filter(Boolean)
    .map(q =>
      q
        .trim()
        .split(/[\s,]+/)
        .map(Number),
    )
  return points.slice(1).map((q, i) => [points[i]![0]!, points[i]![1]!, q[0]!, q[1]!])
}
/** Whether a piece comes more than a pixel into a box: walked along, not by the way the labels were kept off it. */
function enters([x1, y1, x2, y2]: Stroke, b: Box): boolean {
  const steps = 200
  for (let i = 0; i <= steps; i++) {
    const [x, y] = [x1 + ((x2 - x1) * i) / steps, y1 + ((y2 - y1) * i) / steps]
    if (x > b.x + 1 && x < b.x + b.w - 1 && y > b.y + 1 && y < b.y + b.h - 1) return true
  }
  return false
}

/** @returns what lies on what, in words */
function troubles(d: Drawing): string[] {
  const texts = d.primitives.filter((p): p is Text => p.kind === 'text' && p.text.trim() !== '')
  const boxes = texts.map(boxOf)
  const lines = d.primitives.filter(p => (STYLES[p.style] as Style).stroke !== undefined && !TEXTURES.has(p.style))
  return texts.flatMap((t, i) => {
    const a = boxes[i]!
    const beyond = a.x < -1 || a.y < -1 || a.x + a.w > d.width + 1 || a.y + a.h > d.height + 1
    const onWords = texts.slice(i + 1).filter((u, k) => overlap(a, boxes[i + 1 + k]!) && u.text !== t.text)
    const onPlate = ON_A_PLATE.has(t.style) || t.id === 'loop'
    const onLines = onPlate ? [] : lines.filter(p => strokes(p).some(s => enters(s, a)))
    return [
      ...(beyond ? [`${t.text} beyond the paper`] : []),
      ...onWords.map(u => `${t.text} on ${u.text}`),
      ...onLines.map(p => `${t.text} on a line: ${p.style}`),
    ]
  })
}

const SIZES = [
  { width: 390, height: 320, compact: true },
  { width: 768, height: 560, compact: false },
  { width: 1280, height: 580, compact: false },
  { width: 1920, height: 860, compact: false },
]
const terrain = new Terrain(cutTile(demoTile()))
const judged = (doc: JobDocument) =>
  assess(doc, { paths: computePaths(terrain, pathInputs(doc)) }, { atUtc: '2026-04-03T12:00:00.000Z' })

const horizonOf = (doc: JobDocument) => horizonRing(terrain, positionOf(doc)!, 6, { screens: screensHere(doc) })

function drawings(doc: JobDocument, a: Assessment): [what: string, drawing: Drawing][] {
  return SIZES.flatMap(s =>
    (['metric', 'imperial'] as const).flatMap((units): [string, Drawing][] => {
      const at = (what: string): string => `${what}, ${s.width} px, ${units}`
      const section = (o: Partial<Parameters<typeof layoutSection>[2]>) =>
        layoutSection(doc, a, { ...s, units, levels: false, ...o }).drawing
      const level = s.compact ? { height: 450, levelHeight: 207 } : {}
      const selectedId = a.chosen?.mast.id ?? null
      return [
        [at('Ask'), section({})],
        [at('Place'), section({ pins: true })],
        [at('Place, three times as large'), section({ pins: true, width: 3 * s.width, height: 3 * s.height })],
        [at('Route'), section({ pins: true, loops: false, surgeWords: true })],
        [at('Level'), section({ levels: true, ...level })],
        [
          at('dial'),
          layoutDial(a, {
            size: Math.min(s.width, s.height),
            width: s.width,
            masts: 6,
            showSweep: true,
            headingDeg: null,
            selectedId,
          }),
        ],
        [
          at('skyline'),
          layoutSkyline(horizonOf(doc), {
            width: s.width,
            height: s.compact ? 210 : 190,
            units,
            centreDeg: a.chosen?.bearingDeg ?? 180,
            spanDeg: s.compact ? 180 : 360,
            masts: a.masts.filter(m => m.path && m.rank <= (s.compact ? 4 : 9)),
            selectedId,
            declination: a.declination,
            landmarks: landmarksSeen(doc),
            obstacles: obstaclesHere(doc),
            headingDeg: moves(doc) ? doc.sites[0]!.headingDeg : null,
            bowWord: 'nose',
            compact: s.compact,
          }),
        ],
        ...a.floors.map((f): [string, Drawing] => [
          at(`floor ${f.level}`),
          layoutPlan(doc, a, { ...s, units, level: f.level, pins: true }).drawing,
        ]),
        ...a.masts.slice(0, 3).flatMap((m): [string, Drawing][] => {
          if (!m.path || !m.best) return []
          const o = { band: m.best.band, heightM: 8, mastName: m.mast.name, diffractionDb: 3, compact: s.compact }
          return [[at(`way to ${m.mast.name}`), layoutSightLine(m.path, { ...o, width: s.width, height: 200, units })]]
        }),
        ...(doc.zones.length ? a.floors : []).map((f): [string, Drawing] => [
          at('zones'),
          layoutZones(buildingOf(doc), doc.zones, { level: f.level, width: s.width }),
        ]),
      ]
    }),
  )
}

/** The one word that has no room at 390 px: the room that must be proved is told all the same. */
const NO_ROOM = /^Level, 390 px, \w+: −89 workshop on a line/

describe('words on drawings lie on nothing', () => {
  const jobs = demoScenario().jobs.map(j => j.document)
  it.each(jobs.map(doc => [doc.jobs[0]!.name, doc] as const))('%s', (_name, doc) => {
    const found = drawings(doc, judged(doc)).flatMap(([what, d]) => troubles(d).map(t => `${what}: ${t}`))
    expect(found.filter(t => !NO_ROOM.test(t))).toEqual([])
  })

  describe('of one antenna inside up to thirty-six', () => {
    let home: JobDocument
    beforeAll(() => (home = jobs.find(d => d.jobs[0]!.kind === 'building' && !d.zones.length)!))
    it.each([1, 6, 12, 24, 36])('%i', most => {
      const design = home.designs[0]!
      let id = 0
      const newId = () => `0192f000-9999-7000-8000-${String(++id).padStart(12, '0')}`
      const laid = kitChanges({ ...home, nodes: [], runs: [] }, design, 'booster', { bearingDeg: 114, newId })
      const doc = applyChanges({ ...home, nodes: [], runs: [] }, laid)
      const dome = doc.nodes.find(n => n.part?.kind === 'antenna' && n.part.use === 'inside')!
      const more = Array.from({ length: most - 1 }, (_, i) => ({
        ...dome,
        id: newId(),
        eastM: dome.eastM + 1.7 * ((i % 9) - 4),
        northM: dome.northM + 2 * Math.floor(i / 9),
      }))
      const crowded = { ...doc, nodes: [...doc.nodes, ...more] }
      const found = drawings(crowded, judged(crowded)).flatMap(([what, d]) => troubles(d).map(t => `${what}: ${t}`))
      expect(found.filter(t => !NO_ROOM.test(t))).toEqual([])
    })
  })
})

describe('widths', () => {
  it('of the shipped face: mono is of one width, bold is wider, and a word is the sum of its letters', () => {
    expect(textWidth('iii', 'figure')).toBe(textWidth('MMM', 'figure'))
    expect(textWidth('Kitchen', 'labelBold')).toBeGreaterThan(textWidth('Kitchen', 'label'))
    expect(textWidth('ab', 'label')).toBeCloseTo(textWidth('a', 'label') + textWidth('b', 'label'), 9)
  })
})
