/** The usual kit of each approach, laid out on the site: every part of it can then be changed. */
import { partById, partOfKind } from '../catalogue/parts'
import { insert } from '../job/defaults'
import type { Maker } from '../job/defaults'
import type { Change, Design, Job, JobDocument, Node, Run, Site } from '../job/schema'
import { buildingOf } from '../site/building'
import type { Building } from '../site/building'
import { axisSign, moveAlong, ridgeM, round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { stockLengthM, wayM } from './lengths'
import { WINDOW_LEAD } from './joints'

/** Spreaders stand about three fifths up the mast. @source common practice (no source) */
export const spreadersM = (site: Pick<Site, 'storeys' | 'storeyHeightM' | 'roofRiseM'>): number =>
  round2(site.storeys * site.storeyHeightM + 0.6 * site.roofRiseM)

/** One ceiling antenna serves about this much floor among ordinary walls, m². @source 110–140 m², common practice (no source) */
export const AREA_OF_A_DOME_M2 = 130
/** Domes of a usual kit's floor, and floors it reaches: beyond that a design is drawn, not laid out. */
const MOST_DOMES = 3
const MOST_FLOORS = 4

/** What is laid out at a press: a router inside, one outdoors behind its antenna, or a booster. */
export type Kit = 'router' | 'outdoors' | 'booster'

/** Lays parts and cables of one design. */
class Layer {
  readonly changes: Change[] = []
  private readonly at = new Map<string, Point>()
  private readonly building: Building
  private readonly site: Site
  readonly kind: Job['kind']

  constructor(
    doc: JobDocument,
    private readonly design: Design,
    private readonly sign: 1 | -1,
    private readonly newId: Maker,
  ) {
    this.site = doc.sites[0]!
    this.kind = doc.jobs[0]!.kind
    this.building = buildingOf(doc)
  }

  /** @param acrossM  to the side of the section */
  node(partId: string, alongM: number, upM: number, acrossM = 0): string {
    const id = this.newId()
    const flat = moveAlong({ axisDeg: this.site.axisDeg + 90 }, { eastM: 0, northM: 0, upM }, acrossM, 1)
    const at = { ...moveAlong(this.site, { ...flat, upM }, alongM, this.sign), upM: round2(upM) }
    this.at.set(id, at)
    this.changes.push(
      insert(this.newId, 'nodes', id, {
        designId: this.design.id,
        partId,
        part: partById(partId)!,
        own: null,
        ...at,
        azimuthDeg: null,
        tiltDeg: 0,
      } satisfies Omit<Node, 'id'>),
    )
    return id
  }

  /** A cable of a stock length that reaches. @returns the node it leads to */
  run(from: string, fromPort: string, to: string, toPort: string, partId: string): string {
    const line = partOfKind(partId, 'line')!
    this.join(from, fromPort, to, toPort, {
      partId,
      part: line,
      lengthM: stockLengthM(line, wayM(this.kind, this.building, this.at.get(from)!, this.at.get(to)!)),
    })
    return to
  }

  /** One part screwed to another. */
  screw(from: string, fromPort: string, to: string, toPort: string): string {
    this.join(from, fromPort, to, toPort, { partId: null, part: null, lengthM: 0 })
    return to
  }

  private join(from: string, fromPort: string, to: string, toPort: string, cable: Pick<Run, 'partId' | 'part' | 'lengthM'>) {
    this.changes.push(
      insert(this.newId, 'runs', this.newId(), {
        designId: this.design.id,
        fromNodeId: from,
        fromPort,
        toNodeId: to,
        toPort,
        ...cable,
        measured: false,
        spareM: null,
      } satisfies Omit<Run, 'id'>),
    )
  }
}

/**
 * Lays out the usual kit: antenna on the mast-side gable, an arrestor for every down-lead at
 * the entrance, router or amplifier inside, domes in the ceilings; aboard, an omni on the roof or at the
 * spreaders and the box below it. What the design held before is removed.
 *
 * @param bearingDeg  of the mast in the site frame
 */
export function kitChanges(doc: JobDocument, design: Design, kit: Kit, bearingDeg: number | null, newId: Maker): Change[] {
  const site = doc.sites[0]!
  const { kind, rules, mayDrill } = doc.jobs[0]!
  const ashore = kind === 'home' || kind === 'building'
  const approach: Design['approach'] = kit === 'booster' ? 'booster' : 'router'
  const changes: Change[] = []
  const gone = (table: 'nodes' | 'runs', rows: { id: string; designId: string; version?: number }[]) => {
    for (const r of rows.filter(r => r.designId === design.id))
      changes.push({ id: newId(), table, rowId: r.id, op: 'delete', baseVersion: r.version ?? 0, fields: {} })
  }
  gone('runs', doc.runs)
  gone('nodes', doc.nodes)
  changes.push({
    id: newId(),
    table: 'designs',
    rowId: design.id,
    op: 'update',
    baseVersion: design.version ?? 0,
    fields: { approach },
  })
  const lay = new Layer(doc, design, ashore ? axisSign(site, bearingDeg) : 1, newId)
  const american = rules === 'US'
  if (!ashore) layAboard(lay, site, approach, american)
  else if (kit === 'outdoors') layOutdoors(lay, site)
  else if (approach === 'router') layRouter(lay, site, mayDrill === 'no')
  else if (kind === 'home') layHomeBooster(lay, site, american, mayDrill === 'no')
  else layBuilding(lay, site, american)
  return [...changes, ...lay.changes]
}

/** Where the down-lead comes in: outside the mast-side wall, within reach of the ground. */
const entrance = (site: Site) => ({ x: -site.lengthM / 2 - 0.15, upM: 1.2 })
const mountM = (site: Site): number => Math.max(site.storeys * site.storeyHeightM + 1.6, ridgeM(site) - 0.4)

function layRouter(lay: Layer, site: Site, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const antenna = lay.node('ant-panel-x', -half + 0.4, mountM(site))
  const at = entrance(site)
  const router = lay.node('rtr-2', -half + 1.6, 1.1)
  for (const [i, feed] of ['1', '2'].entries()) {
    const aside = 0.25 * i
    const arrestor = lay.node('arr-gas', at.x, at.upM, aside)
    lay.run(antenna, feed, arrestor, 'in', 'line-400')
    const jumper = lay.node('adp-n-sma', -half + 1.35, 1.1, aside)
    if (windowOnly) {
      const flat = lay.node(WINDOW_LEAD, at.x + 0.1, at.upM, aside)
      lay.run(lay.run(arrestor, 'out', flat, 'in', 'line-240'), 'out', jumper, 'in', 'line-240')
    } else lay.run(arrestor, 'out', jumper, 'in', 'line-240')
    lay.screw(jumper, 'out', router, feed)
  }
}

/** The modem outdoors behind its antenna, Ethernet and power down one lead: no radio cable but the short ones at the pole. */
function layOutdoors(lay: Layer, site: Site): void {
  const x = -site.lengthM / 2 + 0.4
  const upM = mountM(site)
  const antenna = lay.node('ant-panel-x', x, upM)
  const router = lay.node('rtr-2', x, upM - 0.6)
  feedBoth(lay, antenna, router, { x, upM: upM - 0.4 })
}

/** Both feeds of an antenna straight to a router's ports, each by a thin cable and a jumper at the box. */
function feedBoth(lay: Layer, antenna: string, router: string, at: { x: number; upM: number }): void {
  for (const [i, feed] of ['1', '2'].entries()) {
    const jumper = lay.node('adp-n-sma', at.x, at.upM, 0.1 * i)
    lay.run(antenna, feed, jumper, 'in', 'line-240')
    lay.screw(jumper, 'out', router, feed)
  }
}

function layHomeBooster(lay: Layer, site: Site, american: boolean, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const at = entrance(site)
  const antenna = lay.node('ant-lpda', -half + 0.4, mountM(site))
  const arrestor = lay.node('arr-gas', at.x, at.upM)
  const amplifier = lay.node(american ? 'amp-na-home' : 'amp-home', -half + 1.6, 1.3)
  const dome = lay.node('ant-dome', 0.6, site.storeyHeightM - 0.15)
  lay.run(antenna, '1', arrestor, 'in', 'line-400')
  if (windowOnly) {
    const flat = lay.node(WINDOW_LEAD, at.x + 0.1, at.upM)
    lay.run(lay.run(arrestor, 'out', flat, 'in', 'line-400'), 'out', amplifier, 'donor', 'line-400')
  } else lay.run(arrestor, 'out', amplifier, 'donor', 'line-400')
  lay.run(amplifier, 'server', dome, '1', 'line-400')
}

/** A riser at the mast's end: the amplifier on the top floor, a splitter in it, and on each floor its domes by a splitter of their own. */
function layBuilding(lay: Layer, site: Site, american: boolean): void {
  const half = site.lengthM / 2
  const roofM = site.storeys * site.storeyHeightM
  const antenna = lay.node('ant-lpda', -half + 0.6, roofM + 2.2)
  const arrestor = lay.node('arr-gas', -half + 0.3, roofM + 0.4)
  const riser = -half + 2
  const top = site.storeys - 1
  const amplifier = lay.node(american ? 'amp-na-home' : 'amp-building', riser, top * site.storeyHeightM + 1.4)
  lay.run(antenna, '1', arrestor, 'in', 'line-400')
  lay.run(arrestor, 'out', amplifier, 'donor', 'line-400')
  const floors = Math.min(site.storeys, MOST_FLOORS)
  const domes = Math.min(MOST_DOMES, Math.max(1, Math.round((site.lengthM * site.depthM) / AREA_OF_A_DOME_M2)))
  const spread = (i: number) => -half + ((i + 0.5) * site.lengthM) / domes
  const feedOf = fan(lay, amplifier, 'server', floors, { alongM: riser, upM: i => ceilingM(site, top - i) - 0.5 })
  for (let f = 0; f < floors; f++) {
    const level = top - f
    const [node, port] = feedOf(f)
    const floorFeed = fan(lay, node, port, domes, { alongM: riser + 1, upM: () => ceilingM(site, level) })
    for (let i = 0; i < domes; i++) {
      const dome = lay.node('ant-dome', spread(i), ceilingM(site, level))
      const [from, out] = floorFeed(i)
      lay.run(from, out, dome, '1', 'line-400')
    }
  }
}

const ceilingM = (site: Site, level: number): number => (level + 1) * site.storeyHeightM - 0.3

/** @returns which node and port the i-th branch hangs on: the way itself where there is one branch, else a splitter's */
function fan(
  lay: Layer,
  from: string,
  port: string,
  branches: number,
  at: { alongM: number; upM: (i: number) => number },
): (i: number) => [string, string] {
  if (branches < 2) return () => [from, port]
  const splitter = lay.node(`spl-${Math.min(4, branches)}`, at.alongM, at.upM(0))
  lay.run(from, port, splitter, 'in', 'line-400')
  return i => [splitter, String(i + 1)]
}

function layAboard(lay: Layer, site: Site, approach: Design['approach'], american: boolean): void {
  const boat = lay.kind === 'boat'
  const roofM = site.storeys * site.storeyHeightM
  const upM = boat ? spreadersM(site) : roofM + 0.25
  const x = boat ? 0.05 * site.lengthM : -0.15 * site.lengthM
  const boxM = boat ? site.storeyHeightM * 0.6 : site.storeyHeightM * 0.72
  const boxAt = x - (boat ? 0.2 : 0.08) * site.lengthM
  if (approach === 'router') {
    const antenna = lay.node('ant-omni-x', x, upM)
    const router = lay.node('rtr-2', boxAt, boxM)
    feedBoth(lay, antenna, router, { x: boxAt + 0.25, upM: boxM })
    return
  }
  const antenna = lay.node('ant-omni', x, upM)
  const amplifier = lay.node(american ? 'amp-na-mobile' : 'amp-mobile', boxAt, boxM)
  const panel = lay.node('ant-panel-in', x + 0.35 * site.lengthM, boxM)
  lay.run(antenna, '1', amplifier, 'donor', 'line-240')
  lay.run(amplifier, 'server', panel, '1', 'line-195')
}
