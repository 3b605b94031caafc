/** What each box is fed by: the source noted for it, the lead to it, the thinnest wire that does, and its fuse. */
import type { Tree, TreeNode } from '../chain/tree'
import { wayM } from '../fitting/lengths'
import { fedBy, SOURCE_V, wireFor, wireFuse, WIRES } from '../fitting/wire'
import type { Fed, Wire } from '../fitting/wire'
import { poeArrives, poeClassFor } from '../fitting/poe'
import type { Fixture, Job, JobDocument } from '../job/schema'
import type { Building } from '../site/building'
import { between } from '../site/frame'

export interface BoxFeed {
  at: TreeNode
  supply: 'mains' | '12 V' | 'PoE'
  powerW: number
  source: Fixture | null
  /** one way, m; null where no source is noted */
  lengthM: number | null
  /** of 12 V: every wire tried at the lowest voltage of the source, thinnest first */
  tried: { wire: Wire; fed: Fed; fuseA: number | null }[]
  /** the thinnest that does; null where none does, or it is no 12 V feed */
  wire: Wire | null
  fuseA: number | null
  /** of PoE: the class, and what arrives, W */
  poe: { poeClass: number; arrivesW: number } | null
}

/** @returns the boxes of a tree that want power, with how each gets it; a box whose power is not known is left out */
export function feedsOf(doc: Pick<JobDocument, 'fixtures'>, tree: Tree, kind: Job['kind'], b: Building): BoxFeed[] {
  return [...tree.amplifiers, ...tree.routers].flatMap((at): BoxFeed[] => {
    const { powerW, supply } = at.part
    if (!powerW || (supply !== 'mains' && supply !== '12 V' && supply !== 'PoE')) return []
    const wanted: Fixture['kind'] = supply === '12 V' ? '12 V feed' : 'mains socket'
    const source = doc.fixtures
      .filter(f => f.kind === wanted)
      .reduce<Fixture | null>((a, f) => (!a || between(at.node, f).distanceM < between(at.node, a).distanceM ? f : a), null)
    const lengthM = source ? wayM(kind, b, source, at.node) : null
    const base = { at, supply, powerW, source, lengthM }
    if (supply === 'mains') return [{ ...base, tried: [], wire: null, fuseA: null, poe: null }]
    if (supply === 'PoE') {
      const poeClass = poeClassFor(powerW)
      const poe = poeClass && {
        poeClass: poeClass.poeClass,
        arrivesW: poeArrives(poeClass, Math.min(100, lengthM ?? 100)),
      }
      return [{ ...base, tried: [], wire: null, fuseA: null, poe }]
    }
    if (lengthM === null) return [{ ...base, tried: [], wire: null, fuseA: null, poe: null }]
    const tried = WIRES.map(wire => {
      const fed = fedBy(SOURCE_V[12][0], powerW, lengthM, wire.mm2, { stranded: true })
      return { wire, fed, fuseA: fed.amps === null ? null : wireFuse(fed.amps, wire) }
    })
    const wire = wireFor(12, powerW, lengthM)
    return [{ ...base, tried, wire, fuseA: tried.find(t => t.wire.id === wire?.id)?.fuseA ?? null, poe: null }]
  })
}
