/** Antenna pattern where no measured one is given. */
import { angleBetween, toDeg, toRad } from '../geo/angles'
import { positive } from '../check'

export interface Pattern {
  gainDbi: number
  /** half-power width across, degrees; 360 for an omni */
  beamwidthDeg: number
  /** half-power width in elevation, degrees */
  verticalBeamwidthDeg: number
  /** how far below the peak back lobes and nulls lie at most, dB */
  frontToBackDb: number
  /** as measured: how far below the peak, dB, each `360 / length` degrees from the axis; the widths stand where none was */
  azimuthDb?: readonly number[]
  elevationDb?: readonly number[]
  /** alike all round its own axis, as a ceiling dome's straight down: how far below the peak, dB, from ahead to behind in even steps */
  aboutAxisDb?: readonly number[]
}

/** Which way an antenna is turned: true or site-frame azimuth, and tilt above the horizon. */
export interface Pointing {
  azimuthDeg: number
  tiltDeg: number
}

/** @returns loss from the peak at an angle off the axis, dB, >= 0. @source 3GPP TR 36.814 table A.2.1.1-2: min(12(φ/φ3dB)², Am) */
export function offAxisDb(angleDeg: number, beamwidthDeg: number, limitDb: number): number {
  if (beamwidthDeg >= 360) return 0
  return Math.min(12 * (angleDeg / positive('beamwidthDeg', beamwidthDeg)) ** 2, limitDb)
}

/**
 * Gain toward a direction, dBi. The losses of both planes add and stop at the front-to-back ratio.
 *
 * @param azimuthDeg  horizontal direction looked at
 * @param elevationDeg  above the horizon, seen from the antenna
 * @source 3GPP TR 36.814 table A.2.1.1-2
 */
export function gainToward(p: Pattern, pointing: Pointing, azimuthDeg: number, elevationDeg = 0): number {
  if (p.aboutAxisDb) return p.gainDbi - aboutAxisDb(p.aboutAxisDb, angleOff(pointing, azimuthDeg, elevationDeg))
  const across = p.azimuthDb
    ? planeDb(p.azimuthDb, azimuthDeg - pointing.azimuthDeg)
    : offAxisDb(angleBetween(pointing.azimuthDeg, azimuthDeg), p.beamwidthDeg, p.frontToBackDb)
  // What lies behind a beam is seen upside down: straight back is straight back, whatever the tilt.
  const behind = p.beamwidthDeg < 360 && angleBetween(pointing.azimuthDeg, azimuthDeg) > 90
  const tilt = behind ? -pointing.tiltDeg : pointing.tiltDeg
  const upright = p.elevationDb
    ? planeDb(p.elevationDb, elevationDeg - tilt)
    : offAxisDb(Math.abs(elevationDeg - tilt), p.verticalBeamwidthDeg, p.frontToBackDb)
  // A measured plane may lie deeper than the front-to-back ratio says: the deeper of the two is the floor.
  const most = Math.max(p.frontToBackDb, p.azimuthDb ? across : 0, p.elevationDb ? upright : 0)
  return p.gainDbi - Math.min(across + upright, most)
}

/** @returns loss of a measured plane at an angle from its axis, between its samples in a straight line, dB */
export function planeDb(plane: readonly number[], angleDeg: number): number {
  const at = ((((angleDeg % 360) + 360) % 360) * plane.length) / 360
  const i = Math.floor(at) % plane.length
  const next = plane[(i + 1) % plane.length]!
  return plane[i]! + (at - Math.floor(at)) * (next - plane[i]!)
}

/** @returns loss at an angle off the axis, 0…180, between the samples in a straight line, dB */
export function aboutAxisDb(losses: readonly number[], offDeg: number): number {
  const at = (Math.min(180, Math.max(0, offDeg)) / 180) * (losses.length - 1)
  const i = Math.min(losses.length - 2, Math.floor(at))
  return losses[i]! + (at - i) * (losses[i + 1]! - losses[i]!)
}

/**
 * What an antenna radiates in all directions together over what it is fed, dB: never above 0.
 * @source the mean of a directivity over the sphere is 1
 */
export function meanOverSphereDb(p: Pattern, stepDeg = 3): number {
  let sum = 0
  let weight = 0
  for (let e = -90 + stepDeg / 2; e < 90; e += stepDeg) {
    const w = Math.cos(toRad(e))
    for (let a = stepDeg / 2; a < 360; a += stepDeg) {
      sum += w * 10 ** (gainToward(p, { azimuthDeg: 0, tiltDeg: 0 }, a, e) / 10)
      weight += w
    }
  }
  return 10 * Math.log10(sum / weight)
}

/** @returns the angle between where an antenna points and a direction, 0…180 */
export function angleOff(pointing: Pointing, azimuthDeg: number, elevationDeg: number): number {
  const [t, e] = [toRad(pointing.tiltDeg), toRad(elevationDeg)]
  const cos = Math.sin(t) * Math.sin(e) + Math.cos(t) * Math.cos(e) * Math.cos(toRad(pointing.azimuthDeg - azimuthDeg))
  return toDeg(Math.acos(Math.min(1, Math.max(-1, cos))))
}

/** @returns degrees off axis that cost `lossDb`; null where the antenna is an omni or never loses that much */
export function degreesForLoss(p: Pick<Pattern, 'beamwidthDeg' | 'frontToBackDb'>, lossDb: number): number | null {
  if (p.beamwidthDeg >= 360 || lossDb > p.frontToBackDb) return null
  return p.beamwidthDeg * Math.sqrt(lossDb / 12)
}
