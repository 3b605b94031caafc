/** Landmarks as they are seen from where the job stands. */
import { inverse } from '../geo/geodesic'
import type { JobDocument } from '../job/schema'
import { landmarksHere, positionOf } from './place'

interface SeenLandmark {
  id: string
  name: string
  bearingDeg: number
  distanceM: number
}

/** @returns the landmarks of the present place as they are seen from it; none where its position is not known */
export function landmarksSeen(doc: JobDocument): SeenLandmark[] {
  const at = positionOf(doc)
  if (!at) return []
  return landmarksHere(doc).map(l => {
    const { bearingDeg, distanceM } = inverse(at, l)
    return { id: l.id, name: l.name, bearingDeg, distanceM }
  })
}
