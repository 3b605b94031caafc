/** Building a tree by hand: branches, parts put in and taken out. */
import { partById, partOfKind } from '../catalogue/parts'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import type { Port } from '../job/part'
import type { Design, Job } from '../job/schema'
import type { Building } from '../site/building'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { stockLengthM, wayM } from './lengths'
import type { Step } from './splice'

const BRANCH_LINE = 'line-400'

/** A new part a little further on, with a cable to it from a free port. */
export function branchSteps(
  o: { kind: Job['kind']; building: Building; design: Design },
  from: { at: TreeNode; port: Port },
  partId: string,
  at: Point = beside(from.at.node),
): Step[] {
  const part = partById(partId)!
  const line = partOfKind(BRANCH_LINE, 'line')!
  const entry = part.kind === 'line' ? 'in' : part.ports[0]!.id
  return [
    nodeStep(o.design, 'new:node', partId, at),
    {
      table: 'runs',
      op: 'insert',
      rowId: 'new:run',
      fields: {
        designId: o.design.id,
        fromNodeId: from.at.node.id,
        fromPort: from.port.id,
        toNodeId: 'new:node',
        toPort: entry,
        partId: line.id,
        part: line,
        lengthM: stockLengthM(line, wayM(o.kind, o.building, from.at.node, at)),
        measured: false,
        spareM: null,
      },
    },
  ]
}

const beside = (p: Point): Point => ({ eastM: round2(p.eastM + 2), northM: p.northM, upM: p.upM })

function nodeStep(design: Design, key: string, partId: string, at: Point): Step {
  return {
    table: 'nodes',
    op: 'insert',
    rowId: key,
    fields: {
      designId: design.id,
      partId,
      part: partById(partId)!,
      own: null,
      eastM: at.eastM,
      northM: at.northM,
      upM: at.upM,
      azimuthDeg: null,
      tiltDeg: 0,
    },
  }
}

/** A part by itself, to be joined afterwards. */
export const looseSteps = (design: Design, partId: string, at: Point): Step[] => [nodeStep(design, 'new:node', partId, at)]

/** A cable between two free ports. */
export function joinSteps(
  o: { kind: Job['kind']; building: Building; design: Design },
  from: { at: TreeNode; port: Port },
  to: { at: TreeNode; port: Port },
): Step[] {
  const line = partOfKind(BRANCH_LINE, 'line')!
  return [
    {
      table: 'runs',
      op: 'insert',
      rowId: 'new:run',
      fields: {
        designId: o.design.id,
        fromNodeId: from.at.node.id,
        fromPort: from.port.id,
        toNodeId: to.at.node.id,
        toPort: to.port.id,
        partId: line.id,
        part: line,
        lengthM: stockLengthM(line, wayM(o.kind, o.building, from.at.node, to.at.node)),
        measured: false,
        spareM: null,
      },
    },
  ]
}

/** Takes a part out; where one cable led to it and one away, the first goes on to where the second led. */
export function removeSteps(tree: Tree, n: TreeNode): Step[] {
  const into = tree.joints.filter(j => j.to.at.node.id === n.node.id)
  const out = tree.joints.filter(j => j.from.at.node.id === n.node.id)
  const gone: Step = { table: 'nodes', op: 'delete', rowId: n.node.id, fields: {} }
  const [a, b] = [into[0], out[0]]
  if (into.length !== 1 || out.length !== 1 || !a || !b) return [gone]
  const passes = n.part.kind === 'arrestor' || n.part.kind === 'pad' || n.part.kind === 'adapter' || n.part.kind === 'splitter'
  if (!passes) return [gone]
  // The cable that stays is the real one of the two.
  const stays: Joint = a.run.partId ? a : b
  const goes = stays === a ? b : a
  return [
    {
      table: 'runs',
      op: 'update',
      rowId: stays.run.id,
      fields: {
        fromNodeId: a.from.at.node.id,
        fromPort: a.from.port.id,
        toNodeId: b.to.at.node.id,
        toPort: b.to.port.id,
        ...(a.run.partId && b.run.partId ? { lengthM: round2(a.run.lengthM + b.run.lengthM) } : {}),
      },
    },
    { table: 'runs', op: 'delete', rowId: goes.run.id, fields: {} },
    gone,
  ]
}
