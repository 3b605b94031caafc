/** What each modem of a box with several would bring by itself: its own SIM, its own ports, its own mast. */
import type { Evidence } from '../masts/bearings'
import { modemName, modemsOf } from '../chain/modems'
import type { Modem } from '../chain/modems'
import { treeOf } from '../chain/tree'
import type { Design, JobDocument } from '../job/schema'
import { findRow } from '../job/changes'
import { sideOf } from './sims'
import type { SimSide } from './sims'

export interface ModemSide {
  routerId: string
  index: number
  /** `modem 2 of Router` */
  name: string
  /** null where no SIM is planned for it, or its carrier is not said */
  side: SimSide | null
}

/** The plan with one modem alone: what leads to the ports of the others is unplugged, and the SIM is its own. */
function alone(document: JobDocument, design: Design, modem: Modem): JobDocument {
  const mine = new Set(modem.ports.map(p => p.port.id))
  const others = modem.at.part.ports.filter(p => p.role === 'cell' && !mine.has(p.id)).map(p => p.id)
  const id = modem.at.node.id
  const leadsToOthers = (r: JobDocument['runs'][number]) =>
    (r.toNodeId === id && others.includes(r.toPort ?? '')) || (r.fromNodeId === id && others.includes(r.fromPort ?? ''))
  return {
    ...document,
    jobs: document.jobs.map(j => ({ ...j, designId: design.id })),
    runs: document.runs.filter(r => r.designId !== design.id || !leadsToOthers(r)),
  }
}

/** @returns a side for each modem of every box that has several; none where none has */
export function compareModems(document: JobDocument, evidence: Evidence, atUtc: string): ModemSide[] {
  const design = findRow(document, 'designs', document.jobs[0]?.designId ?? null) ?? document.designs[0]
  if (!design) return []
  const tree = treeOf(document, design)
  return tree.routers.flatMap(at => {
    const modems = modemsOf(document, tree, at)
    if (modems.length < 2) return []
    return modems.map(m => ({
      routerId: at.node.id,
      index: m.index,
      name: modemName(m),
      side: m.sim?.carrier ? sideOf(alone(document, design, m), evidence, atUtc, m.sim.carrier) : null,
    }))
  })
}
