/** An antenna whose foot is bolted through the skin: its own leads go through the hole of that foot, and need no second one. */
import type { TreeNode } from '../chain/tree'
import { num } from '../units'

/** Of a foot whose maker says nothing: its bit, and the skins that its clamp takes, mm. @source common practice (no source) */
const USUAL_FOOT = { holeMm: 25, leastMm: 0.7, mostMm: 45 }

/** @returns whether its own leads come in by the hole of its foot */
export function hasOwnHole({ node, part }: TreeNode): boolean {
  if (part.kind !== 'antenna' || !part.tailM) return false
  return node.fixing ? node.fixing.mount === 'roof bolt' : /bolt through/.test(part.mount ?? '')
}

/** @returns diameter of the hole of its foot, mm */
export const ownHoleMm = ({ part }: Pick<TreeNode, 'part'>): number =>
  part.foot?.holeMm ?? Number(/hole (\d+) mm/.exec(part.mount ?? '')?.[1] ?? USUAL_FOOT.holeMm)

/** @returns the skin that its clamp is not made for, with what it takes, mm; null where it fits, or nobody has measured */
export function clampMisfit(at: TreeNode): { throughMm: number; leastMm: number; mostMm: number } | null {
  const throughMm = at.node.fixing?.throughMm ?? null
  if (throughMm === null || !hasOwnHole(at)) return null
  const { leastMm, mostMm } = at.part.foot ?? USUAL_FOOT
  return throughMm < leastMm || throughMm > mostMm ? { throughMm, leastMm, mostMm } : null
}

/** Its bit, and what its clamp is cut to. */
export function ownHoleWords(at: TreeNode): string {
  const throughMm = at.node.fixing?.throughMm ?? null
  const clamp = throughMm === null ? 'clamp by the roof’s thickness: measure it' : `clamp for ${num(throughMm)} mm of roof`
  return `bit ${num(ownHoleMm(at))} mm; ${clamp}; its own gasket, no other hole`
}
