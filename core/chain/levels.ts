/**
 * Levels, noise and limits at every port of a signal tree, for one band: down to the phones and modems,
 * and up from them.
 */
import { entryOf, nth, sure } from '../sure'
import { amplifierOn } from '../job/part'
import type { Band } from '../radio/bands'
import { noisePerElementDbm, rsrpToTotalDbm, sumDbm, toDb, toLinear, totalToRsrpDbm } from '../radio/levels'
import { gainToward } from '../radio/pattern'
import type { Provenance } from '../units'
import type { BandLoad, Start } from './start'
import { asPart, exitsOf, jointLossDb, turned } from './tree'
import type { AmplifierNode, AntennaNode, Tree, Turned, Visit } from './tree'

/** What is worked on: a band, where in it, and how wide its carrier is. */
export interface Carrier {
  band: Band
  frequencyMHz: number
  uplinkMHz: number
  bandwidthMHz: number
  /** where the width was neither read nor entered */
  assumed: boolean
  resourceBlocks: number
}

/** A donor with what it stands in. */
export interface Source {
  donor: AntennaNode
  turned: Turned
  /** of the mast in the site frame, degrees; null where none is chosen */
  bearingDeg: number | null
  start: Start
  load: BandLoad
}

export interface PortLevel {
  visit: Visit
  /** its index among the tree's visits */
  index: number
  /** loss of the cable or joint that leads here, dB */
  jointDb: number
  /** RSRP where the signal comes in, dBm; at a donor: in the air */
  entryRsrpDbm: number
  /** noise added since the air, per resource element, with what the air itself brings, dBm */
  entryNoiseDbm: number
  /** what the part does to it on the way on, dB; the least of its ways */
  gainDb: number
  /** RSRP after the part on that way, dBm */
  rsrpDbm: number
  provenance: Provenance
}

export type Limit = 'nothing' | 'isolation' | 'output' | 'input' | 'shut down'

export interface AmplifierState {
  at: AmplifierNode
  /** RSRP of the wanted carrier at its donor port, dBm; the strongest where several feed it */
  inputRsrpDbm: number
  /** total over everything in its band at the donor port, dBm */
  inputAllDbm: number
  carriers: number
  carriersFrom: Provenance
  loudest: string | null
  gainDb: number
  /** most that one carrier may leave with, total, dBm */
  carrierLimitDbm: number
  outputRsrpDbm: number
  limitedBy: Limit
  /** how far under its limits it stands: at the input, and at the output, dB; negative where over */
  inputMarginDb: number
  outputMarginDb: number
}

export interface ServerLevel {
  at: AntennaNode
  /** index of the visit */
  index: number
  /** RSRP that goes into the antenna, dBm */
  fedRsrpDbm: number
  noiseDbm: number
  /** from the antenna's port back to the donor's air, dB, with the amplifiers' gain in use */
  upGainDb: number
  /** the last amplifier before it, that limits what goes up; null where there is none */
  amplifier: AmplifierState | null
  /** from the antenna's port to that amplifier, dB */
  toAmplifierDb: number
}

export interface ModemLevel {
  index: number
  routerId: string
  port: string
  feed: string
  rsrpDbm: number
  noiseDbm: number
  /** from the air to the port, dB */
  gainDb: number
  /** from the antenna's own port on, dB, >= 0 */
  feedLossDb: number
}

export interface Levels {
  carrier: Carrier
  sources: Source[]
  ports: PortLevel[]
  amplifiers: AmplifierState[]
  servers: ServerLevel[]
  modems: ModemLevel[]
}

/** Noise of the air per resource element, dBm: 290 K. */
const AIR_NOISE_DBM = noisePerElementDbm(0)

/**
 * @param held  gain that the isolation leaves each amplifier, by node; its full gain where it is not named
 */
export function computeLevels(
  tree: Tree,
  carrier: Carrier,
  sources: readonly Source[],
  held: ReadonlyMap<string, { gainDb: number; oscillating: boolean }>,
): Levels {
  const byDonor = new Map(sources.map(s => [s.donor.node.id, s]))
  const states = new Map<string, AmplifierState>()
  let ports = portLevels(tree, carrier, byDonor, states)
  // An amplifier's gain waits for what reaches it; one that feeds another is settled a round earlier.
  for (let round = 0; round < tree.amplifiers.length; round++) {
    let settled = true
    for (const at of tree.amplifiers) {
      const state = amplifierState(at, tree, { ports, carrier, byDonor, held: held.get(at.node.id) })
      if (!state) continue
      settled &&= states.get(at.node.id)?.gainDb === state.gainDb
      states.set(at.node.id, state)
    }
    if (settled) break
    ports = portLevels(tree, carrier, byDonor, states)
  }
  const there = ports.filter((p): p is PortLevel => p !== null)
  return {
    carrier,
    sources: [...sources],
    ports: there,
    amplifiers: [...states.values()],
    servers: tree.visits.flatMap((v, index) => {
      const level = ports[index]
      if (!level || v.at.part.kind !== 'antenna' || v.parent < 0) return []
      return [serverLevel(tree, { ports, index, at: v.at as AntennaNode, level, states, carrier })]
    }),
    modems: tree.visits.flatMap((v, index): ModemLevel[] => {
      const level = ports[index]
      if (!level || v.at.part.kind !== 'router' || v.entry?.role !== 'cell') return []
      const source = entryOf(byDonor, v.donor.node.id)
      const atAntenna = nth(ports, rootOf(tree, index))
      return [
        {
          index,
          routerId: v.at.node.id,
          port: v.entry.id,
          feed: v.feed,
          rsrpDbm: level.entryRsrpDbm,
          noiseDbm: level.entryNoiseDbm,
          gainDb: level.entryRsrpDbm - source.start.rsrpDbm,
          feedLossDb: sure(atAntenna).rsrpDbm - level.entryRsrpDbm,
        },
      ]
    }),
  }
}

