/** What a design costs, as a class, and how many hours it takes: rough, until the crew's own prices stand in the parts. */
import { isCable, jointM } from '../chain/tree'
import type { Joint, Tree } from '../chain/tree'
import type { PartKind } from '../job/part'

/** 0 nothing to buy, then low, middle and high. */
export type CostClass = 0 | 1 | 2 | 3

/** What a part of middle price counts, in parts of a plain antenna. @source common practice (no source) */
const POINTS: Record<PartKind, number> = {
  antenna: 1,
  router: 2,
  amplifier: 5,
  arrestor: 0.4,
  pad: 0.2,
  adapter: 0.2,
  splitter: 0.4,
  tap: 0.4,
  line: 0.05,
  injector: 0.4,
  source: 0.6,
  service: 1,
}
/** A metre of cable counts so much. */
const PER_M = 0.03
const LOW_TO = 6
const MIDDLE_TO = 16

const weight = (priceClass: number | undefined): number => ({ 1: 0.6, 2: 1, 3: 2 })[priceClass ?? 2] ?? 1

/** @returns how dear a tree of parts is, in plain antennas */
export function costPoints(tree: Pick<Tree, 'nodes' | 'joints'>): number {
  const parts = tree.nodes.reduce((sum, n) => sum + POINTS[n.part.kind] * weight(n.part.priceClass), 0)
  const cables = boughtCables(tree).reduce(
    (sum, j) => sum + (POINTS.line + PER_M * j.run.lengthM) * weight(j.line?.priceClass),
    0,
  )
  return parts + cables
}

export const costClassOf = (points: number): CostClass => (points <= 0 ? 0 : points <= LOW_TO ? 1 : points <= MIDDLE_TO ? 2 : 3)

/** The joints for which a cable is bought. */
export const boughtCables = (tree: Pick<Tree, 'joints'>): Joint[] => tree.joints.filter(j => j.run.partId)

/** Hours of two hands on an ordinary site, beside the way there. @source common practice (no source) */
const HOURS = {
  start: 1,
  outside: 1,
  box: 0.5,
  inside: 0.75,
  cable: 0.3,
  metre: 0.02,
  small: 0.05,
  hole: 0.35,
  /** a pair of plugs crimped and tried */
  crimp: 0.25,
} as const

/** @param holes  through walls, decks and ceilings */
export function hoursOf(tree: Tree, holes: number, plugs: 'factory' | 'crimped'): number {
  const cables = tree.joints.filter(isCable)
  const metres = cables.reduce((sum, j) => sum + jointM(j), 0)
  const small = tree.nodes.filter(n => ['arrestor', 'pad', 'adapter', 'splitter', 'tap', 'source'].includes(n.part.kind)).length
  const hours =
    HOURS.start +
    HOURS.outside * tree.donors.length +
    HOURS.box * (tree.amplifiers.length + tree.routers.length) +
    HOURS.inside * tree.servers.length +
    HOURS.cable * cables.length +
    HOURS.metre * metres +
    HOURS.small * small +
    HOURS.hole * holes +
    (plugs === 'crimped' ? HOURS.crimp * boughtCables(tree).length : 0)
  return Math.round(hours * 2) / 2
}
