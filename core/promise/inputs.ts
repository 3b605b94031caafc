/** Inputs of the promise from what is known, each with how well it is known. */
import { nth, sure } from '../sure'
import { carriesRadio } from '../chain/data'
import type { Levels } from '../chain/levels'
import type { Tree } from '../chain/tree'
import { feedsInto } from '../chain/tree'
import type { RoomLevel } from '../coverage/rooms'
import type { RouterPart } from '../job/part'
import type { Job, Spot } from '../job/schema'
import { noisePerElementDbm, toDb, toLinear } from '../radio/levels'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { beforeAt, summariseSpot } from '../survey/spots'
import { sigmaOfMedian, summarise } from '../survey/stats'
import type { Summary } from '../survey/stats'
import { ASSUMED_BANDWIDTH_MHZ } from '../masts/predict'
import { num } from '../units'
import { ASSUMED_SHARE, calibrateShare, discriminationOf, LEAST_TESTS, ROOM_SIGMA_DB } from './promise'
import type { AddedCarrier, Belief, MeasuredCarrier, MeasureNext, PromiseInputs, Repeated } from './promise'

/** What was not read and is taken as usual: which fact, and in words. */
export type AssumptionCode = 'sinr' | 'share' | 'upload' | 'width' | 'wall' | 'mast' | 'carriers' | 'lengths' | 'leads' | 'lost'
export interface Assumption {
  code: AssumptionCode
  words: string
}

export interface PromiseGround {
  job: Job
  log: LogIndex
  before: SpotSummary[]
  tree: Tree
  levels: Levels
  rooms: RoomLevel[]
  /** every band that the kit carries, worked through */
  bands: readonly { levels: Levels | null; rooms: RoomLevel[] }[]
  /** of the SIM that is to stay, Mbit/s */
  cap: { downMbps: number | null; upMbps: number | null }
  /** what is used stays on the router's own Wi-Fi rather than on a lead to it */
  byWifi: boolean
  /** speed tests made with the very plan before it was fixed; null where none was */
  asPlanned: Pick<SpotSummary, 'down' | 'up'> | null
  /** whether calls come by what is used at the end: null where nobody asked, or nobody knows */
  calls: boolean | null
  /** mast's reference power per element, dBm, where it is known */
  mastElementDbm: number | null
}

/** SINR outside where none was read, at most, dB. Assumed. */
const USUAL_SINR_DB = 9
/** Reference power of a mast per resource element where its power is not known, dBm. @source 46 dBm over 600 elements, assumed */
export const MAST_ELEMENT_DBM = 18

export interface PromiseFrom {
  inputs: PromiseInputs
  room: string
  spotName: string | null
  on: string
  assumptions: Assumption[]
  /** what was read as often as anyone would be asked to */
  done: Set<MeasureNext['id']>
}

