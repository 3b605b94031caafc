/** Where a signal's way begins: what an isotropic antenna would read at a donor's place, and what else is in its band. */
import { nth, sure } from '../sure'
import { toRad } from '../geo/angles'
import type { Cell, JobDocument, Reading, Spot } from '../job/schema'
import type { Band } from '../radio/bands'
import { rsrpToTotalDbm, sumDbm } from '../radio/levels'
import { gainToward } from '../radio/pattern'
import { between } from '../site/frame'
import type { Point } from '../site/frame'
import { crossedDb, inside, surfacesBetween } from '../site/building'
import type { Building } from '../site/building'
import type { Calibration } from '../masts/calibrate'
import { PRIOR_SIGMA_DB } from '../masts/calibrate'
import { readingAntennaDbi } from '../survey/setups'
import type { Made } from '../survey/setups'
import { ASSUMED_BANDWIDTH_MHZ, ASSUMED_MAST, blocksFor, predictedRsrp } from '../masts/predict'
import type { LogIndex } from '../survey/spots'
import { summarise } from '../survey/stats'
import type { Summary } from '../survey/stats'
import type { PathResult } from '../terrain/path'
import { atHeight } from '../terrain/path'
import { num } from '../units'
import type { Provenance } from '../units'
import type { Carrier } from './levels'
import type { Turned } from './tree'

/** Readings on one band say this much less of another of the same mast, dB. Assumed. */
const BAND_TO_BAND_DB = 3
/** What a wall takes by the tables, and as both its sides were read, dB, one standard deviation. Assumed. */
const WALL_SIGMA_DB = 5
const MEASURED_WALL_SIGMA_DB = 3
/** A reading within this of an antenna was taken at its own place, m. */
const OWN_PLACE_M = 2.5
/** Far enough outside that no wall of the site stands behind it, m. */
const FAR_M = 600
/** Loss of each metre indoors beyond the outside wall. @source COST 231 final report §4.6, 0.6 dB/m, from memory */
const DEPTH_DB_PER_M = 0.6
/** Round a corner or through the far side the wave comes this much weaker, dB. Assumed. */
const OTHER_SIDE_DB = 6

export interface Start {
  /** RSRP an isotropic antenna would read at the donor, dBm */
  rsrpDbm: number
  sigmaDb: number
  provenance: Provenance
  spot: Spot | null
  /** RSRP as it was shown, and SINR */
  read: Summary | null
  sinr: Summary | null
  /** what read it: each device once, with the gain that was taken off */
  devices: { name: string; antennaDbi: number }[]
  heightGainDb: number
  /** what a wall between reading and donor took, dB: added for a donor outside, taken off for one within */
  wallDb: number
  words: string
}

/**
 * What comes through the walls to a place within, by the line toward the mast, else by the weakest side.
 * @returns dB, 0 outside
 */
export function entryLossDb(b: Building, place: Point, frequencyMHz: number, bearingDeg: number | null): number {
  if (!inside(b, place)) return 0
  if (b.measuredEntryDb !== null) return Math.max(0, b.measuredEntryDb)
  const toward = (deg: number): number => {
    const a = toRad(deg)
    const out = { eastM: place.eastM + FAR_M * Math.sin(a), northM: place.northM + FAR_M * Math.cos(a), upM: place.upM + 2 }
    const crossings = surfacesBetween(b, out, place, frequencyMHz)
    const depthM = crossings.length ? (1 - nth(crossings, 0).at) * FAR_M : 0
    return crossedDb(crossings) + DEPTH_DB_PER_M * Math.min(depthM, 30)
  }
  const sides = [0, 45, 90, 135, 180, 225, 270, 315].map(toward)
  const weakest = Math.min(...sides)
  return bearingDeg === null ? weakest : Math.min(toward(bearingDeg), weakest + OTHER_SIDE_DB)
}

/** @returns what both sides of the outside wall read on one band, dB; null until both were */
export function measuredEntryDb(doc: JobDocument, log: LogIndex, band: string | null): number | null {
  const open = (indoors: boolean) =>
    summarise(
      doc.spots
        .filter(s => s.indoors === indoors)
        .flatMap(s => isotropic(log.readings.filter(r => r.spotId === s.id && r.phase === 'before' && r.band === band))),
    )
  const [within, without] = [open(true), open(false)]
  return within && without ? without.median - within.median : null
}

