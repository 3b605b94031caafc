/** What joins parts and carries no radio: their sockets for data and supply, and the data cable of a box outdoors to what feeds it. */
import type { InjectorPart, Part, Port, RouterPart } from '../job/part'
import { sure } from '../sure'
import { beyond, jackAt } from './ends'
import type { Joint, NodeOf, Tree, TreeNode } from './tree'

/** @returns a router's sockets for data, which its maker's sheet counts and its part does not list */
const lanPorts = (part: RouterPart): Port[] =>
  part.ports.some(p => p.role === 'lan')
    ? []
    : Array.from({ length: part.lanPorts ?? 0 }, (_, i) => ({
        id: `lan${i + 1}`,
        role: 'lan',
        connector: 'RJ45',
        gender: 'socket',
        impedanceOhm: 100,
      }))

/** By what a box is fed, whatever feeds it. */
export const POWER_PORT = 'power'

/** By what a box of that supply is fed: terminals for a pair of wires, or the plug of its own cord. */
function powerPorts(part: Part): Port[] {
  const { supply } = part
  if (supply !== '12 V' && supply !== 'mains') return []
  return [
    supply === 'mains'
      ? { id: POWER_PORT, role: 'power', connector: 'mains', gender: 'plug', impedanceOhm: 50 }
      : { id: POWER_PORT, role: 'power', connector: 'DC', gender: 'socket', impedanceOhm: 50 },
  ]
}

/** Parts do not change: their ports are worked out once, as a tree is at every press. */
const known = new WeakMap<Part, Port[]>()

/** @returns every port of a part: those of its radio, its sockets for data, and by what it is fed */
export function portsOf(part: Part): Port[] {
  if (part.kind === 'line') return []
  const held = known.get(part)
  if (held) return held
  const ports =
    part.kind === 'router'
      ? [...part.ports, ...lanPorts(part), ...powerPorts(part)]
      : part.kind === 'amplifier' || part.kind === 'injector'
        ? [...part.ports, ...powerPorts(part)]
        : part.ports
  known.set(part, ports)
  return ports
}

/** @returns the ports of a part that are for one thing */
export const portsWith = (part: Part, role: Port['role']): Port[] => portsOf(part).filter(p => p.role === role)

/** Roles of the radio's own ends: an extender carries it as data between its two units, and what comes out is the signal again. */
const OF_RADIO: ReadonlySet<Port['role']> = new Set(['feed', 'donor'])

/** @returns whether a joint is of a data cable: it carries no radio */
export const isData = ({ from, to }: Pick<Joint, 'from' | 'to'>): boolean =>
  from.port.connector === 'RJ45' && to.port.connector === 'RJ45' && ![from, to].every(j => OF_RADIO.has(j.port.role))

/** @returns whether a joint feeds: a pair of wires, or a plug in a socket of what is planned */
export const isSupply = ({ from, to }: Pick<Joint, 'from' | 'to'>): boolean =>
  (from.port.role === 'supply' && to.port.role === 'power') || (from.port.role === 'power' && to.port.role === 'supply')

/** @returns whether a joint is of coax: neither a data cable nor a supply */
export const carriesRadio = (j: Pick<Joint, 'from' | 'to'>): boolean => !isData(j) && !isSupply(j)

const isInjector = (n: TreeNode): n is NodeOf<InjectorPart> => n.part.kind === 'injector'

/** @returns the injectors of a tree */
export const injectorsOf = (tree: Pick<Tree, 'nodes'>): NodeOf<InjectorPart>[] => tree.nodes.filter(isInjector)

export interface DataWay {
  /** cables from the box on, in order */
  joints: Joint[]
  /** what is passed and where it ends: arrestors, an injector, another box */
  parts: TreeNode[]
  /** that feeds the box; null where none is reached */
  injector: NodeOf<InjectorPart> | null
  lengthM: number
}

/** A way of more pieces than this is a ring. */
const MOST_PIECES = 20

/** @returns the way from a box by its data cable, through what only hands it on, to the first injector or box; null where none is joined */
export function dataWayOf(tree: Pick<Tree, 'joints'>, at: TreeNode): DataWay | null {
  const data = tree.joints.filter(isData)
  const way: DataWay = { joints: [], parts: [], injector: null, lengthM: 0 }
  let here = at
  while (way.joints.length < MOST_PIECES) {
    const joint = data.find(j => !way.joints.includes(j) && jackAt(j, here.node.id))
    if (!joint) break
    way.joints.push(joint)
    way.lengthM += joint.run.lengthM
    here = sure(beyond(joint, here.node.id)).at
    way.parts.push(here)
    if (isInjector(here) && here.part.gives !== 'nothing') return { ...way, injector: here }
    if (here.part.kind !== 'arrestor' && here.part.kind !== 'adapter') break
  }
  return way.joints.length ? way : null
}
