/** Building a tree by hand: branches, parts put in and taken out. */
import { nth, sure } from '../sure'
import { partById, partOfKind } from '../catalogue/parts'
import { jackAt } from '../chain/ends'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { isInverter } from '../job/part'
import type { Part, Port } from '../job/part'
import { update } from '../job/edits'
import type { Design, Job, Node, Site } from '../job/schema'
import type { Building } from '../site/building'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { stockLengthM, wayM } from './lengths'
import { moveSteps } from './move'
import { seated } from './seat'
import { nodeStep, runStep } from './splice'
import type { Step } from './splice'

const BRANCH_LINE = 'line-400'

interface Where {
  kind: Job['kind']
  building: Building
  design: Design
}

/** A new part a little further on, with a cable to it from a free port. */
export function branchSteps(
  o: Where,
  from: { at: TreeNode; port: Port },
  partId: string,
  at: Point = beside(from.at.node),
): Step[] {
  const part = sure(partById(partId))
  const entry = part.kind === 'line' ? 'in' : nth(part.ports, 0).id
  const key = 'new:node'
  return [nodeStep(o.design.id, key, part, at), cableStep(o, from, [key, entry], at)]
}

const beside = (p: Point): Point => ({ eastM: round2(p.eastM + 2), northM: p.northM, upM: p.upM })

/** A cable of a stock length that reaches. */
function cableStep(o: Where, from: { at: TreeNode; port: Port }, to: readonly [string, string], at: Point): Step {
  const line = sure(partOfKind(BRANCH_LINE, 'line'))
  const lengthM = stockLengthM(line, wayM(o.kind, o.building, from.at.node, at))
  return runStep(o.design.id, 'new:run', {
    from: [from.at.node.id, from.port.id],
    to,
    cable: { partId: line.id, part: line, lengthM },
  })
}

/** A part by itself, to be joined afterwards. */
export const looseSteps = (design: Design, part: Part, at: Point): Step[] => [nodeStep(design.id, 'new:node', part, at)]

/** A cable between two free ports. */
export const joinSteps = (o: Where, from: { at: TreeNode; port: Port }, to: { at: TreeNode; port: Port }): Step[] => [
  cableStep(o, from, [to.at.node.id, to.port.id], to.at.node),
]

/**
 * Another part in the place of one, and of those built alike: the maker's figures of the old one go with it. One with a foot is
 * seated on the roof of a vehicle, and its cables follow.
 */
export function swapSteps(on: SwapOn, nodes: readonly Pick<Node, 'id' | 'upM'>[], part: Part): Step[] {
  const swapped = nodes.map(n => update('nodes', n.id, { partId: part.id, part, own: null, ...seated(on, n, part) }))
  return swapped.some(s => s.fields.upM !== undefined) ? moveSteps(on, swapped) : swapped
}
interface SwapOn {
  job: Pick<Job, 'kind'>
  site: Site
  building: Building
  tree: Pick<Tree, 'joints' | 'nodes'>
}

/** Parts that a signal passes: without something at both their ends they hang in the air. */
const PASSES: ReadonlySet<Part['kind']> = new Set(['arrestor', 'pad', 'adapter', 'splitter', 'tap'])

/**
 * Takes a part out. Where one cable led to it and one away, the first goes on to where the second led; what then hangs in the
 * air goes too: the small parts that led to it and to nothing else, and their cables.
 */
export function removeSteps(tree: Tree, n: TreeNode): Step[] {
  const steps = takenOut(tree, n)
  const left = new Set(steps.flatMap(s => (s.table === 'nodes' && s.op === 'delete' ? [s.rowId] : [])))
  // On labels and drawings the others are what they were.
  const { what, number } = n.called
  const kept = tree.nodes.filter(o => {
    const told = o.called
    return told.what === what && told.number > number && told.number !== o.node.number && !left.has(o.node.id)
  })
  return [...kept.map(o => update('nodes', o.node.id, { number: o.called.number })), ...steps]
}

function takenOut(tree: Tree, n: TreeNode): Step[] {
  const into = tree.joints.filter(j => j.to.at.node.id === n.node.id)
  const out = tree.joints.filter(j => j.from.at.node.id === n.node.id)
  const [a, b] = [into[0], out[0]]
  const closes = into.length === 1 && out.length === 1 && a && b && handsOn(n.part)
  return closes ? [...closed(a, b), gone(n)] : [...hanging(tree, n), gone(n)]
}

/** What was between two others: without it they are joined again, but for what makes mains of a battery's voltage. */
const handsOn = (part: Part): boolean =>
  PASSES.has(part.kind) || (part.kind === 'source' && !isInverter(part)) || (part.kind === 'injector' && part.gives === 'nothing')

const gone = (n: TreeNode): Step => ({ table: 'nodes', op: 'delete', rowId: n.node.id, fields: {} })

/** The cable that stays is the bought one of the two, with the length of both. */
function closed(a: Joint, b: Joint): Step[] {
  const stays = a.run.partId ? a : b
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
  ]
}

/** Small parts that have one end left once a part is gone, and then those behind them. A splitter stays while it splits. */
function hanging(tree: Tree, first: TreeNode): Step[] {
  const left = new Set([first.node.id])
  const steps: Step[] = []
  const had = (id: string) => tree.joints.filter(j => jackAt(j, id))
  const endsOf = (id: string) => had(id).filter(j => !left.has(j.from.at.node.id) && !left.has(j.to.at.node.id)).length
  // An injector is the end of its cable; what a signal passes has two.
  const least = (n: TreeNode) => (n.part.kind === 'injector' || n.part.kind === 'source' ? 1 : PASSES.has(n.part.kind) ? 2 : 0)
  for (let found = true; found;) {
    found = false
    for (const n of tree.nodes) {
      const ends = endsOf(n.node.id)
      if (left.has(n.node.id) || ends >= least(n) || ends === had(n.node.id).length) continue
      left.add(n.node.id)
      steps.push(gone(n))
      found = true
    }
  }
  return steps
}