/** Each reading without its own device's antenna, so that those of several devices can be joined. */
const isotropic = (readings: readonly Made<Reading>[]): number[] =>
  readings.flatMap(r => {
    const antennaDbi = readingAntennaDbi(r)
    return r.rsrpDbm === null || antennaDbi === null ? [] : [r.rsrpDbm - antennaDbi]
  })

const nameOf = (r: Made<Reading>): string => r.setup?.device?.name.toLowerCase() ?? 'phone'

export interface StartInput {
  doc: JobDocument
  log: LogIndex
  building: Building
  donor: Point
  band: string
  frequencyMHz: number
  bandwidthMHz: number
  path: PathResult | null
  /** of the mast, in the site frame; null where none is chosen */
  bearingDeg: number | null
  calibration: Calibration | null
}

/**
 * The reading at the donor's own place, else the nearest outdoors, else one indoors carried through the
 * wall; without any, the mast's power over the path, corrected by what was read of it on other bands.
 */
export function startAt(i: StartInput): Start | null {
  const bandPath = i.path?.bands.find(b => b.band === i.band)
  const donorWithin = inside(i.building, i.donor)
  const best = nearestReading(i, donorWithin)
  if (best) {
    const heightM = Math.max(0.5, i.donor.upM)
    const heightGainDb = bandPath
      ? atHeight(bandPath.diffractionDb, Math.max(0.5, best.spot.upM)) - atHeight(bandPath.diffractionDb, heightM)
      : 0
    const sides = best.spot.indoors !== donorWithin
    const took = sides ? entryLossDb(i.building, donorWithin ? i.donor : best.spot, i.frequencyMHz, i.bearingDeg) : 0
    const wallDb = sides && donorWithin ? -took : took
    const wallSigma = sides ? (i.building.measuredEntryDb === null ? WALL_SIGMA_DB : MEASURED_WALL_SIGMA_DB) : 0
    return {
      rsrpDbm: best.open.median + heightGainDb + wallDb,
      sigmaDb: Math.hypot(best.open.count > 1 ? 1.5 : 3, heightGainDb ? 2 : 0, wallSigma, best.awayM > 8 ? 2 : 0),
      provenance: sides && i.building.measuredEntryDb === null ? 'assumed' : 'measured',
      spot: best.spot,
      read: best.read,
      sinr: best.sinr,
      devices: best.devices,
      heightGainDb,
      wallDb,
      words: `read RSRP ${num(best.read.median)} at ${best.spot.name}, ${best.devices.map(d => d.name).join(' and ')}`,
    }
  }
  if (!i.path || !bandPath) return null
  const { rsrpDbm, assumed } = predictedRsrp(i.doc.cells, i.path, {
    band: bandPath,
    heightM: Math.max(0.5, i.donor.upM),
    bandwidthMHz: i.bandwidthMHz,
  })
  const wallDb = donorWithin ? -entryLossDb(i.building, i.donor, i.frequencyMHz, i.bearingDeg) : 0
  return {
    rsrpDbm: rsrpDbm + (i.calibration?.offsetDb ?? 0) + wallDb,
    sigmaDb: Math.hypot(
      i.calibration ? Math.hypot(i.calibration.sigmaDb, BAND_TO_BAND_DB) : PRIOR_SIGMA_DB,
      wallDb ? WALL_SIGMA_DB : 0,
    ),
    provenance: 'assumed',
    spot: null,
    read: null,
    sinr: null,
    devices: [],
    heightGainDb: 0,
    wallDb,
    words: i.calibration
      ? `nothing read on ${i.band}: predicted, corrected by ` +
        `${i.calibration.readings ? `${i.calibration.readings} readings of this mast` : 'what was read of others'}`
      : assumed
        ? `mast power assumed ${ASSUMED_MAST.powerDbm} dBm; nothing read on ${i.band}`
        : `mast power known; nothing read on ${i.band}`,
  }
}

