/** A part that moves takes along what is screwed to it, and its cables follow: for a drag, a typed figure and a cure alike. */
import { entryOf, nth } from '../sure'
import { beyond } from '../chain/ends'
import { isCable, jointM } from '../chain/tree'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { update } from '../job/edits'
import type { Step } from '../job/edits'
import type { Job, Node } from '../job/schema'
import type { Building } from '../site/building'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { neededM, stockFor } from './lengths'

/** What has the place of the part that carries it. */
const CARRIED: ReadonlySet<TreeNode['part']['kind']> = new Set(['adapter', 'pad', 'splitter', 'tap', 'arrestor'])

/** A converter is screwed to its box; a UPS stands by its socket. */
const isCarried = ({ part }: TreeNode): boolean => CARRIED.has(part.kind) || (part.kind === 'source' && part.takes === 'DC')

/** @returns the small parts that are screwed to one, or to each other and then to it; none where it is a small part itself */
export function screwedTo(tree: Pick<Tree, 'joints'>, nodeId: string): TreeNode[] {
  const out = new Map<string, TreeNode>()
  const queue = [nodeId]
  for (let i = 0; i < queue.length; i++) {
    const id = nth(queue, i)
    for (const j of tree.joints) {
      if (isCable(j)) continue
      const other = beyond(j, id)?.at
      if (!other || other.node.id === nodeId || out.has(other.node.id) || !isCarried(other)) continue
      out.set(other.node.id, other)
      queue.push(other.node.id)
    }
  }
  return [...out.values()]
}

/** What site a part moves on. */
interface On {
  job: Pick<Job, 'kind'>
  building: Building
}

const goneTo = (n: Node, f: Partial<Point>): Point => ({
  eastM: f.eastM ?? n.eastM,
  northM: f.northM ?? n.northM,
  upM: f.upM ?? n.upM,
})

/**
 * @param moves  edits that give parts another place; others are let through as they are
 * @returns the edits, with those of the parts that are carried along, and of the cables that no longer have the length of their
 *   way: the next stock length where they do not reach, a shorter one where they had just the one that reached. A measured
 *   cable stays.
 */
export function moveSteps(on: On & { tree: Pick<Tree, 'joints' | 'nodes'> }, moves: readonly Step[]): Step[] {
  const { tree } = on
  const byId = new Map(tree.nodes.map(n => [n.node.id, n]))
  const to = new Map<string, Point>()
  for (const m of moves) {
    const at = m.table === 'nodes' && m.op === 'update' ? byId.get(m.rowId) : undefined
    if (at && m.table === 'nodes' && m.op === 'update') to.set(m.rowId, goneTo(at.node, m.fields))
  }
  const carried = [...to].flatMap(([id, at]) => {
    const moved = entryOf(byId, id)
    const { node } = moved
    const by = [at.eastM - node.eastM, at.northM - node.northM, at.upM - node.upM] as const
    if (by.every(d => Math.abs(d) < 1e-9) || isCarried(moved)) return []
    return screwedTo(tree, id)
      .filter(n => !to.has(n.node.id))
      .map(({ node: n }): [string, Point] => [
        n.id,
        { eastM: round2(n.eastM + by[0]), northM: round2(n.northM + by[1]), upM: round2(n.upM + by[2]) },
      ])
  })
  const along = carried.map(([rowId, at]): Step => update('nodes', rowId, at))
  for (const [id, at] of carried) to.set(id, at)
  const cables = tree.joints.flatMap((j): Step[] => {
    if (!to.has(j.from.at.node.id) && !to.has(j.to.at.node.id)) return []
    const lengthM = lengthAfter(on, j, to)
    return lengthM === null ? [] : [update('runs', j.run.id, { lengthM })]
  })
  return [...moves, ...along, ...cables]
}

/** @returns the length that is bought for a joint once its ends have moved; null where it stays */
function lengthAfter({ job, building }: On, j: Joint, to: ReadonlyMap<string, Point>): number | null {
  const { run, from, to: end } = j
  if (run.partId === null || run.measured) return null
  const needs = (at: (n: Node) => Point) => neededM(job.kind, building, run, { from: at(from.at.node), to: at(end.at.node) })
  const before = stockFor(
    j,
    needs(n => n),
  )
  const after = needs(n => to.get(n.id) ?? n)
  const stock = stockFor(j, after)
  const falls = jointM(j) < after - 0.05
  // Just what reached before: nobody chose it longer on purpose.
  const followed = Math.abs(run.lengthM - before) < 0.01
  return (falls || followed) && Math.abs(stock - run.lengthM) > 0.01 ? stock : null
}
