/** The splitters and taps that feed the inside antennas evenly. */
import { entryOf, nth, sure } from '../sure'
import { partById, partOfKind, PARTS } from '../catalogue/parts'
import { distribute, overTargets } from '../chain/distribution'
import type { Branch, Distribution, Limb, Outlet, Stock } from '../chain/distribution'
import { freeOutputDbm } from '../chain/levels'
import { lineLossDb } from '../chain/line'
import { CONNECTOR_PAIR_DB, wayTo } from '../chain/tree'
import { UNDER_CEILING_M } from '../fitting/layer'
import { stockLengthM, wayM } from '../fitting/lengths'
import { nodeStep, runStep } from '../fitting/splice'
import type { Step } from '../fitting/splice'
import type { LinePart, Part } from '../job/part'
import { floorAt } from '../site/building'
import { round2 } from '../site/frame'
import type { Point } from '../site/frame'
import { num, signed } from '../units'
import type { Worked } from '../judge/context'
import type { Cure } from '../judge/finding'
import { fansOf } from '../judge/uneven'
import type { Fan } from '../judge/uneven'

/** What is in stock of N connectors. */
export const STOCK: Stock = {
  splitters: PARTS.flatMap(p =>
    p.kind === 'splitter' && nth(p.ports, 0).connector === 'N'
      ? [{ id: p.id, ways: p.ports.filter(q => q.role === 'out').length, excessDb: p.excessDb }]
      : [],
  ),
  taps: PARTS.flatMap(p =>
    p.kind === 'tap' && nth(p.ports, 0).connector === 'N' ? [{ id: p.id, couplingDb: p.couplingDb, excessDb: p.excessDb }] : [],
  ),
}

/** Cables to several antennas where none is laid yet. */
const USUAL_LINE = 'line-400'

interface Way {
  line: LinePart
  lengthM: number
}

/** How the antennas hang now, and how they would hang on points of a riser. */
interface Plan {
  distribution: Distribution
  branches: Branch[]
  points: Map<string, Point>
  /** cable from its point to each antenna, and from the amplifier to each point */
  toAntenna: Map<string, Way>
  toPoint: Map<string, Way>
}

/** The tree that feeds the antennas of one amplifier, each floor by a branch of its own. */
function planFor(c: Worked, fan: Fan, outputDbm = freeOutputDbm(fan.amplifier, c.main.carrier)): Plan {
  const { frequencyMHz } = c.main.carrier
  const amp = fan.amplifier
  const line = firstLine(c, fan)
  const byFloor = new Map<number, Fan['servers']>()
  for (const s of fan.servers) {
    const level = floorAt(c.building.floors, s.server.at.node.upM - 0.01).level
    byFloor.set(level, [...(byFloor.get(level) ?? []), s])
  }
  const points = new Map<string, Point>()
  const toAntenna = new Map<string, Way>()
  const toPoint = new Map<string, Way>()
  const wayOf = (a: Point, b: Point): Way => ({ line, lengthM: stockLengthM(line, wayM(c.job.kind, c.building, a, b)) })
  const lossOf = (w: Way) => lineLossDb(w.line.constants, w.lengthM, frequencyMHz) + 2 * CONNECTOR_PAIR_DB
  const branches = [...byFloor]
    .sort(([a], [b]) => b - a)
    .map(([level, servers]): Branch => {
      const id = String(level)
      const own = servers.length > 1
      const floor = c.building.floors[level]
      const at: Point =
        own && floor && byFloor.size > 1
          ? { eastM: amp.at.node.eastM, northM: amp.at.node.northM, upM: round2(floor.toM - UNDER_CEILING_M) }
          : amp.at.node
      points.set(id, at)
      const riser = own && byFloor.size > 1 ? wayOf(amp.at.node, at) : null
      if (riser) toPoint.set(id, riser)
      return {
        id,
        riserLossDb: riser ? lossOf(riser) : 0,
        outlets: servers.map(({ server, targetDbm }): Outlet => {
          const way = wayOf(at, server.at.node)
          toAntenna.set(server.at.node.id, way)
          return { id: server.at.node.id, cableLossDb: lossOf(way), targetDbm }
        }),
      }
    })
  return { distribution: distribute(branches, STOCK, outputDbm), branches, points, toAntenna, toPoint }
}

