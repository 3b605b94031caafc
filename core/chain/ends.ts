/** The two ends of a joint, asked from either side: a signal does not mind which one a cable was drawn from. */
import type { Jack, Joint } from './tree'

/** @returns the end of a joint at a part; null where it does not lead there */
export const jackAt = ({ from, to }: Pick<Joint, 'from' | 'to'>, nodeId: string): Jack | null =>
  from.at.node.id === nodeId ? from : to.at.node.id === nodeId ? to : null
/** @returns the other end of a joint that leads to a part; null where it does not lead there */
export const beyond = (j: Pick<Joint, 'from' | 'to'>, nodeId: string): Jack | null => {
  const jack = jackAt(j, nodeId)
  return jack && (jack === j.from ? j.to : j.from)
}

/** @returns the parts that hang together with some, by whatever joins them; those themselves among them only where something does */
export function hangTogether(joints: readonly Pick<Joint, 'from' | 'to'>[], ids: readonly string[]): Set<string> {
  const reached = new Set(ids)
  const out = new Set<string>()
  for (let grew = true; grew;) {
    grew = false
    for (const { from, to } of joints) {
      const [a, b] = [from.at.node.id, to.at.node.id]
      if ((!reached.has(a) && !reached.has(b)) || (out.has(a) && out.has(b))) continue
      for (const id of [a, b]) {
        reached.add(id)
        out.add(id)
      }
      grew = true
    }
  }
  return out
}
