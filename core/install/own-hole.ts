/** An antenna whose foot is bolted through the skin: its own leads go through the hole of that foot, and need no second one. */
import type { TreeNode } from '../chain/tree'
import { num } from '../units'

/** Bit of a foot whose maker says nothing, mm. @source 25 mm, common practice (no source) */
const FOOT_MM = 25

/** @returns whether its own leads come in by the hole of its foot */
export function hasOwnHole({ node, part }: TreeNode): boolean {
  if (part.kind !== 'antenna' || !part.tailM) return false
  return node.fixing ? node.fixing.mount === 'roof bolt' : /bolt through/.test(part.mount ?? '')
}

/** @returns diameter of the hole of its foot, mm */
export const ownHoleMm = ({ part }: Pick<TreeNode, 'part'>): number =>
  Number(/hole (\d+) mm/.exec(part.mount ?? '')?.[1] ?? FOOT_MM)

/** Its bit, and what its clamp is cut to. */
export function ownHoleWords(at: TreeNode): string {
  const throughMm = at.node.fixing?.throughMm ?? null
  const clamp = throughMm === null ? 'clamp by the roof’s thickness: measure it' : `clamp for ${num(throughMm)} mm of roof`
  return `bit ${num(ownHoleMm(at))} mm; ${clamp}; its own gasket, no other hole`
}
