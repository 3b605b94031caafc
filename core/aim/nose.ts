/** Bearings told from the nose of a vehicle or the bow of a boat, and whether a fixed beam can follow. */
import { angleBetween, turn } from '../geo/angles'
import { degreesForLoss, offAxisDb } from '../radio/pattern'

/** @returns `37° right of the nose`, `12° to port of the bow`, `dead ahead`, `dead astern` */
export function sayRelative(relativeDeg: number, kind: 'vehicle' | 'boat'): string {
  const t = Math.round(turn(0, relativeDeg))
  if (Math.abs(t) < 1) return 'dead ahead'
  if (Math.abs(t) > 179) return kind === 'boat' ? 'dead astern' : 'dead behind'
  const side =
    kind === 'boat'
      ? t > 0
        ? 'to starboard of the bow'
        : 'to port of the bow'
      : t > 0
        ? 'right of the nose'
        : 'left of the nose'
  return `${Math.abs(t)}° ${side}`
}

/** @returns `12° left of the chapel`, from two bearings */
export function sayBeside(bearingDeg: number, thingDeg: number, thing: string): string {
  const t = Math.round(turn(thingDeg, bearingDeg))
  return t === 0 ? `right on ${thing}` : `${Math.abs(t)}° ${t > 0 ? 'right' : 'left'} of ${thing}`
}

export interface SpanVerdict {
  /** loss at the worst heading and on average over the span, dB, with the beam fixed to serve the middle */
  worstDb: number
  meanDb: number
  /** widest swing either way that keeps within 3 dB, degrees; 180 for an omni */
  withinDeg: number
  serves: boolean
}

/**
 * A beam bolted to something that swings: headings spread evenly over ± `swingDeg` about the middle.
 * @param allowDb  loss that is still called serving, dB
 * @source pattern as in `radio/pattern.ts`; even spread assumed
 */
export function fixedBeamOver(swingDeg: number, beam: { beamwidthDeg: number; frontToBackDb: number }, allowDb = 3): SpanVerdict {
  const steps = 72
  let sum = 0
  let worst = 0
  for (let i = 0; i <= steps; i++) {
    const loss = offAxisDb(angleBetween(0, swingDeg * ((2 * i) / steps - 1)), beam.beamwidthDeg, beam.frontToBackDb)
    sum += loss
    worst = Math.max(worst, loss)
  }
  const withinDeg = beam.frontToBackDb <= allowDb ? 180 : Math.min(180, degreesForLoss(beam, allowDb) ?? 180)
  return { worstDb: worst, meanDb: sum / (steps + 1), withinDeg, serves: worst <= allowDb + 1e-9 }
}
