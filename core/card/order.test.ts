import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byOne, climbsOf, orderSteps, spanOf } from './order'
import type { Orderable } from './order'

type Small = Orderable & { people: 1 | 2 }
/** Some steps; each may wait for some of those before it. */
const steps = (most: number) =>
  fc
    .array(
      fc.record({
        up: fc.boolean(),
        waits: fc.array(fc.nat({ max: most }), { maxLength: 3 }),
        likely: fc.integer({ min: 5, max: 60 }),
        two: fc.boolean(),
      }),
      { minLength: 1, maxLength: most },
    )
    .map(rows =>
      rows.map((r, i): Small => ({
        id: `s${i}`,
        stand: r.up ? 'up' : 'ground',
        needs: i ? [...new Set(r.waits.map(w => `s${w % i}`))] : [],
        minutes: [r.likely / 2, r.likely, r.likely * 2],
        people: r.two ? 2 : 1,
      })),
    )

/** Fewest climbs of every feasible order there is. */
function fewest(all: readonly Small[]): number {
  let best = Infinity
  const walk = (left: readonly Small[], done: Set<string>, climbs: number, up: boolean): void => {
    if (climbs >= best) return
    if (!left.length) {
      best = climbs
      return
    }
    for (const s of left) {
      if (!s.needs.every(n => done.has(n))) continue
      const goesUp = s.stand === 'up'
      walk(
        left.filter(x => x !== s),
        new Set([...done, s.id]),
        climbs + Number(goesUp && !up),
        goesUp,
      )
    }
  }
  walk(all, new Set(), 0, false)
  return best
}

describe('the order of steps', () => {
  it('up to nine steps: as few climbs as the best of every order there is', () =>
    fc.assert(
      fc.property(steps(9), all => {
        expect(climbsOf(orderSteps(all))).toBe(fewest(all))
      }),
      { numRuns: 300 },
    ))
  it('no step stands before what it needs, none is lost, none is doubled', () =>
    fc.assert(
      fc.property(steps(60), all => {
        const order = orderSteps(all)
        expect(order.map(s => s.id).sort()).toEqual(all.map(s => s.id).sort())
        const at = new Map(order.map((s, i) => [s.id, i]))
        for (const s of all) for (const n of s.needs) expect(at.get(n)!).toBeLessThan(at.get(s.id)!)
      }),
    ))
  it('a dependency less never makes the day longer', () =>
    fc.assert(
      fc.property(steps(30), fc.nat(), (all, pick) => {
        const freed = all.map((s, i) => (i === pick % all.length ? { ...s, needs: s.needs.slice(1) } : s))
        expect(byOne(freed).likely).toBeCloseTo(byOne(all).likely, 9)
        expect(climbsOf(orderSteps(freed))).toBeLessThanOrEqual(climbsOf(orderSteps(all)))
      }),
    ))
  it('what needs a network comes first, though it is listed last', () => {
    const all: Small[] = [
      { id: 'a', stand: 'ground', needs: [], minutes: [1, 1, 1], people: 1 },
      { id: 'b', stand: 'in coverage', needs: [], minutes: [1, 1, 1], people: 1 },
    ]
    expect(orderSteps(all).map(s => s.id)).toEqual(['b', 'a'])
  })
  it('steps that wait for each other are refused', () => {
    const step = (id: string, needs: string[]): Small => ({ id, stand: 'ground', needs, minutes: [1, 2, 3], people: 1 })
    expect(() => orderSteps([step('a', ['b']), step('b', ['a'])])).toThrow('wait for each other')
    expect(() => orderSteps([step('a', []), step('a', [])])).toThrow('two steps')
  })
  it('least 4, likely 5, most 12 minutes: 6 ± 1.33 (PERT handbooks: (a + 4m + b)/6 and (b − a)/6)', () => {
    expect(spanOf([4, 5, 12])).toEqual({ likely: 6, sigma: 8 / 6 })
    expect(byOne([{ minutes: [4, 5, 12] }, { minutes: [4, 5, 12] }])).toEqual({ likely: 12, sigma: Math.hypot(8 / 6, 8 / 6) })
  })
})
