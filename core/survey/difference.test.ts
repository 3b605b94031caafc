import { describe, expect, it } from 'vitest'
import { wilcoxonRankSum } from 'simple-statistics'
import { normals, seeded } from '../random'
import { byDwell, differenceOf, rankSumP, rankSumU, USUAL_SPREAD } from './difference'

const range = (from: number, n: number) => Array.from({ length: n }, (_, i) => from + i)

describe('the rank-sum test', () => {
  // Tables of the Mann-Whitney test, two-sided: 4 and 4 at U 0, 5 and 5 at U 0 and 2, 8 and 8 at U 13.
  it.each([
    [4, 4, 0, 0.0286],
    [5, 5, 0, 0.0079],
    [5, 5, 2, 0.0317],
    [8, 8, 13, 0.0499],
  ])('%i and %i at U %i', (n, m, u, p) => {
    expect(rankSumP(u, range(0, n), range(100, m))).toBeCloseTo(p, 4)
  })
  it('U is the rank sum of a statistics library less n(n+1)/2 (simple-statistics 7)', () => {
    const random = normals(seeded(5))
    for (let k = 0; k < 50; k++) {
      const a = Array.from({ length: 4 + (k % 6) }, random)
      const b = Array.from({ length: 5 + (k % 4) }, random)
      expect(rankSumU(a, b)).toBeCloseTo(wilcoxonRankSum(b, a) - (b.length * (b.length + 1)) / 2, 9)
    }
  })
  it('says “beyond chance” of equal places about one time in ten, and its interval holds the shift nine times', () => {
    const random = normals(seeded(11))
    let alarms = 0
    let held = 0
    const runs = 600
    for (let k = 0; k < runs; k++) {
      const a = Array.from({ length: 6 }, random)
      const b = Array.from({ length: 6 }, random)
      if (differenceOf(a, b, 2)!.beyondChance) alarms++
      const d = differenceOf(
        a,
        b.map(v => v + 3),
        2,
      )!
      if (d.low <= 3 && d.high >= 3) held++
    }
    expect(alarms / runs).toBeLessThanOrEqual(0.12)
    expect(held / runs).toBeGreaterThanOrEqual(0.88)
    expect(held / runs).toBeLessThanOrEqual(0.97)
  })
  it('with ties it still comes out between nothing and one', () => {
    const d = differenceOf([1, 1, 2, 2], [1, 2, 2, 3], 2)!
    expect(d.p).toBeGreaterThan(0.1)
    expect(d.p).toBeLessThanOrEqual(1)
    expect(differenceOf([1, 1, 1, 1], [1, 1, 1, 1], 2)!.beyondChance).toBe(false)
  })
})

describe('too few to show their own spread', () => {
  it('one against one of 2 dB: 6 dB are beyond chance, 3 are not', () => {
    expect(differenceOf([-96], [-90], USUAL_SPREAD.db)).toMatchObject({
      by: 6,
      test: 'usual spread',
      p: null,
      beyondChance: true,
    })
    expect(differenceOf([-93], [-90], USUAL_SPREAD.db)!.beyondChance).toBe(false)
  })
  it('more readings narrow it, order turns the sign, nothing is nothing', () => {
    const one = differenceOf([0], [4], 2)!
    const three = differenceOf([0, 0, 0], [4, 4, 4], 2)!
    expect(three.high - three.low).toBeLessThan(one.high - one.low)
    expect(differenceOf([4], [0], 2)!.by).toBe(-one.by)
    expect(differenceOf([], [1], 2)).toBeNull()
  })
})

describe('readings of one dwell', () => {
  it('count as one, however many there are', () => {
    const at = (s: number, value: number) => ({ takenAtUtc: new Date(Date.UTC(2026, 3, 2, 9, 0, s)).toISOString(), value })
    expect(byDwell([at(0, -90), at(10, -92), at(20, -91), at(600, -80)])).toEqual([-91, -80])
    expect(byDwell([])).toEqual([])
  })
})
