/**
 * A design as a signal tree: parts with typed ports, joined port to port. Nothing is looked up by its
 * role: what an antenna or a box is follows from what it hangs on.
 */
import { entryOf, nth, sure } from '../sure'
import { antennaAt, partById, usualPolarisation } from '../catalogue/parts'
import type { Design, JobDocument, Node, Run } from '../job/schema'
import { withOwn } from '../job/part'
import type { AmplifierPart, AntennaPart, LinePart, Part, Polarisation, Port, RouterPart } from '../job/part'
import type { Pattern } from '../radio/pattern'
import { between } from '../site/frame'
import { ownLead } from './leads'
import type { OwnLead } from './leads'
import { isData, isSupply, portsOf, portsWith, POWER_PORT } from './data'
import { beyond, hangTogether, jackAt } from './ends'
import { namesOf } from './names'
import type { Called } from './names'
import { lineLossDb, splitterLossDb, tapLossDb } from './line'

/** One mated pair of connectors, dB. @source common practice (no source) */
export const CONNECTOR_PAIR_DB = 0.1

export interface TreeNode {
  node: Node
  part: Part
  /** what it is called: `Dome 3, Workshop`; the part's own name is its catalogue's */
  readonly name: string
  readonly called: Called
}
export type NodeOf<P extends Part> = TreeNode & { part: P }
export type AntennaNode = NodeOf<AntennaPart>
export type AmplifierNode = NodeOf<AmplifierPart>
export type RouterNode = NodeOf<RouterPart>

export interface Jack {
  at: TreeNode
  port: Port
}

/**
 * A way from port to port: a cable that is bought, a lead that is fixed to one of the parts, a cable that goes on where a lead
 * ends; or two parts screwed together.
 */
export interface Joint {
  run: Run
  /** bought; null where a lead reaches, or nothing lies between */
  line: LinePart | null
  /** fixed to the parts at its ends */
  leads: OwnLead[]
  from: Jack
  to: Jack
  /** what it leads to at either end: adapters and pads that are screwed on there are passed */
  readonly ends: Record<'from' | 'to', Jack>
}

/**
 * One arrival of the signal at a part. Visits stand in the order of the signal, each after the one
 * it comes from, so that a loop over them is a walk down the tree.
 */
export interface Visit {
  at: TreeNode
  /** port the signal comes in by; null at the donor antenna it starts from */
  entry: Port | null
  /** index of the visit before, −1 at a donor */
  parent: number
  /** port of the part before that it left by */
  exit: Port | null
  joint: Joint | null
  donor: AntennaNode
  /** which of the donor's feeds it came down */
  feed: string
}

export interface Tree {
  design: Design
  nodes: TreeNode[]
  joints: Joint[]
  visits: Visit[]
  /** antennas that hear the mast, and those that serve phones */
  donors: AntennaNode[]
  servers: AntennaNode[]
  amplifiers: AmplifierNode[]
  routers: RouterNode[]
  /** of those, what hears an inside antenna of the same design by air */
  byAir: RouterNode[]
  /** ports that nothing hangs on, though something should */
  open: Jack[]
  /** nodes that no donor reaches */
  loose: TreeNode[]
  /** rows that name no part known, or no port of it */
  broken: string[]
}

/** @returns the copy of the part in the design with the maker's own figures over it; the catalogue's where a row of before has none */
export function partOf(row: Pick<Node, 'part' | 'partId'> & { own?: Node['own'] }): Part | undefined {
  const base = row.part ?? partById(row.partId)
  return base ? withOwn(base, row.own) : undefined
}

const is =
  <P extends Part>(kind: P['kind']) =>
  (n: TreeNode): n is NodeOf<P> =>
    n.part.kind === kind

/** Port roles by which a signal leaves toward phones and modems. */
const OUTWARD: ReadonlySet<Port['role']> = new Set(['feed', 'server', 'out', 'through', 'tap'])
const INWARD: ReadonlySet<Port['role']> = new Set(['cell', 'donor', 'in'])

