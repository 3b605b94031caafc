import { sure } from '#core/sure'
/** Photographs as they are kept: turned upright, no larger than needed, without what the camera wrote into them. */

export interface Shot {
  blob: Blob
  widthPx: number
  heightPx: number
}

/** Longest side kept, px: a label of a part can be read on it. */
const LONGEST_PX = 1600
const QUALITY = 0.82
const LARGEST = 60_000_000

/** @throws RangeError where a picture is too large to be opened on this device */
export function refuseLarge(file: Pick<Blob, 'size'>): void {
  if (file.size >= LARGEST)
    throw new RangeError(`The picture has ${Math.round(file.size / 1e6)} MB; less than ${LARGEST / 1e6} are read.`)
}

/**
 * Shrinks a picture on this device. Where it was taken is not left in it: its place is the job's own.
 * @throws RangeError where it is no picture, or too large to be read
 */
export async function shrunk(file: Blob): Promise<Shot> {
  refuseLarge(file)
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap) throw new RangeError('That is no picture that can be read: JPEG, PNG or WebP.')
  const { widthPx, heightPx } = shrunkSize(bitmap.width, bitmap.height)
  const canvas = new OffscreenCanvas(widthPx, heightPx)
  sure(canvas.getContext('2d')).drawImage(bitmap, 0, 0, widthPx, heightPx)
  bitmap.close()
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })
  return { blob, widthPx, heightPx }
}

/** @returns the size kept of a picture: never enlarged, its proportions as they were */
export function shrunkSize(width: number, height: number): { widthPx: number; heightPx: number } {
  const scale = Math.min(1, LONGEST_PX / Math.max(width, height))
  return { widthPx: Math.max(1, Math.round(width * scale)), heightPx: Math.max(1, Math.round(height * scale)) }
}

/** The camera's time, else the file's own, where it makes sense, else now: a photograph brought later keeps its hour. */
export function takenAt(file: { lastModified: number }, now: number, cameraUtc: string | null = null): string {
  const times = [...(cameraUtc ? [Date.parse(cameraUtc)] : []), file.lastModified]
  return new Date(times.find(t => t > Date.UTC(2000, 0) && t <= now) ?? now).toISOString()
}