function firstLine(c: Worked, fan: Fan): LinePart {
  const index = nth(fan.servers, 0).server.index
  const joint = wayTo(c.tree, index)
    .map(v => v.joint)
    .filter(j => j?.line && j.line.ends === 'N')
    .at(-1)
  return joint?.line ?? sure(partOfKind(USUAL_LINE, 'line'))
}

/** More than any amplifier sends: a tree for it is divided among no others, dBm. */
const ANY_OUTPUT_DBM = 200

/**
 * The most even tree over all antennas of one amplifier, whether or not it sends enough for them.
 * @returns what is left over what the least fed needs, dB, and the steps; null of one that feeds fewer than two
 */
export function evened(c: Worked, amplifierId: string): { steps: Step[]; spareDb: number } | null {
  const fan = fansOf(c).find(f => f.amplifier.at.node.id === amplifierId)
  if (!fan) return null
  const plan = planFor(c, fan, ANY_OUTPUT_DBM)
  const [zone] = plan.distribution.zones
  if (!zone) return null
  // The cures of its loop are its own.
  const outputDbm = freeOutputDbm(fan.amplifier, c.main.carrier)
  return { steps: rebuilt(c, fan, plan), spareDb: zone.spareDb - (ANY_OUTPUT_DBM - outputDbm) }
}

/** @returns the cure of uneven antennas, or how many amplifiers it takes */
export function evenOut(c: Worked, amplifierId: string): Cure[] {
  const fan = fansOf(c).find(f => f.amplifier.at.node.id === amplifierId)
  if (!fan) return []
  const plan = planFor(c, fan)
  const { zones, within, why } = plan.distribution
  const [zone] = zones
  if (zones.length > 1 || !zone)
    return [
      {
        label: `${zones.length} zones, an amplifier each: ${zones.map(z => zoneWords(c, z.branches)).join(' · ')}`,
        gain: why,
        cost: 'another amplifier with a donor of its own, where the first does not hear it',
        enough: false,
        steps: [],
      },
    ]
  const spread = zone.fed.spreadDb
  return [
    {
      label: partsWords(zone.fed.limb),
      gain: `${num(fan.spreadDb)} dB apart becomes ${num(spread, 1)}; the least fed ${signed(zone.spareDb)} dB over its need`,
      cost: `${zone.fed.parts} part${zone.fed.parts === 1 ? '' : 's'}${otherBands(c, plan)}${why ? `; ${why}` : ''}`,
      enough: within,
      steps: rebuilt(c, fan, plan),
    },
  ]
}

const zoneWords = (c: Worked, branches: readonly Branch[]): string =>
  [...new Set(branches.map(b => c.building.floors[Number(b.id)]?.name ?? `floor ${b.id}`))].join(' and ')

/** Spread of the same tree on the mast's other bands, whose cables lose more or less. */
function otherBands(c: Worked, plan: Plan): string {
  const [zone] = plan.distribution.zones
  const others = c.bands.slice(1).flatMap(w => {
    const targets = new Map(fansOf(c, w).flatMap(f => f.servers.map(s => [s.server.at.node.id, s.targetDbm] as const)))
    if (!targets.size) return []
    const f = w.carrier.frequencyMHz
    const lossAt = (way: Way | undefined) => (way ? lineLossDb(way.line.constants, way.lengthM, f) + 2 * CONNECTOR_PAIR_DB : 0)
    const branches = plan.branches.map(b => ({
      ...b,
      riserLossDb: lossAt(plan.toPoint.get(b.id)),
      outlets: b.outlets.map(o => ({
        ...o,
        cableLossDb: lossAt(plan.toAntenna.get(o.id)),
        targetDbm: targets.get(o.id) ?? o.targetDbm,
      })),
    }))
    const over = [...overTargets(zone!.fed, branches, 0).values()]
    return [`${w.carrier.band.name} ${num(Math.max(...over) - Math.min(...over), 1)}`]
  })
  return others.length ? `; apart on ${others.join(', ')} dB` : ''
}

function partsWords(limb: Limb): string {
  const counts = new Map<string, number>()
  const count = (l: Limb): void => {
    if (l.kind === 'outlet') return
    if (l.kind === 'branch') return count(l.limb)
    counts.set(l.partId, (counts.get(l.partId) ?? 0) + 1)
    for (const next of l.kind === 'splitter' ? l.outs : [l.through, l.tap]) count(next)
  }
  count(limb)
  return [...counts].map(([id, n]) => `${n} × ${sure(partById(id)).name.toLowerCase()}`).join(', ') || 'no part between'
}

