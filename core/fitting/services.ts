/** Another service aboard, laid out: its antenna at the height that is its own, its set by the table, and the cable between. */
import { partsOf } from '../catalogue/services'
import { hangTogether, jackAt } from '../chain/ends'
import { remove } from '../job/edits'
import type { Service } from '../job/part'
import type { Design, JobDocument, Site } from '../job/schema'
import { siteOf } from '../job/schema'
import { buildingOf } from '../site/building'
import { ridgeM, round2 } from '../site/frame'
import { Layer } from './layer'
import { serviceNode, splitterOf, withoutSplitter } from './stand-in'
import type { Tree } from '../chain/tree'
import type { Step } from './splice'

/** Share of the mast over the coachroof at which an antenna stands; the safety of all is at the top. @source common practice (no source) */
const UP_THE_MAST: Record<Service, number> = { 'VHF': 1, 'AIS': 1, 'Wi-Fi': 0.35, 'position': 0.05, 'broadcast': 0.2 }
/** Beside a mast, so that two at one head are not in each other’s way, m. */
const ASIDE_M: Record<Service, number> = { 'VHF': 0, 'AIS': 0.4, 'Wi-Fi': 0.3, 'position': 1.2, 'broadcast': -0.3 }
/** A whip stands over what holds it, m. */
const OVER_M = 0.3

/** Where an antenna of a service usually stands: along from the middle, up, and across; of AIS on the mizzen where there is one. */
function placeOf(site: Site, eavesM: number, service: Service): { x: number; upM: number; y: number } {
  const mizzen = service === 'AIS' && site.mizzenRiseM !== null
  const riseM = mizzen ? site.mizzenRiseM! : site.roofRiseM
  const x = mizzen ? -0.33 * site.lengthM : 0.05 * site.lengthM
  const top = mizzen ? eavesM + riseM : ridgeM(site)
  const upM = riseM > 1 ? eavesM + UP_THE_MAST[service] * (top - eavesM) : eavesM
  return { x, upM: round2(upM + OVER_M), y: mizzen ? 0 : ASIDE_M[service] }
}

/** @returns the steps that add a service with its set and its cable */
export function serviceSteps(doc: JobDocument, design: Design, service: Service): Step[] {
  const site = siteOf(doc)
  const building = buildingOf(doc)
  const lay = new Layer(doc, design, 1, {})
  const { antenna, set } = partsOf(service)
  const at = placeOf(site, building.eavesM, service)
  const outside = lay.node(antenna, at.x, at.upM, at.y)
  const table = lay.node(set, -0.1 * site.lengthM, site.storeyHeightM * 0.55, site.depthM * 0.25)
  lay.run(outside, 'service', { to: table, toPort: 'service', what: 'line-240' })
  return lay.steps
}

/**
 * @returns steps that take out a service whole: its antenna, its set, and what lies between; a splitter that it shares with
 * another goes before it
 */
export function withoutService(tree: Pick<Tree, 'nodes' | 'joints'>, antennaId: string): Step[] {
  const splitter = splitterOf(tree)
  const atSplitter = tree.joints.filter(j => splitter && jackAt(j, splitter.node.id))
  const own = hangTogether(
    tree.joints.filter(j => !atSplitter.includes(j)),
    [antennaId],
  )
  const shares = atSplitter.some(j => [j.from, j.to].some(e => e.at.node.id === antennaId || own.has(e.at.node.id)))
  const part = tree.nodes.find(n => n.node.id === antennaId)?.part
  const set = shares && part?.kind === 'service' ? serviceNode(tree, part.service, 'set') : null
  const gone = new Set([antennaId, ...own, ...(set ? [set.node.id] : [])])
  return [...(shares ? withoutSplitter(tree) : []), ...[...gone].map(id => remove('nodes', id))]
}
