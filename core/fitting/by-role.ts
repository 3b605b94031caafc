/** What of a combined antenna goes where: its Wi-Fi and position leads to the box's sockets of the same role. */
import { nth } from '../sure'
import { portsWith } from '../chain/data'
import { jackAt } from '../chain/ends'
import type { AntennaNode, Tree, TreeNode } from '../chain/tree'
import type { Part, Port } from '../job/part'
import { adapterChain } from './adapters'
import { runStep } from './splice'
import type { Step } from './splice'

/** Roles that carry no modem's branch: of the antenna, and of the box. */
export const BESIDE: readonly Roles[] = [
  ['wifi', 'wifi'],
  ['position', 'position'],
]
/** Feeds go to the branches in their order: those of one modem lie beside each other. */
const CELLULAR: Roles = ['feed', 'cell']
type Roles = readonly [antenna: Port['role'], box: Port['role']]

/**
 * @param isTaken  ports that something hangs on already
 * @returns pairs of an antenna's and a box's free ports of one role, in their order
 */
export function pairsByRole(
  antenna: Part,
  box: Part,
  isTaken: { antenna: (p: Port) => boolean; box: (p: Port) => boolean } = { antenna: () => false, box: () => false },
  roles: readonly Roles[] = BESIDE,
): [antenna: Port, box: Port][] {
  return roles.flatMap(([ofAntenna, ofBox]) => {
    const from = portsWith(antenna, ofAntenna).filter(p => !isTaken.antenna(p))
    const to = portsWith(box, ofBox).filter(p => !isTaken.box(p))
    return from.slice(0, to.length).map((p, i): [Port, Port] => [p, nth(to, i)])
  })
}

/** @returns runs that join what is still open between an antenna with leads and its box; pairs whose plugs do not meet are left out */
export function joinByRole(tree: Tree, antenna: AntennaNode, box: TreeNode, roles = [CELLULAR, ...BESIDE]): Step[] {
  const takenOf = (at: TreeNode) => (p: Port) => tree.joints.some(j => jackAt(j, at.node.id)?.port.id === p.id)
  const isTaken = { antenna: takenOf(antenna), box: takenOf(box) }
  return pairsByRole(antenna.part, box.part, isTaken, roles).flatMap(([a, b]) =>
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
