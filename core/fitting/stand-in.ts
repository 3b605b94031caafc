/**
 * A splitter between VHF and AIS: each radio on its own antenna, or both on either of them where one is lost.
 * The cables that are there go to it instead of to the sets; short ones go on from it.
 */
import { partById } from '../catalogue/parts'
import { SPLITTER_ID } from '../catalogue/services'
import { beyond, jackAt } from '../chain/ends'
import type { Joint, Tree, TreeNode } from '../chain/tree'
import { remove } from '../job/edits'
import type { Service, ServicePart } from '../job/part'
import type { Design, JobDocument } from '../job/schema'
import { sure } from '../sure'
import { Layer } from './layer'
import { rehung } from './splice'
import type { Step } from './splice'

const SERVED = ['VHF', 'AIS'] as const
type Served = (typeof SERVED)[number]
/** Ports of the splitter: to the antenna of each service, and to its set. */
const PORTS: Record<Served, { antenna: string; set: string }> = {
  VHF: { antenna: 'vhf-ant', set: 'vhf' },
  AIS: { antenna: 'ais-ant', set: 'ais' },
}

type Joined = Pick<Tree, 'nodes' | 'joints'>
/** @returns the antenna, the set or the splitter of a service; null where there is none */
export const serviceNode = (tree: Joined, service: Service, does: ServicePart['does']): TreeNode | null =>
  tree.nodes.find(n => n.part.kind === 'service' && n.part.service === service && n.part.does === does) ?? null

/** @returns the splitter of a tree; null where there is none */
export const splitterOf = (tree: Joined): TreeNode | null => serviceNode(tree, 'AIS', 'splitter')

/** @returns how many antennas of the two services there are: one may serve both, two stand in for each other */
export const standInAntennas = (tree: Joined): TreeNode[] => SERVED.flatMap(s => serviceNode(tree, s, 'antenna') ?? [])

/** @returns whether both sets are aboard and nothing joins them yet */
export const maySplit = (tree: Joined): boolean =>
  !splitterOf(tree) && SERVED.every(s => serviceNode(tree, s, 'set')) && standInAntennas(tree).length > 0

/** @returns steps that put a splitter beside the VHF radio, between the antennas and both sets */
export function standInSteps(doc: JobDocument, design: Design, tree: Joined): Step[] {
  if (!maySplit(tree)) return []
  const lay = new Layer(doc, design, 1, {})
  const beside = sure(serviceNode(tree, 'VHF', 'set')).node
  const splitter = lay.at(sure(partById(SPLITTER_ID)), { ...beside, eastM: beside.eastM + 0.3 })
  const led: Step[] = []
  for (const service of SERVED) {
    const set = sure(serviceNode(tree, service, 'set'))
    for (const j of tree.joints) {
      const jack = jackAt(j, set.node.id)
      if (jack?.port.role === 'service') led.push(rehung(j, jack, splitter, PORTS[service].antenna))
    }
    lay.run(splitter, PORTS[service].set, { to: lay.there(set), toPort: 'service', what: 'line-240' })
  }
  // The ports of the sets are free before the short cables come to them.
  return [...lay.steps.filter(s => s.table === 'nodes'), ...led, ...lay.steps.filter(s => s.table !== 'nodes')]
}

/** @returns steps that take the splitter out: every antenna leads to its own set again */
export function withoutSplitter(tree: Joined): Step[] {
  const splitter = splitterOf(tree)
  if (!splitter) return []
  const { id } = splitter.node
  const at = (portId: string) => tree.joints.find(j => jackAt(j, id)?.port.id === portId)
  const back = SERVED.flatMap((service): Step[] => {
    const set = serviceNode(tree, service, 'set')
    const joint = at(PORTS[service].antenna)
    return set && joint ? [rehung(joint, sure(jackAt(joint, id)), set.node.id, 'service')] : []
  })
  const between = SERVED.flatMap(service => adaptersAfter(tree, id, at(PORTS[service].set)))
  return [...between.map(adapter => remove('nodes', adapter)), ...back, remove('nodes', id)]
}

/** Adapters from a part on, along a joint: nothing else hangs on them. */
function adaptersAfter(tree: Joined, fromId: string, joint: Joint | undefined): string[] {
  const next = joint && sure(beyond(joint, fromId)).at
  if (!next || next.part.kind !== 'adapter') return []
  const { id } = next.node
  return [
    id,
    ...adaptersAfter(
      tree,
      id,
      tree.joints.find(j => j !== joint && jackAt(j, id)),
    ),
  ]
}
