/** Readings correct the prediction, mast by mast: what was read tells how far the sum is off here. */
import { entryOf, nth } from '../sure'
import { lteSiteOf } from '../radio/cell-id'
import type { PathResult } from '../terrain/path'
import { median } from '../survey/stats'
import { ASSUMED_BANDWIDTH_MHZ, predictedRsrp } from './predict'
import { readingAntennaDbi } from '../survey/setups'
import type { Made } from '../survey/setups'
import type { Cell, JobDocument, Reading } from '../job/schema'

/** What a prediction over terrain is good to before anything was read, dB, one standard deviation. @source common practice (no source) */
export const PRIOR_SIGMA_DB = 9

/** What an outside wall takes where the wall itself is not asked, dB. Assumed. @source common practice (no source) */
const ENTRY_LOSS_DB = 12

/** Its two parts: what every mast shares at one site (trees, walls, the lie of the house), and what is each mast's own. Assumed. */
const SHARED_SIGMA_DB = 6
const OWN_SIGMA_DB = Math.sqrt(PRIOR_SIGMA_DB ** 2 - SHARED_SIGMA_DB ** 2)

/** Scatter of one outdoor spot about the mount, and of one indoors with its wall unknown, dB. Assumed. */
const SPOT_SIGMA_DB = 4
const INDOOR_SPOT_SIGMA_DB = 8

export interface Calibration {
  mastId: string
  /** what is added to the prediction, dB */
  offsetDb: number
  /** what it is good to after that, dB */
  sigmaDb: number
  /** readings of this very mast; 0 where only others were read here */
  readings: number
  spots: number
}

export interface Calibrations {
  of: Map<string, Calibration>
  /** what the masts that were read tell of those that were not; null where nothing was read */
  others: { offsetDb: number; sigmaDb: number } | null
}

/** The LTE mast's number; a cell of fewer than four figures is a name of the crew's own. */
const enbOf = (cellId: string): number | null => (cellId.length >= 4 ? lteSiteOf(cellId) : null)

/**
 * The mast that a reading names: by its cell, else by the LTE number that its cells share.
 * @param mine  the carrier whose SIM reads; its masts come first where a number is used twice
 */
export function mastOfReading(
  r: Pick<Reading, 'cellId' | 'technology'>,
  cells: readonly Cell[],
  carrierOf: (mastId: string) => string | undefined,
  mine: string | null,
): string | null {
  const id = r.cellId?.trim().toLowerCase()
  if (!id) return null
  const pick = (found: Cell[]): string | null =>
    (found.find(c => !mine || carrierOf(c.mastId) === mine) ?? found[0])?.mastId ?? null
  const exact = cells.filter(c => c.cellId?.toLowerCase() === id && c.technology === r.technology)
  if (exact.length) return pick(exact)
  const enb = r.technology === 'LTE' ? enbOf(id) : null
  return enb === null ? null : pick(cells.filter(c => c.technology === 'LTE' && c.cellId !== null && enbOf(c.cellId) === enb))
}

/**
 * Offsets per mast from the readings that name its cells, each corrected for the device's antenna,
 * for its height, and indoors for a wall. Part of what the sum is off by is shared by all masts at
 * one site, part is each mast's own: so a reading of one narrows the others too, and a mast that was
 * read is not thought worse than one that was not, merely for having been looked at.
 *
 * @source Bayes' rule for normal errors in two levels (shared ± 6 dB, own ± 6.7 dB, together ± 9 dB)
 */
export function calibrations(
  doc: JobDocument,
  readings: readonly Made<Reading>[],
  pathOf: (mastId: string) => PathResult | null,
  cellsOf: ReadonlyMap<string, Cell[]>,
): Calibrations {
  const seen = [...differences(doc, readings, pathOf, cellsOf)].map(([mastId, d]) => ({ mastId, ...d }))
  let weight = 1 / SHARED_SIGMA_DB ** 2
  let sum = 0
  for (const { mean, variance } of seen) {
    const w = 1 / (OWN_SIGMA_DB ** 2 + variance)
    weight += w
    sum += w * mean
  }
  const shared = sum / weight
  const sharedVariance = 1 / weight
  const of = new Map(
    seen.map(({ mastId, mean, variance, count, spots }) => {
      const trust = OWN_SIGMA_DB ** 2 / (OWN_SIGMA_DB ** 2 + variance)
      // What spots share (the house, the day) no number of them takes away.
      const sigmaDb = Math.max(2.5, Math.sqrt(trust * variance + (1 - trust) ** 2 * sharedVariance))
      return [mastId, { mastId, offsetDb: shared + trust * (mean - shared), sigmaDb, readings: count, spots }]
    }),
  )
  return { of, others: seen.length ? { offsetDb: shared, sigmaDb: Math.sqrt(sharedVariance + OWN_SIGMA_DB ** 2) } : null }
}

/** Read less predicted, per mast, over its spots and bands, dB, with the variance of that. */
function differences(
  doc: JobDocument,
  readings: readonly Made<Reading>[],
  pathOf: (mastId: string) => PathResult | null,
  cellsOf: ReadonlyMap<string, Cell[]>,
): Map<string, { mean: number; variance: number; count: number; spots: number }> {
  const carriers = new Map(doc.masts.map(m => [m.id, m.carrier]))
  const spots = new Map(doc.spots.map(s => [s.id, s]))
  const byMast = new Map<string, Map<string, number[]>>()
  for (const r of readings) {
    const spot = spots.get(r.spotId)
    const antennaDbi = readingAntennaDbi(r)
    if (!spot || r.rsrpDbm === null || !r.band || antennaDbi === null) continue
    const mastId = mastOfReading(r, doc.cells, id => carriers.get(id), r.setup?.sim?.carrier ?? doc.jobs[0]?.carrier ?? null)
    const path = mastId ? pathOf(mastId) : null
    const band = path?.bands.find(b => b.band === r.band)
    if (!mastId || !path || !band) continue
    const open = r.rsrpDbm - antennaDbi + (spot.indoors ? ENTRY_LOSS_DB : 0)
    const off =
      open -
      predictedRsrp(cellsOf.get(mastId) ?? [], path, {
        band,
        heightM: Math.max(0.5, spot.upM),
        bandwidthMHz: r.bandwidthMHz ?? ASSUMED_BANDWIDTH_MHZ,
      }).rsrpDbm
    const of = byMast.get(mastId) ?? new Map<string, number[]>()
    const key = `${spot.id} ${r.band}`
    of.set(key, [...(of.get(key) ?? []), off])
    byMast.set(mastId, of)
  }
  return new Map(
    [...byMast].map(([mastId, groups]) => {
      let weight = 0
      let sum = 0
      let count = 0
      for (const [key, offs] of groups) {
        const variance =
          (entryOf(spots, nth(key.split(' '), 0)).indoors ? INDOOR_SPOT_SIGMA_DB : SPOT_SIGMA_DB) ** 2 + 2.5 ** 2 / offs.length
        weight += 1 / variance
        sum += median(offs) / variance
        count += offs.length
      }
      return [
        mastId,
        { mean: sum / weight, variance: 1 / weight, count, spots: new Set([...groups.keys()].map(k => k.split(' ')[0])).size },
      ]
    }),
  )
}
