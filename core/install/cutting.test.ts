import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cutFrom } from './cutting'

/** Every way of putting pieces into groups, each group from the shortest drum that holds it. */
function exhaustive(pieces: readonly number[], drums: readonly number[]): number {
  const cost = (sum: number) => Math.min(...drums.filter(d => d >= sum - 1e-9))
  const groups: number[] = []
  let best = Infinity
  const put = (i: number): void => {
    if (i === pieces.length) {
      best = Math.min(
        best,
        groups.reduce((a, g) => a + cost(g), 0),
      )
      return
    }
    for (let g = 0; g < groups.length; g++) {
      groups[g]! += pieces[i]!
      if (Number.isFinite(cost(groups[g]!))) put(i + 1)
      groups[g]! -= pieces[i]!
    }
    groups.push(pieces[i]!)
    put(i + 1)
    groups.pop()
  }
  put(0)
  return best
}

describe('cutting cable from drums', () => {
  it('two halves come from one drum', () => {
    const cut = cutFrom([48, 52, 30], [100])
    expect(cut).toMatchObject({ boughtM: 200, wasteM: 70, exact: true })
    expect(cut.drums.map(d => d.piecesM.reduce((a, b) => a + b, 0)).sort((a, b) => a - b)).toEqual([30, 100])
  })
  it('takes the small drum where it is enough', () => expect(cutFrom([40], [50, 100]).boughtM).toBe(50))
  it('what is cut is what was asked, and never more than a drum holds', () =>
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.5, max: 90, noNaN: true }), { minLength: 1, maxLength: 30 }), pieces => {
        const cut = cutFrom(pieces, [50, 100])
        expect(cut.drums.flatMap(d => d.piecesM).sort()).toEqual([...pieces].sort())
        for (const d of cut.drums) expect(d.piecesM.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(d.lengthM + 1e-6)
        expect(cut.wasteM).toBeCloseTo(cut.boughtM - pieces.reduce((a, b) => a + b, 0), 6)
      }),
      { numRuns: 40 },
    ))
  it('is the exact optimum on small cases, tried by every grouping', () =>
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 3, max: 60 }), { minLength: 1, maxLength: 7 }), pieces => {
        const cut = cutFrom(pieces, [30, 75, 100])
        expect(cut.exact).toBe(true)
        expect(cut.boughtM).toBeCloseTo(exhaustive(pieces, [30, 75, 100]), 9)
      }),
      { numRuns: 60 },
    ))
  it('refuses a piece that no drum holds', () =>
    expect(() => cutFrom([120], [50, 100])).toThrow('a piece of 120 m is longer than the longest drum, 100 m'))
})
