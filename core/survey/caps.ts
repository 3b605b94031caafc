/** Whether speeds look like a plan's cap rather than the radio. */
import type { Sim } from '../job/schema'
import type { LogIndex } from './spots'
import { median } from './stats'

/** Figures that plans are sold at, Mbit/s. @source common practice (no source) */
const ROUND = [0.5, 1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 75, 100, 150, 200, 300]
/** A cap holds this closely, and this many tests each way must end at it. */
const WITHIN = 0.06
const LEAST_TESTS = 3

export interface CapSeen {
  simId: string | null
  simName: string | null
  downMbps: number
  upMbps: number
}

/**
 * Caps by SIM: several tests each way that end at one round figure. A burst passes a cap for seconds: what
 * lies above the figure that most tests end at is left out, as long as it is the fewer.
 */
export function capsSeen(log: LogIndex, sims: readonly Sim[]): CapSeen[] {
  const bySim = new Map<string | null, { down: number[]; up: number[] }>()
  for (const r of log.runs) {
    if (r.wouldNotLoad) continue
    const key = r.setup?.sim?.id ?? null
    const of = bySim.get(key) ?? { down: [], up: [] }
    if (r.downMbps !== null) of.down.push(r.downMbps)
    if (r.upMbps !== null) of.up.push(r.upMbps)
    bySim.set(key, of)
  }
  return [...bySim].flatMap(([simId, { down, up }]) => {
    const downMbps = capOf(down)
    const upMbps = capOf(up)
    // One direction alone at a round figure is chance, or the radio's.
    if (downMbps === null || upMbps === null || downMbps !== upMbps) return []
    return [{ simId, simName: sims.find(s => s.id === simId)?.name ?? null, downMbps, upMbps }]
  })
}

/** @returns the round figure at which most tests of one direction end, or null */
export function capOf(mbps: readonly number[]): number | null {
  if (mbps.length < LEAST_TESTS) return null
  const middle = median(mbps)
  const cap = ROUND.find(c => Math.abs(middle / c - 1) < WITHIN)
  if (cap === undefined) return null
  const at = mbps.filter(v => Math.abs(v / cap - 1) < WITHIN)
  const above = mbps.filter(v => v > cap * (1 + WITHIN))
  const below = mbps.filter(v => v < cap * (1 - WITHIN))
  return at.length >= LEAST_TESTS && above.length < at.length && below.length === 0 ? cap : null
}
