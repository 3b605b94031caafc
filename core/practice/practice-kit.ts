/** Exercises beside the aim: a booster to be placed so that it runs, a corridor to be balanced, a skyline to be read. */
import { nth, sure } from '../sure'
import { seeded } from '../random'
import { roundTripDb, switchOn } from '../world/amplifier'
import type { AmplifierRuns, AmplifierSpec } from '../world/amplifier'

/** What every exercise ends with. */
export interface KitScore {
  /** 0…100 */
  points: number
  /** what was missed, and why */
  said: string[]
}

const clamp = (v: number, low: number, high: number): number => Math.min(high, Math.max(low, v))

interface Named {
  id: string
  title: string
  task: string
  seed: number
}

// A booster ---------------------------------------------------------------------------------------------------------

export interface BoosterExercise extends Named {
  kind: 'booster'
  amplifier: AmplifierSpec
  /** level in the air over the roof, everything in the band, dBm */
  airDbm: number
}

/** Where things are put: along the house from its middle, and over the ridge, m; what is set, dB. */
export interface BoosterPut {
  donorAlongM: number
  donorOverM: number
  serverAlongM: number
  gainDb: number
  padDb: 0 | 10 | 20
}

export const HOUSE = { halfM: 6, ridgeM: 6.5, ceilingM: 2.4, overM: 5 } as const
export const PADS = [0, 10, 20] as const
const DONOR_DBI = 9
/** Of a donor that looks away from the house, toward what hangs under it, dBi. Assumed. */
const DONOR_BACK_DBI = -7
const SERVER_DBI = 2
const LINES_DB = 5
const MHZ = 850
/** Where it is wanted: at the far end of the house, at a hand's height. */
const WANTED = { alongM: HOUSE.halfM - 0.5, upM: 1.2 }

export interface BoosterSwitched extends AmplifierRuns {
  /** in the hardest room, everything in the band, dBm; null where it does not run */
  roomDbm: number | null
  isolationDb: number
  inDbm: number
}

/** What walls of this house take, and how far its roof shields: what nobody is told. */
const secretsOf = (seed: number) => {
  const uniform = seeded(seed)
  return { roofDb: 4 + 12 * uniform(), wallDb: 1 + 3 * uniform() }
}

/** @returns what happens when it is switched on so */
export function switchBooster(e: BoosterExercise, put: BoosterPut): BoosterSwitched {
  const { roofDb, wallDb } = secretsOf(e.seed)
  const metres = Math.hypot(put.donorAlongM - put.serverAlongM, HOUSE.ridgeM + put.donorOverM - HOUSE.ceilingM)
  const isolationDb = roundTripDb({
    mhz: MHZ,
    metres,
    donorDbi: DONOR_BACK_DBI,
    serverDbi: SERVER_DBI - 3,
    betweenDb: roofDb,
    linesDb: LINES_DB + put.padDb,
  })
  // A metre higher hears about a decibel more, as far as a pole goes.
  const inDbm = e.airDbm + put.donorOverM + DONOR_DBI - LINES_DB / 2 - put.padDb
  const runs = switchOn(
    { ...e.amplifier, gainDb: put.gainDb, lowestGainDb: Math.min(put.gainDb, e.amplifier.lowestGainDb) },
    isolationDb,
    inDbm,
  )
  const d = Math.max(1, Math.hypot(put.serverAlongM - WANTED.alongM, HOUSE.ceilingM - WANTED.upM))
  const roomLossDb = 20 * Math.log10(MHZ) + 28 * Math.log10(d) - 28 + wallDb * d * 0.4
  return {
    ...runs,
    isolationDb,
    inDbm,
    roomDbm: runs.gainDb ? inDbm + runs.gainDb - LINES_DB / 2 + SERVER_DBI - roomLossDb : null,
  }
}

/** The best there is: every place by the half metre, every setting. */
export function bestBooster(e: BoosterExercise): { put: BoosterPut; roomDbm: number } {
  let best: { put: BoosterPut; roomDbm: number } | null = null
  for (let donorAlongM = -HOUSE.halfM; donorAlongM <= HOUSE.halfM; donorAlongM += 1)
    for (let donorOverM = 0; donorOverM <= HOUSE.overM; donorOverM += 1)
      for (let serverAlongM = -HOUSE.halfM + 0.5; serverAlongM < HOUSE.halfM; serverAlongM += 0.5)
        for (const padDb of PADS)
          for (let gainDb = e.amplifier.lowestGainDb; gainDb <= e.amplifier.gainDb; gainDb += 3) {
            const put = { donorAlongM, donorOverM, serverAlongM, gainDb, padDb }
            const { roomDbm } = switchBooster(e, put)
            if (roomDbm !== null && (!best || roomDbm > best.roomDbm)) best = { put, roomDbm }
          }
  return best!
}

