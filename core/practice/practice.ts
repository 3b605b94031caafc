/** Exercises over the simulated world: a hidden mast, an antenna to be turned, and a score against the best possible. */
import { nth } from '../sure'
import { angleBetween } from '../geo/angles'
import { estimateHeading } from '../aim/estimate'
import { bestOf, heardNow, worldOf } from '../world/world'
import type { World, WorldAntenna } from '../world/world'

export interface Exercise {
  id: string
  title: string
  /** what it teaches, before */
  task: string
  seed: number
  antenna: WorldAntenna
  /** degrees between positions of the bracket; 0 turns freely */
  pinsDeg: number
  /** positions that cannot be reached */
  struckDeg: readonly number[]
  /** what is shown: the figure, five lamps, or nothing but the tone */
  shown: 'figure' | 'lamps' | 'tone'
  /** readings after which no more are given; null for as many as one likes */
  most: number | null
  /** how much livelier than usual it fades */
  fade: number
}

const PANEL: WorldAntenna = { gainDbi: 8, beamwidthDeg: 70, frontToBackDb: 18 }
const LOG_PERIODIC: WorldAntenna = { gainDbi: 10, beamwidthDeg: 50, frontToBackDb: 22 }
const YAGI: WorldAntenna = { gainDbi: 13, beamwidthDeg: 32, frontToBackDb: 22 }
const GRID: WorldAntenna = { gainDbi: 20, beamwidthDeg: 14, frontToBackDb: 30 }

const exercise = (
  n: number,
  title: string,
  task: string,
  o: Partial<Exercise> & Pick<Exercise, 'seed' | 'antenna'>,
): Exercise => ({
  id: String(n),
  title,
  task,
  pinsDeg: 0,
  struckDeg: [],
  shown: 'figure',
  most: null,
  fade: 1,
  ...o,
})

/** From the first day to hard. Seeds are chosen for what each teaches. */
export const EXERCISES: readonly Exercise[] = [
  exercise(1, 'First turn', 'A wide panel. Turn once round, then come back to the best.', { seed: 54, antenna: PANEL }),
  exercise(2, 'A narrower beam', 'Half as wide: steps of 30° may jump over the mast.', { seed: 28, antenna: YAGI }),
  exercise(3, 'It fades', 'The figure wavers by more than a step changes it. Hold still, read twice.', {
    seed: 9,
    antenna: LOG_PERIODIC,
    fade: 2,
  }),
  exercise(4, 'Two rises', 'One is the mast, one a wall. Read both before you lock.', { seed: 16, antenna: LOG_PERIODIC }),
  exercise(5, 'Eight pins', 'The bracket stands at eight positions and nowhere else.', { seed: 15, antenna: PANEL, pinsDeg: 45 }),
  exercise(6, 'Out of reach', 'Two of the eight are against the chimney.', {
    seed: 18,
    antenna: PANEL,
    pinsDeg: 45,
    struckDeg: [90, 135],
  }),
  exercise(7, 'By ear', 'Both hands on the pole: no figure, only the tone.', { seed: 21, antenna: LOG_PERIODIC, shown: 'tone' }),
  exercise(8, 'Five lamps', 'The box has lamps and nothing else. A lamp is about four decibels.', {
    seed: 24,
    antenna: LOG_PERIODIC,
    shown: 'lamps',
  }),
  exercise(9, 'Behind the ridge', 'The straight way is blocked. Does the map’s bearing still win?', {
    seed: 31,
    antenna: LOG_PERIODIC,
  }),
  exercise(10, 'A grid', 'Fourteen degrees wide. Most of the circle sounds alike.', { seed: 35, antenna: GRID }),
  exercise(11, 'Eight readings', 'Each takes half a minute and the weather turns: no more than eight.', {
    seed: 42,
    antenna: YAGI,
    most: 8,
  }),
  exercise(12, 'Six, and it fades', 'A beam, six readings, a lively sky.', { seed: 5, antenna: LOG_PERIODIC, most: 6, fade: 2 }),
]

/** One more, of any number. */
export function endless(seed: number): Exercise {
  const antennas = [PANEL, LOG_PERIODIC, YAGI]
  return exercise(13, `Place ${seed}`, 'Any antenna, any place: find it in the fewest readings.', {
    id: `seed-${seed}`,
    seed: 1000 + seed,
    antenna: nth(antennas, seed % antennas.length),
    fade: seed % 3 === 0 ? 2 : 1,
  })
}

/** Lamps from 0 to 5, four decibels each. @source common practice (no source) */
const LAMP_FROM_DBM = -112
const LAMP_DB = 4