function rootOf(tree: Tree, index: number): number {
  let i = index
  while (nth(tree.visits, i).parent >= 0) i = nth(tree.visits, i).parent
  return i
}

/** A passive loss lets through what came and adds what its own warmth sends. @source Friis 1944; 290 K */
const afterLoss = (noiseDbm: number, lossDb: number): number =>
  toDb(toLinear(noiseDbm - lossDb) + toLinear(AIR_NOISE_DBM) * (1 - toLinear(-lossDb)))
const afterAmplifier = (noiseDbm: number, gainDb: number, noiseFigureDb: number): number =>
  toDb(toLinear(noiseDbm) + toLinear(AIR_NOISE_DBM) * (toLinear(noiseFigureDb) - 1)) + gainDb

function portLevels(
  tree: Tree,
  carrier: Carrier,
  byDonor: ReadonlyMap<string, Source>,
  states: ReadonlyMap<string, AmplifierState>,
): (PortLevel | null)[] {
  const out: (PortLevel | null)[] = []
  /** RSRP and noise that leave each visit, by the port they leave by */
  const leaving: { gainDb: number; noiseDbm: number }[][] = []
  tree.visits.forEach((visit, i) => {
    const { part } = visit.at
    if (visit.parent < 0) {
      const source = byDonor.get(visit.donor.node.id)
      if (!source) {
        out[i] = null
        return
      }
      const { pattern, covered } = source.turned
      const bearing = source.bearingDeg ?? source.turned.azimuthDeg
      const gainDb = gainToward(pattern, source.turned, bearing)
      out[i] = {
        visit,
        index: i,
        jointDb: 0,
        entryRsrpDbm: source.start.rsrpDbm,
        entryNoiseDbm: AIR_NOISE_DBM,
        gainDb,
        rsrpDbm: source.start.rsrpDbm + gainDb,
        provenance: covered ? 'computed' : 'assumed',
      }
      leaving[i] = [{ gainDb, noiseDbm: AIR_NOISE_DBM }]
      return
    }
    const before = out[visit.parent]
    if (!before || !visit.joint) {
      out[i] = null
      return
    }
    const parent = nth(tree.visits, visit.parent)
    const exits = parent.parent < 0 ? null : exitsOf(parent.at.part, parent.entry!)
    const exitIndex = exits
      ? Math.max(
          0,
          exits.findIndex(e => e.port.id === visit.exit!.id),
        )
      : 0
    const left = nth(nth(leaving, visit.parent), exitIndex)
    const jointDb = jointLossDb(visit.joint, carrier.frequencyMHz)
    const entryRsrpDbm = before.entryRsrpDbm + left.gainDb - jointDb
    const entryNoiseDbm = afterLoss(left.noiseDbm, jointDb)
    const gainDb = gainOf(visit, carrier, states)
    out[i] = {
      visit,
      index: i,
      jointDb,
      entryRsrpDbm,
      entryNoiseDbm,
      gainDb,
      rsrpDbm: entryRsrpDbm + gainDb,
      provenance: visit.joint.run.measured || !visit.joint.run.partId ? 'computed' : 'assumed',
    }
    leaving[i] = exitsOf(part, visit.entry!).map(e => {
      if (part.kind !== 'amplifier') return { gainDb: e.gainDb, noiseDbm: afterLoss(entryNoiseDbm, -e.gainDb) }
      return { gainDb, noiseDbm: afterAmplifier(entryNoiseDbm, gainDb, part.noiseFigureDb) }
    })
  })
  return out
}

/** What a part gives or takes on its best way on; of an inside antenna its peak gain. */
function gainOf(visit: Visit, carrier: Carrier, states: ReadonlyMap<string, AmplifierState>): number {
  const { part } = visit.at
  if (part.kind === 'antenna') return turned(visit.at as AntennaNode, carrier.frequencyMHz, null).pattern.gainDbi
  if (part.kind === 'amplifier') return states.get(visit.at.node.id)?.gainDb ?? 0
  const ways = exitsOf(part, visit.entry!).map(e => e.gainDb)
  return ways.length ? Math.max(...ways) : 0
}

