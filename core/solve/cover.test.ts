import { describe, expect, it } from 'vitest'
import { AT, House } from '../../tests/support/house'
import { floorAt } from '../site/building'
import { coverFloor, placesFor } from './cover'

const building = () => new House('booster', 'building').reads('Roof', -84).reads('Reception', -112, 4)

describe('coverage of a job’s floor', () => {
  it('comes coarse first, then fine, and the last is the answer', () => {
    const h = building()
    const seen: number[] = []
    const map = coverFloor(h.doc, h.evidence, AT, { level: 1, stepsM: [2, 1, 0.5], each: m => seen.push(m!.map.stepM) })
    expect(seen).toEqual([2, 1])
    expect(map!.map.stepM).toBe(0.5)
  })
  it('is none without an amplifier, and none on a floor that is not there', () => {
    const router = new House('router', 'building').reads('Roof', -84)
    expect(coverFloor(router.doc, router.evidence, AT, { level: 0, stepsM: [1] })).toBeNull()
    expect(placesFor(router.doc, router.evidence, AT, { level: 0, most: 2 })).toBeNull()
    const h = building()
    expect(coverFloor(h.doc, h.evidence, AT, { level: 7, stepsM: [1] })).toBeNull()
    expect(placesFor(h.doc, h.evidence, AT, { level: 7, most: 2 })).toBeNull()
  })
  it('proposes places under the ceiling of that floor, within its walls', () => {
    const h = building()
    const site = h.doc.sites[0]!
    const { floors } = h.assess()
    for (const level of [0, 2]) {
      const places = placesFor(h.doc, h.evidence, AT, { level, most: 3 })!
      expect(places.length).toBeGreaterThan(0)
      for (const p of places) {
        expect(floorAt(floors, p.upM).level).toBe(level)
        expect(Math.hypot(p.eastM, p.northM)).toBeLessThan(Math.hypot(site.lengthM, site.depthM) / 2)
      }
    }
  })
  it('goes where the people are', () => {
    const h = building()
    for (const s of h.doc.spots) h.set('spots', s.id, { people: s.name === 'Workshop' ? 40 : 0 })
    // A need that one antenna cannot meet everywhere.
    h.job({ needDataDbm: -62 })
    const [first] = placesFor(h.doc, h.evidence, AT, { level: 0, most: 1 })!
    const near = (name: string) => Math.hypot(h.spot(name).eastM - first!.eastM, h.spot(name).northM - first!.northM)
    expect(near('Workshop')).toBeLessThan(near('Reception'))
  })
})
