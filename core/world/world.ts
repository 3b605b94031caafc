/** A place with a truth of its own: what an antenna hears there, turned anyhow, at any moment. Of a seed, always the same. */
import { sure } from '../sure'
import { inRange } from '../check'
import { normals, seeded } from '../random'
import { decibels, linkMbps, lobeDb, milliwatts, THERMAL_DBM } from './physics'

export interface WorldAntenna {
  gainDbi: number
  /** 360 hears all round */
  beamwidthDeg: number
  frontToBackDb: number
}

/** One way by which the wanted mast is heard: straight, or off a wall or a hill. */
interface Way {
  fromDeg: number
  dbm: number
}

export interface World {
  seed: number
  /** where the mast truly is; what a planner is never told */
  mastDeg: number
  /** how far over the horizon it comes from, degrees */
  upDeg: number
  cellId: string
  widthMHz: number
  ways: Way[]
  /** what comes from all round, dBm per element */
  scatteredDbm: number
  /** other cells on the channel, each from its own side */
  others: (Way & { cellId: string })[]
  /** of the cell, what is left for one more user by the hour of the day */
  shareAt: (hour: number) => number
}

export interface WorldOptions {
  /** the mast stands about here: a real job's, off by what its list does not know */
  aboutDeg?: number
  /** level in the air, isotropic, about which the place is made, dBm per element */
  airDbm?: number
}

/** Blocks of the carriers that the world sends, by width. */
const BLOCKS: Record<number, number> = { 5: 25, 10: 50, 20: 100 }

export function worldOf(seed: number, o: WorldOptions = {}): World {
  const uniform = seeded(seed)
  const normal = normals(uniform)
  const mastDeg = ((((o.aboutDeg ?? 360 * uniform()) + (o.aboutDeg === undefined ? 0 : 4 * normal())) % 360) + 360) % 360
  const airDbm = o.airDbm ?? -96 + 8 * normal()
  const cell = () => String(0x1a2000 + Math.floor(uniform() * 0xffff))
  const busiest = 0.35 + 0.5 * uniform()
  const peak = 19 + 2 * normal()
  // One in six stands behind a ridge or a house: then the way off a wall may be the better one.
  const blockedDb = uniform() < 1 / 6 ? 6 + 8 * uniform() : 0
  const reflection = (): Way => ({ fromDeg: mastDeg + 60 + 240 * uniform(), dbm: airDbm - 4 - 8 * uniform() })
  const made = {
    seed,
    mastDeg,
    cellId: cell(),
    widthMHz: uniform() < 0.6 ? 10 : 20,
    ways: [{ fromDeg: mastDeg, dbm: airDbm - blockedDb }, ...Array.from({ length: 1 + Math.floor(2 * uniform()) }, reflection)],
    scatteredDbm: airDbm - 10 - 6 * uniform(),
    others: Array.from({ length: 1 + Math.floor(3 * uniform()) }, () => ({
      fromDeg: uniform() < 0.4 ? mastDeg + 8 * normal() : 360 * uniform(),
      dbm: airDbm - 5 - 15 * uniform(),
      cellId: cell(),
    })),
    shareAt: (hour: number) => 1 - busiest * (0.45 + 0.55 * Math.exp(-(((hour - peak) / 4) ** 2))),
  }
  // Drawn last: what is drawn before stays as it was.
  return { ...made, upDeg: 2 + 5 * normal() }
}

/** How the antenna stands, and when. */
export interface Stance {
  headingDeg: number
  /** over the horizon; not told, it looks to where the mast is */
  tiltDeg?: number
  antenna: WorldAntenna
  /** what walls, cable and height take before the receiver, dB */
  lossDb?: number
  noiseFigureDb?: number
  /** seconds since the world began */
  atS: number
}

export interface HeardNow {
  cellId: string
  rsrpDbm: number
  rsrqDb: number
  sinrDb: number
}