/** The amplifier at what reaches it: what holds its gain, and its ceiling shared by the carriers in its band. */
function amplifierState(
  at: AmplifierNode,
  tree: Tree,
  {
    ports,
    carrier,
    byDonor,
    held,
  }: {
    ports: readonly (PortLevel | null)[]
    carrier: Carrier
    byDonor: ReadonlyMap<string, Source>
    held: { gainDb: number; oscillating: boolean } | undefined
  },
): AmplifierState | null {
  const part = amplifierOn(at.part, carrier.band.name)
  const arrivals = ports.filter(
    (p, i): p is PortLevel =>
      p !== null && nth(tree.visits, i).at.node.id === at.node.id && nth(tree.visits, i).entry?.role === 'donor',
  )
  if (!arrivals.length) return null
  const totals = arrivals.map(a => {
    const { load } = entryOf(byDonor, a.visit.donor.node.id)
    return { all: rsrpToTotalDbm(a.entryRsrpDbm, carrier.resourceBlocks) + load.overDb, load, rsrp: a.entryRsrpDbm }
  })
  const strongest = totals.reduce((a, b) => (b.rsrp > a.rsrp ? b : a))
  const inputAllDbm = sumDbm(totals.map(t => t.all))
  const wantedDbm = rsrpToTotalDbm(strongest.rsrp, carrier.resourceBlocks)
  // The ceiling is for everything in the band: each carrier leaves with its own share of what came in.
  const carrierLimitDbm = part.outputDbm - (inputAllDbm - wantedDbm)
  const common = {
    at: asPart(at, part),
    inputRsrpDbm: strongest.rsrp,
    inputAllDbm,
    carriers: strongest.load.carriers,
    carriersFrom: strongest.load.provenance,
    loudest: strongest.load.loudest,
    carrierLimitDbm,
    inputMarginDb: part.inputLimitDbm - inputAllDbm,
  }
  const off = (limitedBy: Limit): AmplifierState => ({
    ...common,
    gainDb: 0,
    outputRsrpDbm: strongest.rsrp,
    limitedBy,
    outputMarginDb: part.outputDbm - inputAllDbm,
  })
  if (inputAllDbm > part.shutDownDbm) return off('shut down')
  if (held?.oscillating) return off('isolation')
  let gainDb = Math.min(part.gainDb, held?.gainDb ?? part.gainDb)
  let limitedBy: Limit = gainDb < part.gainDb - 1e-9 ? 'isolation' : 'nothing'
  const byInput = part.gainDb - Math.max(0, inputAllDbm - part.inputLimitDbm)
  if (byInput < gainDb) {
    gainDb = byInput
    limitedBy = 'input'
  }
  if (inputAllDbm + gainDb > part.outputDbm) {
    gainDb = part.outputDbm - inputAllDbm
    limitedBy = 'output'
  }
  return {
    ...common,
    gainDb,
    outputRsrpDbm: strongest.rsrp + gainDb,
    limitedBy,
    outputMarginDb: part.outputDbm - inputAllDbm - gainDb,
  }
}

/** RSRP that an amplifier would send with its loop in order: full gain, up to what its output leaves one carrier, dBm. */
export const freeOutputDbm = (a: AmplifierState, carrier: Pick<Carrier, 'resourceBlocks'>): number =>
  Math.min(a.inputRsrpDbm + a.at.part.gainDb, totalToRsrpDbm(a.carrierLimitDbm, carrier.resourceBlocks))

function serverLevel(
  tree: Tree,
  {
    ports,
    index,
    at,
    level,
    states,
    carrier,
  }: {
    ports: readonly (PortLevel | null)[]
    index: number
    at: AntennaNode
    level: PortLevel
    states: ReadonlyMap<string, AmplifierState>
    carrier: Carrier
  },
): ServerLevel {
  const air = nth(ports, rootOf(tree, index))
  let amplifier: AmplifierState | null = null
  let toAmplifierDb = 0
  for (let i = nth(tree.visits, index).parent; i >= 0 && !amplifier; i = nth(tree.visits, i).parent) {
    const v = nth(tree.visits, i)
    if (v.at.part.kind === 'amplifier') {
      amplifier = states.get(v.at.node.id) ?? null
      toAmplifierDb = (ports[i]?.rsrpDbm ?? 0) - level.entryRsrpDbm
    }
  }
  return {
    at,
    index,
    fedRsrpDbm: level.entryRsrpDbm,
    noiseDbm: level.entryNoiseDbm,
    // A passive way loses the same both ways, and an amplifier is set alike for both (assumed); the air's
    // reading, carried back, is the mast's own to hear.
    upGainDb: level.entryRsrpDbm - sure(air).entryRsrpDbm + jointDifferenceDb(tree, index, carrier),
    amplifier,
    toAmplifierDb,
  }
}

/** What cables take less on the uplink's lower frequency, dB. */
function jointDifferenceDb(tree: Tree, index: number, carrier: Carrier): number {
  let sum = 0
  for (let i = index; i >= 0; i = nth(tree.visits, i).parent) {
    const { joint } = nth(tree.visits, i)
    if (joint) sum += jointLossDb(joint, carrier.frequencyMHz) - jointLossDb(joint, carrier.uplinkMHz)
  }
  return sum
}