/** @returns null where the tree has neither a modem nor a room that it serves */
export function promiseInputs(g: PromiseGround): PromiseFrom | null {
  const { job, log, before, tree, levels } = g
  const source = levels.sources[0]
  if (!source) return null
  const served = hardest(g.rooms)
  const modem = levels.modems[0] ?? null
  if (!modem && !served) return null
  const assumptions: Assumption[] = []
  const assume = (code: AssumptionCode, words: string) => assumptions.push({ code, words })
  const { carrier } = levels
  const { start } = source
  const onBand = start.spot ? summariseSpot(log, start.spot, 'before', { band: carrier.band.name }) : null
  const base = baselineOf(job, log, before)
  const beside = base ? readBeside(log, base) : []
  let readRsrpDbm: Belief
  let readSinrDb: Belief
  if (onBand?.rsrp && onBand.sinr) {
    readRsrpDbm = { mean: onBand.rsrp.median, sigma: sigmaOfMedian(onBand.rsrp, 2) }
    readSinrDb = { mean: onBand.sinr.median, sigma: sigmaOfMedian(onBand.sinr, 2.5) }
  } else {
    const level = start.rsrpDbm - 3
    readRsrpDbm = { mean: level, sigma: 3 }
    readSinrDb = { mean: Math.min(USUAL_SINR_DB, level - noisePerElementDbm() - 2), sigma: 5 }
    assume('sinr', `SINR outside on ${carrier.band.name} (assumed ${num(readSinrDb.mean)} dB)`)
  }
  const { share, assumption } = shareAt(base, beside, carrier.bandwidthMHz)
  if (assumption) assumptions.push(assumption)
  const measuredUp = uploadAt(base)
  if (!measuredUp)
    assume('upload', base?.up ? 'upload (no level read where it was tested)' : 'upload (none tested, with its level)')
  if (carrier.assumed) assume('width', `carrier width ${num(carrier.bandwidthMHz)} MHz`)
  if (start.provenance === 'assumed') assume(start.spot ? 'wall' : 'mast', start.spot ? 'what the wall takes' : 'mast power')
  const loads = levels.amplifiers.filter(a => a.carriersFrom === 'assumed')
  if (loads.length) assume('carriers', `${nth(loads, 0).carriers} carriers in the amplifier’s band`)
  if (tree.joints.some(j => j.run.partId && !j.run.measured && carriesRadio(j))) assume('lengths', 'cable lengths not measured')
  if (tree.joints.some(j => j.leads.some(l => l.assumed))) assume('leads', 'the coax of an antenna’s own lead')
  const router = modem ? sure(tree.routers.find(r => r.node.id === modem.routerId)) : null
  const feeds = router ? new Set(feedsInto(tree, router.node.id).map(v => v.entry!.id)).size : 1
  const added = beside.flatMap(c => addedAfter(c, g, served && !modem ? served : null, modem?.routerId ?? null) ?? [])
  const lost = beside.filter(c => !added.some(a => a.band === c.band))
  if (lost.length) assume('lost', `${lost.map(c => c.band).join(', ')} not counted: mast or kit does not carry it`)
  return {
    inputs: {
      mountRsrpDbm: { mean: start.rsrpDbm, sigma: start.sigmaDb },
      readRsrpDbm,
      readSinrDb,
      netGainDb: { mean: modem ? modem.gainDb : donorGain(levels), sigma: 1.5 },
      discriminationDb: discriminationOf(source.turned.pattern.beamwidthDeg),
      share,
      shareSinrDb: share === ASSUMED_SHARE ? null : (base?.sinr?.median ?? null),
      measuredUp,
      mastElementDbm: g.mastElementDbm ?? MAST_ELEMENT_DBM,
      bandwidthMHz: carrier.bandwidthMHz,
      layers: feeds >= 2 ? 2 : 1,
      capMbps: g.cap.downMbps,
      capUpMbps: g.cap.upMbps,
      portLimitMbps: router ? passesOnMbps(router.part, g.byWifi) : null,
      noiseFigureDb: router?.part.noiseFigureDb ?? 9,
      booster: served && !modem ? throughAmplifier(g, levels, served) : null,
      added,
    },
    room: served && !modem ? served.spot.name : 'at the router',
    spotName: served && !modem ? served.spot.name : null,
    on: [carrier.band.name, ...added.map(c => c.band)].join(' + '),
    assumptions,
    done: new Set<MeasureNext['id']>([
      ...(often(onBand?.sinr) ? (['sinr'] as const) : []),
      ...(often(onBand?.rsrp) && start.provenance === 'measured' ? (['mount'] as const) : []),
      ...(often(base?.down) && base?.sinr ? (['share'] as const) : []),
    ]),
  }
}

const often = (s: Summary | null | undefined): boolean => (s?.count ?? 0) >= LEAST_TESTS

/** @returns the most that a router hands on, Mbit/s: through its port, or its own Wi-Fi where it has one */
export const passesOnMbps = (router: Pick<RouterPart, 'portLimitMbps' | 'wifiMbps'>, byWifi: boolean): number =>
  Math.min(router.portLimitMbps, (byWifi && router.wifiMbps) || Infinity)

/** What is compared with: the job's baseline spot, else the first with speed and SINR, as the set-up marked before read it. */
export function baselineOf(job: Job, log: LogIndex, before: readonly SpotSummary[]): SpotSummary | null {
  const spot = before.find(s => s.spot.id === job.baselineSpotId) ?? before.find(s => s.runs.length && s.sinr)
  return spot ? beforeAt(log, spot.spot) : null
}

/** @returns an upload with the level of that very place and set-up; null where either was not taken: no other place's stands for it */
export function uploadAt(s: SpotSummary | null): PromiseInputs['measuredUp'] {
  if (!s?.up || s.up.median <= 0 || !s.rsrp) return null
  return {
    mbps: { mean: s.up.median, sigma: sigmaOfMedian(s.up, s.up.median * SINGLE_TEST) },
    rsrpDbm: { mean: s.rsrp.median, sigma: sigmaOfMedian(s.rsrp, 2) },
  }
}
/** Of a single speed test, one standard deviation as a part of it. Assumed. */
const SINGLE_TEST = 0.3

/** @returns the share of the cell that the baseline's speed tells, and what had to be assumed for it */
export function shareAt(
  base: SpotSummary | null,
  beside: readonly ReadCarrier[],
  bandwidthMHz: number,
): { share: Belief; assumption: Assumption | null } {
  if (!base?.down || !base.sinr || base.down.median <= 0)
    return { share: ASSUMED_SHARE, assumption: { code: 'share', words: 'share of the cell (no speed test with SINR)' } }
  const { down, sinr } = base
  const spread = down.count > 1 ? Math.max(0.1, sigmaOfMedian(down, down.median * SINGLE_TEST) / down.median) : SINGLE_TEST
  const sinrDb = { mean: sinr.median, sigma: sigmaOfMedian(sinr, 2.5) }
  const others = beside.map((c): MeasuredCarrier => ({
    sinrDb: { mean: c.sinrDb ?? sinr.median, sigma: c.sinrDb === null ? 4 : sinrDb.sigma },
    bandwidthMHz: c.bandwidthMHz,
  }))
  return {
    share: calibrateShare(down.median, spread, [{ sinrDb, bandwidthMHz }, ...others], 2),
    assumption: down.count < 2 ? { code: 'share', words: 'load from a single speed test' } : null,
  }
}

