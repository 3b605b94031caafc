import { describe, expect, it } from 'vitest'
import { refuseLarge, shrunk, shrunkSize, takenAt } from './photos'

describe('photographs', () => {
  it('are never enlarged, and keep their proportions', () => {
    expect(shrunkSize(640, 480)).toEqual({ widthPx: 640, heightPx: 480 })
    expect(shrunkSize(4000, 3000)).toEqual({ widthPx: 1600, heightPx: 1200 })
    expect(shrunkSize(3000, 4000)).toEqual({ widthPx: 1200, heightPx: 1600 })
    expect(shrunkSize(9000, 2)).toEqual({ widthPx: 1600, heightPx: 1 })
  })
  it('one of 60 MB is refused before it is opened; a smaller one is not', () => {
    expect(() => refuseLarge({ size: 60_000_000 })).toThrow('60 MB; less than 60 are read')
    expect(() => refuseLarge({ size: 59_999_999 })).not.toThrow()
  })
  it('one brought in the evening keeps the hour it was taken; a clock that is off does not count', () => {
    const now = Date.UTC(2026, 4, 2, 18)
    expect(takenAt({ lastModified: Date.UTC(2026, 4, 2, 9, 30) }, now)).toBe('2026-05-02T09:30:00.000Z')
    expect(takenAt({ lastModified: 0 }, now)).toBe('2026-05-02T18:00:00.000Z')
    expect(takenAt({ lastModified: now + 3_600_000 }, now)).toBe('2026-05-02T18:00:00.000Z')
  })
  it('what the camera wrote counts before the file’s own time, which a copy changes; one of tomorrow counts for nothing', () => {
    const now = Date.UTC(2026, 4, 2, 18)
    const file = { lastModified: Date.UTC(2026, 4, 2, 17) }
    expect(takenAt(file, now, '2026-05-01T09:30:00.000Z')).toBe('2026-05-01T09:30:00.000Z')
    expect(takenAt(file, now, '2026-05-03T09:30:00.000Z')).toBe('2026-05-02T17:00:00.000Z')
  })
  it('one of 200 MB is refused before it is read', async () => {
    await expect(shrunk({ size: 200_000_000 } as Blob)).rejects.toThrow('200 MB')
  })
})
