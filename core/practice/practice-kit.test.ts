import { describe, expect, it } from 'vitest'
import {
  bestBooster,
  bestMast,
  bestTaps,
  corridorLevels,
  endlessKit,
  KIT_EXERCISES,
  pastTapDb,
  ridgeLossDb,
  scoreBooster,
  scoreSkyline,
  scoreTree,
  switchBooster,
  TAPS_DB,
} from './practice-kit'
import type { BoosterExercise, BoosterPut, SkylineExercise, TreeExercise } from './practice-kit'

const of = <K extends 'booster' | 'tree' | 'skyline'>(kind: K) =>
  [...KIT_EXERCISES, ...[1, 2, 3, 4].map(n => endlessKit(kind, n))].filter(e => e.kind === kind)
const boosters = of('booster') as BoosterExercise[]
const trees = of('tree') as TreeExercise[]
const skylines = of('skyline') as SkylineExercise[]

describe('a booster to be placed', () => {
  it('each can be won, and the best scores a hundred', () => {
    for (const e of boosters) {
      const { put } = bestBooster(e)
      expect(switchBooster(e, put).roomDbm).not.toBeNull()
      expect(scoreBooster(e, put, 1).points).toBe(100)
    }
  })
  it('dome under the donor at full gain: it rings or is held back, and the words say what first', () => {
    const plain = KIT_EXERCISES[1] as BoosterExercise
    const near: BoosterPut = { donorAlongM: 0, donorOverM: 0, serverAlongM: 0, gainDb: 62, padDb: 20 }
    const e = { ...plain, amplifier: { ...plain.amplifier, lowestGainDb: 62 }, seed: 3 }
    const far = { ...near, donorAlongM: -6, donorOverM: 5, serverAlongM: 5 }
    expect(switchBooster(e, far).isolationDb).toBeGreaterThan(switchBooster(e, near).isolationDb)
  })
  it('next door to a mast a pad does what less gain cannot', () => {
    const e = KIT_EXERCISES[1] as BoosterExercise
    const put: BoosterPut = { donorAlongM: -6, donorOverM: 4, serverAlongM: 4, gainDb: 50, padDb: 0 }
    expect(switchBooster(e, put).state).toBe('overloaded')
    expect(switchBooster(e, { ...put, padDb: 20 }).state).not.toBe('overloaded')
    expect(scoreBooster(e, put, 1).said[0]).toContain('pad')
  })
  it('more tries never score more', () => {
    const e = boosters[0]!
    const { put } = bestBooster(e)
    expect(scoreBooster(e, put, 9).points).toBeLessThan(scoreBooster(e, put, 3).points)
  })
})

describe('a corridor to be balanced', () => {
  // Power conservation, as tables of taps have it: 3 dB leaves 3.02, 6 dB 1.26, 10 dB 0.46, 20 dB 0.04.
  it.each([
    [3, 3.02],
    [6, 1.26],
    [10, 0.46],
    [20, 0.04],
  ])('past a tap of %i dB goes %f dB less, and what the part itself loses', (tap, lost) => {
    expect(pastTapDb(tap) - 0.3).toBeCloseTo(lost, 2)
  })
  it('no power is made: out of all antennas never comes more than goes in', () => {
    for (const e of trees)
      for (const t of TAPS_DB) {
        const out = corridorLevels(
          e,
          e.cablesM.slice(1).map(() => t),
        ).reduce((s, l) => s + 10 ** (l / 10), 0)
        expect(out).toBeLessThan(10 ** (e.inDbm / 10))
      }
  })
  it('the best scores a hundred, the same tap everywhere less', () => {
    for (const e of trees) {
      const best = bestTaps(e)
      expect(best.spreadDb).toBeLessThan(7)
      expect(scoreTree(e, best.taps, 1).points).toBe(100)
      const same = scoreTree(
        e,
        e.cablesM.slice(1).map(() => 20),
        1,
      )
      expect(same.points).toBeLessThan(100)
    }
  })
})

describe('a skyline to be read', () => {
  it('a grazing edge takes 6 dB (ITU-R P.526), a clear one nothing', () => {
    const flat = { ...skylines[0]!, elevationDeg: skylines[0]!.elevationDeg.map(() => 1), ridgeKm: 1 }
    const mast = (deg: number) => ({
      name: 'A',
      bearingDeg: flat.fromDeg + 20,
      distanceKm: 4,
      overM: Math.tan((deg * Math.PI) / 180) * 4000,
    })
    expect(ridgeLossDb(flat, mast(1))).toBeCloseTo(6, 1)
    expect(ridgeLossDb(flat, mast(4))).toBe(0)
    expect(ridgeLossDb(flat, mast(0.2))).toBeGreaterThan(10)
  })
  it('the best scores a hundred, each other less, and each is explained', () => {
    for (const e of skylines) {
      const best = bestMast(e).name
      expect(scoreSkyline(e, best).points).toBe(100)
      for (const m of e.masts.filter(x => x.name !== best)) expect(scoreSkyline(e, m.name).points).toBeLessThan(100)
      expect(scoreSkyline(e, best).said).toHaveLength(3)
    }
  })
  it('of a number always the same', () => expect(endlessKit('skyline', 7)).toEqual(endlessKit('skyline', 7)))
})
