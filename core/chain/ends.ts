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
