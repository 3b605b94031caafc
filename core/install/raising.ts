/** What is raised on a site, and how long it is when it goes up. */
import { movesAbout } from '../job/schema'
import type { JobKind, Node } from '../job/schema'
import { floorAt, inside } from '../site/building'
import type { Building } from '../site/building'
import type { Point } from '../site/frame'
import { mountKind } from './mounts'

/** Over this a person climbs outdoors, and over a floor within, m. @source common practice (no source) */
export const REACH_M = 2.5
const REACH_WITHIN_M = 2

/** @returns whether a place outdoors is out of reach from the ground */
export const isUp = (p: Point, b: Building): boolean => p.upM > REACH_M && !inside(b, p)

/** @returns whether a place within is out of reach from its floor: aboard everything is in reach */
export const isOverhead = (p: Point, b: Building): boolean =>
  !movesAbout(b.kind) && inside(b, p) && p.upM - floorAt(b.floors, p.upM).fromM > REACH_WITHIN_M

/** @returns length of the pole from its upper fixing up, m; null where its sections are not noted and it may have some */
export function assembledM({ fixing }: Pick<Node, 'fixing'>): number | null {
  if (!fixing) return null
  if (fixing.sections.length) return fixing.sections.reduce((s, x) => s + x.lengthM, 0)
  return mountKind(fixing.mount).pole ? null : 0
}

/** What is raised, m: a pole that nobody noted is taken as long as its antenna stands high. */
export const raisedM = (node: Pick<Node, 'fixing' | 'upM'>): number => assembledM(node) ?? node.upM

/** A pole that is raised is longer than this, m. */
const POLE_M = 1

/** @returns whether a pole goes up that could reach an overhead line: ashore anything out of reach, afloat and on wheels a pole alone */
export function isRaised(kind: JobKind, b: Building, node: Node): boolean {
  const longM = assembledM(node)
  if (longM !== null && longM > POLE_M) return true
  return !movesAbout(kind) && isUp(node, b)
}
