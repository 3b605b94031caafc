import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { BARE_FIXTURE } from '../job/defaults'
import { layoutPlan } from './floor-plan'
import { numbered, photoPlace } from './pins'
import { layoutSection } from './section'

const photo = (h: House, more: Record<string, unknown> = {}, at = AT) =>
  h.add('photos', {
    stopId: null,
    caption: null,
    takenAtUtc: at,
    widthPx: 800,
    heightPx: 600,
    eastM: null,
    northM: null,
    upM: null,
    bearingDeg: null,
    spotId: null,
    nodeId: null,
    ...more,
  })
const size = { width: 700, height: 420, units: 'metric' as const }

describe('what is pinned to the pictures', () => {
  it('photographs are numbered by their time, however they came', () => {
    const h = new House()
    const late = photo(h, {}, '2026-04-03T15:00:00.000Z')
    const early = photo(h, {}, '2026-04-03T09:00:00.000Z')
    expect(numbered(h.doc).map(p => [p.id, p.number])).toEqual([
      [early, 1],
      [late, 2],
    ])
  })
  it('one without a place of its own stands where what it shows does; of nothing, nowhere', () => {
    const h = new House()
    const { eastM, northM, upM } = h.donor
    photo(h, { nodeId: h.donor.id })
    photo(h)
    const [of, none] = h.doc.photos
    expect(photoPlace(h.doc, of!)).toEqual({ eastM, northM, upM })
    expect(photoPlace(h.doc, none!)).toBeNull()
  })
  it('a photograph of an antenna stands beside it, so that both can be pressed', () => {
    const h = new House()
    photo(h, { nodeId: h.donor.id })
    photo(h, { nodeId: h.donor.id })
    const a = h.assess()
    for (const handles of [
      layoutPlan(h.doc, a, { ...size, level: 0, pins: true }).handles,
      layoutSection(h.doc, a, { ...size, levels: false, pins: true }).handles,
    ]) {
      const antenna = handles.find(x => x.id === h.donor.id)!
      const pins = handles.filter(x => x.kind === 'photo')
      expect(pins).toHaveLength(2)
      for (const pin of pins)
        for (const other of [antenna, ...pins.filter(p => p !== pin)])
          expect(Math.hypot(pin.x - other.x, pin.y - other.y)).toBeGreaterThan(20)
    }
  })
  it('an earth aboard is drawn as known once its bond is said, and not before; ashore that is not enough', () => {
    const drawn = (kind: 'home' | 'vehicle', bonded: 'yes' | null) => {
      const h = new House('booster', kind)
      h.add('fixtures', { ...BARE_FIXTURE, kind: 'electrode', name: 'stud', eastM: 0, northM: 0, upM: 0.5, bonded })
      const lines = layoutSection(h.doc, h.assess(), { ...size, levels: false, pins: true }).drawing.primitives.filter(
        p => p.kind === 'line' && 'title' in p && p.title === 'stud',
      )
      return [...new Set(lines.map(p => p.style))]
    }
    expect(drawn('vehicle', null)).toEqual(['assumed'])
    expect(drawn('vehicle', 'yes')).toEqual(['earth'])
    expect(drawn('home', 'yes')).toEqual(['assumed'])
  })
  it('stand on both drawings where they were put, to be dragged, and only where they are asked for', () => {
    const h = new House()
    photo(h, { eastM: 1, northM: -1, upM: 1.5, bearingDeg: 200, caption: 'The wall' })
    h.add('fixtures', {
      kind: 'mains socket',
      name: 'hall socket',
      eastM: 2,
      northM: 1,
      upM: 0.4,
      ...BARE_FIXTURE,
    })
    const a = h.assess()
    const plan = layoutPlan(h.doc, a, { ...size, level: 0, pins: true })
    const pins = plan.handles.filter(x => x.kind === 'photo' || x.kind === 'fixture')
    expect(pins.map(p => p.label).sort()).toEqual(['The wall', 'hall socket'])
    for (const p of pins) {
      const row = [...h.doc.photos, ...h.doc.fixtures].find(r => r.id === p.id)!
      const at = plan.toSite(p.x, p.y)
      expect(at.eastM).toBeCloseTo(row.eastM!, 1)
      expect(at.northM).toBeCloseTo(row.northM!, 1)
    }
    const section = layoutSection(h.doc, a, { ...size, levels: false, pins: true })
    expect(section.handles.filter(x => x.kind === 'photo' || x.kind === 'fixture')).toHaveLength(2)
    const bare = layoutSection(h.doc, a, { ...size, levels: false })
    expect(bare.handles.some(x => x.kind === 'photo' || x.kind === 'fixture')).toBe(false)
  })
  it('indoors on another floor, it is not on this one', () => {
    const h = new House()
    photo(h, { eastM: 0, northM: 0, upM: 1.5 })
    const on = (level: number) =>
      layoutPlan(h.doc, h.assess(), { ...size, level, pins: true }).handles.some(x => x.kind === 'photo')
    expect([on(0), on(1)]).toEqual([true, false])
  })
})