const BETWEEN: ReadonlySet<Part['kind']> = new Set(['splitter', 'tap', 'pad', 'adapter'])
const TWO_PLUGS = 'adp-nn-plugs'
/** Parts of one point are drawn this far from each other, m. */
const APART_M = 0.15

/** Everything between the amplifier and its antennas taken out, and the solved tree put in. */
function rebuilt(c: Worked, fan: Fan, plan: Plan): Step[] {
  const tree = c.tree
  const designId = c.design.id
  const amp = fan.amplifier.at
  const gone = new Set<string>()
  for (const { server } of fan.servers)
    for (const v of wayTo(tree, server.index).slice(0, -1).reverse()) {
      if (v.at.node.id === amp.node.id) break
      if (BETWEEN.has(v.at.part.kind)) gone.add(v.at.node.id)
    }
  const steps: Step[] = [...gone].map(rowId => ({ table: 'nodes', op: 'delete', rowId, fields: {} }))
  const loose = tree.joints.filter(
    j =>
      fan.servers.some(s => s.server.at.node.id === j.to.at.node.id || s.server.at.node.id === j.from.at.node.id) &&
      !gone.has(j.from.at.node.id) &&
      !gone.has(j.to.at.node.id),
  )
  for (const j of loose) steps.push({ table: 'runs', op: 'delete', rowId: j.run.id, fields: {} })

  let n = 0
  const at = new Map<string, Point>([[amp.node.id, amp.node]])
  for (const { server } of fan.servers) at.set(server.at.node.id, server.at.node)
  const put = (partId: string, point: Point): string => {
    const key = `new:d${n++}`
    const here = { eastM: round2(point.eastM + APART_M * (n % 4)), northM: point.northM, upM: point.upM }
    at.set(key, here)
    steps.push(nodeStep(designId, key, sure(partById(partId)), here))
    return key
  }
  type Port = readonly [node: string, port: string]
  /** of the stock length that reaches where the parts really hang */
  const cable = (from: Port, to: Port, { line }: Way) => {
    const lengthM = stockLengthM(line, wayM(c.job.kind, c.building, entryOf(at, from[0]), entryOf(at, to[0])))
    steps.push(runStep(designId, `new:c${n++}`, { from, to, cable: { partId: line.id, part: line, lengthM } }))
  }
  /** one part to the next at one place: by two plugs where both are sockets */
  const screw = (from: Port, to: Port, point: Point) => {
    const adapter = put(TWO_PLUGS, point)
    steps.push(
      runStep(designId, `new:s${n++}`, { from, to: [adapter, 'in'], cable: null }),
      runStep(designId, `new:s${n++}`, { from: [adapter, 'out'], to, cable: null }),
    )
  }
  const antennaPort = (id: string): Port => [
    id,
    nth(sure(fan.servers.find(s => s.server.at.node.id === id)).server.at.part.ports, 0).id,
  ]

  const hang = (limb: Limb, from: Port, point: Point): void => {
    if (limb.kind === 'outlet') return void cable(from, antennaPort(limb.id), entryOf(plan.toAntenna, limb.id))
    if (limb.kind === 'branch') {
      const riser = plan.toPoint.get(limb.id)
      const here = entryOf(plan.points, limb.id)
      if (!riser || limb.limb.kind === 'outlet') return hang(limb.limb, from, point)
      const first = put(limb.limb.kind === 'branch' ? TWO_PLUGS : limb.limb.partId, here)
      cable(from, [first, 'in'], riser)
      return outsOf(limb.limb, first, here)
    }
    const part = put(limb.partId, point)
    screw(from, [part, 'in'], point)
    outsOf(limb, part, point)
  }
  const outsOf = (limb: Limb, part: string, point: Point): void => {
    if (limb.kind === 'splitter') limb.outs.forEach((out, i) => hang(out, [part, String(i + 1)], point))
    if (limb.kind === 'tap') {
      hang(limb.through, [part, 'through'], point)
      hang(limb.tap, [part, 'tap'], point)
    }
  }
  const [zone] = plan.distribution.zones
  const from: Port = [amp.node.id, sure(amp.part.ports.find(p => p.role === 'server')).id]
  hang(zone!.fed.limb, from, amp.node)
  return steps
}
