import { describe, expect, it } from 'vitest'
import { normals, seeded } from '../random'
import { nextCorner, wayThrough } from './way'
import { waysIn } from '../install/ways-in'

const p = (eastM: number, northM: number, upM: number) => ({ eastM, northM, upM })

describe('the way of a cable', () => {
  it('down four, along three: seven metres, one bend of 90°, and what ends and bends take', () => {
    const w = wayThrough(p(0, 0, 6), [p(0, 0, 2)], p(3, 0, 2))
    expect(w.pieces.map(x => [x.runs, x.lengthM])).toEqual([
      ['down', 4],
      ['along', 3],
    ])
    expect(w).toMatchObject({ lengthM: 7, bends: 1, neededM: 8.55 })
    expect(w.turnedDeg).toBeCloseTo(90, 9)
  })
  it('one more corner never shortens it, wherever it is put', () => {
    const n = normals(seeded(6))
    const any = () => p(5 * n(), 5 * n(), 3 + 2 * n())
    for (let k = 0; k < 300; k++) {
      const corners = Array.from({ length: k % 5 }, any)
      const [a, b] = [any(), any()]
      const before = wayThrough(a, corners, b)
      const at = k % (corners.length + 1)
      const after = wayThrough(a, [...corners.slice(0, at), any(), ...corners.slice(at)], b)
      expect(after.neededM).toBeGreaterThanOrEqual(before.neededM - 0.06)
      expect(after.lengthM).toBeGreaterThanOrEqual(before.lengthM - 1e-9)
    }
  })
  it('a corner put in the middle of the longest piece changes nothing yet', () => {
    const [a, b] = [p(0, 0, 6), p(8, 0, 1)]
    const w = wayThrough(a, [p(0, 0, 1)], b)
    const c = nextCorner(w)!
    expect(c).toEqual({ index: 1, at: p(4, 0, 1) })
    expect(wayThrough(a, [p(0, 0, 1), c.at], b).lengthM).toBeCloseTo(w.lengthM, 9)
  })
  it('two parts at one place: no piece, and still its ends', () => {
    expect(wayThrough(p(1, 1, 1), [], p(1, 1, 1))).toMatchObject({ pieces: [], lengthM: 0, bends: 0 })
  })
})

describe('ways in', () => {
  const N = [{ jacketMm: 10.3, plugMm: 24 }]
  it('what leaves no trace comes first; where nothing may be drilled no hole is proposed', () => {
    for (const kind of ['home', 'building', 'vehicle', 'boat'] as const) {
      const no = waysIn(kind, 'no', N)
      expect(no.filter(w => w.verdict === 'go').every(w => !w.drills)).toBe(true)
      const firstHole = waysIn(kind, 'yes', N).findIndex(w => w.drills)
      expect(
        waysIn(kind, 'yes', N)
          .slice(0, firstHole)
          .every(w => w.reversible),
      ).toBe(true)
    }
  })
  it('a flue is never a way, whatever is agreed, and the reason stands with it', () => {
    for (const may of ['yes', 'no', 'ask'] as const) {
      const flue = waysIn('home', may, N).find(w => w.id === 'flue')!
      expect(flue.verdict).toBe('never')
      expect(flue.why).toContain('carbon monoxide')
    }
  })
  it('the hole is sized by the plug: 24 mm wants 25', () => {
    const wall = waysIn('home', 'yes', N).find(w => w.id === 'wall')!
    expect([wall.holeMm, wall.bitMm]).toEqual([25, 25])
    expect(waysIn('home', 'yes', []).find(w => w.id === 'wall')!.holeMm).toBeNull()
  })
  it('the fridge vent warns of gas, the wall of what is behind', () => {
    expect(waysIn('vehicle', 'ask', N).find(w => w.id === 'fridge-vent')!.caution).toContain('Gas off')
    expect(waysIn('home', 'ask', N).find(w => w.id === 'wall')!.caution).toContain('gas')
  })
})
