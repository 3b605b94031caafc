/** A booster as it behaves once it is switched on: it listens to itself, guards its output, and shuts down. */
import { decibels, milliwatts } from './physics'

export interface AmplifierSpec {
  gainDb: number
  /** the least gain it can set itself to; its gain itself where it does not listen to itself */
  lowestGainDb: number
  /** most it sends in its band, total, dBm */
  outputDbm: number
  /** total at its donor port above which it shuts down, dBm */
  shutDownDbm: number
}

export interface AmplifierRuns {
  state: 'runs' | 'held back' | 'overloaded' | 'oscillates'
  /** 0 where it does not run */
  gainDb: number
  /** what held it back most */
  by: 'nothing' | 'isolation' | 'output' | 'input'
}

/** How much of its loop an amplifier wants to see lost beyond its gain before it stays, dB. Assumed. */
const LOOP_SPARE_DB = 9
/** It finds its gain in steps, dB. Assumed. */
const STEP_DB = 1

/**
 * @param isolationDb  from its server port back to its donor port, dB
 * @param inDbm  everything in its band at the donor port, dBm
 */
export function switchOn(a: AmplifierSpec, isolationDb: number, inDbm: number): AmplifierRuns {
  if (inDbm > a.shutDownDbm) return { state: 'overloaded', gainDb: 0, by: 'input' }
  let gainDb = a.gainDb
  while (gainDb > a.lowestGainDb && gainDb > isolationDb - LOOP_SPARE_DB) gainDb -= STEP_DB
  // At its least gain it still rings where the loop gives back more than it loses.
  if (gainDb > isolationDb) return { state: 'oscillates', gainDb: 0, by: 'isolation' }
  const looped = gainDb < a.gainDb
  const over = inDbm + gainDb - a.outputDbm
  if (over > 0) return { state: 'held back', gainDb: gainDb - over, by: 'output' }
  return { state: looped ? 'held back' : 'runs', gainDb, by: looped ? 'isolation' : 'nothing' }
}

/** Everything in a band: so many carriers of a width, each of an RSRP, half of their elements sent on the average, dBm. */
export const bandTotalDbm = (rsrpDbm: readonly number[], widthMHz: number): number =>
  decibels(rsrpDbm.reduce((sum, r) => sum + milliwatts(r) * 0.5 * 60 * widthMHz, 0))

export interface LoopPlace {
  mhz: number
  /** between donor and inside antenna, m */
  metres: number
  /** gain of each toward the other, dBi */
  donorDbi: number
  serverDbi: number
  /** of all that stands between, dB */
  betweenDb: number
  /** of the cables on both sides, dB */
  linesDb: number
}

/** @returns what a wave loses from the server port round to the donor port, dB: never less than nothing */
export const roundTripDb = (l: LoopPlace): number =>
  Math.max(
    0,
    20 * Math.log10(l.mhz) +
      20 * Math.log10(Math.max(l.metres, 0.3)) -
      27.56 +
      l.betweenDb +
      l.linesDb -
      l.donorDbi -
      l.serverDbi,
  )
