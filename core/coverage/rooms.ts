/** What a phone shows at each indoor spot, from whichever inside antenna serves it best. */
import { jobOf } from '../job/schema'
import type { JobDocument, Spot } from '../job/schema'
import { gainToward } from '../radio/pattern'
import { toDb, toLinear, noisePerElementDbm, rsrpToTotalDbm } from '../radio/levels'
import { between } from '../site/frame'
import type { Point } from '../site/frame'
import { crossedDb, floorAt, surfacesBetween } from '../site/building'
import type { Building } from '../site/building'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import type { LogIndex } from '../survey/spots'
import { median } from '../survey/stats'
import { facingOf, turned } from '../chain/tree'
import type { AntennaNode, Tree, Turned } from '../chain/tree'
import type { Levels } from '../chain/levels'
import { exponentOf, needAtDbm } from '../site/use'
import { indoorLossDb } from './indoor'

export interface RoomLevel {
  spot: Spot
  /** the antenna that serves it, and how the way there is */
  server: AntennaNode
  distanceM: number
  floors: number
  crossedDb: number
  lossDb: number
  rsrpDbm: number
  /** noise and what the amplifier adds, per resource element, at the phone, dBm */
  noiseDbm: number
  needDbm: number
  met: boolean
  /** what leaves the donor toward the mast for a phone at full power, dBm; null where there is no amplifier on the way */
  upEirpDbm: number | null
  /** from a phone there to the air before the donor, dB, while the amplifier's uplink ceiling does not hold it */
  upGainDb: number
  /** EIRP to which that ceiling holds it, dBm */
  upMostDbm: number
  /** whether the amplifier's uplink ceiling holds it */
  upLimited: boolean
}

/** Less than a figure shows is no shortage, dB. */
const NO_SHORTAGE_DB = 0.05

/** Phone at full power, dBm. @source 3GPP TS 36.101 §6.2.2, power class 3, 23 dBm */
export const PHONE_DBM = 23

/** Loss from an inside antenna to a point, with the antenna's own facing, isotropic at the point. */
export function wayDb(
  b: Building,
  server: Turned,
  to: Point,
  frequencyMHz: number,
): { distanceM: number; crossedDb: number; lossDb: number } {
  const g = between(server.at.node, to)
  const surfaces = surfacesBetween(b, server.at.node, to, frequencyMHz)
  const wallsDb = crossedDb(surfaces.filter(s => s.kind === 'wall'))
  const slabsDb = crossedDb(surfaces) - wallsDb
  const n = exponentOf(floorAt(b.floors, to.upM).use, frequencyMHz)
  const loss = indoorLossDb({ distanceM: Math.max(g.distanceM, 0.5), frequencyMHz, n, slabsDb, wallsDb })
  return {
    distanceM: g.distanceM,
    crossedDb: slabsDb + wallsDb,
    lossDb: loss - gainToward(server.pattern, server, g.bearingDeg, g.elevationDeg),
  }
}

export function roomLevels(doc: JobDocument, tree: Tree, b: Building, levels: Levels): RoomLevel[] {
  const job = jobOf(doc)
  const { frequencyMHz } = levels.carrier
  const alive = levels.servers
    .filter(s => s.amplifier && s.amplifier.limitedBy !== 'shut down' && s.amplifier.gainDb > 0)
    .map(s => ({ ...s, turned: turned(s.at, frequencyMHz, facingOf(tree, s.at)) }))
  if (!alive.length) return []
  return doc.spots
    .filter(s => s.indoors)
    .map((spot): RoomLevel => {
      const ways = alive.map(server => ({ server, ...wayDb(b, server.turned, spot, frequencyMHz) }))
      const best = ways.reduce((x, y) => (y.server.fedRsrpDbm - y.lossDb > x.server.fedRsrpDbm - x.lossDb ? y : x))
      const lossDb = best.lossDb - DEVICE_GAIN_DBI.phone
      const needDbm = needAtDbm(job, spot)
      const { server } = best
      const rsrpDbm = server.fedRsrpDbm - lossDb
      const amp = server.amplifier!
      const upGainDb = server.upGainDb - lossDb
      const upMostDbm = amp.at.part.uplinkOutputDbm + server.upGainDb + server.toAmplifierDb - amp.gainDb
      return {
        spot,
        server: server.at,
        distanceM: best.distanceM,
        floors: Math.abs(floorAt(b.floors, server.at.node.upM - 0.01).level - floorAt(b.floors, spot.upM).level),
        crossedDb: best.crossedDb,
        lossDb,
        rsrpDbm,
        noiseDbm: toDb(toLinear(server.noiseDbm - lossDb) + toLinear(noisePerElementDbm())),
        needDbm,
        met: rsrpDbm >= needDbm - NO_SHORTAGE_DB,
        upEirpDbm: Math.min(PHONE_DBM + upGainDb, upMostDbm),
        upGainDb,
        upMostDbm,
        upLimited: PHONE_DBM + upGainDb > upMostDbm,
      }
    })
}

/** @returns the median that was read in a room on a band with the booster at work, dBm; null where it was not */
export function readWithBooster(log: LogIndex, spot: Spot, band: string): number | null {
  const read = log.readings.filter(
    r => r.spotId === spot.id && r.setup?.row.booster === 'on' && r.rsrpDbm !== null && (r.band === null || r.band === band),
  )
  return read.length ? median(read.map(r => r.rsrpDbm!)) : null
}

/** Total power of a server antenna over the carrier, EIRP, dBm: what people near it stand in. */
export const serverEirpDbm = (levels: Levels, at: AntennaNode, fedRsrpDbm: number): number =>
  rsrpToTotalDbm(fedRsrpDbm + turned(at, levels.carrier.frequencyMHz, 0).pattern.gainDbi, levels.carrier.resourceBlocks)
