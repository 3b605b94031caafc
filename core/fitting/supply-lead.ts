/** What a box is fed by, planned: a lead from a feed of the site, a converter beside the box, a battery that bridges a failure. */
import { lastOf, sure } from '../sure'
import { partOfKind } from '../catalogue/parts'
import { twoCoreOf, WIRES } from '../catalogue/wires'
import type { Wire } from '../catalogue/wires'
import { POWER_PORT } from '../chain/data'
import { jackAt } from '../chain/ends'
import { powerPortOf, sourcesIn, supplyWayOf } from '../chain/supply'
import type { NodeOf, Tree, TreeNode } from '../chain/tree'
import { drawnByInverterW, wireFor } from '../chain/wire'
import { isConverter, isInverter } from '../job/part'
import type { SourcePart } from '../job/part'
import type { Design, Fixture, Job } from '../job/schema'
import type { Building } from '../site/building'
import { partWay } from '../site/frame'
import type { Point } from '../site/frame'
import { cutToHalfM, wayM } from './lengths'
import { nodeStep, runStep, screwOnChain, tapStep } from './splice'
import type { Step } from './splice'
import { bySocket } from './layer'

interface On {
  job: Pick<Job, 'kind'>
  building: Building
  design: Pick<Design, 'id'>
  tree: Pick<Tree, 'nodes' | 'joints'>
}

/** @returns the first socket of a source that nothing hangs on; null where all are taken */
function freeSocket(tree: Pick<Tree, 'joints'>, at: NodeOf<SourcePart>): string | null {
  const isTaken = (id: string) => tree.joints.some(j => jackAt(j, at.node.id)?.port.id === id)
  return at.part.ports.find(p => p.role === 'supply' && !isTaken(p.id))?.id ?? null
}

/**
 * A lead from a feed of the site to a box: from a free way of a fuse board that is planned there, else from a tap of its own.
 *
 * @returns none where the box has no terminals, or hangs on a lead already
 */
export function supplyLeadSteps(on: On, box: TreeNode, feed: Fixture, wire: Wire): Step[] {
  const port = powerPortOf(box)
  return port && !supplyWayOf(on.tree, box) ? leadSteps(on, { id: box.node.id, port, at: box.node }, feed, wire) : []
}

/** Both wires from a feed of the site to terminals, of what is there or is put there with them. */
function leadSteps(on: On, to: { id: string; port: string; at: Point }, feed: Fixture, wire: Wire): Step[] {
  const { tree, design } = on
  const line = twoCoreOf(wire)
  if (!line) return []
  const board = sourcesIn(tree).find(
    s => s.part.takes === 'nothing' && s.part.gives === 'DC' && s.node.sourceId === feed.id && freeSocket(tree, s),
  )
  const from = board ? ([board.node.id, sure(freeSocket(tree, board))] as const) : (['new:tap', '1'] as const)
  const lengthM = cutToHalfM(wayM(on.job.kind, on.building, board?.node ?? feed, to.at))
  const cable = { partId: line.id, part: line, lengthM }
  return [
    ...(board ? [] : [tapStep(design.id, 'new:tap', feed)]),
    runStep(design.id, 'new:supply', { from, to: [to.id, to.port], cable }),
  ]
}

/** Another wire for the whole lead of a box. */
export function rewireSteps(tree: Pick<Tree, 'joints'>, box: TreeNode, wire: Wire): Step[] {
  const line = twoCoreOf(wire)
  if (!line) return []
  return (supplyWayOf(tree, box)?.joints ?? [])
    .filter(j => j.run.partId)
    .map(j => ({ table: 'runs', op: 'update', rowId: j.run.id, fields: { partId: line.id, part: line } }))
}

/** A converter between the lead and the box, screwed down beside it. @returns none where no lead is planned, or it has one */
export function converterSteps(tree: Pick<Tree, 'joints'>, box: TreeNode): Step[] {
  const way = supplyWayOf(tree, box)
  const [joint] = way?.joints ?? []
  if (!joint || way?.parts.some(p => isConverter(p.part))) return []
  const side = joint.to.at.node.id === box.node.id ? 'to' : 'from'
  const part = sure(partOfKind('conv-12', 'source'))
  return screwOnChain(joint, side, [{ part, entry: 'power', exit: '1' }])
}

/** What the cord of a box reaches, m. @source common practice (no source) */
const CORD_M = 1.2

/**
 * A box that plugs in, or the injector that feeds it, on an inverter: on one that has a socket free, else on a new one within
 * its cord, with its lead from a feed of the site as thick as all that it can give asks for.
 *
 * @returns none where there is no plug, or it is in a planned socket already
 */
export function inverterSteps(on: On, box: TreeNode, feed: Fixture): Step[] {
  const { tree, design } = on
  const port = powerPortOf(box)
  if (!port || box.part.supply !== 'mains' || supplyWayOf(tree, box)) return []
  const plug = (from: readonly [string, string]) => runStep(design.id, 'new:plug', { from, to: [box.node.id, port], cable: null })
  const there = sourcesIn(tree).find(s => isInverter(s.part) && freeSocket(tree, s))
  if (there) return [plug([there.node.id, sure(freeSocket(tree, there))])]
  const part = sure(partOfKind('inv-150', 'source'))
  const { kind } = on.job
  // As near the battery as the cord of the box lets it.
  const at = partWay(box.node, feed, CORD_M, 1)
  const neededM = wayM(kind, on.building, feed, at)
  const wire = wireFor(box.node.feed?.volts ?? 12, drawnByInverterW(sure(part.mostW)), neededM, kind) ?? lastOf(WIRES)
  return [
    nodeStep(design.id, 'new:inverter', part, at),
    ...leadSteps(on, { id: 'new:inverter', port: POWER_PORT, at }, feed, wire),
    plug(['new:inverter', '1']),
  ]
}

/** A box, or the injector that feeds it, on a UPS: on one that has a socket free within reach, else on a new one by the socket. */
export function upsSteps(on: On, box: TreeNode, socket: Fixture | null): Step[] {
  const { tree, design } = on
  const port = powerPortOf(box)
  if (!port || supplyWayOf(tree, box)) return []
  const there = sourcesIn(tree).find(s => s.part.batteryWh && s.part.gives === 'mains' && freeSocket(tree, s))
  const from = there ? ([there.node.id, sure(freeSocket(tree, there))] as const) : (['new:ups', '1'] as const)
  return [
    ...(there
      ? []
      : [nodeStep(design.id, 'new:ups', sure(partOfKind('ups-150', 'source')), socket ? bySocket(socket) : box.node)]),
    runStep(design.id, 'new:supply', { from, to: [box.node.id, port], cable: null }),
  ]
}