/** Of slow and fast fading, dB, and how long each holds, s. Assumed. */
const SLOW = { sigmaDb: 1.2, holdS: 17 }
const FAST = { sigmaDb: 1.6, holdS: 0.8 }

/** @returns what a modem behind that antenna shows at that moment */
export function heardNow(w: World, s: Stance): HeardNow {
  inRange('headingDeg', s.headingDeg, -720, 720)
  const { antenna } = s
  const toward = (deg: number) => gainDb(antenna, deg - s.headingDeg)
  const aroundDb = roundAboutDb(antenna)
  const fadeDb = drift(w.seed, s.atS, SLOW) + drift(w.seed ^ 0x5bd1, s.atS, FAST)
  const tiltedDb = s.tiltDeg === undefined ? 0 : -lobeDb(s.tiltDeg - w.upDeg, antenna.beamwidthDeg, antenna.frontToBackDb)
  const lossDb = (s.lossDb ?? 0) - fadeDb + tiltedDb
  const wanted =
    w.ways.reduce((sum, x) => sum + milliwatts(x.dbm + toward(x.fromDeg) - lossDb), 0) +
    milliwatts(w.scatteredDbm + aroundDb - lossDb)
  const others = w.others.reduce((sum, x) => sum + milliwatts(x.dbm + toward(x.fromDeg) - lossDb), 0)
  const noise = milliwatts(THERMAL_DBM + (s.noiseFigureDb ?? 7))
  // Half of the cell's own elements are sent on the average; the rest of the total is the others and noise.
  const blocks = sure(BLOCKS[w.widthMHz])
  const total = 12 * blocks * (0.5 * wanted + others + noise)
  return {
    cellId: w.cellId,
    rsrpDbm: decibels(wanted),
    rsrqDb: decibels((blocks * wanted) / total),
    sinrDb: decibels(wanted / (others + noise)),
  }
}

/** What a link of that quality loads at an hour, Mbit/s: the cell's share, the plan's cap, and what two layers bring. */
export function loadsNow(w: World, sinrDb: number, hour: number, o: { layers?: 1 | 2; capMbps?: number | null } = {}): number {
  return Math.min(o.capMbps ?? Infinity, w.shareAt(hour) * linkMbps(sinrDb, w.widthMHz, o.layers ?? 2))
}

/** Gain so far off its axis, dBi. */
const gainDb = (a: WorldAntenna, offDeg: number): number => a.gainDbi + lobeDb(offDeg, a.beamwidthDeg, a.frontToBackDb)

/** Gain over all directions round about, dBi. */
function roundAboutDb(a: WorldAntenna): number {
  let sum = 0
  for (let off = -180; off < 180; off += 10) sum += milliwatts(gainDb(a, off)) / 36
  return decibels(sum)
}

/** A number that wanders with time: normal values held a while, passed over smoothly. */
function drift(seed: number, atS: number, { sigmaDb, holdS }: { sigmaDb: number; holdS: number }): number {
  const at = atS / holdS
  const k = Math.floor(at)
  const part = at - k
  const [a, b] = [k, k + 1].map(i => normals(seeded(Math.imul(seed | 1, 0x9e3779b1) ^ i))())
  const angle = (part * Math.PI) / 2
  return sigmaDb * (a! * Math.cos(angle) + b! * Math.sin(angle))
}

/** The heading from which such an antenna hears the mast best in the mean, and how much worse another is, dB. */
export function bestOf(w: World, antenna: WorldAntenna): { headingDeg: number; lostDb: (headingDeg: number) => number } {
  const at = (headingDeg: number) => {
    return w.ways.reduce((sum, x) => sum + milliwatts(x.dbm + gainDb(antenna, x.fromDeg - headingDeg)), 0)
  }
  const headingDeg = Array.from({ length: 360 }, (_, h) => h).reduce((a, b) => (at(b) > at(a) ? b : a))
  return { headingDeg, lostDb: h => decibels(at(headingDeg) / at(h)) }
}
