/** Conductors as they are sold, by gauge and by area, and the two-core cables that are made of them. */
import { inRange } from '../check'
import type { LinePart } from '../job/part'
import { line } from './build'

/** @returns diameter of a gauge, mm. @source ASTM B258: 0.005 in · 92^((36 − n)/39) */
export const awgMm = (awg: number): number => 0.127 * 92 ** ((36 - inRange('awg', awg, -3, 40)) / 39)
/** @returns area of a gauge, mm² */
export const awgMm2 = (awg: number): number => (Math.PI / 4) * awgMm(awg) ** 2

/** A wire of a lead, by gauge or by area, with the most a fuse before it may be. */
export interface Wire {
  id: string
  words: string
  mm2: number
  /** A */
  fuseA: number
}

/** Thinnest first. @source NEC 240.4(D) for gauges (18 and 16 AWG by its notes); IEC 60364-4-43 practice for areas, from memory */
export const WIRES: readonly Wire[] = [
  { id: '0.5', words: '0.5 mm²', mm2: 0.5, fuseA: 3 },
  { id: '0.75', words: '0.75 mm²', mm2: 0.75, fuseA: 6 },
  { id: 'awg18', words: '18 AWG', mm2: awgMm2(18), fuseA: 7 },
  { id: '1', words: '1 mm²', mm2: 1, fuseA: 10 },
  { id: 'awg16', words: '16 AWG', mm2: awgMm2(16), fuseA: 10 },
  { id: '1.5', words: '1.5 mm²', mm2: 1.5, fuseA: 16 },
  { id: 'awg14', words: '14 AWG', mm2: awgMm2(14), fuseA: 15 },
  { id: '2.5', words: '2.5 mm²', mm2: 2.5, fuseA: 25 },
  { id: 'awg12', words: '12 AWG', mm2: awgMm2(12), fuseA: 20 },
  { id: 'awg10', words: '10 AWG', mm2: awgMm2(10), fuseA: 30 },
]
export const wireById = (id: string): Wire | undefined => WIRES.find(w => w.id === id)

/** Strands take this much more room than their copper, and insulation and sheath this thickness, mm. Assumed. */
const STRANDED = 1.25
const INSULATION_MM = 0.6
const SHEATH_MM = 0.8
/** @returns across the wider side of a flat two-core cable, mm */
function acrossMm({ mm2 }: Wire): number {
  const core = STRANDED * Math.sqrt((4 * mm2) / Math.PI) + 2 * INSULATION_MM
  return Math.round(10 * (2 * core + 2 * SHEATH_MM)) / 10
}
/** A cord or two-core cable is bent no tighter, diameters. @source common practice (no source) */
const BEND_BY_DIAMETER = 4

/** Both wires of a feed in one sheath: red and black, cut to length. */
const TWO_CORE: readonly LinePart[] = WIRES.map(w =>
  line(`wire-${w.id}`, `Two-core cable ${w.words}`, {
    loss: [0, 0],
    impedance: [50, 0],
    size: [acrossMm(w), Math.ceil(BEND_BY_DIAMETER * acrossMm(w)), acrossMm(w)],
    stockM: [],
    ends: 'DC',
    more: { medium: 'supply', wire: w.id, drumM: [25, 50, 100], grade: 'outdoor', jacket: 'PVC, thin wall', priceClass: 1 },
  }),
)

export const SUPPLY_LINES: readonly LinePart[] = TWO_CORE
/** Line of the catalogue that a wire is laid as. */
export const twoCoreOf = (wire: Pick<Wire, 'id'>): LinePart | undefined => TWO_CORE.find(l => l.wire === wire.id)
