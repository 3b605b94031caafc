import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { afterDark, boundOf, notThrough, placed, planDay } from './day'
import { climbsOf, orderSteps } from './order'
import type { Crewed } from './order'

const step = (id: string, minutes: number, more: Partial<Crewed> = {}): Crewed => ({
  id,
  stand: 'ground',
  needs: [],
  minutes: [minutes, minutes, minutes],
  people: 1,
  ...more,
})
/** Steps that only need earlier ones. */
const steps = (most: number) =>
  fc
    .array(
      fc.record({
        up: fc.boolean(),
        minutes: fc.integer({ min: 1, max: 60 }),
        both: fc.boolean(),
        hardensMin: fc.constantFrom(0, 0, 0, 25),
        needs: fc.array(fc.nat(), { maxLength: 3 }),
      }),
      { minLength: 1, maxLength: most },
    )
    .map(all =>
      all.map((s, i) =>
        step(`s${i}`, s.minutes, {
          stand: s.up ? 'up' : 'ground',
          people: s.both ? 2 : 1,
          hardensMin: s.hardensMin,
          needs: i ? [...new Set(s.needs.map(n => `s${n % i}`))] : [],
        }),
      ),
    )

/** The shortest day by looking at every minute: for whole minutes, without the day's own arithmetic. */
function shortestByMinutes(all: readonly Crewed[], people: number): number {
  let best = Infinity
  const begin = new Map<string, number>()
  const minutesOf = (s: Crewed) => s.minutes[1]
  const freeAfter = (id: string) => {
    const s = all.find(x => x.id === id)!
    return begin.get(id)! + minutesOf(s) + (s.hardensMin ?? 0)
  }
  const grow = (left: readonly Crewed[], from: number): void => {
    const end = Math.max(0, ...[...begin].map(([id, t]) => t + minutesOf(all.find(s => s.id === id)!)))
    if (end >= best) return
    if (!left.length) {
      best = end
      return
    }
    // In the order in which they begin: each at any minute from the one before on.
    for (const s of left) {
      if (!s.needs.every(n => begin.has(n))) continue
      const ready = Math.max(from, 0, ...s.needs.map(n => freeAfter(n)))
      for (let t = ready; t < Math.min(best, Math.max(ready, end) + 1); t++) {
        const busyAt = (m: number) =>
          [...begin].reduce((n, [id, b]) => {
            const x = all.find(y => y.id === id)!
            return n + (b <= m && m < b + minutesOf(x) ? x.people : 0)
          }, 0)
        if (!Array.from({ length: minutesOf(s) }, (_, i) => t + i).every(m => busyAt(m) + s.people <= people)) continue
        begin.set(s.id, t)
        grow(
          left.filter(x => x !== s),
          t,
        )
        begin.delete(s.id)
        break
      }
    }
  }
  grow(all, 0)
  return best
}

describe('a day on site', () => {
  it('by one it is all work, one after another', () => {
    const plan = planDay([step('a', 10), step('b', 20, { needs: ['a'] }), step('c', 5)], 1)
    expect(plan).toMatchObject({ lengthMin: 35, exact: true })
  })
  it('by two, what does not wait for each other goes on at once; a step for both waits for both', () => {
    const plan = planDay([step('a', 30), step('b', 20), step('c', 10, { people: 2 })], 2)
    expect(plan.lengthMin).toBe(40)
    expect(plan.exact).toBe(true)
  })
  it('on the ground alone, up to five steps: as short as the shortest found minute by minute', () =>
    fc.assert(
      fc.property(steps(5), all => {
        const ground = all.map(s => ({ ...s, stand: 'ground' as const, minutes: [1, 1 + (s.minutes[1] % 4), 1] as const }))
        const whole = ground.map(s => ({ ...s, minutes: [s.minutes[1], s.minutes[1], s.minutes[1]] as const }))
        expect(planDay(whole, 2).lengthMin).toBeCloseTo(shortestByMinutes(whole, 2), 6)
      }),
      { numRuns: 60 },
    ))
  it('no step begins before what it needs ends and has hardened, never more than two are busy, none is lost', () =>
    fc.assert(
      fc.property(steps(40), fc.constantFrom(1 as const, 2 as const), (all, people) => {
        const { slots, lengthMin, boundMin } = planDay(all, people)
        expect(slots.map(s => s.step.id).sort()).toEqual(all.map(s => s.id).sort())
        const by = new Map(slots.map(s => [s.step.id, s]))
        for (const s of slots)
          for (const before of s.step.needs.map(n => by.get(n)!))
            expect(before.toMin + before.step.hardensMin!).toBeLessThanOrEqual(s.fromMin + 1e-6)
        for (const { fromMin } of slots) {
          const busy = slots.filter(s => s.fromMin <= fromMin + 1e-6 && s.toMin > fromMin + 1e-6)
          expect(busy.reduce((n, s) => n + Math.min(s.step.people, people), 0)).toBeLessThanOrEqual(people)
        }
        expect(lengthMin).toBeGreaterThanOrEqual(boundMin - 1e-6)
        expect(climbsOf(slots.map(s => s.step))).toBe(climbsOf(orderSteps(all)))
      }),
    ))
  it('a dependency less never makes the day longer: by one where nothing hardens, by two on the ground; the bound never', () =>
    fc.assert(
      fc.property(steps(6), fc.nat(), (all, pick) => {
        const freed = all.map((s, i) => (i === pick % all.length ? { ...s, needs: s.needs.slice(1) } : s))
        expect(boundOf(freed, 2)).toBeLessThanOrEqual(boundOf(all, 2) + 1e-6)
        const [less, more] = [freed, all].map(list => list.map(s => ({ ...s, hardensMin: 0 }))) as [typeof all, typeof all]
        expect(planDay(less, 1).lengthMin).toBeLessThanOrEqual(planDay(more, 1).lengthMin + 1e-6)
        // Up there fewer climbs come first, and a climb that is not broken can cost time: the law holds on the ground.
        const ground = (list: typeof all) => list.map(s => ({ ...s, stand: 'ground' as const }))
        expect(planDay(ground(less), 2).lengthMin).toBeLessThanOrEqual(planDay(ground(more), 2).lengthMin + 1e-6)
      }),
      { numRuns: 150 },
    ))
  it('what is up there after dark is told, and what is not through when they go', () => {
    const all = [step('a', 60), step('b', 60, { stand: 'up', needs: ['a'] })]
    const plan = planDay(all, 1)
    expect(afterDark(plan, 90).map(s => s.id)).toEqual(['b'])
    expect(afterDark(plan, 120)).toEqual([])
    expect(afterDark(plan, null)).toEqual([])
    expect(notThrough(plan, 1.5).map(s => s.id)).toEqual(['b'])
  })
  it('a list is placed at its earliest: a gap before a step for both is filled by the next', () => {
    const slots = placed([step('a', 30), step('b', 10, { people: 2 }), step('c', 25)], 2)
    expect(slots.map(s => s.fromMin)).toEqual([0, 30, 0])
  })
})
