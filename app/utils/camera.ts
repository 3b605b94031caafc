/** What a camera wrote into a photograph of when it was taken and which way it looked; nothing of it is kept in the picture. */
import { normalise360 } from '#core/geo'
import type { CameraTags } from '../workers/files'
import { parsed } from './parsed'

export interface CameraSays {
  takenAtUtc: string | null
  /** true bearing the camera looked along; null where it does not say, or not from which north */
  bearingDeg: number | null
}

/**
 * @param declinationDeg  of the place, east positive; a magnetic heading is none without it
 * @source JEITA CP-3451 (EXIF 2.3): DateTimeOriginal; GPSImgDirection with its reference, T for true and M for magnetic
 */
export async function cameraSays(file: Blob, declinationDeg: number | null): Promise<CameraSays> {
  // What cannot be read says nothing: the picture itself is another matter.
  const written = await parsed('exif', await file.arrayBuffer()).catch(() => null)
  return { takenAtUtc: timeOf(written?.DateTimeOriginal), bearingDeg: bearingOf(written ?? {}, declinationDeg) }
}

/** A camera's clock is that of the place it was taken at, as this device's is. */
const timeOf = (taken: unknown): string | null =>
  taken instanceof Date && Number.isFinite(taken.getTime()) ? taken.toISOString() : null

function bearingOf({ GPSImgDirection: deg, GPSImgDirectionRef: from }: CameraTags, declinationDeg: number | null): number | null {
  if (typeof deg !== 'number' || !Number.isFinite(deg) || deg < 0 || deg > 360) return null
  if (from === 'T') return Math.round(normalise360(deg))
  return from === 'M' && declinationDeg !== null ? Math.round(normalise360(deg + declinationDeg)) : null
}
