import { describe, expect, it } from 'vitest'
import type { Zone } from '../job/schema'
import { demoScenario } from '../../demo/scenario'
import { roomsAsSaid, zoneOfRooms } from './rooms'
import { areaAtLevelM2, USE_FIGURES } from './use'

/** The clinic of three zones: its rooms are 34 m west to 30 m east of its middle, on two floors. */
const clinic = () => structuredClone(demoScenario().jobs.find(j => j.document.zones.length === 3)!.document)
const say = (fields: Partial<Zone>) => {
  const doc = clinic()
  Object.assign(doc.zones[0]!, fields)
  const inside = zoneOfRooms(doc)
  const rooms = () => roomsAsSaid(doc).spots.filter(s => inside.get(s.id)?.id === doc.zones[0]!.id)
  return { doc, rooms }
}

describe('rooms of a zone', () => {
  it('lie in the zone whose area and floors hold them', () => {
    const doc = clinic()
    const names = (z: Zone) =>
      doc.spots
        .filter(s => zoneOfRooms(doc).get(s.id) === z)
        .map(s => s.name)
        .sort()
    expect(doc.zones.map(names)).toEqual([['Reception', 'Ward north'], ['X-ray'], ['Treatment', 'Ward south']])
  })

  it('take its level and use where they say none, and keep their own', () => {
    const { doc, rooms } = say({ needDbm: -80, use: 'store' })
    doc.spots.find(s => s.name === 'Reception')!.needDbm = -95
    expect(rooms().map(s => [s.name, s.needDbm, s.use])).toEqual([
      ['Reception', -95, 'store'],
      ['Ward north', -80, 'store'],
    ])
  })

  it('share its people: what some say is taken off, the rest in equal parts', () => {
    const { doc, rooms } = say({ people: 60 })
    for (const s of doc.spots) s.people = null
    expect(rooms().map(s => s.people)).toEqual([30, 30])
    doc.spots.find(s => s.name === 'Reception')!.people = 12
    expect(rooms().map(s => s.people)).toEqual([12, 48])
    doc.spots.find(s => s.name === 'Reception')!.people = 90
    expect(rooms().map(s => s.people)).toEqual([90, 0])
  })

  it('a job without zones and uses stays the very same', () => {
    const home = demoScenario().jobs[0]!.document
    expect(roomsAsSaid(home)).toBe(home)
  })
})

describe('floor of one antenna at another level', () => {
  it.each(['office', 'store', 'home'] as const)('of %s: by distance to the power of its coefficient', use => {
    const { areaM2, designDbm, exponent } = USE_FIGURES[use]
    expect(areaAtLevelM2(use, null)).toBe(areaM2)
    expect(areaAtLevelM2(use, designDbm)).toBe(areaM2)
    // Half the floor is 1/√2 of the distance: N · log10 √2 more, by P.1238's own formula.
    expect(areaAtLevelM2(use, designDbm + exponent[1] * Math.log10(Math.SQRT2))).toBeCloseTo(areaM2 / 2, 9)
  })
})
