/** What comes down before a vehicle drives: what holds by air or by weight, poles, and what a towed body carries on a magnet. */
import { heightAfterM } from './mounts'
import type { Tree, TreeNode } from '../chain/tree'
import type { Mount } from '../job/fixing'
import type { Body, Site } from '../job/schema'

/** @source common practice (no source); a maker's instructions win */
const ALWAYS: ReadonlySet<Mount> = new Set(['suction cup', 'ladder clamp', 'hitch mast', 'weighted tripod'])
/** Nobody at the wheel sees what comes off behind. */
const TOWED: ReadonlySet<Body> = new Set(['caravan', 'travel trailer', 'fifth wheel'])

/** @returns whether an antenna is struck and stowed before the journey; nobody has said where its mount is not noted */
export const isStruck = ({ node }: Pick<TreeNode, 'node'>, { body }: Pick<Site, 'body'>): boolean => {
  const mount = node.fixing?.mount
  return !!mount && (ALWAYS.has(mount) || (mount === 'magnet' && body !== null && TOWED.has(body)))
}

/** @returns how high a vehicle is on its way, m: what comes down first counts for nothing */
export function travelHeightM(tree: Pick<Tree, 'nodes' | 'donors'>, site: Pick<Site, 'body'>, overGroundM: number): number {
  const struck = new Set(struckIn(tree, site).map(n => n.node.id))
  return heightAfterM({ nodes: tree.nodes.filter(n => !struck.has(n.node.id)) }, overGroundM)
}

/** @returns the antennas outside that come down before the journey */
export const struckIn = (tree: Pick<Tree, 'donors'>, site: Pick<Site, 'body'>): TreeNode[] =>
  tree.donors.filter(d => isStruck(d, site))
