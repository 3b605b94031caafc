/** Antenna pattern where no measured one is given. */
import { angleBetween } from '../geo/angles'
import { positive } from '../check'

export interface Pattern {
  gainDbi: number
  /** half-power width in the horizontal plane, degrees; 360 for an omni */
  beamwidthDeg: number
  /** half-power width in the vertical plane, degrees; as horizontal where not known */
  verticalBeamwidthDeg?: number
  frontToBackDb: number
}

/** @returns loss from the peak at an angle off the axis, dB, >= 0. @source 3GPP TR 36.814 table A.2.1.1-2: min(12(φ/φ3dB)², Am) */
export function offAxisDb(angleDeg: number, beamwidthDeg: number, limitDb: number): number {
  if (beamwidthDeg >= 360) return 0
  return Math.min(12 * (angleDeg / positive('beamwidthDeg', beamwidthDeg)) ** 2, limitDb)
}

/**
 * Gain toward a direction, dBi. Both planes add and are cut at the front-to-back ratio.
 * @param azimuthDeg  horizontal direction looked at; `pointingDeg` the antenna's own
 * @param elevationDeg  above the horizon, seen from the antenna; `tiltDeg` the antenna's own
 */
export function gainToward(p: Pattern, pointingDeg: number, azimuthDeg: number, elevationDeg = 0, tiltDeg = 0): number {
  const h = offAxisDb(angleBetween(pointingDeg, azimuthDeg), p.beamwidthDeg, p.frontToBackDb)
  const vWidth = p.verticalBeamwidthDeg ?? (p.beamwidthDeg >= 360 ? 360 : p.beamwidthDeg)
  const v = offAxisDb(Math.abs(elevationDeg - tiltDeg), vWidth, Math.max(p.frontToBackDb, 12))
  return p.gainDbi - Math.min(h + v, Math.max(p.frontToBackDb, 12))
}

/** @returns degrees off axis that cost `lossDb`; null where the antenna is an omni or never loses that much */
export function degreesForLoss(p: Pick<Pattern, 'beamwidthDeg' | 'frontToBackDb'>, lossDb: number): number | null {
  if (p.beamwidthDeg >= 360 || lossDb > p.frontToBackDb) return null
  return p.beamwidthDeg * Math.sqrt(lossDb / 12)
}
