import { describe, expect, it } from 'vitest'
import { angleBetween } from '../geo/angles'
import { endless, EXERCISES, lampsOf, parOf, practiceLevel, reachable, scoreAim } from './practice'
import { bestOf, worldOf } from '../world/world'

describe('the practice range', () => {
  it('has twelve exercises, each of which can be won', () => {
    expect(EXERCISES).toHaveLength(12)
    for (const e of EXERCISES) {
      const { bestDeg, par } = scoreAim(e, 0, [])
      expect(reachable(e)).toContain(bestDeg)
      expect(par).toBeGreaterThanOrEqual(3)
      expect(par).toBeLessThanOrEqual(e.most ?? 14)
      expect(scoreAim(e, bestDeg, [bestDeg]).points).toBe(100)
    }
  })
  it('what each teaches is there: two rises in the fourth, the mast hidden in the ninth', () => {
    const rises = (i: number) => {
      const e = EXERCISES[i]!
      const { lostDb } = bestOf(worldOf(e.seed), e.antenna)
      const lost = Array.from({ length: 36 }, (_, k) => lostDb(k * 10))
      return lost.filter((v, k) => v < lost[(k + 35) % 36]! && v < lost[(k + 1) % 36]!).length
    }
    expect(rises(3)).toBeGreaterThanOrEqual(2)
    const ninth = EXERCISES[8]!
    const w = worldOf(ninth.seed)
    expect(angleBetween(bestOf(w, ninth.antenna).headingDeg, w.mastDeg)).toBeGreaterThan(ninth.antenna.beamwidthDeg / 2)
  })
  it('a lock further off, and more readings than were needed, never score more', () => {
    for (const e of EXERCISES.filter(x => !x.pinsDeg)) {
      const { bestDeg } = scoreAim(e, 0, [])
      const points = [0, 15, 30].map(off => scoreAim(e, bestDeg + off, [bestDeg]).points)
      expect(points[0]).toBeGreaterThanOrEqual(points[1]!)
      const many = Array.from({ length: 20 }, () => bestDeg)
      expect(scoreAim(e, bestDeg, many).points).toBeLessThan(100)
    }
  })
  it('says why: nothing read near, or the wall’s rise taken for the mast’s', () => {
    const e = EXERCISES[1]!
    const { bestDeg } = scoreAim(e, 0, [])
    expect(scoreAim(e, bestDeg + 120, [bestDeg + 120]).said[0]).toContain('Nothing was read within half a beam')
    expect(scoreAim(e, bestDeg, [bestDeg]).said[0]).toContain('within half a decibel')
  })
  it('an endless one is the same for the same number', () => {
    expect(endless(7)).toEqual(endless(7))
    expect(parOf(endless(7))).toBe(parOf(endless(7)))
    const e = endless(9)
    expect(practiceLevel(worldOf(e.seed), e, 10, 4)).toBe(practiceLevel(worldOf(e.seed), e, 10, 4))
  })
  it('lamps go from none to five', () => {
    expect([-120, -110, -100, -95, -90, -60].map(lampsOf)).toEqual([0, 0, 3, 4, 5, 5])
  })
})
