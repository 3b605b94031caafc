/** A hundred and twenty steps to be put in order, and the fewest climbs that any order can have. */
import { seeded } from '../core/random'
import { orderSteps, climbsOf } from '../core/card/order'
import { planDay } from '../core/card/day'
import type { Crewed } from '../core/card/order'

const STEPS = 120

export function steps120(seed: number): Crewed[] {
  const random = seeded(seed)
  return Array.from({ length: STEPS }, (_, i): Crewed => {
    const needs = i ? Array.from({ length: 2 }, () => `s${Math.floor(random() * i)}`) : []
    return {
      id: `s${i}`,
      stand: random() < 0.4 ? 'up' : 'ground',
      needs: [...new Set(needs)],
      minutes: [5, 10, 20],
      people: random() < 0.3 ? 2 : 1,
    }
  })
}

/** @returns climbs of the order found, and of the chain of steps that goes up most often: no order has fewer */
export function orderAgainstBound(steps: readonly Crewed[]): { climbs: number; bound: number } {
  const most = new Map<string, number>()
  for (const s of steps) {
    const before = s.needs.map(n => ({ climbs: most.get(n)!, up: steps.find(x => x.id === n)!.stand === 'up' }))
    const up = s.stand === 'up'
    most.set(s.id, Math.max(Number(up), ...before.map(b => b.climbs + Number(up && !b.up))))
  }
  return { climbs: climbsOf(orderSteps(steps)), bound: Math.max(...most.values()) }
}

/** @returns the day of two people, and what no day of theirs can be under: half of all work, or the longest chain */
export function dayAgainstBound(steps: readonly Crewed[]): { lengthMin: number; boundMin: number } {
  const { lengthMin, boundMin } = planDay(steps, 2)
  return { lengthMin, boundMin }
}