export function treeOf(doc: JobDocument, design: Design): Tree {
  const broken: string[] = []
  const nodes: TreeNode[] = []
  // Searches make trees by the hundred and ask no part for its name.
  let names: Map<string, Called> | null = null
  const calledOf = (id: string) => entryOf((names ??= namesOf(doc, nodes)), id)
  for (const node of doc.nodes) {
    if (node.designId !== design.id) continue
    const part = partOf(node)
    if (part && part.kind !== 'line') nodes.push(named(node, part, calledOf))
    else broken.push(node.id)
  }
  const byId = new Map(nodes.map(n => [n.node.id, n]))
  const taken = new Set<string>()
  const joints: Joint[] = []
  const mine = doc.runs.filter(r => r.designId === design.id)
  // Those that name their ports first: the others take what is left.
  for (const run of [...mine.filter(namesPorts), ...mine.filter(r => !namesPorts(r))]) {
    const from = jackOf(byId.get(run.fromNodeId), run.fromPort, OUTWARD, taken)
    const to = jackOf(byId.get(run.toNodeId), run.toPort, INWARD, taken)
    if (!from || !to) {
      broken.push(run.id)
      continue
    }
    taken.add(keyOf(from)).add(keyOf(to))
    const line = run.partId ? partOf({ partId: run.partId, part: run.part }) : undefined
    joints.push({
      run,
      line: line?.kind === 'line' ? line : null,
      leads: leadsBetween(from, to),
      from,
      to,
      get ends() {
        return { from: behind(joints, from), to: behind(joints, to) }
      },
    })
  }
  const antennas = nodes.filter(is<AntennaPart>('antenna'))
  const links = linksOf(joints)
  const serves = new Map(antennas.map(a => [a.node.id, hangsOn(a, links)]))
  const servers = antennas.filter(a => serves.get(a.node.id) === 'server')
  const donors = antennas.filter(a => serves.get(a.node.id) === 'donor')
  const visits = walk(donors, links)
  // What a data cable leads to, or what feeds, hangs on no antenna and is not loose; a box is, as long as no signal comes to it.
  const onData = joints.filter(isData).flatMap(j => [j.from.at.node.id, j.to.at.node.id])
  const feeding = joints.filter(isSupply).map(j => (j.from.port.role === 'supply' ? j.from : j.to).at.node.id)
  // Sets of other services hang on antennas of their own.
  const services = nodes.filter(n => n.part.kind === 'service').map(n => n.node.id)
  const beside = services.length ? hangTogether(joints, services) : []
  const reached = new Set([...visits.map(v => v.at.node.id), ...onData, ...feeding, ...beside])
  const routers = nodes.filter(is<RouterPart>('router'))
  // A router with its own antennas hears what a booster says again: no cable leads to it, and none is missing.
  const byAir = design.approach === 'booster' && servers.length ? routers.filter(r => !leadsIn(r, links)) : []
  for (const r of byAir) reached.add(r.node.id)
  return {
    design,
    nodes,
    joints,
    visits,
    donors,
    servers,
    amplifiers: nodes.filter(is<AmplifierPart>('amplifier')),
    routers,
    byAir,
    open: nodes
      .flatMap(at =>
        at.part.kind === 'line'
          ? []
          : portsOf(at.part)
              .filter(p => mustBeTaken(p))
              .map(port => ({ at, port })),
      )
      .filter(j => !taken.has(keyOf(j))),
    loose: nodes.filter(n => !reached.has(n.node.id)),
    broken,
  }
}

const named = (node: Node, part: Part, calledOf: (id: string) => Called): TreeNode => ({
  node,
  part,
  get name() {
    return calledOf(node.id).name
  },
  get called() {
    return calledOf(node.id)
  },
})

/** @returns a part of a tree with other figures in the place of its own, under the same name */
export const asPart = <P extends Part>(at: TreeNode, part: P): NodeOf<P> => ({
  node: at.node,
  part,
  get name() {
    return at.name
  },
  get called() {
    return at.called
  },
})

const leadsBetween = (from: Jack, to: Jack): OwnLead[] => [from, to].flatMap(({ at, port }) => ownLead(at.part, port) ?? [])

const SCREWED: ReadonlySet<Part['kind']> = new Set(['adapter', 'pad'])

/** @returns what an end leads to: the first part behind what is screwed on there; the end itself where nothing is behind that */
function behind(joints: readonly Joint[], end: Jack): Jack {
  const passed = new Set<Joint>()
  let here = end
  while (SCREWED.has(here.at.part.kind)) {
    const next = joints.find(j => !passed.has(j) && !isCable(j) && jackAt(j, here.at.node.id))
    if (!next) return end
    passed.add(next)
    here = sure(beyond(next, here.at.node.id))
  }
  return here
}

/** @returns what a cable is called by: the parts that it leads from and to */
export const endNames = ({ ends }: Pick<Joint, 'ends'>): string => `${ends.from.at.name} to ${ends.to.at.name}`

