/** The supply of a design: what feeds what, from a box back to where its lead begins. */
import type { SourcePart } from '../job/part'
import { sure } from '../sure'
import { isSupply, portsOf } from './data'
import { beyond, jackAt } from './ends'
import { jointM } from './tree'
import type { Joint, NodeOf, Tree, TreeNode } from './tree'

const isSource = (n: TreeNode): n is NodeOf<SourcePart> => n.part.kind === 'source'

/** @returns what of a tree feeds other parts: taps, boards, converters, batteries */
export const sourcesIn = (tree: Pick<Tree, 'nodes'>): NodeOf<SourcePart>[] => tree.nodes.filter(isSource)

/** @returns the port by which a part is fed; null where it has none */
export const powerPortOf = (at: Pick<TreeNode, 'part'>): string | null =>
  portsOf(at.part).find(p => p.role === 'power')?.id ?? null

export interface SupplyWay {
  /** from the box back to where it begins */
  joints: Joint[]
  /** what is passed, the last of them where it begins */
  parts: NodeOf<SourcePart>[]
  /** of its wires, one way */
  lengthM: number
}

/** A supply of more pieces than this is a ring. */
const MOST_PIECES = 10

/** @returns how a part is fed by what is planned; null where nothing is joined to it */
export function supplyWayOf(tree: Pick<Tree, 'joints'>, at: TreeNode): SupplyWay | null {
  const supply = tree.joints.filter(isSupply)
  const way: SupplyWay = { joints: [], parts: [], lengthM: 0 }
  let here: TreeNode = at
  while (way.joints.length < MOST_PIECES) {
    const joint = supply.find(j => !way.joints.includes(j) && jackAt(j, here.node.id)?.port.role === 'power')
    if (!joint) break
    way.lengthM += jointM(joint)
    way.joints.push(joint)
    here = sure(beyond(joint, here.node.id)).at
    if (!isSource(here)) break
    way.parts.push(here)
  }
  return way.joints.length ? way : null
}

/** @returns the parts that hang on one, directly or by what it feeds, without those in between */
export function loadsOn(tree: Pick<Tree, 'joints'>, source: TreeNode): TreeNode[] {
  const out = new Map<string, TreeNode>()
  const queue: TreeNode[] = [source]
  const seen = new Set<string>()
  for (let at = queue.shift(); at; at = queue.shift()) {
    if (seen.has(at.node.id)) continue
    seen.add(at.node.id)
    for (const j of tree.joints) {
      if (!isSupply(j) || jackAt(j, at.node.id)?.port.role !== 'supply') continue
      const next = sure(beyond(j, at.node.id)).at
      if (isSource(next)) queue.push(next)
      else out.set(next.node.id, next)
    }
  }
  return [...out.values()]
}
