/** How far a router's own Wi-Fi reaches from where it stands. */
import type { JobDocument, Spot } from '../job/schema'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { between } from '../site/frame'
import type { Point } from '../site/frame'
import { crossedDb, surfacesBetween } from '../site/building'
import type { Building } from '../site/building'
import { indoorLossDb, OPEN_N } from './indoor'

/** What leaves a router's antennas, EIRP, dBm. @source 20 dBm in most rules for 2.4 GHz, from memory; 5 GHz alike, assumed */
const EIRP_DBM = 20
const MIDDLE_MHZ = { '2.4': 2437, '5': 5500 } as const
/** What hangs on Wi-Fi hears no better than a phone does: a camera's and a television's antennas are as small. */
const LISTENER_DBI = DEVICE_GAIN_DBI.phone
/** Level at a device from which it works well, and from which it works at all, dBm. @source common practice (no source) */
const WIFI_GOOD_DBM = -67
export const WIFI_USABLE_DBM = -75

export interface WifiReach {
  spot: Spot
  distanceM: number
  /** at a device there, dBm, on the slower and farther-reaching band, and on the faster one */
  slowDbm: number
  fastDbm: number
  state: 'good' | 'slow' | 'short'
}

/**
 * Level of a router's Wi-Fi at every place that has to be reached: rooms that are needed, and those where something hangs.
 * @source ITU-R P.1238 with the surfaces between counted one by one (P.2040), from memory
 */
export function wifiReach(doc: JobDocument, building: Building, from: Point): WifiReach[] {
  return doc.spots
    .filter(s => (s.indoors && s.needed) || s.hangs)
    .map(spot => {
      const { distanceM } = between(from, spot)
      const at = (frequencyMHz: number) =>
        EIRP_DBM +
        LISTENER_DBI -
        indoorLossDb({
          distanceM: Math.max(distanceM, 0.5),
          frequencyMHz,
          n: OPEN_N,
          slabsDb: crossedDb(surfacesBetween(building, from, spot, frequencyMHz)),
        })
      const slowDbm = at(MIDDLE_MHZ['2.4'])
      const fastDbm = at(MIDDLE_MHZ['5'])
      const state = fastDbm >= WIFI_GOOD_DBM ? 'good' : slowDbm >= WIFI_USABLE_DBM ? 'slow' : 'short'
      return { spot, distanceM, slowDbm, fastDbm, state }
    })
}

/** @returns the places that a router's Wi-Fi does not reach from there */
export const wifiShort = (reach: readonly WifiReach[]): Spot[] => reach.filter(r => r.state === 'short').map(r => r.spot)
