import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import type { Change, Site } from '../job/schema'
import { buildingOf, inside } from './building'
import { followSite, withSite } from './spots-follow'

/** Changes the site as a person does it in Ask: its spots come along in the same change. */
function change(h: House, fields: Partial<Site>): House {
  const edits = followSite(h.doc, withSite(h.doc, fields))
  return h
    .site(fields)
    .apply(edits.map((e): Change => ({ ...e, id: h.id(), baseVersion: 0, fields: e.fields as Record<string, unknown> })))
}
const names = (h: House) => h.doc.spots.map(s => s.name)

describe('spots follow the site', () => {
  it('a house of one storey has no rooms above its roof', () => {
    const h = change(new House(null), { storeys: 1 })
    expect(names(h)).toEqual(['Store', 'Hall', 'Kitchen', 'Beside the house', 'Ridge'])
    // The ridge comes down with the roof: 8.6 m was 0.7 m over it.
    expect(h.spot('Ridge').upM).toBeCloseTo(8.6 - 2.7, 2)
  })
  it('a room in which something was read comes down, and keeps its readings', () => {
    const h = new House(null).reads('Study', -104)
    change(h, { storeys: 1 })
    expect(names(h)).toContain('Study')
    expect(names(h)).not.toContain('Bedroom')
    expect(h.spot('Study').upM).toBe(1)
  })
  it('another length moves rooms within, and keeps what stands outside at its distance from the wall', () => {
    const h = change(new House(null), { lengthM: 24 })
    expect(h.spot('Kitchen').eastM).toBeCloseTo(8.4, 2)
    expect(h.spot('Beside the house').eastM).toBeCloseTo(-14, 2)
  })
  it('after any change of shape rooms are indoors and places outside are outside', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('home' as const, 'building' as const),
        fc.record({
          storeys: fc.integer({ min: 1, max: 6 }),
          storeyHeightM: fc.double({ min: 2.2, max: 5, noNaN: true }),
          lengthM: fc.double({ min: 4, max: 90, noNaN: true }),
          depthM: fc.double({ min: 3, max: 60, noNaN: true }),
          roofRiseM: fc.double({ min: 0, max: 6, noNaN: true }),
        }),
        (kind, fields) => {
          const h = change(new House(null, kind), fields)
          const b = buildingOf(h.doc)
          for (const s of h.doc.spots) expect(inside(b, s), `${s.name} ${JSON.stringify(fields)}`).toBe(s.indoors)
        },
      ),
      { numRuns: 200 },
    )
  })
  it('taken back, the spots stand where they stood', () => {
    const h = new House(null)
    const before = structuredClone(h.doc.spots)
    change(h, { lengthM: 20, depthM: 11, storeyHeightM: 3.1 })
    change(h, { lengthM: 12, depthM: 8, storeyHeightM: 2.7 })
    for (const s of before) {
      const now = h.spot(s.name)
      for (const f of ['eastM', 'northM', 'upM'] as const) expect(now[f], s.name).toBeCloseTo(s[f], 1)
    }
  })
})
