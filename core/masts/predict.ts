/** What a mast's band should come to at the site, before any reading corrects it. */
import { angleBetween } from '../geo/angles'
import { bandByName, resourceBlocks, UNKNOWN_BAND } from '../radio/bands'
import { freeSpaceLossDb } from '../radio/freespace'
import { hataCase, hataLossDb, hataName } from '../radio/hata'
import type { Surroundings } from '../radio/hata'
import { totalToRsrpDbm } from '../radio/levels'
import { offAxisDb } from '../radio/pattern'
import { atHeight } from '../terrain/path'
import type { BandPath, PathResult } from '../terrain/path'
import type { Cell } from '../job/schema'

/** Mast power taken where none is known: a carrier's transmitter, antenna and feeder. @source design practice, assumed */
export const ASSUMED_MAST = { powerDbm: 46, gainDbi: 16, feederDb: 2, beamwidthDeg: 65, frontToBackDb: 25 } as const

/** Width of a carrier taken where none was read, MHz. Assumed. */
export const ASSUMED_BANDWIDTH_MHZ = 10

/**
 * The strongest sector's EIRP toward the site.
 * @returns dBm, and whether the mast's power was assumed
 */
export function eirpToward(
  cells: readonly Cell[],
  path: Pick<PathResult, 'mastId' | 'bearingDeg'>,
  band: string,
): { eirpDbm: number; assumed: boolean } {
  const toSite = (path.bearingDeg + 180) % 360
  let eirpDbm = -Infinity
  let assumed = true
  for (const c of cells) {
    if (c.mastId !== path.mastId || (c.band !== band && c.band !== UNKNOWN_BAND)) continue
    const off =
      c.azimuthDeg === null
        ? 0
        : offAxisDb(angleBetween(c.azimuthDeg, toSite), c.beamwidthDeg ?? ASSUMED_MAST.beamwidthDeg, ASSUMED_MAST.frontToBackDb)
    const e = (c.powerDbm ?? ASSUMED_MAST.powerDbm) + ASSUMED_MAST.gainDbi - ASSUMED_MAST.feederDb - off
    if (e > eirpDbm) {
      eirpDbm = e
      assumed = c.powerDbm === null
    }
  }
  return { eirpDbm, assumed }
}

/**
 * RSRP of a mast's band in the open at a height, isotropic antenna, before any reading corrects it.
 * @param cells  the mast's own, or any that hold them
 * @returns dBm, and whether the mast's power was assumed
 */
export function predictedRsrp(
  cells: readonly Cell[],
  path: PathResult,
  { band, heightM, bandwidthMHz }: { band: BandPath; heightM: number; bandwidthMHz: number },
): { rsrpDbm: number; assumed: boolean } {
  const { eirpDbm, assumed } = eirpToward(cells, path, band.band)
  const total = eirpDbm - band.freeSpaceDb - atHeight(band.diffractionDb, heightM)
  return { rsrpDbm: totalToRsrpDbm(total, blocksFor(band.band, bandwidthMHz)), assumed }
}

/**
 * Resource blocks for a band's usual subcarriers: 30 kHz where NR divides time, else 15 kHz. A width that
 * no carrier has is taken by its share of the spectrum: what was entered wrong must not stop the sum.
 */
export function blocksFor(bandName: string, bandwidthMHz: number): number {
  const band = bandByName(bandName)
  const subcarrierKHz = band?.technology === 'NR' && band.duplex === 'TDD' ? 30 : 15
  try {
    return resourceBlocks(band?.technology ?? 'LTE', bandwidthMHz, subcarrierKHz)
  } catch {
    return Math.max(6, Math.round((bandwidthMHz * 0.9 * 1000) / (12 * subcarrierKHz)))
  }
}

export interface SecondOpinion {
  model: string
  surroundings: Surroundings
  rsrpDbm: number
  lossDb: number
  baseM: number
}

/**
 * The same level by Hata's formula, where path and heights lie in its ranges.
 * @returns why there is none, in words, where they do not
 */
export function secondOpinion(
  cells: readonly Cell[],
  path: PathResult,
  {
    band,
    heightM,
    surroundings = 'open',
    bandwidthMHz = ASSUMED_BANDWIDTH_MHZ,
  }: { band: BandPath; heightM: number; surroundings?: Surroundings; bandwidthMHz?: number },
): SecondOpinion | string {
  const baseM = path.mastTopM - path.meanGroundM
  try {
    const lossDb = hataLossDb({
      frequencyMHz: band.frequencyMHz,
      baseM,
      mobileM: heightM,
      distanceKm: path.distanceM / 1000,
      surroundings,
    })
    const { eirpDbm } = eirpToward(cells, path, band.band)
    // Loss below free space would say that towns amplify.
    const loss = Math.max(lossDb, freeSpaceLossDb(path.distanceM, band.frequencyMHz))
    return {
      model: hataName(band.frequencyMHz),
      surroundings: hataCase(band.frequencyMHz, surroundings),
      rsrpDbm: totalToRsrpDbm(eirpDbm - loss, blocksFor(band.band, bandwidthMHz)),
      lossDb: loss,
      baseM,
    }
  } catch (e) {
    return e instanceof RangeError
      ? `outside its range: ` +
          `${e.message.replace('baseM', 'mast over mean ground').replace('mobileM', 'antenna').replace('distanceKm', 'distance, km,')}`
      : 'not computed'
  }
}
