/** A building by zones: an amplifier each, with an outside antenna of its own or a share of one, and antennas over all its floors. */
import { partOfKind } from '../catalogue/parts'
import { changesOf, update } from '../job/edits'
import type { Maker } from '../job/defaults'
import type { Change, Design, JobDocument, Zone } from '../job/schema'
import { jobOf, siteOf } from '../job/schema'
import { buildingOf } from '../site/building'
import type { Building } from '../site/building'
import { axisSign } from '../site/frame'
import { liesBetween } from '../site/rooms'
import { areaAtLevelM2 } from '../site/use'
import { sure } from '../sure'
import { ceilingPlaces, fan, Layer, UNDER_CEILING_M } from './layer'
import type { Area } from './layer'
import { emptied } from './usual-kit'

/** Whether each amplifier has an outside antenna, or all share one by a splitter. */
export type Donors = 'own' | 'shared'

/** Antennas of one zone on one floor: what the search for taps still takes. Beyond that its area is told as too large. */
const MOST_ON_FLOOR = 24
/** Ways of the largest splitter: so many zones share an antenna. */
const MOST_SHARING = 4
/** An outside antenna stands so far over a flat roof, its arrestor over it, m. @source common practice (no source) */
const OVER_ROOF_M = 2.2
const ARRESTOR_OVER_M = 0.4

/** @returns the floors of a zone that the building has, from the top down */
export const levelsOf = (b: Pick<Building, 'floors'>, z: Pick<Zone, 'fromLevel' | 'toLevel'>): number[] =>
  b.floors
    .map(f => f.level)
    .filter(l => liesBetween(l, z.fromLevel, z.toLevel))
    .reverse()

/** @returns the area of a zone within the building's walls; its ends in either order */
export function areaOf({ halfLengthM, halfDepthM }: Pick<Building, 'halfLengthM' | 'halfDepthM'>, z: Area): Area {
  const within = (a: number, b: number, half: number): [number, number] => [
    Math.max(-half, Math.min(a, b)),
    Math.min(half, Math.max(a, b)),
  ]
  const [alongFromM, alongToM] = within(z.alongFromM, z.alongToM, halfLengthM)
  const [acrossFromM, acrossToM] = within(z.acrossFromM, z.acrossToM, halfDepthM)
  return { alongFromM, alongToM, acrossFromM, acrossToM }
}

/** Smaller than this on a side is no zone, m. */
const LEAST_SIDE_M = 2

/** @returns why a zone cannot be laid out; null where it can */
export function zoneTrouble(b: Building, z: Zone): string | null {
  if (!levelsOf(b, z).length) return 'the building has no such floor'
  const a = areaOf(b, z)
  if (a.alongToM - a.alongFromM < LEAST_SIDE_M || a.acrossToM - a.acrossFromM < LEAST_SIDE_M)
    return 'it lies outside the walls, or has no size'
  if (levelsOf(b, z).some(l => byRule(b, z, l) > MOST_ON_FLOOR))
    return `it takes more than ${MOST_ON_FLOOR} antennas on a floor: divide it`
  return null
}

/** @returns ceiling antennas of a zone on one of its floors, by the floor that one serves of its use */
export const antennasOf = (b: Building, z: Zone, level: number): number => Math.min(MOST_ON_FLOOR, byRule(b, z, level))

function byRule(b: Building, z: Zone, level: number): number {
  const a = areaOf(b, z)
  const areaM2 = areaAtLevelM2(z.use ?? b.floors[level]?.use ?? 'office', z.needDbm)
  const m2 = (a.alongToM - a.alongFromM) * (a.acrossToM - a.acrossFromM)
  return Math.max(1, Math.ceil(m2 / areaM2 - 1e-9))
}

/** Lays every zone out; what the design held before is removed. Zones that cannot be laid out are left out. */
export function zoneChanges(
  doc: JobDocument,
  design: Design,
  { donors, bearingDeg, newId }: { donors: Donors; bearingDeg: number | null; newId: Maker },
): Change[] {
  const building = buildingOf(doc)
  const zones = doc.zones.filter(z => zoneTrouble(building, z) === null)
  // Zones are where they are on the plan: nothing is turned toward the mast.
  const lay = new Layer(doc, design, 1, {})
  const kit = new ZoneKit(lay, building, jobOf(doc).rules === 'US')
  const shared = donors === 'shared' && zones.length > 1 && zones.length <= MOST_SHARING
  const feedOf = shared ? kit.sharedDonor(axisSign(siteOf(doc), bearingDeg), zones.length) : (i: number) => kit.donor(zones[i]!)
  for (const [i, z] of zones.entries()) kit.zone(z, feedOf(i))
  lay.supply()
  return [
    ...emptied(doc, design, newId),
    ...changesOf([update('designs', design.id, { approach: 'booster' }), ...lay.steps], newId),
  ]
}

