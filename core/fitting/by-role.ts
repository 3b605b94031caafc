/** What of a combined antenna goes where: its Wi-Fi and position leads to the box's sockets of the same role. */
import { nth } from '../sure'
import { portsWith } from '../chain/data'
import { jackAt } from '../chain/ends'
import type { AntennaNode, Tree, TreeNode } from '../chain/tree'
import type { Part, Port } from '../job/part'
import { adapterChain } from './adapters'
import { runStep } from './splice'
import type { Step } from './splice'

/** Roles that carry no modem's branch. */
const BESIDE: readonly Port['role'][] = ['wifi', 'position']

/**
 * @param isTaken  ports that something hangs on already
 * @returns pairs of an antenna's and a box's free ports of one role, in their order
 */
export function pairsByRole(
  antenna: Part,
  box: Part,
  isTaken: { antenna: (p: Port) => boolean; box: (p: Port) => boolean } = { antenna: () => false, box: () => false },
): [antenna: Port, box: Port][] {
  return BESIDE.flatMap(role => {
    const from = portsWith(antenna, role).filter(p => !isTaken.antenna(p))
    const to = portsWith(box, role).filter(p => !isTaken.box(p))
    return from.slice(0, to.length).map((p, i): [Port, Port] => [p, nth(to, i)])
  })
}

/** @returns runs that join what is still open between an antenna with leads and its box; pairs whose plugs do not meet are left out */
export function joinByRole(tree: Tree, antenna: AntennaNode, box: TreeNode): Step[] {
  const takenOf = (at: TreeNode) => (p: Port) => tree.joints.some(j => jackAt(j, at.node.id)?.port.id === p.id)
  return pairsByRole(antenna.part, box.part, { antenna: takenOf(antenna), box: takenOf(box) }).flatMap(([a, b]) =>
    adapterChain(a, b)?.length === 0
      ? [
          runStep(tree.design.id, `new:${a.id}`, {
            from: [antenna.node.id, a.id],
            to: [box.node.id, b.id],
            cable: null,
          }),
        ]
      : [],
  )
}