const FREE_TRIES = 3

/** @param tries  times it was switched on, the last one included */
export function scoreBooster(e: BoosterExercise, put: BoosterPut, tries: number): KitScore & { best: BoosterPut } {
  const now = switchBooster(e, put)
  const best = bestBooster(e)
  const said: string[] = []
  const why: Record<AmplifierRuns['state'], string> = {
    'runs': 'It runs with the gain that was set.',
    'held back': `Held back to ${Math.round(now.gainDb)} dB by ${now.by === 'output' ? 'its output limit' : 'its own loop'}.`,
    'overloaded':
      `Its input hears ${Math.round(now.inDbm)} dBm: it shut down. ` +
      'Less gain does not help at the input, a pad or a lower donor does.',
    'oscillates':
      `The way round loses ${Math.round(now.isolationDb)} dB and the gain is ${put.gainDb}: it rings. ` +
      'Further apart first, less gain second.',
  }
  said.push(why[now.state])
  if (now.roomDbm === null) return { points: 0, said, best: best.put }
  const lostDb = Math.max(0, best.roomDbm - now.roomDbm)
  if (lostDb >= 1) said.push(`${Math.round(lostDb)} dB more reach the far room: ${differs(put, best.put)}.`)
  if (tries > FREE_TRIES) said.push(`Switched on ${tries} times; the sum beforehand saves most of them.`)
  const points = Math.round(clamp(100 - 5 * lostDb - 4 * Math.max(0, tries - FREE_TRIES), 0, 100))
  return { points, said, best: best.put }
}

function differs(put: BoosterPut, best: BoosterPut): string {
  const out: string[] = []
  if (Math.abs(best.donorAlongM - put.donorAlongM) >= 2) out.push('the donor nearer the other end')
  if (Math.abs(best.donorOverM - put.donorOverM) >= 1)
    out.push(`the donor ${best.donorOverM > put.donorOverM ? 'higher' : 'lower'}`)
  if (Math.abs(best.serverAlongM - put.serverAlongM) >= 1) out.push('the dome nearer the room that is wanted')
  if (best.padDb !== put.padDb) out.push(best.padDb ? `a pad of ${best.padDb} dB` : 'no pad')
  if (!out.length) out.push('the gain set otherwise')
  return out.join(', ')
}

// A corridor --------------------------------------------------------------------------------------------------------

export interface TreeExercise extends Named {
  kind: 'tree'
  /** from the amplifier to the first antenna, and from each to the next, m */
  cablesM: readonly number[]
  inDbm: number
}

export const TAPS_DB = [6, 8, 10, 12, 15, 20] as const
/** Beside what it takes out, a real tap loses so much, dB. @source data sheets of taps, 0.2 to 0.4 dB, from memory */
const TAP_EXCESS_DB = 0.3
/** 400-size cable at 1800 MHz, dB/m. @source data sheets of its kind, from memory */
const CABLE_DB = 0.194

/** What goes on past a tap, dB: what it takes out is missing. @source power conservation */
export const pastTapDb = (tapDb: number): number => -10 * Math.log10(1 - 10 ** (-tapDb / 10)) + TAP_EXCESS_DB

/** @param taps  of every antenna but the last, dB  @returns level at each antenna, dBm */
export function corridorLevels(e: TreeExercise, taps: readonly number[]): number[] {
  let level = e.inDbm
  return e.cablesM.map((m, i) => {
    level -= CABLE_DB * m
    const tap = taps[i]
    if (i === e.cablesM.length - 1 || tap === undefined) return level
    const out = level - tap
    level -= pastTapDb(tap)
    return out
  })
}

const spreadOf = (levels: readonly number[]): number => Math.max(...levels) - Math.min(...levels)

/** The evenest there is: every choice of taps tried. */
export function bestTaps(e: TreeExercise): { taps: number[]; spreadDb: number } {
  const count = e.cablesM.length - 1
  let best: { taps: number[]; spreadDb: number } | null = null
  for (let n = 0; n < TAPS_DB.length ** count; n++) {
    const taps = Array.from({ length: count }, (_, i) => nth(TAPS_DB, Math.floor(n / TAPS_DB.length ** i) % TAPS_DB.length))
    const spreadDb = spreadOf(corridorLevels(e, taps))
    if (!best || spreadDb < best.spreadDb) best = { taps, spreadDb }
  }
  return best!
}

