import { describe, expect, it } from 'vitest'
import { sampleVariance } from 'simple-statistics'
import { normals, seeded } from '../random'
import { repeatsOf, usualSpread } from './spread'

describe('the spread of repeats', () => {
  it('of groups alike in size is the root of the mean of their variances (simple-statistics 7)', () => {
    const random = normals(seeded(3))
    const groups = Array.from({ length: 6 }, (_, g) => Array.from({ length: 5 }, () => 10 * g + 2 * random()))
    const mean = groups.reduce((s, g) => s + sampleVariance(g), 0) / groups.length
    const { squares, freedom } = repeatsOf(groups)
    expect(squares / freedom).toBeCloseTo(mean, 9)
  })
  it('of nothing is what is assumed: 2 dB, 20 % and 25 %', () => {
    expect(usualSpread([], [])).toEqual({ db: 2, speed: 0.2, load: 0.25, from: { db: 'assumed', speed: 'assumed' } })
  })
  it('finds what repeats were made with: of a test within its block, and of the load between blocks', () => {
    const random = normals(seeded(8))
    const blocks = 40
    const runs = Array.from({ length: blocks }, (_, b) => {
      const load = 0.4 * random()
      return Array.from({ length: 4 }, (_, i) => ({
        spotId: 'a',
        setupId: 's',
        wouldNotLoad: false,
        downMbps: 10 * Math.exp(load + 0.1 * random()),
        takenAtUtc: new Date(b * 36e5 + i * 6e4).toISOString(),
      }))
    }).flat()
    const { speed, load, from } = usualSpread([], runs as never[])
    expect(from.speed).toBe('repeats')
    expect(speed).toBeGreaterThan(0.085)
    expect(speed).toBeLessThan(0.13)
    expect(load).toBeGreaterThan(0.3)
    expect(load).toBeLessThan(0.48)
  })
})
