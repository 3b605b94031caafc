/** A hundred and twenty steps to be put in order, and the fewest climbs that any order can have. */
import { seeded } from '../core/random'
import { orderSteps, climbsOf } from '../core/card/order'
import type { Orderable } from '../core/card/order'

const STEPS = 120

export function steps120(seed: number): Orderable[] {
  const random = seeded(seed)
  return Array.from({ length: STEPS }, (_, i): Orderable => {
    const needs = i ? Array.from({ length: 2 }, () => `s${Math.floor(random() * i)}`) : []
    return { id: `s${i}`, stand: random() < 0.4 ? 'up' : 'ground', needs: [...new Set(needs)], minutes: [5, 10, 20] }
  })
}

/** @returns climbs of the order found, and of the chain of steps that goes up most often: no order has fewer */
export function orderAgainstBound(steps: readonly Orderable[]): { climbs: number; bound: number } {
  const most = new Map<string, number>()
  for (const s of steps) {
    const before = s.needs.map(n => ({ climbs: most.get(n)!, up: steps.find(x => x.id === n)!.stand === 'up' }))
    const up = s.stand === 'up'
    most.set(s.id, Math.max(Number(up), ...before.map(b => b.climbs + Number(up && !b.up))))
  }
  return { climbs: climbsOf(orderSteps(steps)), bound: Math.max(...most.values()) }
}
