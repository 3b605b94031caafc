/** What piexif, another library, writes into a JPEG is read back. */
import { dump, insert, TagValues } from 'piexif-ts'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { InlineWorker } from '../../tests/support/inline-worker'
import { cameraSays } from './camera'

beforeAll(() => void vi.stubGlobal('Worker', InlineWorker))
afterAll(() => void vi.unstubAllGlobals())

/** The frame of a JPEG: start, JFIF header, a scan of nothing, end. @source ITU-T T.81 annex B */
const JPEG = '\xff\xd8\xff\xe0\x00\x10JFIF\x00\x01\x01\x00\x00\x01\x00\x01\x00\x00\xff\xda\x00\x02\xff\xd9'

function taken(gps: Record<number, unknown>, exif: Record<number, unknown> = {}): Blob {
  const jpeg = insert(dump({ GPS: gps, Exif: exif } as never), JPEG)
  return new Blob([Uint8Array.from(jpeg, c => c.charCodeAt(0))])
}
const { ExifIFD, GPSIFD } = TagValues
const looking = (deg: number, from?: 'T' | 'M') => ({
  [GPSIFD.GPSImgDirection]: [Math.round(deg * 100), 100],
  ...(from ? { [GPSIFD.GPSImgDirectionRef]: from } : {}),
})

describe('what a camera says of a photograph', () => {
  it('a true bearing is taken as it is, a magnetic one by the declination', async () => {
    expect((await cameraSays(taken(looking(123.4, 'T')), -12)).bearingDeg).toBe(123)
    expect((await cameraSays(taken(looking(5, 'M')), -12)).bearingDeg).toBe(353)
    expect((await cameraSays(taken(looking(355, 'M')), 12)).bearingDeg).toBe(7)
  })
  it('from no north that is named, from magnetic where nobody knows the declination, or beyond the circle: none', async () => {
    expect((await cameraSays(taken(looking(5)), -12)).bearingDeg).toBeNull()
    expect((await cameraSays(taken(looking(5, 'M')), null)).bearingDeg).toBeNull()
    expect((await cameraSays(taken(looking(400, 'T')), 0)).bearingDeg).toBeNull()
  })
  it('its own clock tells when, by the clock of this device', async () => {
    const says = await cameraSays(taken({}, { [ExifIFD.DateTimeOriginal]: '2026:04:07 10:40:05' }), 0)
    expect(says.takenAtUtc).toBe(new Date(2026, 3, 7, 10, 40, 5).toISOString())
  })
  it('a picture without any of it, and what is no picture, say nothing', async () => {
    const nothing = { takenAtUtc: null, bearingDeg: null }
    expect(await cameraSays(taken({}), 0)).toEqual(nothing)
    expect(await cameraSays(new Blob(['no picture at all']), 0)).toEqual(nothing)
  })
})
