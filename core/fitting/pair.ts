/** Two single beams, crossed at ±45°, in the place of one antenna with two feeds, and back: cables keep their ends. */
import { nth } from '../sure'
import { portsWith } from '../chain/data'
import { jackAt } from '../chain/ends'
import { feedsInto } from '../chain/tree'
import type { AntennaNode, Tree } from '../chain/tree'
import { isOmni } from '../job/part'
import type { AntennaPart, Part, Port } from '../job/part'
import { between, round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { toRad } from '../geo/angles'
import { remove, update } from '../job/edits'
import { nodeStep, rehung } from './splice'
import type { Step } from './splice'

/** Two beams of a pair stand so far apart: half a metre keeps them out of each other's field. @source common practice (no source) */
export const PAIR_APART_M = 0.8
/** Further apart they are no pair any more: two places, two ways of the signal, m. Assumed. */
export const PAIR_MOST_M = 3

const feedsOf = (part: Part): Port[] => portsWith(part, 'feed')
/** @returns whether a part is a single beam: one feed, and a front */
export const isSingleBeam = (part: Part): part is AntennaPart =>
  part.kind === 'antenna' && part.use === 'outside' && feedsOf(part).length === 1 && !isOmni(part)
/** @returns whether a part is a beam with two feeds */
export const isDoubleBeam = (part: Part): part is AntennaPart =>
  part.kind === 'antenna' && part.use === 'outside' && feedsOf(part).length === 2 && !isOmni(part)

/** @returns pairs of single beams that are the two layers of one router */
export const pairsOf = (tree: Tree): [AntennaNode, AntennaNode][] =>
  tree.routers.flatMap((r): [AntennaNode, AntennaNode][] => {
    const donors = [...new Map(feedsInto(tree, r.node.id).map(v => [v.donor.node.id, v.donor])).values()]
    const single = donors.filter(d => isSingleBeam(d.part))
    return single.length === 2 ? [[nth(single, 0), nth(single, 1)]] : []
  })

/** @returns whether both are turned across each other and stand together: one thing with two feeds */
export const isCrossed = ([a, b]: readonly [AntennaNode, AntennaNode]): boolean =>
  a.node.polarisation === 'slant' && b.node.polarisation === 'slant'
export const apartM = ([a, b]: readonly [AntennaNode, AntennaNode]): number => between(a.node, b.node).distanceM

/** Beside one that looks a way, square to it. */
function aside(p: Point, lookDeg: number): Point {
  const a = toRad(lookDeg + 90)
  return {
    eastM: round2(p.eastM + PAIR_APART_M * Math.sin(a)),
    northM: round2(p.northM + PAIR_APART_M * Math.cos(a)),
    upM: p.upM,
  }
}

/**
 * @param lookDeg  the way it looks, degrees in the site frame
 * @returns steps by which two single beams stand where one with two feeds stood; none where it has not two
 */
export function crossedSteps(tree: Tree, at: AntennaNode, single: AntennaPart, lookDeg: number): Step[] {
  const [first, second] = feedsOf(at.part)
  const port = feedsOf(single)[0]
  if (!first || !second || !port || feedsOf(at.part).length !== 2) return []
  const beside = nodeStep(at.node.designId, 'new:pair', single, aside(at.node, lookDeg))
  const steps: Step[] = [
    update('nodes', at.node.id, { partId: single.id, part: single, own: null, polarisation: 'slant' }),
    { ...beside, fields: { ...beside.fields, polarisation: 'slant', azimuthDeg: at.node.azimuthDeg } } as Step,
  ]
  for (const j of tree.joints) {
    const jack = jackAt(j, at.node.id)
    if (jack) steps.push(rehung(j, jack, jack.port.id === second.id ? 'new:pair' : at.node.id, port.id))
  }
  return steps
}

/** @returns steps by which one antenna with two feeds stands where a pair stood, at the first's place */
export function uncrossedSteps(tree: Tree, [a, b]: readonly [AntennaNode, AntennaNode], double: AntennaPart): Step[] {
  const [first, second] = feedsOf(double)
  if (!first || !second) return []
  const steps: Step[] = [update('nodes', a.node.id, { partId: double.id, part: double, own: null, polarisation: null })]
  for (const [n, port] of [
    [a, first],
    [b, second],
  ] as const)
    for (const j of tree.joints) {
      const jack = jackAt(j, n.node.id)
      if (jack) steps.push(rehung(j, jack, a.node.id, port.id))
    }
  return [...steps, remove('nodes', b.node.id)]
}
