/** Whether an antenna's gain goes with its beam: no antenna radiates more than it is fed. */
import type { AntennaPart } from '../job/part'
import { meanOverSphereDb } from '../radio/pattern'
import { num } from '../units'
import { antennaAt } from './parts'

/** A sheet tells its gain at the best frequency and its widths at another: so much is let pass, dB. Assumed. */
const SHEET_DB = 2
/** Coarse: the sum over the sphere is within 0.1 dB of that of every 3°. */
const STEP_DEG = 6

/** @returns the most by which it would radiate more than it is fed, dB, in its range; not above 0 where it does not */
export function overfedBy(part: AntennaPart): { range: AntennaPart['ranges'][number]; db: number } {
  return part.ranges
    .map(range => ({ range, db: meanOverSphereDb(antennaAt(part, (range.lowMHz + range.highMHz) / 2).pattern, STEP_DEG) }))
    .reduce((a, b) => (b.db > a.db ? b : a))
}

/** @returns why its figures cannot be, in words; null where they may */
export function overfedWords(part: AntennaPart): string | null {
  const { range: r, db } = overfedBy(part)
  if (db <= SHEET_DB) return null
  return (
    `${num(r.gainDbi, 1)} dBi at ${num(r.lowMHz)} to ${num(r.highMHz)} MHz does not go with a beam of ` +
    `${num(r.beamwidthDeg)}° by ${num(r.verticalBeamwidthDeg)}°: ${num(db, 1)} dB more would go out than comes in`
  )
}
