/**
 * Generic parts with plain names, as data. A maker's figures for the actual part always win: they are
 * entered on the part in the design, or as a part of the crew's own.
 */
import type { AntennaPart, Part, PartKind, PartOf } from '../job/part'
import type { Pattern } from '../radio/pattern'
import { AMPLIFIERS } from './amplifiers'
import { ANTENNAS } from './antennas'
import type { Range } from './build'
import { LINES } from './lines'
import { ROUTERS } from './routers'
import { SMALL } from './small'

export { AWS_1_DOWN_MHZ, US_BOOSTER_BANDS } from './amplifiers'

export const PARTS: readonly Part[] = [...ANTENNAS, ...LINES, ...ROUTERS, ...AMPLIFIERS, ...SMALL]

const byId = new Map(PARTS.map(p => [p.id, p]))

export function partById(id: string | null | undefined): Part | undefined {
  return id ? byId.get(id) : undefined
}

/** @returns the part where it is of that kind, else undefined */
export function partOfKind<K extends PartKind>(id: string | null | undefined, kind: K): PartOf<K> | undefined {
  const p = partById(id)
  return p?.kind === kind ? (p as PartOf<K>) : undefined
}

/** @returns gain and widths at a frequency, and whether the maker's range covers it; the nearest range answers outside */
export function antennaAt(part: AntennaPart, frequencyMHz: number): { pattern: Pattern; covered: boolean } {
  const gap = (r: Range) => Math.max(r.lowMHz - frequencyMHz, frequencyMHz - r.highMHz, 0)
  const found = part.ranges.reduce((a, b) => (gap(b) < gap(a) ? b : a))
  const { gainDbi, beamwidthDeg, verticalBeamwidthDeg, azimuthDb, elevationDb } = found
  return {
    pattern: {
      gainDbi,
      beamwidthDeg,
      verticalBeamwidthDeg,
      frontToBackDb: part.frontToBackDb,
      ...(azimuthDb ? { azimuthDb } : {}),
      ...(elevationDb ? { elevationDb } : {}),
      ...(part.shape === 'dome' ? { cone: true } : {}),
    },
    covered: gap(found) === 0,
  }
}

/** @returns whether one part can stand in the place of another: of its kind, an antenna for the same side of the wall */
export const isLike = (a: Part, b: Part): boolean =>
  a.kind === b.kind && (a.kind !== 'antenna' || b.kind !== 'antenna' || a.use === b.use)
