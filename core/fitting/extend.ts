/** A lead that does not reach goes on by a cable: a joint where it ends, adapters where the plugs do not meet. */
import { lastOf, nth } from '../sure'
import { leadsM } from '../chain/tree'
import type { Joint } from '../chain/tree'
import type { LinePart } from '../job/part'
import type { Job } from '../job/schema'
import type { Building } from '../site/building'
import { partWay } from '../site/frame'
import type { Point } from '../site/frame'
import { cablesBetween } from './adapters'
import type { CableChoice } from './adapters'
import { wayM } from './lengths'
import { nodeStep, runStep } from './splice'
import type { Step } from './splice'

export interface Extension {
  line: LinePart
  lengthM: number
  /** cable and joint together, beside the lead's own, dB */
  lossDb: number
  steps: Step[]
}

interface Site {
  job: Pick<Job, 'kind'>
  building: Building
}

/** Steps in which the end of a lead is looked for along the straight line, m. */
const STEP_M = 0.25

/** @returns the furthest place toward the other part that a lead reaches by the way of cables */
function endOf(near: Point, far: Point, leadM: number, { job, building }: Site): Point {
  for (let m = leadM; m > STEP_M; m -= STEP_M) {
    const at = partWay(near, far, m, 0.9)
    if (wayM(job.kind, building, near, at) <= leadM) return at
  }
  return partWay(near, far, STEP_M, 0.9)
}

/**
 * @param spareM  what the lead has over what it needs; negative where it is too short
 * @param n  tells the rows of several extensions in one cure apart
 * @returns the cable of least joints, then of least loss; null where none is sold that joins the two, or nothing is too short
 */
export function extensionOf(
  joint: Joint,
  { job, building, spareM, frequencyMHz, n = 1 }: Site & { spareM: number; frequencyMHz: number; n?: number },
): Extension | null {
  if (joint.run.partId !== null || !joint.leads.length || spareM >= 0) return null
  const { from, to, run } = joint
  // A lead is fixed to one end; the cable goes on from its plug to the other.
  const atFrom = !!from.at.part.tailM
  const [near, far] = atFrom ? [from, to] : [to, from]
  const leadM = leadsM(joint)
  const at = endOf(near.at.node, far.at.node, leadM, { job, building })
  // A plug that fits goes straight on; a joint is a place of its own, with the slack of two cables.
  const beyondM = wayM(job.kind, building, at, far.at.node)
  const fits = (c: CableChoice) => {
    const needsM = c.atFrom.length ? beyondM : -spareM
    return c.line.stockM.find(s => s >= needsM)
  }
  const found = cablesBetween(near.port, far.port, { lengthM: beyondM, frequencyMHz }).find(c => !c.atTo.length && fits(c))
  const lengthM = found && fits(found)
  if (!found || lengthM === undefined) return null
  const { line, atFrom: links } = found
  const cable = { partId: line.id, part: line, lengthM }
  const key = (i: number) => `new:${n}-joint${i}`
  if (!links.length)
    return { line, lengthM, lossDb: found.lossDb, steps: [{ table: 'runs', op: 'update', rowId: run.id, fields: cable }] }
  const nodes = links.map((l, i) => nodeStep(run.designId, key(i), l.part, at))
  // From the cable on: the last of them takes the lead's plug.
  const between = links
    .slice(1)
    .map((l, i) =>
      runStep(run.designId, `${key(i)}r`, { from: [key(i), nth(links, i).exit.id], to: [key(i + 1), l.entry.id], cable: null }),
    )
  const last = [key(links.length - 1), lastOf(links).exit.id] as const
  const lead: Step = {
    table: 'runs',
    op: 'update',
    rowId: run.id,
    fields: atFrom
      ? { fromPort: from.port.id, toNodeId: last[0], toPort: last[1], way: null, pieces: null }
      : { toPort: to.port.id, fromNodeId: last[0], fromPort: last[1], way: null, pieces: null },
  }
  const goesOn = runStep(run.designId, `new:${n}-extension`, {
    from: atFrom ? [key(0), nth(links, 0).entry.id] : [far.at.node.id, far.port.id],
    to: atFrom ? [far.at.node.id, far.port.id] : [key(0), nth(links, 0).entry.id],
    cable,
  })
  return { line, lengthM, lossDb: found.lossDb, steps: [...nodes, lead, ...between, goesOn] }
}
