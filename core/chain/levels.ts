/** The level along the signal's way, worked part by part. */
import { between, storeyOf } from '../site/frame'
import type { Site, Spot, JobDocument } from '../job/schema'
import type { Kit } from './tree'
import { passLossDb, runLossDb } from './tree'
import type { LogIndex } from '../survey/spots'
import { summariseSpot } from '../survey/spots'
import type { Summary } from '../survey/stats'
import { USABLE_RSRP_DBM } from '../aim/bearings'
import type { Calibration } from '../survey/calibrate'
import { PRIOR_SIGMA_DB } from '../survey/calibrate'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { toFrame } from '../site/place'
import { ASSUMED_BANDWIDTH_MHZ, ASSUMED_MAST, blocksFor, predictedRsrp } from '../survey/predict'
import type { PathResult } from '../terrain/path'
import { atHeight } from '../terrain/path'
import { gainToward } from '../radio/pattern'
import { rsrpToTotalDbm, totalToRsrpDbm } from '../radio/levels'
import { ENTRY_LOSS_DB, indoorLossDb } from '../coverage/indoor'
import { isolation, willOscillate } from '../separation/isolation'
import type { Isolation, LoopState } from '../separation/isolation'
import type { Provenance } from '../judge/finding'
import { partById } from '../catalogue/parts'

/** Carriers sharing an amplifier's band where nobody has said. Assumed. */
export const ASSUMED_CARRIERS = 4

/** Mast-side angle of arrival is taken level; inside patterns use true elevation. */
export interface Stage {
  kind: 'air' | 'antenna' | 'line' | 'arrestor' | 'pad' | 'amplifier' | 'router' | 'inside'
  subjectId: string
  label: string
  gainDb: number
  /** total power of the carrier after this stage, dBm */
  levelDbm: number
  provenance: Provenance
}

export interface Start {
  /** RSRP an isotropic antenna would read at the mount, dBm */
  rsrpDbm: number
  sigmaDb: number
  provenance: Provenance
  spot: Spot | null
  read: Summary | null
  sinr: Summary | null
  device: keyof typeof DEVICE_GAIN_DBI | null
  heightGainDb: number
  entryDb: number
  words: string
}

export interface RoomLevel {
  spot: Spot
  distanceM: number
  floors: number
  lossDb: number
  rsrpDbm: number
  needDbm: number
  met: boolean
}

export interface Loop extends Isolation {
  alongM: number
  upM: number
  neededDb: number
  state: LoopState
  heldBackDb: number
  gainDb: number
}

export interface Chain {
  kit: Kit
  start: Start
  bandwidthMHz: number
  bandwidthAssumed: boolean
  resourceBlocks: number
  stages: Stage[]
  antennaGainDb: number
  /** loss from the outside antenna to the amplifier or the modem, dB */
  feedLossDb: number
  /** total of the carrier at the amplifier's or modem's port, dBm */
  portDbm: number
  portRsrpDbm: number
  loop: Loop | null
  amplifier: {
    carriers: number
    carriersAssumed: boolean
    inputAllDbm: number
    gainDb: number
    outputDbm: number
    outputLimitDbm: number
    limitedBy: 'nothing' | 'isolation' | 'output' | 'input' | 'shut down'
  } | null
  rooms: RoomLevel[]
}

/**
 * Where the chain starts: the reading nearest the mount on this band, corrected by the device's
 * antenna, by height and by what the wall took; without one, the mast's power over the path,
 * corrected by what was read of this mast on its other bands.
 */
export function startOfChain(
  doc: JobDocument,
  log: LogIndex,
  kit: Kit,
  path: PathResult | null,
  bandwidthMHz: number,
  calibration: Calibration | null = null,
): Start | null {
  const mount = kit.outside?.node
  const bandPath = path?.bands.find(b => b.band === kit.band.name)
  const heightM = Math.max(0.5, mount?.upM ?? 5)
  let best: { spot: Spot; read: Summary; sinr: Summary | null; device: Start['device']; score: number } | null = null
  for (const spot of doc.spots) {
    const s = summariseSpot(log, spot, 'before', kit.band.name)
    const readings = s.readings.filter(r => r.device !== 'outside antenna')
    if (!s.rsrp || !readings.length) continue
    const away = mount ? between(mount, spot).distanceM : 0
    const score = away + (spot.indoors ? 1000 : 0)
    if (!best || score < best.score)
      best = { spot, read: s.rsrp, sinr: s.sinr, device: readings[readings.length - 1]!.device, score }
  }
  if (best) {
    const heightGainDb = bandPath
      ? atHeight(bandPath.diffractionDb, Math.max(0.5, best.spot.upM)) - atHeight(bandPath.diffractionDb, heightM)
      : 0
    const entryDb = best.spot.indoors ? ENTRY_LOSS_DB : 0
    return {
      rsrpDbm: best.read.median - DEVICE_GAIN_DBI[best.device!] + heightGainDb + entryDb,
      sigmaDb: Math.hypot(best.read.count > 1 ? 1.5 : 3, heightGainDb ? 2 : 0, entryDb ? 5 : 0),
      provenance: best.spot.indoors ? 'assumed' : 'measured',
      spot: best.spot,
      read: best.read,
      sinr: best.sinr,
      device: best.device,
      heightGainDb,
      entryDb,
      words: `read ${best.read.median.toFixed(0).replace('-', '−')} at ${best.spot.name}, ${best.device}`,
    }
  }
  if (!path || !bandPath) return null
  const { rsrpDbm, assumed } = predictedRsrp(doc.cells, path, bandPath, heightM, bandwidthMHz)
  return {
    rsrpDbm: rsrpDbm + (calibration?.offsetDb ?? 0),
    sigmaDb: calibration ? Math.hypot(calibration.sigmaDb, BAND_TO_BAND_DB) : PRIOR_SIGMA_DB,
    provenance: 'assumed',
    spot: null,
    read: null,
    sinr: null,
    device: null,
    heightGainDb: 0,
    entryDb: 0,
    words: calibration
      ? `nothing read on ${kit.band.name}: predicted, corrected by ` +
        `${calibration.readings ? `${calibration.readings} readings of this mast` : 'what was read of others'}`
      : assumed
        ? `mast power assumed ${ASSUMED_MAST.powerDbm} dBm; nothing read on ${kit.band.name}`
        : `mast power known; nothing read on ${kit.band.name}`,
  }
}

