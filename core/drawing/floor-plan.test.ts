import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { coverageOf } from '../coverage/floor'
import { between } from '../site/frame'
import { layoutPlan } from './floor-plan'
import type { Primitive } from './primitives'
import { textWidth } from './primitives'

const booster = (kind: 'home' | 'building' | 'vehicle' | 'boat' = 'home') => {
  const h = new House('booster', kind)
  return h.reads(h.doc.spots.find(s => !s.indoors)!.name, -88)
}
const SIZE = { width: 700, height: 460, units: 'metric' } as const
const plan = (h: House, o: Partial<Parameters<typeof layoutPlan>[2]> = {}) =>
  layoutPlan(h.doc, h.assess(), { ...SIZE, level: 0, ...o })
const texts = (p: Primitive[]) => p.flatMap(x => (x.kind === 'text' ? [x] : []))

describe('the site from above', () => {
  it('a place on it and in the site frame are one and the same, whichever way the mast lies', () => {
    for (const lonDeg of [-30.07, -29.93]) {
      const h = booster()
      h.set('masts', h.doc.masts[0]!.id, { lonDeg })
      const v = plan(h)
      for (const at of [
        { eastM: 0, northM: 0 },
        { eastM: 4.2, northM: -2.5 },
      ]) {
        const [x, y] = v.toXY(at)
        const back = v.toSite(x, y)
        expect(back.eastM).toBeCloseTo(at.eastM, 9)
        expect(back.northM).toBeCloseTo(at.northM, 9)
      }
    }
  })
  it('is turned, never mirrored: a quarter right on the ground is a quarter right on the plan', () => {
    for (const axisDeg of [0, 62, 90, 200]) {
      const v = plan(booster().site({ axisDeg }))
      const [o, east, south] = [
        v.toXY({ eastM: 0, northM: 0 }),
        v.toXY({ eastM: 1, northM: 0 }),
        v.toXY({ eastM: 0, northM: -1 }),
      ]
      // On a drawing y goes down: from east to south is clockwise, a positive turn.
      const turn = (east[0] - o[0]) * (south[1] - o[1]) - (east[1] - o[1]) * (south[0] - o[0])
      expect(turn).toBeGreaterThan(0)
    }
  })
  it('lies as the section does: the mast to the left', () => {
    const h = booster()
    const v = plan(h)
    const [x] = v.toXY(h.donor)
    expect(x).toBeLessThan(SIZE.width / 2)
  })
  it('shows the parts of its floor and the donors, and hands each over to be dragged', () => {
    const h = booster('building')
    const nodesOn = (level: number) =>
      plan(h, { level })
        .handles.filter(x => x.kind === 'node')
        .map(x => x.id)
    expect(nodesOn(0)).toContain(h.donor.id)
    const domes = h.doc.nodes.filter(n => n.partId === 'ant-dome')
    for (const level of [0, 1, 2]) {
      const floor = h.assess().floors[level]!
      const here = domes.filter(d => d.upM > floor.fromM && d.upM <= floor.toM).map(d => d.id)
      expect(here.length).toBeGreaterThan(0)
      expect(
        nodesOn(level)
          .filter(id => domes.some(d => d.id === id))
          .sort(),
      ).toEqual(here.sort())
    }
  })
  it('a beam has an end to turn it by, that lies where it looks; a dome has none', () => {
    const h = booster()
    h.place(h.donor, { azimuthDeg: 30 })
    const v = plan(h)
    const turns = v.handles.filter(x => x.kind === 'turn')
    expect(turns.map(t => t.id)).toEqual([h.donor.id])
    const { bearingDeg } = between({ ...h.donor, upM: 0 }, { ...v.toSite(turns[0]!.x, turns[0]!.y), upM: 0 })
    expect(bearingDeg).toBeCloseTo(30, 0)
  })
  it('says how far donor and inside antenna stand apart, and keeps its words on the sheet and off each other', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const) {
      const h = booster(kind)
      const words = texts(plan(h).drawing.primitives).filter(t => t.text.length > 3)
      const boxes = words.map(t => {
        const w = textWidth(t.text)
        return { t: t.text, x: t.anchor === 'middle' ? t.x - w / 2 : t.anchor === 'end' ? t.x - w : t.x, y: t.y - 11, w, h: 13 }
      })
      for (const b of boxes) {
        expect(b.x, `${kind}: ${b.t}`).toBeGreaterThan(-4)
        expect(b.x + b.w, `${kind}: ${b.t}`).toBeLessThan(SIZE.width + 4)
      }
      boxes.forEach((a, i) =>
        boxes.slice(i + 1).forEach(b => {
          const apart = a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y
          expect(apart, `${kind}: “${a.t}” on “${b.t}”`).toBe(true)
        }),
      )
    }
    expect(texts(plan(booster()).drawing.primitives).some(t => / along, .* up$/.test(t.text))).toBe(true)
  })
  it('hatches what is short, and writes only figures of the map', () => {
    const h = booster('building')
    const cover = (needDataDbm: number) => {
      const c = h.job({ needDataDbm }).context()
      return coverageOf({
        doc: h.doc,
        building: c.building,
        tree: c.tree!,
        levels: c.main!.levels!,
        log: c.log,
        rooms: c.main!.rooms,
        level: 0,
        stepM: 0.5,
      })!
    }
    const styles = (needDbm: number) => plan(h, { coverage: cover(needDbm) }).drawing.primitives.map(p => p.style)
    expect(styles(-60)).toContain('coverShort')
    expect(styles(-150)).not.toContain('coverShort')
    const map = cover(-100)
    const [low, high] = [Math.min(...map.map.rsrpDbm), Math.max(...map.map.rsrpDbm)]
    const figures = texts(plan(h, { coverage: map }).drawing.primitives).filter(t => /^−\d+$/.test(t.text))
    expect(figures.length).toBeGreaterThan(10)
    for (const f of figures) {
      expect(-Number(f.text.slice(1))).toBeGreaterThanOrEqual(Math.floor(low))
      expect(-Number(f.text.slice(1))).toBeLessThanOrEqual(Math.ceil(high))
    }
  })
})
