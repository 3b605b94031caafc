/** Conductors: how much they resist, what they may carry, and what arrives of a feed at the end of a lead. */
import { inRange, positive } from '../check'
import { WIRES } from '../catalogue/wires'
import type { Wire } from '../catalogue/wires'
import type { JobKind } from '../job/schema'

/** Resistivity of annealed copper at 20 °C, Ω·mm²/m. @source IEC 60028 */
const COPPER_OHM_MM2_PER_M = 0.017_241
const REFERENCE_C = 20
/** @source IEC 60028 */
const COPPER_PER_C = 0.00393

/** Most that fine strands of these areas may have at 20 °C, Ω/km: more than copper of the nominal area has. @source IEC 60228, class 5 */
const CLASS_5: ReadonlyMap<number, number> = new Map([
  [0.5, 39],
  [0.75, 26],
  [1, 19.5],
  [1.5, 13.3],
  [2.5, 7.98],
])

/**
 * @param mm2  conductor's area, mm²
 * @param o.stranded  of the areas of IEC 60228 the most that class 5 may have; of gauges 2.6 % more, as strands are longer
 *   than their wire
 * @returns resistance of one conductor, Ω/km
 * @throws RangeError for an area that is not above zero
 * @source ASTM B258 and IEC 60028; stranded by IEC 60228 and NEC chapter 9 table 8
 */
export function ohmPerKm(mm2: number, o: { atC?: number; stranded?: boolean } = {}): number {
  const hot = 1 + COPPER_PER_C * (inRange('atC', o.atC ?? REFERENCE_C, -40, 105) - REFERENCE_C)
  const solid = (COPPER_OHM_MM2_PER_M * 1000) / positive('mm2', mm2)
  return (o.stranded ? (CLASS_5.get(mm2) ?? 1.026 * solid) : solid) * hot
}

/** Thinnest conductor that is laid aboard a boat, mm². @source ABYC E-11: 16 AWG, from memory */
const LEAST_ABOARD_MM2 = 1.3
/** @returns the wires that may be laid on a kind of site, thinnest first */
export const wiresFor = (kind: JobKind): readonly Wire[] =>
  kind === 'boat' ? WIRES.filter(w => w.mm2 >= LEAST_ABOARD_MM2) : WIRES

export interface Fed {
  /** at the box, V; null where the lead cannot carry it at all */
  volts: number | null
  amps: number | null
  /** of the source's voltage, 0…1 */
  dropShare: number | null
}

/**
 * What a box of constant power finds at the end of its lead.
 *
 * @param lengthM  one way; the current goes out and back
 * @returns nulls where no voltage at the box satisfies it: the lead starves it
 * @throws RangeError for a zero wire, or a power or voltage that is not above zero
 * @source P = V·(Vs − V)/R solved for V
 */
export function fedBy(
  sourceV: number,
  powerW: number,
  { lengthM, mm2, ...wire }: { lengthM: number; mm2: number; atC?: number; stranded?: boolean },
): Fed {
  positive('sourceV', sourceV)
  positive('powerW', powerW)
  inRange('lengthM', lengthM, 0, 10_000)
  const ohm = (2 * lengthM * ohmPerKm(mm2, wire)) / 1000
  const root = sourceV ** 2 - 4 * powerW * ohm
  if (root < 0) return { volts: null, amps: null, dropShare: null }
  const volts = (sourceV + Math.sqrt(root)) / 2
  return { volts, amps: powerW / volts, dropShare: 1 - volts / sourceV }
}

/** Range of a battery source with everything that charges and cranks it, V. @source common practice (no source) */
export const SOURCE_V = { 12: [10.5, 15], 24: [21, 30] } as const
/** Drop that electronics may see. @source ABYC E-11, 3 % */
export const MOST_DROP = 0.03
/** A fuse sits no further from its source, mm. @source ABYC E-11.10.1: 7 in */
export const LEAD_BESIDE_SOURCE_MM = 178
/** Continuous current is this much under a fuse. @source NEC 210.20(A), 215.3, 125 % */
const OVER_LOAD = 1.25
/** Fuses as they are sold, A. @source ISO 8820-3 blade fuses */
export const FUSES_A = [1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30] as const

const fuseBetween = (low: number, high: number): number | null => FUSES_A.find(f => f >= low - 1e-9 && f <= high + 1e-9) ?? null
/** The smallest fuse as sold that carries a load and that a wire bears; null where none does. */
export const wireFuse = (loadA: number, wire: Wire): number | null => fuseBetween(OVER_LOAD * loadA, wire.fuseA)

export type FuseChoice = { amps: number; low: number; high: number } | { refused: string }

/**
 * The smallest fuse that carries the load and that the wire and whatever else is in its way can bear.
 *
 * @param limits  of wire, box and slot, A; unknown ones left out
 * @param o.faultA  what the source can drive into a short, A
 * @param o.breaksA  interrupting rating of the fuse, A; null where unknown
 */
export function fuseFor(loadA: number, limits: readonly number[], o: { faultA: number; breaksA: number | null }): FuseChoice {
  const low = OVER_LOAD * positive('loadA', loadA)
  const high = Math.min(...limits.map(l => positive('limit', l)))
  if (o.breaksA === null) return { refused: 'what the fuse can break is not known: it may arc on and burn' }
  if (o.breaksA < o.faultA)
    return { refused: `the source drives ${Math.round(o.faultA)} A into a short, the fuse breaks ${Math.round(o.breaksA)}` }
  const amps = fuseBetween(low, high)
  if (amps === null)
    return { refused: `${low.toFixed(1)} A are wanted and the thinnest thing in its way bears ${high} A: a thicker wire` }
  return { amps, low, high }
}

/** The thinnest wire that keeps the drop and bears its fuse at the lowest source voltage; null where none does. */
export function wireFor(source: 12 | 24, powerW: number, lengthM: number, kind: JobKind = 'vehicle'): Wire | null {
  const lowest = SOURCE_V[source][0]
  return (
    wiresFor(kind).find(w => {
      const fed = fedBy(lowest, powerW, { lengthM, mm2: w.mm2, stranded: true })
      return fed.volts !== null && fed.dropShare! <= MOST_DROP && OVER_LOAD * fed.amps! <= w.fuseA
    }) ?? null
  )
}

/** Charge a day, Ah. @source 24·W/V */
export const ampHoursADay = (powerW: number, volts: number): number =>
  (24 * positive('powerW', powerW)) / positive('volts', volts)
/** An inverter's efficiency and what it takes for itself, W. Assumed. */
const INVERTER = { share: 0.85, idleW: 8 }
/**
 * @param loadsW  of all that hangs on the inverter: what it takes for itself is shared by load
 * @returns charge a day, Ah
 */
export const throughInverterAh = (powerW: number, volts: number, loadsW = powerW): number =>
  ((positive('powerW', powerW) / INVERTER.share + (INVERTER.idleW * powerW) / positive('loadsW', loadsW)) * 24) /
  positive('volts', volts)

/** @returns what an inverter that gives its most draws from the battery, W */
export const drawnByInverterW = (mostW: number): number => positive('mostW', mostW) / INVERTER.share + INVERTER.idleW