function nearestReading(i: StartInput, donorWithin: boolean) {
  const found = i.doc.spots.flatMap(spot => {
    const readings = i.log.readings.filter(
      r => r.spotId === spot.id && r.phase === 'before' && r.band === i.band && readingAntennaDbi(r) !== null,
    )
    const open = summarise(isotropic(readings))
    if (!open) return []
    const awayM = between(i.donor, spot).distanceM
    const own = awayM <= OWN_PLACE_M && spot.indoors === donorWithin
    // Own place first, then outdoors, then what has to come through a wall.
    const score = awayM + (own ? 0 : spot.indoors ? 2000 : 1000)
    return [
      {
        spot,
        awayM,
        score,
        open,
        read: sure(summarise(readings.map(r => r.rsrpDbm))),
        sinr: summarise(readings.map(r => r.sinrDb)),
        devices: [
          ...new Map(
            readings
              .filter(r => r.rsrpDbm !== null)
              .map(r => [nameOf(r), { name: nameOf(r), antennaDbi: sure(readingAntennaDbi(r)) }]),
          ).values(),
        ],
      },
    ]
  })
  return found.reduce<(typeof found)[number] | null>((a, b) => (!a || b.score < a.score ? b : a), null)
}

/** What fills an amplifier's band at a donor. */
export interface BandLoad {
  /** everything in the band over the wanted carrier, dB, >= 0 */
  overDb: number
  carriers: number
  provenance: Provenance
  /** the loudest of them, in words; null where they are only assumed */
  loudest: string | null
}

export interface SeenMast {
  mastId: string
  name: string
  carrier: string
  frameBearingDeg: number
  path: PathResult
  cells: readonly Cell[]
  /** what readings correct its prediction by, dB */
  offsetDb: number
}

/** Carriers sharing an amplifier's band where nothing is known of them, at most. Assumed. */
const ASSUMED_CARRIERS = 4

/** @returns so many carriers as wide as the wanted one, as the band has room for, and no more than are usual */
export const assumedCarriers = (band: Band, bandwidthMHz: number): number =>
  Math.max(1, Math.min(ASSUMED_CARRIERS, Math.floor((band.dlHighMHz - band.dlLowMHz) / bandwidthMHz)))

/**
 * The sum of every carrier in the band at a donor: as read, else as predicted from its mast through the
 * donor's pattern, else four equal ones, where the band has room for so many.
 *
 * @param wantedDbm  the wanted carrier's total at the donor's antenna, dBm
 * @param seen  masts in the site frame with their paths
 */
export function bandLoad(at: {
  carrier: Pick<Carrier, 'band' | 'bandwidthMHz'>
  wantedDbm: number
  wantedMastId: string | null
  donor: Turned
  seen: readonly SeenMast[]
  entered: number | null
}): BandLoad {
  if (at.entered !== null)
    return { overDb: 10 * Math.log10(at.entered), carriers: at.entered, provenance: 'measured', loudest: null }
  const others: { dbm: number; words: string }[] = []
  // Without a mast chosen nobody knows which of those predicted is the one that was read.
  const masts = at.wantedMastId === null ? [] : at.seen
  for (const m of masts) {
    if (m.mastId === at.wantedMastId) continue
    const band = m.path.bands.find(b => b.band === at.carrier.band.name)
    if (!band) continue
    const { rsrpDbm } = predictedRsrp(m.cells, m.path, {
      band,
      heightM: Math.max(0.5, at.donor.at.node.upM),
      bandwidthMHz: ASSUMED_BANDWIDTH_MHZ,
    })
    const gain = gainToward(at.donor.pattern, at.donor, m.frameBearingDeg)
    const total = rsrpToTotalDbm(rsrpDbm + m.offsetDb + gain, blocksFor(at.carrier.band.name, ASSUMED_BANDWIDTH_MHZ))
    others.push({ dbm: total, words: `${m.carrier}, ${m.name}` })
  }
  if (!others.length) {
    const carriers = assumedCarriers(at.carrier.band, at.carrier.bandwidthMHz)
    return { overDb: 10 * Math.log10(carriers), carriers, provenance: 'assumed', loudest: null }
  }
  const loudest = others.reduce((a, b) => (b.dbm > a.dbm ? b : a))
  const all = sumDbm([at.wantedDbm, ...others.map(o => o.dbm)])
  return {
    overDb: all - at.wantedDbm,
    carriers: 1 + others.filter(o => o.dbm > all - 20).length,
    provenance: 'computed',
    loudest: loudest.dbm > at.wantedDbm ? loudest.words : null,
  }
}
