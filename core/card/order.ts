/** The order of steps: feasible first, then fewest climbs; and how long the day is. */
import { entryOf, nth } from '../sure'
import { DirectedGraph } from 'graphology'
import { hasCycle } from 'graphology-dag'
import type { Step } from './step'

export type Orderable = Pick<Step, 'id' | 'stand' | 'needs' | 'minutes'>

export type Crewed = Orderable & Pick<Step, 'people'> & Partial<Pick<Step, 'hardensMin'>>

/** @throws RangeError where steps wait for each other in a circle, or two have one id */
export function graphOf<T extends Orderable>(steps: readonly T[]): DirectedGraph<{ step: T }> {
  const graph = new DirectedGraph<{ step: T }>()
  for (const step of steps) {
    if (graph.hasNode(step.id)) throw new RangeError(`two steps are called ${step.id}`)
    graph.addNode(step.id, { step })
  }
  for (const step of steps) for (const before of new Set(step.needs)) if (graph.hasNode(before)) graph.mergeEdge(before, step.id)
  if (hasCycle(graph)) throw new RangeError('some steps wait for each other')
  return graph
}

/** @returns items beside each other that have one key, run by run */
export function runsOf<T>(items: readonly T[], keyOf: (item: T) => unknown): T[][] {
  const runs: T[][] = []
  for (const item of items) {
    const last = runs.at(-1)
    if (last && keyOf(nth(last, 0)) === keyOf(item)) last.push(item)
    else runs.push([item])
  }
  return runs
}

/** Every time somebody goes up after having been down counts. */
export function climbsOf(steps: readonly Pick<Orderable, 'stand'>[]): number {
  return steps.filter((s, i) => s.stand === 'up' && steps[i - 1]?.stand !== 'up').length
}

/**
 * Steps in an order in which each stands after all it needs, with the fewest climbs there can be.
 *
 * Whoever is up does everything up there that can be done before coming down, and the other way round: with two kinds of
 * place no other order climbs less, but for whether it begins up or down; both are tried.
 * Of what can be done at once, what needs coverage comes first, then as listed.
 *
 * @source exchange argument for batches of two kinds under precedence
 */
export function orderSteps<T extends Orderable>(steps: readonly T[]): T[] {
  const graph = graphOf(steps)
  const [down, up] = [inBatches(steps, graph, false), inBatches(steps, graph, true)]
  return climbsOf(up) < climbsOf(down) ? up : down
}

function inBatches<T extends Orderable>(steps: readonly T[], graph: DirectedGraph<{ step: T }>, startsUp: boolean): T[] {
  const listed = [...steps].sort((a, b) => Number(b.stand === 'in coverage') - Number(a.stand === 'in coverage'))
  const waits = new Map(listed.map(s => [s.id, graph.inDegree(s.id)]))
  const left = new Set(listed)
  const out: T[] = []
  let up = startsUp
  while (left.size) {
    const next = [...left].find(s => (s.stand === 'up') === up && waits.get(s.id) === 0)
    if (!next) {
      up = !up
      continue
    }
    left.delete(next)
    out.push(next)
    for (const after of graph.outNeighbors(next.id)) waits.set(after, entryOf(waits, after) - 1)
  }
  return out
}

export interface Span {
  /** minutes */
  likely: number
  /** one standard deviation, minutes */
  sigma: number
}

/** @source programme evaluation and review technique: (a + 4m + b)/6, σ = (b − a)/6 */
export const spanOf = ([a, m, b]: Step['minutes']): Span => ({ likely: (a + 4 * m + b) / 6, sigma: (b - a) / 6 })

/** One after another by one person. */
export function byOne(steps: readonly Pick<Orderable, 'minutes'>[]): Span {
  const spans = steps.map(s => spanOf(s.minutes))
  return { likely: spans.reduce((t, s) => t + s.likely, 0), sigma: Math.hypot(...spans.map(s => s.sigma)) }
}
