/** Putting a part into a tree: between a cable and what it leads to, or into the middle of a cable. */
import { nth, sure } from '../sure'
import { partById, partOfKind } from '../catalogue/parts'
import type { Jack, Joint } from '../chain/tree'
import type { Link } from './adapters'
import type { Part } from '../job/part'
import { update } from '../job/edits'
import type { Step } from '../job/edits'
import type { Fixture, Run } from '../job/schema'
import { partWay, round2 } from '../site/frame'
import type { Point } from '../site/frame'

export type { Step }

type NodeStep = Extract<Step, { table: 'nodes'; op: 'insert' }>

/** A part placed in a design. */
export const nodeStep = (designId: string, key: string, part: Part, at: Point): NodeStep => ({
  table: 'nodes',
  op: 'insert',
  rowId: key,
  fields: {
    designId,
    partId: part.id,
    part,
    own: null,
    name: null,
    number: null,
    fixing: null,
    feed: null,
    sourceId: null,
    polarisation: null,
    eastM: at.eastM,
    northM: at.northM,
    upM: at.upM,
    azimuthDeg: null,
    tiltDeg: 0,
  },
})

/** A fuse tap where a feed of the site is. */
export function tapStep(designId: string, key: string, feed: Fixture): Step {
  const step = nodeStep(designId, key, sure(partOfKind('fuse-tap', 'source')), feed)
  return { ...step, fields: { ...step.fields, sourceId: feed.id } }
}

/** A cable between two ports; without one, the parts are screwed together. */
export const runStep = (
  designId: string,
  key: string,
  {
    from: [fromNodeId, fromPort],
    to: [toNodeId, toPort],
    cable,
  }: { from: readonly [string, string]; to: readonly [string, string]; cable: Pick<Run, 'partId' | 'part' | 'lengthM'> | null },
): Step => ({
  table: 'runs',
  op: 'insert',
  rowId: key,
  fields: {
    designId,
    fromNodeId,
    fromPort,
    toNodeId,
    toPort,
    partId: cable?.partId ?? null,
    part: cable?.part ?? null,
    lengthM: cable?.lengthM ?? 0,
    measured: false,
    spareM: null,
    way: null,
    pieces: null,
  },
})

/** The end of a joint at a part, led to another part's port; the other end keeps its own. */
export const rehung = (j: Joint, jack: Jack, nodeId: string, portId: string): Step =>
  update(
    'runs',
    j.run.id,
    jack === j.from
      ? { fromNodeId: nodeId, fromPort: portId, toPort: j.to.port.id }
      : { fromPort: j.from.port.id, toNodeId: nodeId, toPort: portId },
  )

const rounded = (p: Point): Point => ({ eastM: round2(p.eastM), northM: round2(p.northM), upM: round2(p.upM) })

/** How far from what it is screwed to a small part is drawn, m. */
export const BESIDE_M = 0.25

/** A two-port part as it is turned. */
interface Turned {
  part: Part
  /** faces the cable */
  entry: string
  /** faces the part it is screwed to */
  exit: string
}

/**
 * Screws a two-port part onto one end of a joint; the cable keeps its length.
 * @param side  the end of the joint it goes to
 * @param n  tells the rows of several splices in one cure apart
 */
export function screwOn(joint: Joint, side: 'from' | 'to', partId: string, n = 1): Step[] {
  const part = sure(partById(partId))
  const [first, second] = part.kind === 'line' ? ['in', 'out'] : [nth(part.ports, 0).id, nth(part.ports, 1).id]
  return screwOnChain(joint, side, [{ part, entry: first, exit: second! }], n)
}

/** The links of an adapter search, as they are turned. */
export const turnedLinks = (links: readonly Link[]): Turned[] =>
  links.map(l => ({ part: l.part, entry: l.entry.id, exit: l.exit.id }))

/** Several parts one behind the other, from the cable on. */
export function screwOnChain(joint: Joint, side: 'from' | 'to', chain: readonly Turned[], n = 1): Step[] {
  const { run } = joint
  const jack = joint[side]
  const other = joint[side === 'to' ? 'from' : 'to'].at.node
  const { node } = jack.at
  const keyOf = (i: number) => (i ? `new:${n}-${i}` : `new:${n}`)
  // The last of them is nearest to the part.
  const placeOf = (i: number): Point => partWay(node, other, BESIDE_M * (chain.length - i), 0.5)
  const nodes = chain.map((t, i) => nodeStep(run.designId, keyOf(i), t.part, placeOf(i)))
  const first = [keyOf(0), nth(chain, 0).entry] as const
  const cable: Step = {
    table: 'runs',
    op: 'update',
    rowId: run.id,
    fields:
      side === 'to'
        ? { fromPort: joint.from.port.id, toNodeId: first[0], toPort: first[1] }
        : { toPort: joint.to.port.id, fromNodeId: first[0], fromPort: first[1] },
  }
  const screwed = chain.map((t, i): Step => {
    const inner = [keyOf(i), t.exit] as const
    const next = chain[i + 1]
    const outer = next ? ([keyOf(i + 1), next.entry] as const) : ([node.id, jack.port.id] as const)
    const [from, to] = side === 'to' ? [inner, outer] : [outer, inner]
    return runStep(run.designId, `${keyOf(i)}r`, { from, to, cable: null })
  })
  return [...nodes, cable, ...screwed]
}

/** Cuts a cable where it passes a place, and puts a two-port part there. */
export function spliceInto(
  joint: Joint,
  partId: string,
  { at, firstM, n = 1 }: { at: Point; firstM: number; n?: number },
): Step[] {
  const { run, line } = joint
  const part = sure(partById(partId))
  if (part.kind === 'line') return []
  const key = `new:${n}`
  return [
    nodeStep(run.designId, key, part, rounded(at)),
    {
      table: 'runs',
      op: 'update',
      rowId: run.id,
      fields: { fromPort: joint.from.port.id, toNodeId: key, toPort: nth(part.ports, 0).id, lengthM: round2(firstM) },
    },
    runStep(run.designId, `${key}r`, {
      from: [key, nth(part.ports, 1).id],
      to: [run.toNodeId, joint.to.port.id],
      cable: {
        partId: run.partId,
        part: run.part ?? line,
        lengthM: round2(Math.max(0.5, run.lengthM - firstM)),
      },
    }),
  ]
}