/** @returns RSRP at that moment as the exercise shows it, dBm */
export function practiceLevel(w: World, e: Exercise, headingDeg: number, atS: number): number {
  const { rsrpDbm } = heardNow(w, { headingDeg, antenna: e.antenna, atS: atS * e.fade })
  const calm = heardNow(w, { headingDeg, antenna: e.antenna, atS: 0 }).rsrpDbm
  return calm + (rsrpDbm - calm) * e.fade
}
export const lampsOf = (rsrpDbm: number): number => Math.min(5, Math.max(0, Math.floor((rsrpDbm - LAMP_FROM_DBM) / LAMP_DB)))

export interface Score {
  /** 0…100 */
  points: number
  lostDb: number
  bestDeg: number
  mastDeg: number
  /** readings that the estimator of the program needs at this place */
  par: number
  /** what was missed, and why */
  said: string[]
}

const PER_DB = 12
const PER_READING = 3
const STEP_S = 12

/** @param lockedDeg  where the antenna was left  @param taken  headings at which was read, in order */
export function scoreAim(e: Exercise, lockedDeg: number, taken: readonly number[]): Score {
  const w = worldOf(e.seed)
  const allowed = reachable(e)
  const all = bestOf(w, e.antenna)
  const bestDeg = allowed.reduce((a, b) => (all.lostDb(b) < all.lostDb(a) ? b : a))
  const lostDb = Math.max(0, all.lostDb(lockedDeg) - all.lostDb(bestDeg))
  const par = parOf(e)
  const over = Math.max(0, taken.length - par)
  const points = Math.max(0, Math.round(100 - PER_DB * lostDb - PER_READING * over))
  return { points, lostDb, bestDeg, mastDeg: w.mastDeg, par, said: saidOf(e, w, { lockedDeg, bestDeg, lostDb, taken }) }
}

function saidOf(
  e: Exercise,
  w: World,
  { lockedDeg, bestDeg, lostDb, taken }: { lockedDeg: number; bestDeg: number; lostDb: number; taken: readonly number[] },
): string[] {
  const out: string[] = []
  const whole = (deg: number) => `${Math.round(deg) % 360}°`
  const near = taken.some(t => angleBetween(t, bestDeg) < e.antenna.beamwidthDeg / 2)
  if (lostDb < 0.5) out.push(`Locked within half a decibel of the best, ${whole(bestDeg)}.`)
  else if (!near)
    out.push(
      `Nothing was read within half a beam of the best, ${whole(bestDeg)}: a step of more than half the beam jumps over it.`,
    )
  else out.push(`The best is ${whole(bestDeg)}, ${Math.round(angleBetween(lockedDeg, bestDeg))}° from where it was locked.`)
  if (angleBetween(w.mastDeg, bestDeg) > e.antenna.beamwidthDeg / 2 && !e.pinsDeg)
    out.push(`The mast itself stands at ${whole(w.mastDeg)}, behind something: the way off a wall is the better one here.`)
  const wall = w.ways.slice(1).find(x => angleBetween(x.fromDeg, lockedDeg) < e.antenna.beamwidthDeg / 2)
  if (wall && lostDb >= 1) out.push(`What rises at ${whole((wall.fromDeg + 360) % 360)} comes off a wall or a hill.`)
  if (e.fade > 1 && new Set(taken.map(t => Math.round(t))).size === taken.length && lostDb >= 1)
    out.push('No heading was read twice: with such fading one reading is chance.')
  return out
}

/** Headings that the bracket has. */
export function reachable(e: Exercise): number[] {
  const step = e.pinsDeg || 5
  return Array.from({ length: 360 / step }, (_, i) => i * step).filter(h => !e.struckDeg.includes(h))
}

/** Readings after which the program's own estimator is content at this place. */
export function parOf(e: Exercise): number {
  const w = worldOf(e.seed)
  const steps: { headingDeg: number; value: number }[] = []
  const options = { beamwidthDeg: e.antenna.beamwidthDeg, reachable: reachable(e) }
  let now = estimateHeading(steps, options)
  const most = e.most ?? 14
  while (steps.length < most && (steps.length < 3 || now.plusMinusDeg > Math.max(e.antenna.beamwidthDeg / 4, e.pinsDeg / 2))) {
    const headingDeg = now.next!
    steps.push({ headingDeg, value: practiceLevel(w, e, headingDeg, steps.length * STEP_S) })
    now = estimateHeading(steps, options)
  }
  return steps.length
}
