/** Spots follow the site: rooms its storeys, places its shape. A spot that stays behind is a wrong place, and so a wrong figure. */
import { siteOf } from '../job/schema'
import { lastOf, nth, sure } from '../sure'
import type { JobDocument, Site, Spot } from '../job/schema'
import { buildingOf, fromLocal, inside, roofOver, toLocal } from './building'
import type { Building } from './building'
import { round2 } from './frame'
import type { Point } from './frame'

type Shape = Pick<JobDocument, 'jobs' | 'sites' | 'floors' | 'walls' | 'sheets' | 'spots'>
type Used = Pick<JobDocument, 'readings' | 'speedRuns' | 'calls' | 'watches' | 'photos'>

export interface SpotEdit {
  table: 'spots'
  op: 'update' | 'delete'
  rowId: string
  fields: Partial<Point>
}

/** Fields of a site that its spots follow. */
export const SHAPE_FIELDS = ['lengthM', 'depthM', 'storeys', 'storeyHeightM', 'roofRiseM', 'axisDeg'] as const

/**
 * What becomes of the spots when the site changes: a place within keeps its share of length and depth and its height over its
 * floor, one outside its distance to the wall, one on the roof its height over the roof. A room of a storey that is gone goes
 * with it; where something was read there, or it must be proved, it comes down to the highest storey left.
 *
 * @param after  the same document with the site as it is to be
 */
export function followSite(before: Shape & Used, after: Pick<Shape, 'sites' | 'floors'>): SpotEdit[] {
  const site = after.sites[0]
  if (!before.sites[0] || !site) return []
  const was = buildingOf(before as JobDocument)
  const is = buildingOf({ ...before, ...after } as JobDocument)
  const used = usedSpots(before)
  return before.spots.flatMap((spot): SpotEdit[] => {
    const to = moved(spot, was, is)
    if (!to && !used.has(spot.id) && !spot.needed) return [{ table: 'spots', op: 'delete', rowId: spot.id, fields: {} }]
    const at = to ?? sure(moved({ ...spot, upM: spot.upM - aboveTop(spot, was, is) }, was, is))
    const same = (['eastM', 'northM', 'upM'] as const).every(f => Math.abs(at[f] - spot[f]) < 0.005)
    return same ? [] : [{ table: 'spots', op: 'update', rowId: spot.id, fields: { ...at } }]
  })
}

function usedSpots(doc: Used & Pick<Shape, 'jobs'>): Set<string | null> {
  const rows = [...doc.readings, ...doc.speedRuns, ...doc.calls, ...doc.watches, ...doc.photos]
  return new Set([doc.jobs[0]?.baselineSpotId ?? null, ...rows.map(r => r.spotId)])
}

/** How much lower the highest floor that is left lies than the one a spot is on, m. */
function aboveTop(spot: Point, was: Building, is: Building): number {
  const own = floorOf(was, spot.upM)
  return own.fromM - nth(was.floors, is.floors.length - 1).fromM
}

const floorOf = (b: Building, upM: number) => b.floors.find(f => upM < f.toM) ?? lastOf(b.floors)

/** @returns where a spot stands in the new shape; null where its storey is gone */
function moved(spot: Pick<Spot, 'indoors'> & Point, was: Building, is: Building): Point | null {
  const [x, y] = toLocal(was, spot)
  const nextX = along(x, was.halfLengthM, is.halfLengthM)
  const nextY = along(y, was.halfDepthM, is.halfDepthM)
  const flat = fromLocal(is.axisDeg, nextX, nextY)
  const at = (upM: number): Point => ({ eastM: round2(flat.eastM), northM: round2(flat.northM), upM: round2(upM) })
  if (spot.indoors && inside(was, spot)) {
    const own = floorOf(was, spot.upM)
    const floor = is.floors[own.level]
    if (!floor) return null
    const overM = Math.min(spot.upM - own.fromM, floor.toM - floor.fromM - 0.1)
    return at(floor.fromM + overM)
  }
  const roof = roofOver(was, spot)
  return at(roof === null || spot.indoors ? spot.upM : (roofOver(is, flat) ?? roof) + (spot.upM - roof))
}

/** Within, a share of the half stays that share; beyond the wall the distance to it stays. */
function along(v: number, halfWas: number, halfIs: number): number {
  const beyond = Math.abs(v) - halfWas
  return beyond > 0 ? Math.sign(v) * (halfIs + beyond) : (v * halfIs) / halfWas
}

/** @returns the site with fields over it, as `followSite` asks for it */
export const withSite = (doc: Pick<Shape, 'sites' | 'floors'>, fields: Partial<Site>): Pick<Shape, 'sites' | 'floors'> => ({
  sites: [{ ...siteOf(doc), ...fields }],
  floors: doc.floors,
})
