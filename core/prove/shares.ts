/**
 * A level gained, split into what brought it: antenna, cable, height, place. The total is measured, the shares are
 * computed, and what they do not come to stays named.
 */
import { lastOf, nth } from '../sure'
import type { Levels } from '../chain/levels'
import { changedBetween, readingAntennaDbi, setupWords } from '../survey/setups'
import { NINE_IN_TEN } from '../survey/stats'
import { num, signed } from '../units'
import type { SetupLine } from './proof'

export type Share = 'antenna' | 'cable' | 'height' | 'place' | 'unexplained'

export interface GainShares {
  totalDb: number
  /** the set-up it is reckoned from, in words */
  against: string
  shares: { share: Share; db: number; words: string }[]
  /** 9 in 10 of what chance and wrong figures leave between total and shares, dB */
  unsureDb: number
  /** what else changed, so that no share is proven by itself */
  reserve: string
}

/** Gain and cable by their data sheets, one standard deviation together, dB. Assumed. */
const SHEET_SIGMA_DB = 1.5

/**
 * @param lines  the set-ups of one place in their order: the last read through the design's outside antenna is held
 *   against the last before it read by a built-in one, of the same device where there is one
 * @param levels  the design worked through on that band
 * @returns null where the two are not there, or of two bands
 */
export function sharesOf(lines: readonly SetupLine[], levels: Levels | null, designId: string | null): GainShares | null {
  const modem = levels?.modems[0]
  const source = levels?.sources[0]
  if (!modem || !source) return null
  const band = levels.carrier.band.name
  const read = lines.filter(l => l.summary.rsrp && l.summary.band === band && l.setup)
  const afterAt = read.findLastIndex(l => l.setup!.row.antenna === 'outside' && l.setup!.row.designId === designId)
  const afterLine = read[afterAt]
  const builtIn = read.slice(0, Math.max(0, afterAt)).filter(l => l.setup!.row.antenna === 'built in')
  const same = builtIn.filter(l => l.setup!.row.deviceId === afterLine?.setup?.row.deviceId)
  const beforeLine = same.at(-1) ?? builtIn.at(-1)
  if (!afterLine || !beforeLine) return null
  const { summary: after } = afterLine
  const { summary: before } = beforeLine
  const total = after.rsrp!.median - before.rsrp!.median
  const ownDbi = before.readings.length ? readingAntennaDbi(nth(before.readings, 0)) : null
  if (ownDbi === null || !before.rsrp) return null
  const { start, turned } = source
  const antennaDb = turned.pattern.gainDbi - ownDbi
  const cableDb = modem.gainDb - turned.pattern.gainDbi
  // From the room's own air to that of the spot the antenna's level is reckoned from, and from there up to the antenna.
  const placeDb = start.rsrpDbm - start.heightGainDb - (before.rsrp.median - ownDbi)
  const unexplainedDb = total - antennaDb - cableDb - start.heightGainDb - placeDb
  const where = start.spot ? `${start.spot.name} against ${before.spot.name}, as read` : 'the mast’s power assumed'
  const shares: GainShares['shares'] = [
    {
      share: 'place',
      db: placeDb,
      words: start.wallDb ? `out of ${before.spot.name}, through the wall as computed` : where,
    },
    { share: 'height', db: start.heightGainDb, words: `${num(source.donor.node.upM, 1)} m up, as computed over the terrain` },
    {
      share: 'antenna',
      db: antennaDb,
      words: `${num(turned.pattern.gainDbi, 1)} dBi by its sheet against ${num(ownDbi, 1)} built in`,
    },
    { share: 'cable', db: cableDb, words: 'cable, plugs and arrestor, and what the aim is off' },
    { share: 'unexplained', db: unexplainedDb, words: '' },
  ]
  const unsureDb = NINE_IN_TEN * Math.hypot(start.sigmaDb, SHEET_SIGMA_DB, 1)
  lastOf(shares).words =
    Math.abs(unexplainedDb) <= unsureDb
      ? `within the ±${num(unsureDb, 1)} dB that readings and sheets leave`
      : unexplainedDb < 0
        ? 'more is missing than figures are unsure of: look at plugs, aim, and what stands before the antenna'
        : 'more came than the figures say: a reflection, a better cell, or the reading before was a poor one'
  const others = changedBetween(beforeLine.setup!, afterLine.setup!).filter(t => t !== 'antenna')
  return {
    totalDb: total,
    against: setupWords(beforeLine.setup!),
    shares,
    unsureDb,
    reserve:
      `shares are computed; only the total of ${signed(total)} dB is measured` +
      (others.length ? `, and ${others.join(', ')} changed with the antenna: which of them brought it is not shown` : ''),
  }
}
