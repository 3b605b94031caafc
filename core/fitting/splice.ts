/** Putting a part into a tree: between a cable and what it leads to, or into the middle of a cable. */
import { partById } from '../catalogue/parts'
import type { Joint } from '../chain/tree'
import type { Part } from '../job/part'
import type { Run, TableName } from '../job/schema'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'

export interface Step {
  table: TableName
  op: 'insert' | 'update' | 'delete'
  /** `new:…` names a row that is made with the steps */
  rowId: string
  fields: Record<string, unknown>
}

/** A part placed in a design. */
export const nodeStep = (designId: string, key: string, part: Part, at: Point): Step => ({
  table: 'nodes',
  op: 'insert',
  rowId: key,
  fields: {
    designId,
    partId: part.id,
    part,
    own: null,
    eastM: at.eastM,
    northM: at.northM,
    upM: at.upM,
    azimuthDeg: null,
    tiltDeg: 0,
  },
})

/** A cable between two ports; without one, the parts are screwed together. */
export const runStep = (
  designId: string,
  key: string,
  [fromNodeId, fromPort]: readonly [string, string],
  [toNodeId, toPort]: readonly [string, string],
  cable: Pick<Run, 'partId' | 'part' | 'lengthM'> | null,
): Step => ({
  table: 'runs',
  op: 'insert',
  rowId: key,
  fields: {
    designId,
    fromNodeId,
    fromPort,
    toNodeId,
    toPort,
    partId: cable?.partId ?? null,
    part: cable?.part ?? null,
    lengthM: cable?.lengthM ?? 0,
    measured: false,
    spareM: null,
  },
})

const rounded = (p: Point): Point => ({ eastM: round2(p.eastM), northM: round2(p.northM), upM: round2(p.upM) })

/** How far from what it is screwed to a small part is drawn, m. */
const BESIDE_M = 0.25

/**
 * Screws a two-port part onto one end of a joint; the cable keeps its length.
 * @param side  the end of the joint it goes to
 * @param n  tells the rows of several splices in one cure apart
 */
export function screwOn(joint: Joint, side: 'from' | 'to', partId: string, n = 1): Step[] {
  const { run } = joint
  const jack = joint[side]
  const other = joint[side === 'to' ? 'from' : 'to'].at.node
  const part = partById(partId)!
  const [first, second] = part.kind === 'line' ? ['in', 'out'] : [part.ports[0]!.id, part.ports[1]!.id]
  const { node } = jack.at
  const away = Math.hypot(other.eastM - node.eastM, other.northM - node.northM, other.upM - node.upM)
  const share = away > 0 ? Math.min(0.5, BESIDE_M / away) : 0
  const key = `new:${n}`
  const at = rounded({
    eastM: node.eastM + share * (other.eastM - node.eastM),
    northM: node.northM + share * (other.northM - node.northM),
    upM: node.upM + share * (other.upM - node.upM),
  })
  // The part's first port is where a cable comes in: on the other side it is turned round.
  return side === 'to'
    ? [
        nodeStep(run.designId, key, part, at),
        { table: 'runs', op: 'update', rowId: run.id, fields: { fromPort: joint.from.port.id, toNodeId: key, toPort: first } },
        runStep(run.designId, `${key}r`, [key, second!], [node.id, jack.port.id], null),
      ]
    : [
        nodeStep(run.designId, key, part, at),
        { table: 'runs', op: 'update', rowId: run.id, fields: { toPort: joint.to.port.id, fromNodeId: key, fromPort: first } },
        runStep(run.designId, `${key}r`, [node.id, jack.port.id], [key, second!], null),
      ]
}

/** Cuts a cable where it passes a place, and puts a two-port part there. */
export function spliceInto(joint: Joint, partId: string, at: Point, firstM: number, n = 1): Step[] {
  const { run, line } = joint
  const part = partById(partId)!
  if (part.kind === 'line') return []
  const key = `new:${n}`
  return [
    nodeStep(run.designId, key, part, rounded(at)),
    {
      table: 'runs',
      op: 'update',
      rowId: run.id,
      fields: { fromPort: joint.from.port.id, toNodeId: key, toPort: part.ports[0]!.id, lengthM: round2(firstM) },
    },
    runStep(run.designId, `${key}r`, [key, part.ports[1]!.id], [run.toNodeId, joint.to.port.id], {
      partId: run.partId,
      part: run.part ?? line,
      lengthM: round2(Math.max(0.5, run.lengthM - firstM)),
    }),
  ]
}
