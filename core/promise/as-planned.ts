/** Speed tests made with the plan itself before it was fixed: with its antenna on a pole, as high and turned as it is to stay. */
import type { Source } from '../chain/levels'
import { angleBetween } from '../geo/angles'
import type { Design } from '../job/schema'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { speedsOf } from '../survey/spots'

/** Held this near its planned height an antenna hears the same. Assumed, m. */
const SAME_HEIGHT_M = 1
/** Turned within so much of its beam it loses less than a decibel. @source 12 (θ/beam)² dB of a main lobe, 3GPP TR 36.942 */
const OF_BEAM = 0.25

interface Planned {
  log: LogIndex
  design: Design
  source: Source | null
  /** of a bearing, true to the site frame, degrees */
  toFrame: (trueDeg: number) => number
}

/**
 * @returns the speeds of the last set-up that was as the plan is, at the last spot it was tested at; null where none was, or
 *   where height or heading were not said
 */
export function testedAsPlanned({ log, design, source, toFrame }: Planned): Pick<SpotSummary, 'down' | 'up'> | null {
  if (!source) return null
  const { donor, turned } = source
  const alike = log.runs.filter(({ phase, setup }) => {
    if (phase !== 'between' || setup?.row.antenna !== 'outside' || setup.row.designId !== design.id) return false
    const { antennaUpM, antennaDeg, booster } = setup.row
    if (booster !== 'none' || antennaUpM === null || Math.abs(antennaUpM - donor.node.upM) > SAME_HEIGHT_M) return false
    if (turned.pattern.beamwidthDeg >= 360) return true
    const most = OF_BEAM * turned.pattern.beamwidthDeg
    return antennaDeg !== null && angleBetween(toFrame(antennaDeg), turned.azimuthDeg) <= most
  })
  const last = alike.reduce<(typeof alike)[number] | null>((a, b) => (!a || b.takenAtUtc >= a.takenAtUtc ? b : a), null)
  return last && speedsOf(alike.filter(r => r.setupId === last.setupId && r.spotId === last.spotId))
}
