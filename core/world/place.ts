/**
 * Whole places with a truth of their own, for what is promised: a wanted mast some way off behind clutter, on one of
 * two bands, others that disturb it, a cell whose load goes by the hour, walls, phones that read with errors, boosters
 * that are held back by their own loop or their output, and a link whose rate goes by the CQI table. Nothing here is
 * taken from the computation that is judged: other formulas, other shapes of pattern and other rates, and errors that
 * it does not know.
 */
import { nth } from '../sure'
import { normals, seeded } from '../random'
import { bandTotalDbm, roundTripDb, switchOn } from './amplifier'
import type { AmplifierRuns, AmplifierSpec } from './amplifier'
import { decibels, linkMbps, lobeDb, milliwatts, THERMAL_DBM } from './physics'

export interface Place {
  band: 'B20' | 'B3'
  mhz: number
  widthMHz: number
  /** RSRP in the open air at the outside spot, isotropic, dBm */
  airDbm: number
  /** others, each at an angle from the wanted mast as seen from the site, degrees, dBm per element */
  others: { offDeg: number; dbm: number; direct: number }[]
  /** share of the wanted that comes straight; the rest comes from all round */
  direct: number
  /** what the house takes on the way to the kitchen, dB */
  houseDb: number
  phoneDbi: number
  /** what roof and ceiling take between a donor and an inside antenna, dB */
  roofDb: number
  /** levels of the other carriers in the band, over the wanted one, dB */
  carriersDb: number[]
  phoneNoiseDb: number
  /** of the cell, what is left for one more user, at an hour of the day on an ordinary day */
  shareAt: (hour: number) => number
  up: Uplink
  /** how much darker another room is than the kitchen, dB */
  otherRoomDb: number
  /** at which the crew is there, and at which it is looked at afterwards on another day */
  hour: number
  normal: () => number
  uniform: () => number
}

/** How devices send here, which nobody but the network knows. */
interface Uplink {
  /** mean level that the mast wants of one block from a device 110 dB off, dBm, and the part of further loss made up for */
  at110Dbm: number
  alpha: number
  /** of the mast's receiver with its other users, per block, dBm */
  noiseDbm: number
  deviceDbm: number
  /** of the whole carrier, what one more sender gets */
  shareAt: (hour: number) => number
}

function uplinkOf(uniform: () => number, normal: () => number, busyAt: (hour: number) => number): Uplink {
  return {
    at110Dbm: -112 + 14 * uniform(),
    alpha: nth([0.7, 0.8, 1], Math.floor(3 * uniform())),
    noiseDbm: THERMAL_DBM + decibels(12) + 3 + normal() + 1 + 5 * uniform(),
    deviceDbm: 23 + 0.7 * normal(),
    // Fewer send than load, at the same hours.
    shareAt: hour => 1 - 0.7 * busyAt(hour),
  }
}

export function placeOf(seed: number): Place {
  const uniform = seeded(seed)
  const normal = normals(uniform)
  const low = uniform() < 0.6
  const [mhz, widthMHz] = low ? [806, 10] : [1842, 20]
  const airDbm = airOf({ mhz, widthMHz, km: 0.8 + 9 * uniform() ** 1.5, clutterDb: 7 * normal() + 5 })
  const busiest = 0.35 + 0.5 * uniform()
  const peak = 19 + 2 * normal()
  const busyAt = (hour: number) => busiest * (0.45 + 0.55 * Math.exp(-(((hour - peak) / 4) ** 2)))
  // Of its own numbers, so that what was seeded before stays as it was.
  const ownUniform = seeded(seed + 1)
  const up = uplinkOf(ownUniform, normals(ownUniform), busyAt)
  const otherRoomDb = 6 * ownUniform()
  // About half of what disturbs comes from the wanted mast itself, by its other sectors; the rest from anywhere.
  const others = Array.from({ length: 2 + Math.floor(3 * uniform()) }, () => ({
    offDeg: uniform() < 0.5 ? 4 * normal() : 360 * uniform() - 180,
    dbm: airDbm - 4 - 18 * uniform(),
    direct: 0.4 + 0.5 * uniform(),
  }))
  return {
    band: low ? 'B20' : 'B3',
    mhz,
    widthMHz,
    airDbm,
    others,
    direct: 0.6 + 0.35 * uniform(),
    houseDb: 2 + 20 * uniform(),
    roofDb: 4 + 14 * uniform(),
    carriersDb: Array.from({ length: 1 + Math.floor(3 * uniform()) }, () => -12 + 18 * uniform()),
    phoneDbi: -3 + 1.5 * normal(),
    phoneNoiseDb: 8 + 1.5 * normal(),
    shareAt: hour => 1 - busyAt(hour),
    hour: 8 + 10 * uniform(),
    up,
    otherRoomDb,
    normal,
    uniform,
  }
}