/** @returns whether something runs between its two ends: a cable or a lead, not a thread alone */
export const isCable = ({ run, leads }: Pick<Joint, 'run' | 'leads'>): boolean => run.partId !== null || leads.length > 0
/** @returns metres of the leads that are fixed to its ends */
export const leadsM = ({ leads }: Pick<Joint, 'leads'>): number => leads.reduce((m, l) => m + l.lengthM, 0)
/** @returns metres from port to port: of the cable that is bought, and of the leads it goes on from */
export const jointM = (j: Pick<Joint, 'run' | 'leads'>): number => leadsM(j) + (j.run.partId === null ? 0 : j.run.lengthM)
/** @returns the line as it is laid, by its thickest piece; null where nothing is known of it, or nothing lies between */
export const lineOf = ({ line, leads }: Pick<Joint, 'line' | 'leads'>): LinePart | null => line ?? leads[0]?.line ?? null

const namesPorts = (r: Run): boolean => r.fromPort !== null && r.toPort !== null
const keyOf = (j: Jack): string => `${j.at.node.id} ${j.port.id}`
/** What may stay open: the ports of satellite positions, of Wi-Fi, of data and of the supply. */
const MAY_STAY_OPEN: ReadonlySet<Port['role']> = new Set(['position', 'wifi', 'lan', 'power', 'supply'])
const mustBeTaken = (p: Port): boolean => !MAY_STAY_OPEN.has(p.role)

function jackOf(
  at: TreeNode | undefined,
  portId: string | null,
  wanted: ReadonlySet<Port['role']>,
  taken: ReadonlySet<string>,
): Jack | null {
  if (!at) return null
  const ports = portsOf(at.part)
  const named = portId === null ? undefined : ports.find(p => p.id === portId)
  if (named) return { at, port: named }
  // Wires are never taken for coax: a box changed for one without terminals has no end for them.
  if (portId === POWER_PORT) return null
  const free = ports.filter(p => mustBeTaken(p) && !taken.has(keyOf({ at, port: p })))
  const port = free.find(p => wanted.has(p.role)) ?? free[0]
  return port ? { at, port } : null
}

/** Joints by the jack at either end: a signal does not mind which end a cable was drawn from. */
type Links = Map<string, { joint: Joint; other: Jack }[]>

function linksOf(joints: readonly Joint[]): Links {
  const out: Links = new Map()
  const put = (key: string, link: { joint: Joint; other: Jack }) => out.set(key, [...(out.get(key) ?? []), link])
  for (const joint of joints) {
    put(keyOf(joint.from), { joint, other: joint.to })
    put(keyOf(joint.to), { joint, other: joint.from })
  }
  return out
}

/** Whether anything is joined to a port of its modem. */
const leadsIn = (r: RouterNode, links: Links): boolean =>
  portsWith(r.part, 'cell').some(port => links.has(keyOf({ at: r, port })))

/** What an antenna is: a server where it hangs on an amplifier's inside, a donor where on a modem or an amplifier's donor port. */
function hangsOn(antenna: AntennaNode, links: Links): 'donor' | 'server' {
  const seen = new Set<string>([antenna.node.id])
  const queue: Jack[] = antenna.part.ports.map(port => ({ at: antenna, port }))
  while (queue.length) {
    const jack = sure(queue.shift())
    for (const { other } of links.get(keyOf(jack)) ?? []) {
      if (other.port.role === 'server') return 'server'
      if (other.port.role === 'donor' || other.port.role === 'cell') return 'donor'
      if (seen.has(other.at.node.id)) continue
      seen.add(other.at.node.id)
      if (other.at.part.kind !== 'amplifier' && other.at.part.kind !== 'router')
        queue.push(
          ...portsOf(other.at.part)
            .filter(p => p !== other.port)
            .map(port => ({ at: other.at, port })),
        )
    }
  }
  return antenna.part.use === 'outside' ? 'donor' : 'server'
}

/** More steps than a tree of parts has: what comes round again is a ring. */
const DEEPEST = 60

function walk(donors: readonly AntennaNode[], links: Links): Visit[] {
  const visits: Visit[] = []
  const follow = (
    from: TreeNode,
    exit: Port,
    { parent, donor, feed, way }: { parent: number; donor: AntennaNode; feed: string; way: readonly string[] },
  ) => {
    for (const { joint, other } of links.get(keyOf({ at: from, port: exit })) ?? []) {
      const key = keyOf(other)
      if (way.includes(key) || way.length > DEEPEST) continue
      const index = visits.length
      visits.push({ at: other.at, entry: other.port, parent, exit, joint, donor, feed })
      for (const next of exitsOf(other.at.part, other.port))
        follow(other.at, next.port, { parent: index, donor, feed, way: [...way, key] })
    }
  }
  for (const donor of donors) {
    // The leads of a combined antenna for Wi-Fi and position hear no mast.
    for (const port of portsWith(donor.part, 'feed')) {
      const index = visits.length
      visits.push({ at: donor, entry: null, parent: -1, exit: null, joint: null, donor, feed: port.id })
      follow(donor, port, { parent: index, donor, feed: port.id, way: [] })
    }
  }
  return visits
}

