/** The shortest chain of adapters from one end to another, and the cables that fit without one. */
import { sure } from '../sure'
import { PARTS } from '../catalogue/parts'
import { isCoax } from '../job/part'
import type { LinePart, PartOf, Port } from '../job/part'
import { lineLossDb } from '../chain/line'
import { matingProblem, lineEnd } from './mating'
import type { End } from './mating'

/** An adapter as it is turned: the port that faces the cable, and the one that faces the part. */
export interface Link {
  part: PartOf<'adapter'>
  entry: Port
  exit: Port
}

/** The flat leads through a window's frame, for where nothing may be drilled: no adapter of a joint. */
export const WINDOW_LEAD = 'adp-window'
const isWindowLead = (id: string): boolean => id.startsWith(WINDOW_LEAD)

/** More than this hang on no small socket. @source common practice (no source) */
const MOST_ADAPTERS = 4
/** What one more joint counts beside its loss, and what a change of impedance does, dB. Assumed. */
const PER_ADAPTER = 1
const PER_IMPEDANCE = 0.5

const key = (e: End): string => `${e.connector} ${e.gender} ${e.impedanceOhm}`
const opposite = (e: End): string => `${e.connector} ${e.gender === 'plug' ? 'socket' : 'plug'}`

/** The ways on from each kind of end, made once for the shipped parts. */
const WAYS: ReadonlyMap<string, Link[]> = waysOf(PARTS.filter((p): p is PartOf<'adapter'> => p.kind === 'adapter'))

function waysOf(adapters: readonly PartOf<'adapter'>[]): Map<string, Link[]> {
  const out = new Map<string, Link[]>()
  for (const part of adapters) {
    if (isWindowLead(part.id)) continue
    const [a, b] = part.ports as [Port, Port]
    for (const [entry, exit] of [
      [a, b],
      [b, a],
    ] as const) {
      const at = `${entry.connector} ${entry.gender}`
      out.set(at, [...(out.get(at) ?? []), { part, entry, exit }])
    }
  }
  return out
}

/**
 * @param from  the cable's end
 * @param to  the port it has to reach
 * @returns the chain of least joints and loss, in order from the cable; none where they mate as they are, null where nothing joins them
 */
export function adapterChain(from: End, to: End): Link[] | null {
  interface Way {
    end: End
    links: Link[]
    cost: number
  }
  const best = new Map<string, number>()
  const open: Way[] = [{ end: from, links: [], cost: 0 }]
  while (open.length) {
    // A few dozen kinds of end: a sorted list is enough.
    open.sort((a, b) => a.cost - b.cost)
    const way = sure(open.shift())
    if (!matingProblem(way.end, to)) return way.links
    if (way.links.length >= MOST_ADAPTERS) continue
    for (const link of WAYS.get(opposite(way.end)) ?? []) {
      const mismatch =
        Number(link.entry.impedanceOhm !== way.end.impedanceOhm) + Number(link.exit.impedanceOhm !== to.impedanceOhm)
      const cost = way.cost + PER_ADAPTER + link.part.lossDb + PER_IMPEDANCE * mismatch
      const at = key(link.exit)
      if ((best.get(at) ?? Infinity) <= cost) continue
      best.set(at, cost)
      open.push({ end: link.exit, links: [...way.links, link], cost })
    }
  }
  return null
}

export interface CableChoice {
  line: LinePart
  /** adapters at the end it comes from, and at the one it goes to */
  atFrom: Link[]
  atTo: Link[]
  /** line and adapters together, dB */
  lossDb: number
}

/** The parts that a chain of adapters takes, dB. */
export const chainLossDb = (links: readonly Link[]): number => links.reduce((sum, l) => sum + l.part.lossDb, 0)

/**
 * Cables between two ports, those that need the fewest adapters first, of those alike the least loss.
 * @param lengthM  of the cable, m, >= 0
 */
export function cablesBetween(
  from: End,
  to: End,
  { lengthM, frequencyMHz, lines = PARTS.filter(isCoax) }: { lengthM: number; frequencyMHz: number; lines?: readonly LinePart[] },
): CableChoice[] {
  return lines
    .flatMap((line): CableChoice[] => {
      const atFrom = adapterChain(lineEnd(line), from)
      const atTo = adapterChain(lineEnd(line), to)
      if (!atFrom || !atTo) return []
      const lossDb = lineLossDb(line.constants, lengthM, frequencyMHz) + chainLossDb(atFrom) + chainLossDb(atTo)
      return [{ line, atFrom, atTo, lossDb }]
    })
    .sort((a, b) => a.atFrom.length + a.atTo.length - b.atFrom.length - b.atTo.length || a.lossDb - b.lossDb)
}
