/** What rooms take from the zone and the floor that they lie in, where nothing is said of themselves. */
import type { JobDocument, Spot, Zone } from '../job/schema'
import { siteOf } from '../job/schema'
import { floorAt, floorsOf, toLocal } from './building'

type Rooms = Pick<JobDocument, 'sites' | 'floors' | 'spots' | 'jobs' | 'zones'>

/** Whether a value lies between two, given in either order. */
export const liesBetween = (v: number, a: number, b: number): boolean => v >= Math.min(a, b) && v <= Math.max(a, b)

/** @returns the first zone that each room lies in, by the room's id */
export function zoneOfRooms(doc: Rooms): Map<string, Zone> {
  const floors = floorsOf(doc)
  return new Map(
    doc.spots
      .filter(s => s.indoors)
      .flatMap(s => {
        const [x, y] = toLocal(siteOf(doc), s)
        const { level } = floorAt(floors, s.upM)
        const zone = doc.zones.find(
          z =>
            liesBetween(level, z.fromLevel, z.toLevel) &&
            liesBetween(x, z.alongFromM, z.alongToM) &&
            liesBetween(y, z.acrossFromM, z.acrossToM),
        )
        return zone ? [[s.id, zone] as const] : []
      }),
  )
}

/**
 * The document with every room as its zone and its floor say: use and level where the room says none, the zone first; the
 * people of a zone over those of its rooms that say none, in equal parts.
 */
export function roomsAsSaid<D extends Rooms>(doc: D): D {
  if (!doc.sites.length) return doc
  const zoned = doc.zones.some(z => z.use ?? z.needDbm ?? z.people)
  if (!zoned && doc.floors.every(f => !f.use)) return doc
  const floors = floorsOf(doc)
  const useOfFloor = new Map(doc.floors.map(f => [f.level, f.use]))
  const zones = zoneOfRooms(doc)
  const each = new Map(
    doc.zones.map(z => [
      z.id,
      shareOfPeople(
        z,
        doc.spots.filter(s => zones.get(s.id) === z),
      ),
    ]),
  )
  return {
    ...doc,
    spots: doc.spots.map(s => {
      if (!s.indoors) return s
      const zone = zones.get(s.id)
      return {
        ...s,
        use: s.use ?? zone?.use ?? useOfFloor.get(floorAt(floors, s.upM).level) ?? null,
        needDbm: s.needDbm ?? zone?.needDbm ?? null,
        people: s.people ?? (zone ? (each.get(zone.id) ?? null) : null),
      }
    }),
  }
}

/** @returns people in each room of a zone that says no number itself; null where the zone says none */
function shareOfPeople(zone: Zone, rooms: readonly Spot[]): number | null {
  if (zone.people === null) return null
  const silent = rooms.filter(s => s.people === null).length
  const said = rooms.reduce((sum, s) => sum + (s.people ?? 0), 0)
  return silent ? Math.max(0, zone.people - said) / silent : null
}
