/** Where inside antennas would serve a floor best, one after the other, and what each buys. */
import { lastOf, nth } from '../sure'
import { inRange } from '../check'
import { coverageMap } from './map'
import type { Grid, PlanWall, Sender } from './map'

export interface PlacesInput {
  grid: Grid
  walls: readonly PlanWall[]
  frequencyMHz: number
  phoneDbi: number
  coefficient: number
  /** of each cell, dBm RSRP */
  needsDbm: Float32Array
  /** what each cell counts, by the people in its room */
  weights: Float32Array
  /** an antenna of the kind wanted, standing anywhere */
  like: Omit<Sender, 'x' | 'y' | 'fedRsrpDbm'>
  /** RSRP that each of n antennas is fed, dBm: the more there are, the less each gets */
  fedRsrpDbm: (n: number) => number
  most: number
}

export interface ProposedPlace {
  x: number
  y: number
  /** of the floor, weighed by people, served with this and those before it, 0…1 */
  share: number
}

/** Antennas are tried on a net of this step, m. */
const NET_M = 2
/** What a dB of mean level counts, as a share: enough to part equals. */
const TIE_PER_DB = 1e-5
/** A floor is served where so much of it is. Assumed. */
export const ENOUGH = 0.95

/**
 * Adds antennas one by one where each brings most, then moves each once more where that helps; stops where the
 * floor is served or one more brings nothing.
 * @source greedy facility location with one round of exchange: at least 63 % of the best that so many could do (Nemhauser 1978)
 */
export function proposePlaces(o: PlacesInput): ProposedPlace[] {
  inRange('most', o.most, 1, 40)
  const net = netOf(o.grid)
  const total = o.weights.reduce((a, b) => a + b, 0)
  if (!net.length || total <= 0) return []
  // One map a place at 0 dBm: the level of any feed is that and the feed.
  const maps = net.map(([x, y]) => coverageMap({ ...o, senders: [{ ...o.like, x, y, fedRsrpDbm: 0 }] }).rsrpDbm)
  const shareOf = (chosen: readonly number[]): number => {
    const fed = o.fedRsrpDbm(chosen.length)
    let served = 0
    for (let i = 0; i < o.weights.length; i++)
      for (const m of chosen)
        if (maps[m]![i]! + fed >= o.needsDbm[i]!) {
          served += o.weights[i]!
          break
        }
    return served / total
  }
  // Where several serve as much, the one that stands best in the middle of it all.
  const means = maps.map(m => m.reduce((sum, v, i) => sum + v * o.weights[i]!, 0) / total)
  const bestWith = (kept: readonly number[]): number => {
    let best = 0
    let most = -Infinity
    for (let m = 0; m < net.length; m++) {
      if (kept.includes(m)) continue
      const share = shareOf([...kept, m]) + TIE_PER_DB * nth(means, m)
      if (share > most + 1e-9) {
        most = share
        best = m
      }
    }
    return best
  }
  const chosen: number[] = []
  const out: ProposedPlace[] = []
  while (chosen.length < o.most) {
    const next = bestWith(chosen)
    const now = [...chosen, next]
    for (let i = 0; i < now.length - 1; i++) {
      const others = now.filter((_, k) => k !== i)
      const better = bestWith(others)
      if (shareOf([...others, better]) > shareOf(now) + 1e-9) now.splice(i, 1, better)
    }
    const share = shareOf(now)
    if (out.length && share <= lastOf(out).share + 0.005) break
    chosen.splice(0, chosen.length, ...now)
    out.push({ x: nth(net, next)[0], y: nth(net, next)[1], share })
    if (share >= ENOUGH) break
  }
  return chosen.map((m, i) => ({ x: nth(net, m)[0], y: nth(net, m)[1], share: out[i]?.share ?? lastOf(out).share }))
}

function netOf(g: Grid): [number, number][] {
  const width = g.columns * g.stepM
  const depth = g.rows * g.stepM
  const nx = Math.max(1, Math.round(width / NET_M))
  const ny = Math.max(1, Math.round(depth / NET_M))
  const left = g.x0 - g.stepM / 2
  const top = g.y0 - g.stepM / 2
  return Array.from({ length: nx * ny }, (_, i) => [
    left + (((i % nx) + 0.5) * width) / nx,
    top + ((Math.floor(i / nx) + 0.5) * depth) / ny,
  ])
}