/**
 * Where a signal that comes in by one port of a part goes on, and what that costs.
 * An amplifier's gain is not among these: it depends on the rest of the tree.
 * @returns ports with their gain, dB, <= 0
 */
export function exitsOf(part: Part, entry: Port): { port: Port; gainDb: number }[] {
  const others = portsOf(part).filter(p => p.id !== entry.id)
  if (part.kind === 'amplifier')
    return entry.role === 'donor' ? others.filter(p => p.role === 'server').map(port => ({ port, gainDb: 0 })) : []
  if (part.kind === 'arrestor' || part.kind === 'pad' || part.kind === 'adapter')
    return others.map(port => ({ port, gainDb: -part.lossDb }))
  if (part.kind === 'splitter') {
    const ways = part.ports.filter(p => p.role === 'out').length
    const gainDb = -splitterLossDb(Math.max(1, ways), part.excessDb)
    return (entry.role === 'in' ? others : others.filter(p => p.role === 'in')).map(port => ({ port, gainDb }))
  }
  if (part.kind === 'tap') {
    const { throughDb, tapDb } = tapLossDb(part.couplingDb, part.excessDb)
    const lossTo = (p: Port) => (p.role === 'tap' || entry.role === 'tap' ? tapDb : throughDb)
    return (entry.role === 'in' ? others : others.filter(p => p.role === 'in')).map(port => ({ port, gainDb: -lossTo(port) }))
  }
  return []
}

/** @returns loss of a joint, dB: its cable and leads, and a pair of connectors at each end of what is bought; one pair where nothing is */
export function jointLossDb({ run, line, leads }: Pick<Joint, 'run' | 'line' | 'leads'>, frequencyMHz: number): number {
  const inLeads = leads.reduce((dB, l) => dB + lineLossDb(l.line.constants, l.lengthM, frequencyMHz), 0)
  if (run.partId === null) return inLeads + CONNECTOR_PAIR_DB
  return inLeads + (line ? lineLossDb(line.constants, run.lengthM, frequencyMHz) : 0) + 2 * CONNECTOR_PAIR_DB
}

export interface Turned {
  at: AntennaNode
  pattern: Pattern
  /** whether the maker's ranges cover the frequency */
  covered: boolean
  azimuthDeg: number
  tiltDeg: number
  polarisation: Polarisation
}

/** @returns an antenna as it is turned at a frequency; `towardDeg` where no azimuth was set: a donor looks at its mast */
export function turned(at: AntennaNode, frequencyMHz: number, towardDeg: number | null): Turned {
  const polarisation = at.node.polarisation ?? usualPolarisation(at.part)
  const { pattern, covered } = antennaAt(at.part, frequencyMHz, polarisation)
  return {
    at,
    pattern,
    covered,
    azimuthDeg: at.node.azimuthDeg ?? towardDeg ?? 0,
    // A dome's own axis hangs straight down; its measured planes are read from the horizon, as all others.
    tiltDeg: pattern.aboutAxisDb ? at.node.tiltDeg - 90 : at.node.tiltDeg,
    polarisation,
  }
}

/** @returns the way an inside antenna faces: as it was turned, else away from the first donor */
export const facingOf = (tree: Pick<Tree, 'donors'>, server: AntennaNode): number =>
  server.node.azimuthDeg ?? (tree.donors[0] ? between(tree.donors[0].node, server.node).bearingDeg : 0)

/** @returns the visits from the donor down to one, in order */
export function wayTo(tree: Pick<Tree, 'visits'>, index: number): Visit[] {
  const out: Visit[] = []
  for (let i = index; i >= 0; i = nth(tree.visits, i).parent) out.unshift(nth(tree.visits, i))
  return out
}

/** @returns feeds of the donors that reach a router's ports: what its layers can be */
export const feedsInto = (tree: Tree, routerId: string): Visit[] =>
  tree.visits.filter(v => v.at.node.id === routerId && v.entry?.role === 'cell')
