/** How high is worth it: level against antenna height, less the cable that reaches it. */
import { nth } from '../sure'
import { lineLossDb } from '../chain/line'
import { CONNECTOR_PAIR_DB } from '../chain/tree'
import { PARTS } from '../catalogue/parts'
import { isCoax } from '../job/part'
import type { LinePart } from '../job/part'
import { deltaBullington } from '../terrain/diffraction'
import { tightestClearance } from '../terrain/clearance'
import { computePath, profileOf } from '../terrain/path'
import type { PathInput } from '../terrain/path'
import type { Terrain } from '../terrain/blocks'
import { ASSUMED_BANDWIDTH_MHZ, predictedRsrp } from '../masts/predict'
import type { Cell } from '../job/schema'

export const LOWEST_M = 2
export const HIGHEST_M = 30

/** Cable beyond the height itself: to the box indoors, bends and drip loop, m. Assumed. */
export const REACH_M = 4

export interface HeightCurve {
  mastId: string
  band: string
  frequencyMHz: number
  /** metre by metre over the ground */
  heightM: number[]
  /** RSRP of an isotropic antenna there, dBm */
  rsrpDbm: number[]
  /** height from which the ray passes the ground, and from which 60 % of the first Fresnel zone is clear; null where not within 30 m */
  sightM: number | null
  clearM: number | null
  lines: LineCurve[]
}

export interface LineCurve {
  partId: string
  name: string
  /** loss of the line to each height, dB */
  lossDb: number[]
  /** RSRP at the foot of the line, dBm */
  netDbm: number[]
  /** lowest height within half a decibel of the most this line gives, m */
  bestM: number
}

/** @returns null where site and mast are the same place, or the mast does not send the band */
export function heightCurve(
  terrain: Terrain,
  input: PathInput,
  cells: readonly Cell[],
  { bandName, offsetDb = 0 }: { bandName: string; offsetDb?: number },
): HeightCurve | null {
  const found = profileOf(terrain, input)
  const path = computePath(terrain, { ...input, bands: [bandName] })
  const band = path?.bands[0]
  if (!found || !path || !band) return null
  const { profile, siteGroundM, mastGroundM, mastHeightM } = found
  const distanceKm = profile.distanceM.map(d => d / 1000)
  const heightM = Array.from({ length: HIGHEST_M - LOWEST_M + 1 }, (_, i) => LOWEST_M + i)
  const inOpen =
    predictedRsrp(
      cells,
      { ...path, bands: [band] },
      {
        band: { ...band, diffractionDb: band.diffractionDb.map(() => 0) },
        heightM: LOWEST_M,
        bandwidthMHz: ASSUMED_BANDWIDTH_MHZ,
      },
    ).rsrpDbm + offsetDb
  const rsrpDbm: number[] = []
  let sightM: number | null = null
  let clearM: number | null = null
  for (const h of heightM) {
    rsrpDbm.push(
      inOpen -
        deltaBullington({
          distanceKm,
          groundM: profile.groundM,
          txHeightM: h,
          rxHeightM: mastHeightM,
          frequencyMHz: band.frequencyMHz,
          k: input.k,
        }).lossDb,
    )
    const c = tightestClearance(profile, siteGroundM + h, {
      toM: mastGroundM + mastHeightM,
      frequencyMHz: band.frequencyMHz,
      k: input.k,
    })
    if (sightM === null && c.clearM >= 0) sightM = h
    if (clearM === null && c.ratio >= 0.6) clearM = h
  }
  const lines = PARTS.filter(isCoax).map(p => lineCurve(p, heightM, rsrpDbm, band.frequencyMHz))
  return { mastId: input.mastId, band: bandName, frequencyMHz: band.frequencyMHz, heightM, rsrpDbm, sightM, clearM, lines }
}

function lineCurve(part: LinePart, heightM: readonly number[], rsrpDbm: readonly number[], frequencyMHz: number): LineCurve {
  const lossDb = heightM.map(h => lineLossDb(part.constants, h + REACH_M, frequencyMHz) + 2 * CONNECTOR_PAIR_DB)
  const netDbm = rsrpDbm.map((v, i) => v - nth(lossDb, i))
  const top = Math.max(...netDbm)
  return {
    partId: part.id,
    name: part.name,
    lossDb,
    netDbm,
    bestM: nth(
      heightM,
      netDbm.findIndex(v => v >= top - 0.5),
    ),
  }
}

/** @returns what the next metre buys at a height, net of the line's own loss, dB */
export function nextMetreDb(c: HeightCurve, line: LineCurve, heightM: number): number {
  const i = Math.min(c.heightM.length - 2, Math.max(0, Math.round(heightM) - LOWEST_M))
  return nth(line.netDbm, i + 1) - nth(line.netDbm, i)
}
