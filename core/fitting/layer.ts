/** The table on which kits are laid: parts put down, cables that reach, adapters where ends differ, feeds by what is noted. */
import { entryOf, lastOf, sure } from '../sure'
import { jobOf, siteOf } from '../job/schema'
import { partById, partOfKind } from '../catalogue/parts'
import { twoCoreOf, WIRES } from '../catalogue/wires'
import { portsOf } from '../chain/data'
import { ownLead } from '../chain/leads'
import type { TreeNode } from '../chain/tree'
import type { OwnLead } from '../chain/leads'
import { wireFor } from '../chain/wire'
import type { AmplifierPart, AntennaPart, LinePart, Part, PassingPart, Port, RouterPart } from '../job/part'
import type { Design, Fixture, Job, JobDocument, Run, Site, Use } from '../job/schema'
import { buildingOf, fromLocal, inside, toLocal } from '../site/building'
import type { Building } from '../site/building'
import { moveAlong, nearestTo, partWay, round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { usualUse } from '../site/use'
import { adapterChain } from './adapters'
import { pairsByRole } from './by-role'
import { cutLengthM, cutToHalfM, stockLengthM, wayM } from './lengths'
import { lineEnd } from './mating'
import type { End } from './mating'
import { BESIDE_M, nodeStep, runStep, tapStep } from './splice'
import type { Step } from './splice'
import { SLACK_M } from './way'

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

/** Domes stand in rows so far from each other at most, m. @source a square of 130 m², common practice (no source) */
const ROW_M = 12

/** What plugs into a socket stands so far over it, m. Assumed. */
const OVER_SOCKET_M = 0.3
/** @returns where something stands that plugs into a socket */
export const bySocket = ({ eastM, northM, upM }: Point): Point => ({ eastM, northM, upM: round2(upM + OVER_SOCKET_M) })

/** What a box on wires takes where its maker says nothing, W. Assumed. */
const USUAL_BOX_W = 12

/** A dome under a slab, a box over the floor, m. */
export const UNDER_CEILING_M = 0.3
const ON_WALL_M = 1.4

/** Lays parts and cables of one design. */
export class Layer {
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

  /** A part that the design has already: cables may lead to it. */
  there({ node, part }: Pick<TreeNode, 'node' | 'part'>): string {
    this.placed.set(node.id, { at: node, part })
    return node.id
  }

  /** A part at a place of the site frame. */
  at(part: Part, { eastM, northM, upM }: Point): string {
    return this.put(part, { eastM: round2(eastM), northM: round2(northM), upM: round2(upM) })
  }

  /** @returns a place so far from the first inside antenna, toward the middle of the site, and as high; null where none was laid */
  besideInside(awayM: number): Point | null {
    const at = [...this.placed.values()].find(({ part }) => part.kind === 'antenna' && part.use === 'inside')?.at
    if (!at) return null
    const [alongM, acrossM] = toLocal(this.site, at)
    return { ...fromLocal(this.site.axisDeg, alongM - (alongM < 0 ? -awayM : awayM), acrossM), upM: at.upM }
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

/** A part of a floor, m along the site's axis and across it from its middle. */
export interface Area {
  alongFromM: number
  alongToM: number
  acrossFromM: number
  acrossToM: number
}
export const wholeFloor = (site: Pick<Site, 'lengthM' | 'depthM'>): Area => ({
  alongFromM: -site.lengthM / 2,
  alongToM: site.lengthM / 2,
  acrossFromM: -site.depthM / 2,
  acrossToM: site.depthM / 2,
})

/** Even over an area: in rows along it, as many more in the first ones as are left over. */
export function ceilingPlaces(area: Area, count: number): { alongM: number; acrossM: number }[] {
  const lengthM = area.alongToM - area.alongFromM
  const depthM = area.acrossToM - area.acrossFromM
  const rows = Math.min(count, Math.max(1, Math.round(depthM / ROW_M)))
  return Array.from({ length: rows }, (_, r) => {
    const inRow = Math.floor(count / rows) + (r < count % rows ? 1 : 0)
    const acrossM = area.acrossFromM + ((r + 0.5) * depthM) / rows
    return Array.from({ length: inRow }, (_, i) => ({ alongM: area.alongFromM + ((i + 0.5) * lengthM) / inRow, acrossM }))
  }).flat()
}

/** Ways of the largest splitter in stock. */
const MOST_WAYS = 4

/** @returns which node and port the i-th branch hangs on: the way itself where there is one, else a splitter's, else one of theirs */
export function fan(
  lay: Layer,
  [from, port]: readonly [node: string, port: string],
  branches: number,
  at: { alongM: number; acrossM?: number; upM: (i: number) => number },
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
  const splitter = lay.node(`spl-${branches}`, at.alongM, at.upM(0), at.acrossM)
  lay.run(from, port, { to: splitter, toPort: 'in', what: 'line-400' })
  return i => [splitter, String(i + 1)]
}