/** Readings on one band say this much less of another of the same mast, dB. Assumed. */
const BAND_TO_BAND_DB = 3

/** What the reading itself says of the carrier's width, else what the design says, else assumed. */
export function bandwidthOf(log: LogIndex, kit: Kit): { bandwidthMHz: number; assumed: boolean } {
  if (kit.design.bandwidthMHz) return { bandwidthMHz: kit.design.bandwidthMHz, assumed: false }
  const read = log.readings.find(r => r.band === kit.band.name && r.bandwidthMHz)
  return read ? { bandwidthMHz: read.bandwidthMHz!, assumed: false } : { bandwidthMHz: ASSUMED_BANDWIDTH_MHZ, assumed: true }
}

/** How the donor and the inside antenna hear each other, and what the amplifier makes of it. */
export function loopOf(kit: Kit, bearingDeg: number | null): Loop | null {
  const { outside, inside, amplifier } = kit
  if (!outside || !inside || !amplifier) return null
  const geometry = between(outside.node, inside.node)
  if (geometry.distanceM < 0.05) return null
  const donorAz = outside.node.azimuthDeg ?? bearingDeg ?? 0
  const toInside = gainToward(outside.pattern, donorAz, geometry.bearingDeg)
  const toDonor = gainToward(inside.pattern, inside.node.azimuthDeg ?? geometry.bearingDeg + 180, geometry.bearingDeg + 180)
  const frequencyMHz = Math.min(kit.frequencyMHz, (kit.band.ulLowMHz + kit.band.ulHighMHz) / 2)
  const iso = isolation({
    alongM: geometry.groundM,
    upM: geometry.upM,
    frequencyMHz,
    gainTowardDbi: [toInside, toDonor],
    obstructionDb: kit.design.obstructionDb,
  })
  const loop = willOscillate(
    iso.isolationDb,
    amplifier.part.gainDb,
    kit.design.marginDb,
    Math.min(amplifier.part.lowestGainDb, amplifier.part.gainDb),
  )
  return {
    ...iso,
    alongM: geometry.groundM,
    upM: Math.abs(geometry.upM),
    neededDb: amplifier.part.gainDb + kit.design.marginDb,
    ...loop,
  }
}