/** @param readings  times the levels were read */
export function scoreTree(e: TreeExercise, taps: readonly number[], readings: number): KitScore & { best: number[] } {
  const levels = corridorLevels(e, taps)
  const spread = spreadOf(levels)
  const best = bestTaps(e)
  const said = [`From strongest to weakest ${spread.toFixed(1)} dB; ${best.spreadDb.toFixed(1)} can be had.`]
  const rising = taps.every((t, i) => !i || t <= nth(taps, i - 1))
  if (!rising)
    said.push('Nearest the amplifier the level is highest: there the tap takes out least, so its figure is the largest.')
  if (spread - best.spreadDb >= 1) said.push(`With ${best.taps.join(', ')} dB it would be even.`)
  if (readings > 2) said.push(`Read ${readings} times: cable and taps can be summed beforehand.`)
  const points = Math.round(clamp(100 - 8 * Math.max(0, spread - best.spreadDb) - 4 * Math.max(0, readings - 2), 0, 100))
  return { points, said, best: best.taps }
}

// A skyline ---------------------------------------------------------------------------------------------------------

export interface SkylineMast {
  name: string
  bearingDeg: number
  distanceKm: number
  /** its top over the eye, m */
  overM: number
}
export interface SkylineExercise extends Named {
  kind: 'skyline'
  /** elevation of what stands highest, every two degrees from `fromDeg` on */
  fromDeg: number
  elevationDeg: readonly number[]
  /** how far off the ridge is, km */
  ridgeKm: number
  masts: readonly SkylineMast[]
}

export const SKYLINE_STEP_DEG = 2
const NAMES = ['A', 'B', 'C'] as const

/** Elevation of a mast's top over a flat earth's horizon, degrees. Exact enough below 20 km. */
export const topDeg = (m: SkylineMast): number => (Math.atan2(m.overM, m.distanceKm * 1000) * 180) / Math.PI

const skyAt = (e: SkylineExercise, bearingDeg: number): number => {
  const at = (bearingDeg - e.fromDeg) / SKYLINE_STEP_DEG
  const i = Math.floor(at)
  const [a, b] = [e.elevationDeg[i] ?? 0, e.elevationDeg[i + 1] ?? e.elevationDeg[i] ?? 0]
  return a + (b - a) * (at - i)
}

/**
 * Loss over the ridge toward a mast, dB: one knife edge.
 * @source ITU-R P.526 §4.1, J(ν)
 */
export function ridgeLossDb(e: SkylineExercise, m: SkylineMast): number {
  const d1 = e.ridgeKm * 1000
  const d2 = Math.max(200, m.distanceKm * 1000 - d1)
  const h = Math.tan(((skyAt(e, m.bearingDeg) - topDeg(m)) * Math.PI) / 180) * d1
  const wave = 300 / MHZ
  const v = h * Math.sqrt((2 / wave) * (1 / d1 + 1 / d2))
  return v <= -0.78 ? 0 : 6.9 + 20 * Math.log10(Math.sqrt((v - 0.1) ** 2 + 1) + v - 0.1)
}

/** What is received of it against the others: nearer is louder, what stands before it takes off, dB. */
const worthDb = (e: SkylineExercise, m: SkylineMast): number => -ridgeLossDb(e, m) - 20 * Math.log10(m.distanceKm)

function skylineOf(n: Omit<Named, 'seed'>, seed: number, closeness: number): SkylineExercise {
  const uniform = seeded(seed)
  const fromDeg = 5 * Math.floor(60 * uniform())
  const waves = Array.from({ length: 6 }, (_, k) => ({
    size: (1.6 * uniform()) / (1 + 0.4 * k),
    phase: 6.28 * uniform(),
    per: (14 + 22 * uniform()) / (1 + k),
  }))
  const elevationDeg = Array.from({ length: 61 }, (_, i) =>
    Math.max(0.05, 2 + waves.reduce((s, w) => s + w.size * Math.sin((i * SKYLINE_STEP_DEG) / w.per + w.phase), 0)),
  )
  const bare = { ...n, kind: 'skyline' as const, seed, fromDeg, elevationDeg, ridgeKm: 0.6 + uniform() }
  const clear = Math.floor(3 * uniform())
  const masts = NAMES.map((name, i): SkylineMast => {
    const bearingDeg = Math.round(fromDeg + 15 + 40 * i + 10 * uniform())
    const distanceKm = Math.round((2.5 + 6 * uniform()) * 10) / 10
    const sky = skyAt({ ...bare, masts: [] }, bearingDeg)
    // One stands clear over the ridge, the others under it.
    const deg = i === clear ? sky + closeness * (0.4 + 0.5 * uniform()) : sky - closeness * (0.5 + uniform())
    return { name, bearingDeg, distanceKm, overM: Math.max(5, Math.round(Math.tan((deg * Math.PI) / 180) * distanceKm * 1000)) }
  })
  return { ...bare, masts }
}

