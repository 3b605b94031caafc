import { sure } from '#core/sure'
/** Parts of a picture made unreadable before it is kept, and bar codes read off it, on this device alone. */

/** Shares of the picture's width and height, 0…1. */
export interface Cover {
  left: number
  top: number
  width: number
  height: number
}

/** @returns the same picture with what is covered gone for good. @throws RangeError where it is no picture */
export async function masked(file: File, covers: readonly Cover[]): Promise<File> {
  if (!covers.length) return file
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
  if (!bitmap) throw new RangeError('That is no picture that can be read: JPEG, PNG or WebP.')
  const { width, height } = bitmap
  const canvas = new OffscreenCanvas(width, height)
  const paint = sure(canvas.getContext('2d'))
  paint.drawImage(bitmap, 0, 0)
  bitmap.close()
  paint.fillStyle = '#000'
  for (const c of covers) paint.fillRect(c.left * width, c.top * height, c.width * width, c.height * height)
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 })
  return new File([blob], file.name, { type: blob.type, lastModified: file.lastModified })
}

/** @returns a cover from one corner to the other, kept within the picture */
export function coverBetween(a: { x: number; y: number }, b: { x: number; y: number }): Cover {
  const within = (v: number) => Math.min(1, Math.max(0, v))
  const [left, right] = [within(Math.min(a.x, b.x)), within(Math.max(a.x, b.x))]
  const [top, bottom] = [within(Math.min(a.y, b.y)), within(Math.max(a.y, b.y))]
  return { left, top, width: right - left, height: bottom - top }
}

interface Detector {
  detect: (source: ImageBitmap) => Promise<{ rawValue: string }[]>
}

/** @returns what the bar codes on a picture say; null where this browser reads none */
export async function barCodes(file: Blob): Promise<string[] | null> {
  const { BarcodeDetector } = window as { BarcodeDetector?: new () => Detector }
  if (!BarcodeDetector) return null
  const bitmap = await createImageBitmap(file).catch(() => null)
  if (!bitmap) return []
  try {
    return (await new BarcodeDetector().detect(bitmap)).map(c => c.rawValue)
  } catch {
    return null
  } finally {
    bitmap.close()
  }
}
