import { describe, expect, it } from 'vitest'
import { normals, seeded } from '../random'
import { behindBest, blocksOf, byDwell, differenceOf, holm, settledWords } from './difference'
import { spreadOf, USUAL_SPREAD, usualSpread } from './spread'
import { median } from './stats'

const SPEED = spreadOf(usualSpread([], []), 'speed')
const LEVEL = spreadOf(usualSpread([], []), 'db')

/**
 * Set-ups tried so often each, one after the other or turn by turn: a load for every block of back-to-back tests, and
 * every test its own spread, each set-up so many times as fast.
 */
function tried(o: { times: number[]; each: number; interleaved: boolean; normal: () => number }): number[][][] {
  const rows = o.times.map(() => [] as { takenAtUtc: string; value: number }[])
  const order = o.interleaved
    ? Array.from({ length: o.each }, (_, i) => (i % 2 ? [...o.times.keys()].reverse() : [...o.times.keys()])).flat()
    : [...o.times.keys()].flatMap(side => new Array<number>(o.each).fill(side))
  let load = 0
  order.forEach((side, i) => {
    if (order[i - 1] !== side) load = USUAL_SPREAD.load * o.normal()
    const value = Math.log(o.times[side]!) + load + USUAL_SPREAD.speed * o.normal()
    rows[side]!.push({ takenAtUtc: new Date(Date.UTC(2026, 3, 2, 9) + i * 60_000).toISOString(), value })
  })
  return blocksOf(rows)
}

/** Share of so many seeded rounds in which anything is called different. */
function called(o: { times: number[]; each: number; interleaved: boolean }, rounds: number): number {
  const normal = normals(seeded(o.each * 31 + o.times.length * 7 + (o.interleaved ? 1 : 0)))
  let found = 0
  for (let k = 0; k < rounds; k++) {
    const sides = tried({ ...o, normal })
    // As the ranking does: the best by the median of its tests.
    sides.sort((a, b) => median(b.flat()) - median(a.flat()))
    if (behindBest(sides[0]!, sides.slice(1), SPEED).some(b => b.beyondChance)) found++
  }
  return found / rounds
}

const ROUNDS = 10_000
const alike = (n: number) => new Array<number>(n).fill(1)

describe('set-ups that are equal', () => {
  it.each([
    [2, [1, 2, 3, 6, 12]],
    [4, [1, 3]],
    [7, [1, 4]],
  ])('%i of them are called different at most six times in a hundred', { timeout: 120_000 }, (setups, tests) => {
    for (const interleaved of [false, true])
      for (const each of tests)
        expect(called({ times: alike(setups), each, interleaved }, ROUNDS), `${each} each, ${interleaved}`).toBeLessThanOrEqual(
          0.06,
        )
  })
})

describe('set-ups that differ', () => {
  it('twice the speed turn by turn, six a side, and four times in order, three a side, are found', { timeout: 60_000 }, () => {
    expect(called({ times: [1, 2], each: 6, interleaved: true }, ROUNDS)).toBeGreaterThanOrEqual(0.85)
    expect(called({ times: [1, 4], each: 3, interleaved: false }, ROUNDS)).toBeGreaterThanOrEqual(0.85)
  })
  it('are never found less often by more tests', { timeout: 120_000 }, () => {
    for (const [times, interleaved] of [
      [2, true],
      [4, false],
    ] as const) {
      let last = 0
      for (let each = 1; each <= 12; each++) {
        const found = called({ times: [1, times], each, interleaved }, ROUNDS / 2)
        expect(found, `${times} times, ${each} each`).toBeGreaterThanOrEqual(last - 0.02)
        last = found
      }
    }
  })
})

describe('a difference', () => {
  it('by hand: one block of three against one: ± t(48) · √(2 · (0.25² + 1.2533² · 0.2²/3))', () => {
    const d = differenceOf([[0, 0, 0]], [[1, 1, 1]], SPEED)!
    // Student's t at 48 degrees of freedom, 0.975, of any table: 2.0106.
    expect(d.high - d.by).toBeCloseTo(2.0106 * Math.sqrt(2 * (0.0625 + (1.2533 ** 2 * 0.04) / 3)), 3)
    expect(d.by).toBe(1)
  })
  it('one test of each says “better” only beyond what load and spread can do', () => {
    const of = (ratio: number) => differenceOf([[0]], [[Math.log(ratio)]], SPEED)!
    expect(of(2).beyondChance).toBe(false)
    expect(of(2).settledBy).toBe(1)
    expect(of(1.7).settledBy).toBe(2)
    expect(settledWords(of(1.7))).toBe('two more of each would settle it, alternating: A B B A')
    expect(of(3).beyondChance).toBe(true)
    expect(settledWords(of(3))).toBe('')
    expect(of(1.02).settledBy).toBeNull()
  })
  it('of levels: a dwell each of 2 dB: 7 dB are beyond chance, 3 are not; order turns the sign; nothing is nothing', () => {
    expect(differenceOf([[-97]], [[-90]], LEVEL)).toMatchObject({ by: 7, beyondChance: true, counts: [1, 1] })
    expect(differenceOf([[-93]], [[-90]], LEVEL)!.beyondChance).toBe(false)
    expect(differenceOf([[-90]], [[-97]], LEVEL)!.by).toBe(-7)
    expect(differenceOf([], [[1]], LEVEL)).toBeNull()
  })
  it('ten tests in a row tell little more than three; three in two blocks tell more', () => {
    const width = (blocks: number[][]) => {
      const d = differenceOf(blocks, [[0]], SPEED)!
      return d.high - d.low
    }
    const [three, ten, parted] = [width([[0, 0, 0]]), width([new Array<number>(10).fill(0)]), width([[0, 0], [0]])]
    expect(ten / three).toBeGreaterThan(0.9)
    expect(parted).toBeLessThan(three)
  })
  it('Holm’s correction is that of R: p.adjust(c(0.04, 0.01, 0.03, 0.02), "holm")', () => {
    expect(holm([0.04, 0.01, 0.03, 0.02]).map(p => Number(p.toFixed(4)))).toEqual([0.06, 0.04, 0.06, 0.06])
    expect(holm([0.001, 0.5, 0.9])).toEqual([0.003, 1, 1])
  })
})

describe('what goes together', () => {
  const at = (s: number, value: number) => ({ takenAtUtc: new Date(Date.UTC(2026, 3, 2, 9, 0, s)).toISOString(), value })
  it('readings of one dwell count as one, however many there are', () => {
    expect(byDwell([at(0, -90), at(10, -92), at(20, -91), at(600, -80)])).toEqual([-91, -80])
    expect(byDwell([])).toEqual([])
  })
  it('a block ends where another set-up is tested, and after a quarter of an hour', () => {
    expect(blocksOf([[at(0, 1), at(60, 2), at(180, 3), at(4000, 4)], [at(120, 9)]])).toEqual([[[1, 2], [3], [4]], [[9]]])
  })
})