export interface ReadCarrier {
  band: string
  bandwidthMHz: number
  rsrpDbm: number
  /** null where only the anchor's was shown */
  sinrDb: number | null
}

/** Carriers that the baseline's device used beside its anchor, as it read them. */
export function readBeside(log: LogIndex, base: SpotSummary): ReadCarrier[] {
  const setupId = base.readings[0]?.setupId ?? null
  const rows = log.readings.filter(
    r =>
      r.spotId === base.spot.id &&
      r.phase === 'before' &&
      r.setupId === setupId &&
      r.carrierRole !== 'anchor' &&
      r.band !== null &&
      r.band !== base.band,
  )
  return [...new Set(rows.map(r => r.band!))].flatMap(band => {
    const mine = rows.filter(r => r.band === band)
    const rsrp = summarise(mine.map(r => r.rsrpDbm))
    if (!rsrp) return []
    const widths = mine.flatMap(r => r.bandwidthMHz ?? [])
    return [
      {
        band,
        bandwidthMHz: widths.length ? Math.max(...widths) : ASSUMED_BANDWIDTH_MHZ,
        rsrpDbm: rsrp.median,
        sinrDb: summarise(mine.map(r => r.sinrDb))?.median ?? null,
      },
    ]
  })
}

/** @returns a carrier as the kit will give it; null where mast or kit does not carry its band */
function addedAfter(c: ReadCarrier, g: PromiseGround, served: RoomLevel | null, routerId: string | null): AddedCarrier | null {
  const work = g.bands.find(b => b.levels?.carrier.band.name === c.band)
  const source = work?.levels?.sources[0]
  if (!work?.levels || !source) return null
  const room = served ? work.rooms.find(r => r.spot.id === served.spot.id) : null
  const modem = work.levels.modems.find(m => m.routerId === routerId)
  if (served ? !room : !modem) return null
  return {
    band: c.band,
    bandwidthMHz: c.bandwidthMHz,
    mountRsrpDbm: source.start.rsrpDbm,
    readRsrpDbm: c.rsrpDbm,
    readSinrDb: c.sinrDb ?? Math.min(USUAL_SINR_DB, c.rsrpDbm - noisePerElementDbm() - 2),
    netGainDb: modem ? modem.gainDb : donorGain(work.levels),
    booster: room ? throughAmplifier(g, work.levels, room) : null,
  }
}

/** The needed room that gets least; of all rooms where none is needed. */
export function hardest(rooms: readonly RoomLevel[]): RoomLevel | null {
  const needed = rooms.filter(r => r.spot.needed)
  return (needed.length ? needed : rooms).reduce<RoomLevel | null>((a, b) => (!a || b.rsrpDbm < a.rsrpDbm ? b : a), null)
}

const donorGain = (levels: Levels): number => {
  const port = levels.ports.find(p => p.visit.parent < 0)
  return port ? port.gainDb : 0
}

/** What a phone hears in a room by itself: as it was read there, else as in the weakest room that was read. */
function directAt({ log, before }: PromiseGround, band: string, spot: Spot): number | null {
  const read = (s: Spot) => summariseSpot(log, s, 'before', { band }).rsrp?.median
  const others = before.filter(s => s.spot.indoors && s.bands.includes(band)).flatMap(s => read(s.spot) ?? [])
  return read(spot) ?? (others.length ? Math.min(...others) : null)
}

/** From the donor antenna's own port to a phone in a room: gain, and the noise that the way itself adds. */
function throughAmplifier(g: PromiseGround, levels: Levels, room: RoomLevel): Repeated {
  const server = sure(levels.servers.find(s => s.at.node.id === room.server.node.id))
  const air = sure(levels.ports.find(p => p.visit.parent < 0 && p.visit.donor.node.id === nth(levels.sources, 0).donor.node.id))
  return {
    gainDb: server.fedRsrpDbm - air.rsrpDbm,
    toPhoneDb: { mean: -room.lossDb, sigma: ROOM_SIGMA_DB },
    // What arrives at the antenna's own port beyond what the air brought through the same gain.
    noiseDbm: addedNoise(server.noiseDbm, noisePerElementDbm(0) + server.fedRsrpDbm - air.rsrpDbm),
    upGainDb: room.upGainDb,
    upMostDbm: room.upMostDbm,
    directRsrpDbm: directAt(g, levels.carrier.band.name, room.spot),
  }
}

const addedNoise = (allDbm: number, airDbm: number): number => {
  const rest = toLinear(allDbm) - toLinear(airDbm)
  return rest > 0 ? toDb(rest) : -200
}