/**
 * What an isotropic antenna reads of a mast, dBm per element.
 * @source two slopes, 20 dB a decade to a kilometre and 37 beyond, common practice (no source); 46 dBm and 15 dBi a sector
 */
function airOf(p: { mhz: number; widthMHz: number; km: number; clutterDb: number }): number {
  const toOne = 32.45 + 20 * Math.log10(p.mhz) + 20 * Math.log10(Math.min(p.km, 1))
  const lossDb = toOne + 37 * Math.log10(Math.max(p.km, 1)) + Math.max(0, p.clutterDb)
  return Math.min(-78, Math.max(-114, elementDbm(p) + 15 - lossDb))
}

/** What is left of the cell now: of the hour, and of this day and minute. */
const shareNow = (w: Place): number => w.shareAt(w.hour) * (1 + 0.15 * w.normal())

/** An antenna as it stands: gain ahead, and gain by angle from the wanted mast, both less what the line takes. */
interface Mounted {
  db: (offDeg: number) => number
  /** over all directions round about */
  meanDb: number
}
const roundAbout = (db: number): Mounted => ({ db: () => db, meanDb: db })

/** Wanted and disturbing power after an antenna, per element. */
function caught(w: Place, antenna: Mounted): { wanted: number; others: number } {
  const by = (dbm: number, offDeg: number, direct: number) =>
    direct * milliwatts(dbm + antenna.db(offDeg)) + (1 - direct) * milliwatts(dbm + antenna.meanDb)
  return {
    wanted: by(w.airDbm, 0, w.direct),
    others: w.others.reduce((sum, o) => sum + by(o.dbm, o.offDeg, o.direct), 0),
  }
}

function received(w: Place, antenna: Mounted, noiseDb: number): { rsrpDbm: number; sinrDb: number } {
  const { wanted, others } = caught(w, antenna)
  return { rsrpDbm: decibels(wanted), sinrDb: decibels(wanted / (others + milliwatts(THERMAL_DBM + noiseDb))) }
}

export interface Read {
  rsrpDbm: number
  sinrDb: number
}

/** What a phone shows: whole decibels, with the fading of where and when it is held. */
export function phoneReads(w: Place, inside: boolean): Read {
  const r = received(w, roundAbout(w.phoneDbi - (inside ? w.houseDb : 0)), w.phoneNoiseDb)
  const fade = 2 * w.normal()
  return { rsrpDbm: Math.round(r.rsrpDbm + fade), sinrDb: Math.round(r.sinrDb + 0.4 * fade + 1.2 * w.normal()) }
}

/** What a phone loads in the kitchen, Mbit/s, at this minute. */
export function phoneLoads(w: Place): number {
  const r = received(w, roundAbout(w.phoneDbi - w.houseDb), w.phoneNoiseDb)
  return Math.max(0.05, shareNow(w) * linkMbps(r.sinrDb + w.normal(), w.widthMHz, 2))
}

/** Above this a mast hears no more by more power: one layer of a 16-point constellation. Assumed. */
const MOST_UP_DB = 13
/** Of what the link carries, what reference signals and control leave of the way up. Assumed. */
const USABLE_UP = 0.85

/**
 * Mbit/s sent with nobody else about: the mast gives a device as many blocks as its power fills.
 * @param heardDb  loss by what the device reads of the mast
 * @param upDb  loss from the device's own transmitter into the mast's receiver
 * @param mostDbm  what something on the way lets the device send at most
 */
function linkUpMbps(w: Place, heardDb: number, upDb: number, mostDbm = Infinity): number {
  const { up } = w
  const wantedDbm = up.at110Dbm + 110 + up.alpha * (heardDb - 110)
  let best = 0
  for (let blocks = 1; blocks <= 5 * w.widthMHz; blocks++) {
    const perBlock = Math.min(Math.min(up.deviceDbm, mostDbm) - decibels(blocks), wantedDbm)
    const sinrDb = Math.min(MOST_UP_DB, perBlock - upDb - up.noiseDbm)
    best = Math.max(best, USABLE_UP * linkMbps(sinrDb, 0.2 * blocks, 1))
  }
  return best
}

/** What a mast's transmitter gives an element, dBm: less a level, what is lost between the two, antennas counted. */
const elementDbm = (w: Pick<Place, 'widthMHz'>): number => 46 - decibels(60 * w.widthMHz)

/** What a phone sends from the kitchen, Mbit/s, at this minute. */
export function phoneSends(w: Place): number {
  const heard = received(w, roundAbout(w.phoneDbi - w.houseDb), w.phoneNoiseDb)
  const lossDb = elementDbm(w) - heard.rsrpDbm
  return Math.max(0.02, w.up.shareAt(w.hour) * (1 + 0.15 * w.normal()) * linkUpMbps(w, lossDb, lossDb + w.normal()))
}

/** What the router sends at the same hour of an ordinary day. */
export function routerSends(w: Place, k: RouterKit): number {
  const lossDb = elementDbm(w) - decibels(caught(w, mounted(w, k)).wanted)
  return w.up.shareAt(w.hour) * linkUpMbps(w, lossDb, lossDb)
}

