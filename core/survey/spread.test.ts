import { describe, expect, it } from 'vitest'
import { sampleVariance } from 'simple-statistics'
import { normals, seeded } from '../random'
import { pooled, usualSpread } from './spread'

describe('the spread of repeats', () => {
  it('of groups alike in size is the root of the mean of their variances (simple-statistics 7)', () => {
    const random = normals(seeded(3))
    const groups = Array.from({ length: 6 }, (_, g) => Array.from({ length: 5 }, () => 10 * g + 2 * random()))
    const mean = groups.reduce((s, g) => s + sampleVariance(g), 0) / groups.length
    expect(pooled(groups)).toBeCloseTo(Math.sqrt(mean), 9)
  })
  it('of too few is not believed: 2 dB and 20 % stand', () => {
    expect(pooled([[1, 2, 3]])).toBeNull()
    expect(usualSpread([], [])).toEqual({ db: 2, speed: 0.2, from: { db: 'assumed', speed: 'assumed' } })
  })
  it('finds what repeats were made with', () => {
    const random = normals(seeded(8))
    const run = (spotId: string, i: number) =>
      ({
        spotId,
        setupId: 's',
        wouldNotLoad: false,
        downMbps: 10 * Math.exp(0.1 * random()),
        takenAtUtc: new Date(i * 1e5).toISOString(),
      }) as never
    const { speed, from } = usualSpread(
      [],
      ['a', 'b', 'c'].flatMap(s => Array.from({ length: 40 }, (_, i) => run(s, i))),
    )
    expect(from.speed).toBe('repeats')
    expect(speed).toBeGreaterThan(0.085)
    expect(speed).toBeLessThan(0.115)
  })
})
