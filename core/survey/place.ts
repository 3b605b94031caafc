/** Where the job is now: a home stays, a vehicle or boat is at one of its stops. */
import { movesAbout } from '../job/schema'
import { relativeBearing } from '../geo/angles'
import type { Position } from '../geo/geodesic'
import type { Screen } from '../terrain/profile'
import type { JobDocument, Landmark, Obstacle, Stop } from '../job/schema'

export const moves = (doc: Pick<JobDocument, 'jobs'>): boolean => !!doc.jobs[0] && movesAbout(doc.jobs[0].kind)

export const presentStop = (doc: JobDocument): Stop | null => doc.stops.find(s => s.id === doc.jobs[0]?.stopId) ?? null

/** @returns the document with its site standing at the present stop; the very same one where there is none */
export function atPresentStop(doc: JobDocument): JobDocument {
  const stop = presentStop(doc)
  const site = doc.sites[0]
  if (!stop || !site) return doc
  const { latDeg, lonDeg, groundM, zone, swingDeg } = stop
  return { ...doc, sites: [{ ...site, latDeg, lonDeg, groundM, zone, swingDeg, headingDeg: stop.headingDeg ?? site.headingDeg }] }
}

/** @returns the rows of the present place */
export const ofStop = <T extends { stopId: string | null }>(doc: JobDocument, rows: readonly T[]): T[] => {
  const stopId = presentStop(doc)?.id ?? null
  return rows.filter(r => r.stopId === stopId)
}

/** Obstacles and landmarks of the present place. */
export const obstaclesHere = (doc: JobDocument): Obstacle[] => ofStop(doc, doc.obstacles)
export const landmarksHere = (doc: JobDocument): Landmark[] => ofStop(doc, doc.landmarks)
export const screensHere = (doc: JobDocument): Screen[] =>
  obstaclesHere(doc).map(({ fromDeg, toDeg, distanceM, heightM }) => ({ fromDeg, toDeg, distanceM, heightM }))

/** @returns the position, or null where none is known yet */
export function positionOf(doc: JobDocument): Position | null {
  const site = atPresentStop(doc).sites[0]
  return site && site.latDeg !== null && site.lonDeg !== null ? { latDeg: site.latDeg, lonDeg: site.lonDeg } : null
}

/**
 * A true bearing as the site frame has it. A home's frame lies north up; that of a vehicle or boat
 * turns with it, so that "north" in it is ahead and a part keeps its place aboard.
 * @param doc  already at its present stop
 */
export function toFrame(doc: JobDocument, trueDeg: number): number {
  return moves(doc) ? relativeBearing(trueDeg, doc.sites[0]?.headingDeg ?? 0) : trueDeg
}

/** The other way: a bearing of the site frame as a true one. */
export const toTrue = (doc: JobDocument, frameDeg: number): number =>
  moves(doc) ? (frameDeg + (doc.sites[0]?.headingDeg ?? 0)) % 360 : frameDeg