export function computeChain(
  doc: JobDocument,
  log: LogIndex,
  kit: Kit,
  path: PathResult | null,
  site: Site,
  calibration: Calibration | null = null,
): Chain | null {
  const { bandwidthMHz, assumed: bandwidthAssumed } = bandwidthOf(log, kit)
  let blocks: number
  try {
    blocks = blocksFor(kit.band.name, bandwidthMHz)
  } catch {
    blocks = Math.max(6, Math.round(bandwidthMHz * 5))
  }
  const start = startOfChain(doc, log, kit, path, bandwidthMHz, calibration)
  if (!start || !kit.outside) return null
  const bearingDeg = path ? toFrame(doc, path.bearingDeg) : null
  const stages: Stage[] = []
  let level = rsrpToTotalDbm(start.rsrpDbm, blocks)
  stages.push({
    kind: 'air',
    subjectId: path?.mastId ?? 'air',
    label: start.words,
    gainDb: 0,
    levelDbm: level,
    provenance: start.provenance,
  })
  const push = (kind: Stage['kind'], subjectId: string, label: string, gainDb: number, provenance: Provenance) => {
    level += gainDb
    stages.push({ kind, subjectId, label, gainDb, levelDbm: level, provenance })
  }
  const pointing = kit.outside.node.azimuthDeg ?? bearingDeg ?? 0
  const antennaGainDb = gainToward(kit.outside.pattern, pointing, bearingDeg ?? pointing)
  push('antenna', kit.outside.node.id, kit.outside.part.name, antennaGainDb, kit.outside.covered ? 'computed' : 'assumed')
  const loop = loopOf(kit, bearingDeg)
  let feedLossDb = 0
  let portDbm = level
  let amplifier: Chain['amplifier'] = null
  for (const { node, run, line } of kit.order.slice(1)) {
    if (run) {
      const loss = runLossDb(run, line, kit.frequencyMHz)
      push('line', run.id, line?.name ?? 'line', -loss, run.measured ? 'computed' : 'assumed')
      if (!amplifier) feedLossDb += loss
    }
    if (node.role === 'arrestor' || node.role === 'pad') {
      const loss = passLossDb(node)
      push(node.role, node.id, partById(node.partId)?.name ?? node.role, -loss, 'computed')
      if (!amplifier) feedLossDb += loss
    } else if (node.role === 'amplifier' && kit.amplifier) {
      portDbm = level
      amplifier = amplify(kit, level, loop)
      push('amplifier', node.id, kit.amplifier.part.name, amplifier.gainDb, 'computed')
    } else if (node.role === 'router') {
      portDbm = level
      push('router', node.id, kit.router?.part.name ?? 'router', 0, 'computed')
    } else if (node.role === 'inside' && kit.inside) {
      push('inside', node.id, kit.inside.part.name, kit.inside.pattern.gainDbi, 'computed')
    }
  }
  if (!amplifier && !kit.router) portDbm = level
  const insideStage = stages.find(s => s.kind === 'inside')
  const fed = insideStage ? insideStage.levelDbm - insideStage.gainDb : null
  const rooms =
    fed !== null && amplifier && amplifier.limitedBy !== 'shut down' && loop?.state !== 'oscillating'
      ? roomLevels(doc, kit, site, fed, blocks)
      : []
  return {
    kit,
    start,
    bandwidthMHz,
    bandwidthAssumed,
    resourceBlocks: blocks,
    stages,
    antennaGainDb,
    feedLossDb,
    portDbm,
    portRsrpDbm: totalToRsrpDbm(portDbm, blocks),
    loop,
    amplifier,
    rooms,
  }
}

/** The amplifier at one input: what holds its gain, and its ceiling shared by the carriers in its band. */
function amplify(kit: Kit, inputDbm: number, loop: Loop | null): NonNullable<Chain['amplifier']> {
  const part = kit.amplifier!.part
  const carriers = kit.design.carriersInBand ?? ASSUMED_CARRIERS
  const share = 10 * Math.log10(carriers)
  const inputAllDbm = inputDbm + share
  const outputLimitDbm = part.outputDbm - share
  let gainDb = loop ? loop.gainDb : part.gainDb
  let limitedBy: NonNullable<Chain['amplifier']>['limitedBy'] = loop && loop.heldBackDb > 0 ? 'isolation' : 'nothing'
  if (inputAllDbm > part.shutDownDbm)
    return {
      carriers,
      carriersAssumed: !kit.design.carriersInBand,
      inputAllDbm,
      gainDb: 0,
      outputDbm: inputDbm,
      outputLimitDbm,
      limitedBy: 'shut down',
    }
  if (inputAllDbm > part.inputLimitDbm && part.gainDb - (inputAllDbm - part.inputLimitDbm) < gainDb) {
    gainDb = part.gainDb - (inputAllDbm - part.inputLimitDbm)
    limitedBy = 'input'
  }
  if (inputDbm + gainDb > outputLimitDbm) {
    gainDb = outputLimitDbm - inputDbm
    limitedBy = 'output'
  }
  return {
    carriers,
    carriersAssumed: !kit.design.carriersInBand,
    inputAllDbm,
    gainDb,
    outputDbm: inputDbm + gainDb,
    outputLimitDbm,
    limitedBy,
  }
}

/** RSRP a phone would show at each indoor spot. */
function roomLevels(doc: JobDocument, kit: Kit, site: Site, fedDbm: number, blocks: number): RoomLevel[] {
  const from = kit.inside!
  return doc.spots
    .filter(s => s.indoors)
    .map((spot): RoomLevel => {
      const g = between(from.node, spot)
      const floors = Math.abs(storeyOf(site, from.node.upM - 0.01) - storeyOf(site, spot.upM))
      const lossDb = indoorLossDb(Math.max(g.distanceM, 0.5), kit.frequencyMHz, floors)
      const gain = gainToward(from.pattern, from.node.azimuthDeg ?? g.bearingDeg, g.bearingDeg)
      const rsrpDbm = totalToRsrpDbm(fedDbm + gain - lossDb, blocks) + DEVICE_GAIN_DBI.phone
      return {
        spot,
        distanceM: g.distanceM,
        floors,
        lossDb: lossDb - gain - DEVICE_GAIN_DBI.phone,
        rsrpDbm,
        needDbm: USABLE_RSRP_DBM,
        met: rsrpDbm >= USABLE_RSRP_DBM,
      }
    })
}
