/**
 * Generic parts with plain names, as data. A maker's figures for the actual part always win: they are
 * entered on the part in the design, or as a part of the crew's own.
 */
import { isOmni } from '../job/part'
import type { AntennaPart, Part, PartKind, PartOf, Polarisation } from '../job/part'
import { wavelengthM } from '../radio/freespace'
import type { Pattern } from '../radio/pattern'
import { AMPLIFIERS } from './amplifiers'
import { ANTENNAS } from './antennas'
import type { Range } from './build'
import { DOME_LOW_DB, DOME_MID_DB, DOME_TURNS_MHZ, OVER_METAL_DB, panelBackDb } from './shapes'
import { LINES } from './lines'
import { SERVICE_PARTS } from './services'
import { SUPPLY_LINES } from './wires'
import { ROUTERS } from './routers'
import { SMALL } from './small'

export { AWS_1_DOWN_MHZ, US_BOOSTER_BANDS } from './amplifiers'

export const PARTS: readonly Part[] = [
  ...ANTENNAS,
  ...LINES,
  ...SUPPLY_LINES,
  ...ROUTERS,
  ...AMPLIFIERS,
  ...SMALL,
  ...SERVICE_PARTS,
]

const byId = new Map(PARTS.map(p => [p.id, p]))

export function partById(id: string | null | undefined): Part | undefined {
  return id ? byId.get(id) : undefined
}

/** @returns the part where it is of that kind, else undefined */
export function partOfKind<K extends PartKind>(id: string | null | undefined, kind: K): PartOf<K> | undefined {
  const p = partById(id)
  return p?.kind === kind ? (p as PartOf<K>) : undefined
}

/** Below this a panel is too narrow to keep its back quiet, MHz. */
const NARROW_MHZ = 1000

/**
 * Gain and pattern at a frequency, and whether the maker's range covers it; the nearest range answers outside.
 * A measured plane stands over every shape.
 *
 * @param fitted  how it is turned about its axis: its widths are given upright, and change places when it lies
 */
export function antennaAt(
  part: AntennaPart,
  frequencyMHz: number,
  fitted: Polarisation = usualPolarisation(part),
): { pattern: Pattern; covered: boolean } {
  const gap = (r: Range) => Math.max(r.lowMHz - frequencyMHz, frequencyMHz - r.highMHz, 0)
  const found = part.ranges.reduce((a, b) => (gap(b) < gap(a) ? b : a))
  const { gainDbi, azimuthDb, elevationDb } = found
  return {
    pattern: {
      gainDbi,
      ...planesOf(found, fitted, usualPolarisation(part)),
      frontToBackDb: azimuthDb ? part.frontToBackDb : backDb(part, frequencyMHz),
      ...(azimuthDb || elevationDb ? {} : shapeOf(part, frequencyMHz)),
    },
    covered: gap(found) === 0,
  }
}

/** @returns how a part is fitted where nobody said: two feeds of a beam are crossed at ±45°, all else stands upright */
export const usualPolarisation = (part: AntennaPart): Polarisation =>
  part.ports.length > 1 && !isOmni(part) && part.shape !== 'dome' ? 'slant' : 'vertical'

type Planes = Pick<Pattern, 'beamwidthDeg' | 'verticalBeamwidthDeg' | 'azimuthDb' | 'elevationDb'>

function planesOf(r: Range, fitted: Polarisation, usual: Polarisation): Planes {
  const { beamwidthDeg: across, verticalBeamwidthDeg: up, azimuthDb, elevationDb } = r
  const measured = { ...(azimuthDb ? { azimuthDb } : {}), ...(elevationDb ? { elevationDb } : {}) }
  // An omni that lies has no beam across; nobody fits one so, and its figures are left as they are.
  if (fitted === usual || across >= 360) return { beamwidthDeg: across, verticalBeamwidthDeg: up, ...measured }
  if (fitted === 'slant' || usual === 'slant') {
    const both = Math.sqrt(across * up)
    return { beamwidthDeg: both, verticalBeamwidthDeg: both, ...measured }
  }
  const lying = { ...(elevationDb ? { azimuthDb: elevationDb } : {}), ...(azimuthDb ? { elevationDb: azimuthDb } : {}) }
  return { beamwidthDeg: up, verticalBeamwidthDeg: across, ...lying }
}

function backDb(part: AntennaPart, frequencyMHz: number): number {
  const widthMm = part.shape === 'panel' && frequencyMHz < NARROW_MHZ ? part.sizeMm?.[0] : undefined
  return widthMm ? Math.min(part.frontToBackDb, panelBackDb(widthMm / 1000, wavelengthM(frequencyMHz))) : part.frontToBackDb
}

function shapeOf(part: AntennaPart, frequencyMHz: number): Pick<Pattern, 'aboutAxisDb' | 'elevationDb'> {
  if (part.shape === 'dome') return { aboutAxisDb: frequencyMHz < DOME_TURNS_MHZ ? DOME_LOW_DB : DOME_MID_DB }
  return part.overMetal ? { elevationDb: OVER_METAL_DB } : {}
}

/** @returns whether one part can stand in the place of another: of its kind, an antenna for the same side of the wall */
export const isLike = (a: Part, b: Part): boolean =>
  a.kind === b.kind && (a.kind !== 'antenna' || b.kind !== 'antenna' || a.use === b.use)