type End = [node: string, port: string]

class ZoneKit {
  private readonly line = sure(partOfKind('line-400', 'line'))

  constructor(
    private readonly lay: Layer,
    private readonly building: Building,
    private readonly american: boolean,
  ) {}

  /** The middle of a zone: there its amplifier hangs, and over it its outside antenna stands. */
  private middle(z: Zone): { x: number; y: number } {
    const a = areaOf(this.building, z)
    return { x: (a.alongFromM + a.alongToM) / 2, y: (a.acrossFromM + a.acrossToM) / 2 }
  }

  private antennaOn({ x, y }: { x: number; y: number }): End {
    const { lay, building } = this
    const antenna = lay.node('ant-lpda', x, building.eavesM + OVER_ROOF_M, y)
    const arrestor = lay.node('arr-gas', x, building.eavesM + ARRESTOR_OVER_M, y)
    lay.run(antenna, '1', { to: arrestor, toPort: 'in', what: this.line })
    return [arrestor, 'out']
  }

  donor(z: Zone): End {
    return this.antennaOn(this.middle(z))
  }

  /** One outside antenna at the end that looks to the mast; below the roof it is split. */
  sharedDonor(sign: 1 | -1, ways: number): (i: number) => End {
    const { lay, building } = this
    const x = -sign * Math.max(0, building.halfLengthM - 0.6)
    const from = this.antennaOn({ x, y: 0 })
    const top = building.floors.at(-1)?.level ?? 0
    return fan(lay, from, ways, { alongM: x + sign, upM: () => lay.ceilingM(top) })
  }

  zone(z: Zone, [from, port]: End): void {
    const { lay } = this
    const levels = levelsOf(this.building, z)
    const { x, y } = this.middle(z)
    const top = levels[0] ?? 0
    const amplifier = lay.node(this.american ? 'amp-na-building' : 'amp-building', x, lay.wallM(top), y)
    lay.run(from, port, { to: amplifier, toPort: 'donor', what: this.line })
    const riser = { alongM: x, acrossM: y, upM: (i: number) => lay.ceilingM(levels[i] ?? top) - UNDER_CEILING_M }
    const feedOf = fan(lay, [amplifier, 'server'], levels.length, riser)
    for (const [i, level] of levels.entries()) {
      const places = ceilingPlaces(areaOf(this.building, z), antennasOf(this.building, z, level))
      const floorFeed = fan(lay, feedOf(i), places.length, { alongM: x, acrossM: y, upM: () => lay.ceilingM(level) })
      for (const [k, at] of places.entries()) {
        const dome = lay.node('ant-dome', at.alongM, lay.ceilingM(level), at.acrossM)
        const [out, outPort] = floorFeed(k)
        lay.run(out, outPort, { to: dome, toPort: '1', what: this.line })
      }
    }
  }
}

/** How a building is divided at a press: over all its floors along its length, or floor by floor. */
export type Division = 'whole' | 'two' | 'three' | 'four' | 'floors'

/** @returns zones that divide a building evenly, without ids */
export function divided(b: Building, division: Division): Omit<Zone, 'id' | 'version'>[] {
  const top = b.floors.at(-1)?.level ?? 0
  const across = { acrossFromM: -b.halfDepthM, acrossToM: b.halfDepthM }
  if (division === 'floors')
    return b.floors.map(f => ({
      name: f.name ?? (f.level ? `Floor ${f.level}` : 'Ground floor'),
      fromLevel: f.level,
      toLevel: f.level,
      alongFromM: -b.halfLengthM,
      alongToM: b.halfLengthM,
      ...across,
      use: null,
      needDbm: null,
      people: null,
    }))
  const parts = { whole: 1, two: 2, three: 3, four: 4 }[division]
  const stepM = (2 * b.halfLengthM) / parts
  return Array.from({ length: parts }, (_, i) => ({
    name: parts === 1 ? 'The building' : `Zone ${i + 1}`,
    fromLevel: 0,
    toLevel: top,
    alongFromM: Math.round(100 * (-b.halfLengthM + i * stepM)) / 100,
    alongToM: Math.round(100 * (-b.halfLengthM + (i + 1) * stepM)) / 100,
    ...across,
    use: null,
    needDbm: null,
    people: null,
  }))
}