export interface RouterKit {
  gainDbi: number
  beamwidthDeg: number
  frontToBackDb: number
  /** line and joints by their data sheets, dB */
  lossDb: number
  layers: 1 | 2
  noiseDb: number
}

/** Aimed to a few degrees, with a gain and a cable that are nearly what is printed. */
function mounted(w: Place, k: RouterKit): Mounted {
  const off = 6 * w.normal()
  const ahead = k.gainDbi + 0.8 * w.normal() - k.lossDb * (1 + 0.08 * w.normal())
  const db = (o: number) => ahead + lobeDb(o + off, k.beamwidthDeg, k.frontToBackDb)
  let sum = 0
  for (let o = -180; o < 180; o += 5) sum += milliwatts(db(o)) / 72
  return { db, meanDb: decibels(sum) }
}

/** What the router loads at the same hour of an ordinary day. */
export function routerLoads(w: Place, k: RouterKit): number {
  const r = received(w, mounted(w, k), k.noiseDb + 0.7 * w.normal())
  return w.shareAt(w.hour) * linkMbps(r.sinrDb, w.widthMHz, k.layers)
}

export interface BoosterKit {
  donor: RouterKit
  amplifier: AmplifierSpec & { noiseDb: number; upOutputDbm: number }
  /** from the amplifier's port into the inside antenna, dB, and that antenna's gain, dBi */
  feedLossDb: number
  serverDbi: number
  /** between donor and inside antenna, m */
  apartM: number
  /** from the inside antenna to the phone, metres, floors between */
  metres: number
  floors: number
  /** it is the kitchen, where the house was read */
  kitchen: boolean
}

/** Side and back lobes toward one another: an inside antenna hangs under a donor that looks away, dB under its gain. Assumed. */
const ASIDE_DB = 14

/** How that booster runs here. */
export function boosterRuns(w: Place, k: BoosterKit): AmplifierRuns {
  const donor = mounted(w, k.donor)
  const isolationDb = roundTripDb({
    mhz: w.mhz,
    metres: k.apartM,
    donorDbi: donor.db(0) + k.donor.lossDb - Math.min(ASIDE_DB, k.donor.frontToBackDb) + 2 * w.normal(),
    serverDbi: k.serverDbi - 3,
    betweenDb: w.roofDb + 2 * w.normal(),
    linesDb: k.donor.lossDb + k.feedLossDb,
  })
  const { wanted } = caught(w, donor)
  const inDbm = bandTotalDbm(
    [0, ...w.carriersDb].map(over => decibels(wanted) + over),
    w.widthMHz,
  )
  return switchOn(k.amplifier, isolationDb, inDbm)
}

/** Walls and furniture scatter so much about one slope indoors, dB. @source ITU-R P.1238, 8 dB */
const SCATTER_DB = 8

/**
 * What a phone loads and sends in a room that an inside antenna serves, beside what comes in from outside by itself; a
 * booster that does not run brings nothing.
 * @source one slope of 28, ITU-R P.1238
 */
export function phoneByBooster(w: Place, k: BoosterKit): { down: number; up: number } {
  const { gainDb } = boosterRuns(w, k)
  const loss = 20 * Math.log10(w.mhz) + 28 * Math.log10(Math.max(k.metres, 1)) - 28 + 8 * k.floors + SCATTER_DB * w.normal()
  const throughDb = gainDb - k.feedLossDb + k.serverDbi - loss + w.phoneDbi
  const through = gainDb ? milliwatts(throughDb) : 0
  const donor = mounted(w, k.donor)
  const repeated = caught(w, donor)
  const direct = caught(w, roundAbout(w.phoneDbi - w.houseDb - (k.kitchen ? 0 : w.otherRoomDb)))
  const noise = milliwatts(THERMAL_DBM + k.amplifier.noiseDb) * through + milliwatts(THERMAL_DBM + w.phoneNoiseDb)
  const wanted = repeated.wanted * through + direct.wanted
  const others = repeated.others * through + direct.others
  const heardDb = elementDbm(w) - decibels(wanted)
  // The same gain back, and no more than its output the other way gives; or past it, through the wall.
  const throughUpDb = elementDbm(w) - w.airDbm - throughDb - donor.db(0)
  const directUpDb = elementDbm(w) - decibels(direct.wanted)
  const mostDbm = k.amplifier.upOutputDbm - (throughDb - k.donor.lossDb)
  const up = Math.max(linkUpMbps(w, heardDb, directUpDb), gainDb ? linkUpMbps(w, heardDb, throughUpDb, mostDbm) : 0)
  return {
    down: w.shareAt(w.hour) * linkMbps(decibels(wanted / (others + noise)), w.widthMHz, 1),
    up: w.up.shareAt(w.hour) * up,
  }
}