export const bestMast = (e: SkylineExercise): SkylineMast => e.masts.reduce((a, b) => (worthDb(e, b) > worthDb(e, a) ? b : a))

export function scoreSkyline(e: SkylineExercise, chosen: string): KitScore & { best: string } {
  const best = bestMast(e)
  const m = sure(e.masts.find(x => x.name === chosen))
  const lostDb = worthDb(e, best) - worthDb(e, m)
  const of = (x: SkylineMast) =>
    `${x.name} stands ${topDeg(x).toFixed(1)}° up where the skyline is ${skyAt(e, x.bearingDeg).toFixed(1)}°` +
    (ridgeLossDb(e, x) > 0.5 ? `: ${Math.round(ridgeLossDb(e, x))} dB over the ridge` : ': clear')
  return { points: Math.round(clamp(100 - 6 * lostDb, 0, 100)), said: e.masts.map(of), best: best.name }
}

// The list ----------------------------------------------------------------------------------------------------------

export type KitExercise = BoosterExercise | TreeExercise | SkylineExercise

const HOME_BOOSTER: AmplifierSpec = { gainDb: 62, lowestGainDb: 35, outputDbm: 12, shutDownDbm: -38 }
const PLAIN_BOOSTER: AmplifierSpec = { ...HOME_BOOSTER, lowestGainDb: 50 }

export const KIT_EXERCISES: readonly KitExercise[] = [
  {
    kind: 'booster',
    id: '13',
    title: 'Make it run',
    task: 'Put the donor up and the dome where it is wanted, then switch on. Too near, and it hears itself.',
    seed: 71,
    amplifier: HOME_BOOSTER,
    airDbm: -66,
  },
  {
    kind: 'booster',
    id: '14',
    title: 'A mast next door',
    task: 'The mast is four hundred metres off, and this amplifier cannot come down far.',
    seed: 77,
    amplifier: PLAIN_BOOSTER,
    airDbm: -40,
  },
  {
    kind: 'tree',
    id: '15',
    title: 'Three in a corridor',
    task: 'Taps so that all three domes get alike.',
    seed: 1,
    cablesM: [10, 12, 12],
    inDbm: 6,
  },
  {
    kind: 'tree',
    id: '16',
    title: 'Five, and long cables',
    task: 'Cable eats what the taps leave: even within two decibels.',
    seed: 2,
    cablesM: [6, 18, 9, 22, 15],
    inDbm: 12,
  },
  skylineOf(
    {
      id: '17',
      title: 'Which is clear?',
      task: 'Three masts behind a ridge. Each stands at atan(height ÷ distance): which looks over it?',
    },
    31,
    1,
  ),
  skylineOf(
    { id: '18', title: 'By half a degree', task: 'The same, and all three are near the line. A nearer one may still win.' },
    47,
    0.45,
  ),
]

/** One more of a kind, of any number. */
export function endlessKit(kind: KitExercise['kind'], n: number): KitExercise {
  const seed = 5000 + n
  const uniform = seeded(seed)
  const named = { id: `${kind}-${n}`, title: `Place ${n}`, seed }
  if (kind === 'skyline') return skylineOf({ ...named, task: 'Which looks over the ridge?' }, seed, 0.4 + 0.6 * uniform())
  if (kind === 'tree')
    return {
      ...named,
      kind,
      task: 'Even, within what these taps can.',
      cablesM: Array.from({ length: 3 + Math.floor(3 * uniform()) }, () => 5 + Math.round(18 * uniform())),
      inDbm: 4 + Math.round(8 * uniform()),
    }
  return {
    ...named,
    kind,
    task: 'Run it, and reach the far room.',
    amplifier: uniform() < 0.5 ? HOME_BOOSTER : PLAIN_BOOSTER,
    airDbm: -74 + Math.round(36 * uniform()),
  }
}
