/** The usual kit of each approach, laid out on the site: every part of it can then be changed. */
import { entryOf, lastOf, nth, sure } from '../sure'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import { partById, partOfKind, PARTS } from '../catalogue/parts'
import type { Maker } from '../job/defaults'
import type { AmplifierPart, AntennaPart, LinePart, Part, PassingPart, Port, RouterPart } from '../job/part'
import type { Change, Design, Fixture, Job, JobDocument, Run, Site, Use } from '../job/schema'
import { buildingOf, inside } from '../site/building'
import type { Building } from '../site/building'
import { axisSign, moveAlong, nearestTo, partWay, ridgeM, round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { USE_FIGURES, usualUse } from '../site/use'
import { adapterChain, WINDOW_LEAD } from './adapters'
import { pairsByRole } from './by-role'
import { PAIR_APART_M } from './pair'
import { cutLengthM, cutToHalfM, stockLengthM, wayM } from './lengths'
import { lineEnd } from './mating'
import type { End } from './mating'
import { RULE_OF_THUMB } from '../separation/rule-of-thumb'
import { changesOf } from '../job/edits'
import { ownLead } from '../chain/leads'
import type { OwnLead } from '../chain/leads'
import { portsOf, portsWith } from '../chain/data'
import { wireFor } from '../chain/wire'
import { twoCoreOf, WIRES } from '../catalogue/wires'
import { poeClassFor } from '../chain/poe'
import { BESIDE_M, nodeStep, runStep, tapStep } from './splice'
import { SLACK_M } from './way'
import type { Step } from './splice'

/** Spreaders stand about three fifths up the mast. @source common practice (no source) */
export const spreadersM = (site: Pick<Site, 'storeys' | 'storeyHeightM' | 'roofRiseM'>): number =>
  round2(site.storeys * site.storeyHeightM + 0.6 * site.roofRiseM)

/** Domes of a usual kit's floor, and floors it reaches: beyond that a design is drawn, not laid out. */
const MOST_DOMES = 16
const MOST_FLOORS = 4
/** Domes stand in rows so far from each other at most, m. @source a square of 130 m², common practice (no source) */
const ROW_M = 12

/** What is laid out at a press: a router inside, one outdoors behind its antenna, or a booster. */
export type Kit = 'router' | 'outdoors' | 'booster' | 'booster and router'

/** Parts taken in the place of the usual ones; what is left out stays the usual. */
export interface PartChoice {
  antenna?: AntennaPart
  /** down from the antenna */
  line?: LinePart
  /** within the house, to the inside antennas */
  inner?: LinePart
  box?: RouterPart | AmplifierPart
  inside?: AntennaPart
  /** before the amplifier, where what arrives is more than it bears */
  pad?: PassingPart
}

/** The least pad that takes so much away, else the largest, dB. */
export function padFor(overDb: number): PassingPart {
  const pads = PARTS.filter((p): p is PassingPart => p.kind === 'pad').sort((x, y) => x.lossDb - y.lossDb)
  return pads.find(p => p.lossDb >= overDb) ?? lastOf(pads)
}

/** What a box on wires takes where its maker says nothing, W. Assumed. */
const USUAL_BOX_W = 12

/** A dome under a slab, a box over the floor, m. */
export const UNDER_CEILING_M = 0.3
const ON_WALL_M = 1.4

/** Lays parts and cables of one design. */
class Layer {
  readonly steps: Step[] = []
  private readonly placed = new Map<string, { at: Point; part: Part }>()
  private readonly building: Building
  private readonly site: Site
  private readonly sockets: readonly Point[]
  private readonly feeds: readonly Fixture[]
  readonly kind: Job['kind']
  private count = 0

  constructor(
    doc: JobDocument,
    private readonly design: Design,
    private readonly sign: 1 | -1,
    readonly choice: PartChoice,
  ) {
    this.site = siteOf(doc)
    this.kind = jobOf(doc).kind
    this.building = buildingOf(doc)
    this.feeds = doc.fixtures.filter(x => x.kind === '12 V feed')
    this.sockets = doc.fixtures.filter(x => x.kind === 'mains socket' && inside(this.building, x))
  }

  /** @param acrossM  to the side of the section */
  node(what: string | Part, alongM: number, upM: number, acrossM = 0): string {
    const flat = moveAlong({ axisDeg: this.site.axisDeg + 90 }, { eastM: 0, northM: 0, upM }, acrossM, 1)
    const at = { ...moveAlong(this.site, { ...flat, upM }, alongM, this.sign), upM: round2(upM) }
    return this.put(typeof what === 'string' ? sure(partById(what)) : what, at)
  }

  /** Beside the mains socket that is nearest to a place; there where none is noted. */
  bySocket(partId: string, alongM: number, upM: number): string {
    const here = { ...moveAlong(this.site, { eastM: 0, northM: 0, upM }, alongM, this.sign), upM }
    const socket = nearestTo(here, this.sockets)
    return this.put(sure(partById(partId)), socket ? bySocket(socket) : here)
  }

  /** What of the antennas is for Wi-Fi and position goes to the box's own sockets, where its leads reach. */
  byRole(box: string): void {
    for (const [id, { part, at }] of [...this.placed])
      if (part.kind === 'antenna')
        for (const [from, to] of pairsByRole(part, this.part(box)))
          if ((this.lead(id, from.id)?.lengthM ?? 0) >= wayM(this.kind, this.building, at, entryOf(this.placed, box).at))
            this.screw(id, from.id, box, to.id)
  }

  /** A box that runs on wires is fed from the nearest feed noted: a tap there, and a lead as thick as the way asks for. */
  supply(): void {
    for (const [id, { part, at }] of [...this.placed]) {
      const port = portsOf(part).find(p => p.role === 'power' && p.connector === 'DC')
      const feed = nearestTo(at, this.feeds)
      if (!port || !feed || part.kind === 'source') continue
      const neededM = wayM(this.kind, this.building, feed, at)
      const line = twoCoreOf(wireFor(12, part.powerW ?? USUAL_BOX_W, neededM, this.kind) ?? lastOf(WIRES))
      if (!line) continue
      const tap = `new:${this.count++}`
      this.steps.push(tapStep(this.design.id, tap, feed))
      this.join([tap, '1'], [id, port.id], { partId: line.id, part: line, lengthM: cutToHalfM(neededM) })
    }
  }

  private put(part: Part, at: Point): string {
    const id = `new:${this.count++}`
    this.placed.set(id, { at, part })
    this.steps.push(nodeStep(this.design.id, id, part, at))
    return id
  }

  /** where a dome hangs on a floor, m */
  ceilingM(level: number): number {
    return (this.building.floors[level]?.toM ?? this.site.storeyHeightM) - UNDER_CEILING_M
  }

  useOf(level: number): Use {
    return this.building.floors[level]?.use ?? usualUse(this.kind)
  }

  /** where a box hangs on a floor, m */
  wallM(level: number): number {
    return (this.building.floors[level]?.fromM ?? 0) + ON_WALL_M
  }

  part(id: string): Part {
    return entryOf(this.placed, id).part
  }

  /** A cable of a length that reaches, with the adapters that its ends need. @returns the node it leads to */
  run(from: string, fromPort: string, { to, toPort, what }: { to: string; toPort: string; what: string | LinePart }): string {
    const line = typeof what === 'string' ? sure(partOfKind(what, 'line')) : what
    const lead = this.lead(from, fromPort)
    const a = this.adapted(from, fromPort, lineEnd(line), to)
    const b = this.adapted(to, toPort, lineEnd(line), from)
    const wholeM = wayM(this.kind, this.building, entryOf(this.placed, a[0]).at, entryOf(this.placed, b[0]).at)
    // A lead that plugs straight into the cable is a piece of the same way.
    const neededM = a[0] === from ? Math.max(0.1, wholeM - (lead?.lengthM ?? 0)) : wholeM
    const lengthM = this.design.plugs === 'crimped' ? cutLengthM(neededM) : stockLengthM(line, neededM)
    this.join(a, b, { partId: line.id, part: line, lengthM })
    return to
  }

  /** An antenna on its own lead straight into a box, where that reaches; else by a cable. */
  feed(from: string, fromPort: string, { to, toPort, what }: { to: string; toPort: string; what: string | LinePart }): string {
    const { at } = entryOf(this.placed, from)
    const leadM = this.lead(from, fromPort)?.lengthM ?? 0
    const reaches = leadM >= wayM(this.kind, this.building, at, entryOf(this.placed, to).at)
    return reaches ? this.screw(from, fromPort, to, toPort) : this.run(from, fromPort, { to, toPort, what })
  }

  /** A feed to the port of an amplifier toward the mast, by the pad that was asked for. */
  toDonor(from: string, fromPort: string, amplifier: string, what: string | LinePart): void {
    const { pad } = this.choice
    if (!pad) return void this.feed(from, fromPort, { to: amplifier, toPort: 'donor', what })
    const [entry, exit] = pad.ports.map(p => p.id)
    const beside = this.put(pad, partWay(entryOf(this.placed, amplifier).at, entryOf(this.placed, from).at, BESIDE_M, 0.4))
    this.feed(from, fromPort, { to: beside, toPort: entry!, what })
    this.screw(beside, exit!, amplifier, 'donor')
  }

  /** One part screwed to another, by adapters where they do not mate. */
  screw(from: string, fromPort: string, to: string, toPort: string): string {
    this.join([from, fromPort], this.adapted(to, toPort, this.end(from, fromPort), from), null)
    return to
  }

  private lead(id: string, portId: string): OwnLead | null {
    return ownLead(entryOf(this.placed, id).part, this.end(id, portId))
  }

  private end(id: string, portId: string): Port {
    const { part } = entryOf(this.placed, id)
    const found = portsOf(part).find(p => p.id === portId)
    if (!found) throw new RangeError(`${part.name} has no port ${portId}`)
    return found
  }

  /** @returns where a cable's end meets a part: its port or the plug of its lead, or the last of the adapters put before it */
  private adapted(id: string, portId: string, cable: End, toward: string): [string, string] {
    const links = adapterChain(cable, this.end(id, portId)) ?? []
    const here = entryOf(this.placed, id).at
    const there = entryOf(this.placed, toward).at
    const lead = this.lead(id, portId)
    // What is screwed to a lead lies where the lead ends.
    const [fromM, mostShare] = lead ? [Math.max(0, lead.lengthM - SLACK_M), 0.9] : [0, 0.4]
    let end: [string, string] = [id, portId]
    for (const [i, l] of [...links].reverse().entries()) {
      const adapter = this.put(l.part, partWay(here, there, fromM + BESIDE_M * (i + 1), mostShare))
      this.join([adapter, l.exit.id], end, null)
      end = [adapter, l.entry.id]
    }
    return end
  }

  private join(
    from: readonly [string, string],
    to: readonly [string, string],
    cable: Pick<Run, 'partId' | 'part' | 'lengthM'> | null,
  ) {
    this.steps.push(runStep(this.design.id, `new:r${this.count++}`, { from, to, cable }))
  }
}

/**
 * Lays out the usual kit: antenna on the mast-side gable, an arrestor for every down-lead at
 * the entrance, router or amplifier inside, domes in the ceilings; aboard, an omni on the roof or at the
 * spreaders and the box below it. What the design held before is removed.
 *
 * @param bearingDeg  of the mast in the site frame
 * @param choice  parts in the place of the usual ones
 */
export function kitChanges(
  doc: JobDocument,
  design: Design,
  kit: Kit,
  { bearingDeg, newId, choice = {} }: { bearingDeg: number | null; newId: Maker; choice?: PartChoice },
): Change[] {
  const site = siteOf(doc)
  const { kind, rules, mayDrill } = jobOf(doc)
  const ashore = !movesAbout(kind)
  const approach: Design['approach'] = boosts(kit) ? 'booster' : 'router'
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
  const lay = new Layer(doc, design, ashore ? axisSign(site, bearingDeg) : 1, choice)
  const american = rules === 'US'
  if (!ashore) layAboard(lay, site, approach, american)
  else if (kit === 'outdoors') layOutdoors(lay, site, american)
  else if (approach === 'router') layRouter(lay, site, american, mayDrill === 'no')
  else if (kind === 'home') layHomeBooster(lay, site, american, mayDrill === 'no')
  else layBuilding(lay, site, american)
  lay.supply()
  return [...changes, ...changesOf(lay.steps, newId)]
}

/** Whether a kit repeats for phones, rather than feeding a modem by cable. */
export const boosts = (kit: Kit): boolean => kit === 'booster' || kit === 'booster and router'

/** Where the down-lead comes in: outside the mast-side wall, within reach of the ground. */
const entrance = (site: Site) => ({ x: -site.lengthM / 2 - 0.15, upM: 1.2 })
const mountM = (site: Site): number => Math.max(site.storeys * site.storeyHeightM + 1.6, ridgeM(site) - 0.4)

/** A pole that is easily had reaches so far over the roof's top, m. @source common practice (no source) */
const OVER_ROOF_M = 1.2
/** Over an inside antenna by the rule of thumb where the roof lets it; where it does not, a finding says by how much not. */
const mountOver = (site: Site, serverM: number): number =>
  round2(Math.max(mountM(site), Math.min(serverM + RULE_OF_THUMB.upM + 0.05, ridgeM(site) + OVER_ROOF_M)))

/** Arrestor of a line's own plugs and impedance. */
const arrestorFor = (line: LinePart | undefined): string =>
  line?.impedanceOhm === 75 ? 'arr-gas-f' : line?.ends === 'SMA' ? 'arr-gas-sma' : 'arr-gas'
const windowLeadFor = (line: LinePart | undefined): string => (line?.impedanceOhm === 75 ? `${WINDOW_LEAD}-f` : WINDOW_LEAD)

/** What plugs into a socket stands so far over it, m. Assumed. */
const OVER_SOCKET_M = 0.3
/** @returns where something stands that plugs into a socket */
export const bySocket = ({ eastM, northM, upM }: Point): Point => ({ eastM, northM, upM: round2(upM + OVER_SOCKET_M) })

/** Feeds of the outside antenna, one for each branch of the box: a pair of single ones where one antenna has not enough. */
function feedsFor(
  lay: Layer,
  box: string,
  usual: string,
  { x, upM }: { x: number; upM: number },
): [antenna: string, port: string, branch: string][] {
  const branches = portsWith(lay.part(box), 'cell')
  const antenna = lay.choice.antenna ?? sure(partOfKind(usual, 'antenna'))
  const own = portsWith(antenna, 'feed')
  const wanted = Math.min(branches.length, Math.max(2, own.length))
  const copies = own.length === 1 ? wanted : 1
  const nodes = Array.from({ length: copies }, (_, i) =>
    lay.node(antenna, x, upM, copies > 1 ? (i - (copies - 1) / 2) * PAIR_APART_M : 0),
  )
  return branches.slice(0, copies > 1 ? copies : Math.min(wanted, own.length)).map((branch, i) => {
    const port = nth(own, copies > 1 ? 0 : i)
    return [nth(nodes, copies > 1 ? i : 0), port.id, branch.id]
  })
}

function layRouter(lay: Layer, site: Site, american: boolean, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const at = entrance(site)
  const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-2' : 'rtr-2'), -half + 1.6, 1.1)
  const line = lay.choice.line ?? 'line-400'
  const inner = lay.choice.inner ?? lay.choice.line ?? 'line-240'
  for (const [i, [antenna, feed, branch]] of feedsFor(lay, router, 'ant-panel-x', {
    x: -half + 0.4,
    upM: mountM(site),
  }).entries()) {
    const aside = 0.25 * i
    const arrestor = lay.node(arrestorFor(lay.choice.line), at.x, at.upM, aside)
    lay.feed(antenna, feed, { to: arrestor, toPort: 'in', what: line })
    if (windowOnly) {
      const flat = lay.node(windowLeadFor(lay.choice.line), at.x + 0.1, at.upM, aside)
      lay.run(lay.run(arrestor, 'out', { to: flat, toPort: 'in', what: inner }), 'out', {
        to: router,
        toPort: branch,
        what: inner,
      })
    } else lay.run(arrestor, 'out', { to: router, toPort: branch, what: inner })
  }
}

/** @returns the smallest injector that feeds a box at the end of 100 m, by the kind of power that it asks for */
export function injectorFor(box: Part): string {
  if (box.supply === 'passive PoE') return 'inj-passive'
  const sourceW = poeClassFor(box.powerW ?? USUAL_POE_W)?.sourceW ?? Infinity
  return sourceW <= 15.4 ? 'inj-poe' : sourceW <= 30 ? 'inj-poe-plus' : 'inj-poe-4'
}
/** What a box over PoE takes where its maker says nothing, W. Assumed: the whole of class 3. */
const USUAL_POE_W = 12.95

/** The modem outdoors behind its antenna, Ethernet and power down one lead: no radio cable but the short ones at the pole. */
function layOutdoors(lay: Layer, site: Site, american: boolean): void {
  const x = -site.lengthM / 2 + 0.4
  const upM = mountM(site)
  const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-out' : 'rtr-out'), x, upM - 0.6)
  for (const [antenna, feed, branch] of feedsFor(lay, router, 'ant-panel-x', { x, upM }))
    lay.feed(antenna, feed, { to: router, toPort: branch, what: lay.choice.line ?? 'line-240' })
  const at = entrance(site)
  const arrestor = lay.node('arr-data', at.x, at.upM)
  const injector = lay.bySocket(injectorFor(lay.part(router)), -site.lengthM / 2 + 0.6, 0.6)
  lay.run(router, 'lan1', { to: arrestor, toPort: 'in', what: 'data-6-out' })
  lay.run(arrestor, 'out', { to: injector, toPort: 'out', what: 'data-6-out' })
}

function layHomeBooster(lay: Layer, site: Site, american: boolean, windowOnly: boolean): void {
  const half = site.lengthM / 2
  const at = entrance(site)
  const line = lay.choice.line ?? 'line-400'
  const domeM = site.storeyHeightM - 0.15
  const antenna = lay.node(lay.choice.antenna ?? 'ant-lpda', -half + 0.4, mountOver(site, domeM))
  const arrestor = lay.node(arrestorFor(lay.choice.line), at.x, at.upM)
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-home' : 'amp-home'), -half + 1.6, 1.3)
  const dome = lay.node(lay.choice.inside ?? 'ant-dome', 0.6, domeM)
  lay.feed(antenna, '1', { to: arrestor, toPort: 'in', what: line })
  if (windowOnly) {
    const flat = lay.node(windowLeadFor(lay.choice.line), at.x + 0.1, at.upM)
    lay.toDonor(lay.run(arrestor, 'out', { to: flat, toPort: 'in', what: line }), 'out', amplifier, line)
  } else lay.toDonor(arrestor, 'out', amplifier, line)
  lay.run(amplifier, 'server', { to: dome, toPort: '1', what: lay.choice.inner ?? line })
}

/** A riser at the mast's end: the amplifier on the top floor, a splitter in it, and on each floor its domes by a splitter of their own. */
function layBuilding(lay: Layer, site: Site, american: boolean): void {
  const half = site.lengthM / 2
  const roofM = lay.ceilingM(site.storeys - 1) + UNDER_CEILING_M
  const antenna = lay.node(lay.choice.antenna ?? 'ant-lpda', -half + 0.6, roofM + 2.2)
  const arrestor = lay.node('arr-gas', -half + 0.3, roofM + 0.4)
  const riser = -half + 2
  const top = site.storeys - 1
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-home' : 'amp-building'), riser, lay.wallM(top))
  lay.run(antenna, '1', { to: arrestor, toPort: 'in', what: 'line-400' })
  lay.toDonor(arrestor, 'out', amplifier, 'line-400')
  const floors = Math.min(site.storeys, MOST_FLOORS)
  const feedOf = fan(lay, [amplifier, 'server'], floors, { alongM: riser, upM: i => lay.ceilingM(top - i) - 0.5 })
  for (let f = 0; f < floors; f++) {
    const level = top - f
    const places = ceilingPlaces(site, Math.min(MOST_DOMES, antennasByRule(site, lay.useOf(level)).most))
    const floorFeed = fan(lay, feedOf(f), places.length, { alongM: riser + 1, upM: () => lay.ceilingM(level) })
    for (const [i, at] of places.entries()) {
      const dome = lay.node(lay.choice.inside ?? 'ant-dome', at.alongM, lay.ceilingM(level), at.acrossM)
      const [from, out] = floorFeed(i)
      lay.run(from, out, { to: dome, toPort: '1', what: 'line-400' })
    }
  }
}

/** @returns how many ceiling antennas a floor takes by the rule: one for 140 m² at least, at most as close as its use asks for */
export function antennasByRule(site: Pick<Site, 'lengthM' | 'depthM'>, use: Use): { least: number; most: number } {
  const areaM2 = site.lengthM * site.depthM
  return { least: Math.max(1, Math.round(areaM2 / WIDEST_M2)), most: Math.max(1, Math.ceil(areaM2 / USE_FIGURES[use].areaM2)) }
}
const WIDEST_M2 = Math.max(...Object.values(USE_FIGURES).map(u => u.areaM2))

/** Even over a floor: in rows along it, as many more in the first ones as are left over. */
function ceilingPlaces(site: Pick<Site, 'lengthM' | 'depthM'>, count: number): { alongM: number; acrossM: number }[] {
  const rows = Math.min(count, Math.max(1, Math.round(site.depthM / ROW_M)))
  return Array.from({ length: rows }, (_, r) => {
    const inRow = Math.floor(count / rows) + (r < count % rows ? 1 : 0)
    const acrossM = -site.depthM / 2 + ((r + 0.5) * site.depthM) / rows
    return Array.from({ length: inRow }, (_, i) => ({
      alongM: -site.lengthM / 2 + ((i + 0.5) * site.lengthM) / inRow,
      acrossM,
    }))
  }).flat()
}

/** Ways of the largest splitter in stock. */
const MOST_WAYS = 4

/** @returns which node and port the i-th branch hangs on: the way itself where there is one, else a splitter's, else one of theirs */
function fan(
  lay: Layer,
  [from, port]: readonly [node: string, port: string],
  branches: number,
  at: { alongM: number; upM: (i: number) => number },
): (i: number) => [string, string] {
  if (branches < 2) return () => [from, port]
  if (branches > MOST_WAYS) {
    const groups = Math.min(MOST_WAYS, Math.ceil(branches / MOST_WAYS))
    const outer = fan(lay, [from, port], groups, at)
    const inner = Array.from({ length: groups }, (_, g) => {
      const size = Math.floor(branches / groups) + (g < branches % groups ? 1 : 0)
      return { size, feed: fan(lay, outer(g), size, { ...at, upM: () => at.upM(0) }) }
    })
    return i => {
      let left = i
      for (const { size, feed } of inner) {
        if (left < size) return feed(left)
        left -= size
      }
      throw new RangeError(`branch ${i} of ${branches}`)
    }
  }
  const splitter = lay.node(`spl-${branches}`, at.alongM, at.upM(0))
  lay.run(from, port, { to: splitter, toPort: 'in', what: 'line-400' })
  return i => [splitter, String(i + 1)]
}

/** A bull bar's bracket: before the nose, so high over the road, m. Assumed. */
const BULL_BAR = { aheadM: 0.1, upM: 1.1 }

/** A whip on a bracket stands at the front; what is bolted or held by a magnet stands on the roof. */
const placeAboard = (site: Site, antenna: AntennaPart | undefined, onRoof: { x: number; upM: number }) =>
  /bracket/.test(antenna?.mount ?? '') && site.roofRiseM === 0
    ? { x: site.lengthM / 2 + BULL_BAR.aheadM, upM: BULL_BAR.upM }
    : onRoof

function layAboard(lay: Layer, site: Site, approach: Design['approach'], american: boolean): void {
  const boat = lay.kind === 'boat'
  const roofM = site.storeys * site.storeyHeightM
  const upM = boat ? spreadersM(site) : roofM + 0.25
  const x = boat ? 0.05 * site.lengthM : -0.15 * site.lengthM
  const boxM = boat ? site.storeyHeightM * 0.6 : site.storeyHeightM * 0.72
  const boxAt = x - (boat ? 0.2 : 0.08) * site.lengthM
  const line = lay.choice.line ?? 'line-240'
  if (approach === 'router') {
    // Aboard a box runs on what the battery gives.
    const router = lay.node(lay.choice.box ?? (american ? 'rtr-na-4' : 'rtr-mobile-2'), boxAt, boxM)
    const at = placeAboard(site, lay.choice.antenna, { x, upM })
    for (const [antenna, feed, branch] of feedsFor(lay, router, 'ant-omni-x', { x: at.x, upM: at.upM }))
      lay.feed(antenna, feed, { to: router, toPort: branch, what: line })
    lay.byRole(router)
    return
  }
  const at = placeAboard(site, lay.choice.antenna, { x, upM })
  const antenna = lay.node(lay.choice.antenna ?? 'ant-omni', at.x, at.upM)
  const amplifier = lay.node(lay.choice.box ?? (american ? 'amp-na-mobile' : 'amp-mobile'), boxAt, boxM)
  const panel = lay.node(lay.choice.inside ?? 'ant-panel-in', x + 0.35 * site.lengthM, boxM)
  lay.toDonor(antenna, '1', amplifier, line)
  lay.feed(amplifier, 'server', { to: panel, toPort: '1', what: lay.choice.inner ?? 'line-195' })
}
