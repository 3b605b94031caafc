/** Wind on a pole with antennas: force, moment at the upper fixing, stress in each section, deflection; and screws. */
import { inRange, positive } from '../check'
import { onLine } from '../interpolate'

/** @returns pressure of a gust, Pa. @source q = ½·ρ·v² at 1.226 kg/m³, ASCE 7 and EN 1991-1-4 */
export const windPa = (gustMs: number): number => 0.613 * inRange('gustMs', gustMs, 0, 100) ** 2
/** A ten-minute mean as a gust. Assumed. */
export const gustOfMean = (meanMs: number): number => 1.5 * meanMs
/** Speeds of ASCE 7-10 and later are ultimate ones: what is borne in service is this share of their pressure. @source ASCE 7-10 */
export const ULTIMATE_TO_SERVICE = 0.6

export type Shape = 'flat' | 'round'
/** By aspect (long side over short). @source TIA-222 table 2-6, from memory */
const FORCE: Record<Shape, readonly (readonly [number, number])[]> = {
  flat: [
    [2.5, 1.2],
    [7, 1.4],
    [25, 2],
  ],
  round: [
    [2.5, 0.7],
    [7, 0.8],
    [25, 1.2],
  ],
}

export const forceCoefficient = (shape: Shape, aspect: number): number => onLine(FORCE[shape], positive('aspect', aspect))

export interface Sail {
  words: string
  /** across the wind, m² */
  areaM2: number
  coefficient: number
  /** of its middle over the upper fixing, m */
  atM: number
}

/** Yield of what poles are made of, MPa, and its modulus, GPa. @source EN 10025 (S235), EN 755-2 (6063-T6, 6061-T6), EN 10088 (304) */
export const GRADES = {
  'S235': { yieldMPa: 235, modulusGPa: 200 },
  '6063-T6': { yieldMPa: 170, modulusGPa: 69 },
  '6061-T6': { yieldMPa: 240, modulusGPa: 69 },
  '304': { yieldMPa: 205, modulusGPa: 193 },
} as const
export type Grade = keyof typeof GRADES

/** Share of the yield that is borne. @source allowable stress design, 0.6·fy */
const ALLOWED = 0.6
/** Beyond this the model says nothing: stays, or an engineer. */
const LONGEST_M = 3

export interface Pole {
  outsideMm: number
  wallMm: number
  /** over the upper fixing, m */
  lengthM: number
  /** between the two fixings, m */
  fixingsM: number
  /** null where nobody knows what it is made of */
  grade: Grade | null
}

export interface PoleResult {
  momentNm: number
  stressMPa: number
  /** of what its grade bears, 0…; null where the grade is unknown */
  used: number | null
  upperN: number
  lowerN: number
  /** by which the tip leans, degrees; null where the grade is unknown */
  tipDeg: number | null
  /** gust at which it is used up, m/s; null where the grade is unknown */
  mostGustMs: number | null
}

/** @returns m³ of a tube. @source π(D⁴ − d⁴)/(32·D) */
export function sectionModulusM3(outsideMm: number, wallMm: number): number {
  const outside = positive('outsideMm', outsideMm) / 1000
  const inside = outside - (2 * positive('wallMm', wallMm)) / 1000
  if (inside < 0) throw new RangeError('a wall thicker than half the tube')
  return (Math.PI * (outside ** 4 - inside ** 4)) / (32 * outside)
}

/**
 * A pole held at two fixings, free above the upper one.
 * @throws RangeError where it stands more than 3 m over its upper fixing: that wants stays or an engineer
 * @source cantilever; fixings by the lever rule
 */
export function poleInWind(pole: Pole, sails: readonly Sail[], gustMs: number): PoleResult {
  const { lengthM, fixingsM } = pole
  if (positive('lengthM', lengthM) > LONGEST_M)
    throw new RangeError(`${lengthM} m over the upper fixing: beyond ${LONGEST_M} m stays or an engineer decide`)
  positive('fixingsM', fixingsM)
  const q = windPa(gustMs)
  const width = pole.outsideMm / 1000
  const along = q * forceCoefficient('round', lengthM / width) * width
  const forces = sails.map(s => ({
    n: q * positive('areaM2', s.areaM2) * positive('coefficient', s.coefficient),
    atM: inRange('atM', s.atM, 0, lengthM + 1),
  }))
  const onSails = forces.reduce((s, f) => s + f.n, 0)
  const momentNm = forces.reduce((s, f) => s + f.n * f.atM, 0) + (along * lengthM ** 2) / 2
  const modulus = sectionModulusM3(pole.outsideMm, pole.wallMm)
  const stressMPa = momentNm / modulus / 1e6
  const grade = pole.grade ? GRADES[pole.grade] : null
  const used = grade ? stressMPa / (ALLOWED * grade.yieldMPa) : null
  const inertia = (modulus * width) / 2
  const slope = grade
    ? (forces.reduce((s, f) => s + (f.n * f.atM ** 2) / 2, 0) + (along * lengthM ** 3) / 6) / (grade.modulusGPa * 1e9 * inertia)
    : null
  return {
    momentNm,
    stressMPa,
    used,
    upperN: onSails + along * lengthM + momentNm / fixingsM,
    lowerN: momentNm / fixingsM,
    tipDeg: slope === null ? null : (Math.atan(slope) * 180) / Math.PI,
    // Everything goes by the square of the gust.
    mostGustMs: used === null ? null : used > 0 ? gustMs / Math.sqrt(used) : Infinity,
  }
}

const LBF_N = 4.448_222
const INCH_MM = 25.4

/**
 * What a screw holds straight out of wood, N.
 * @param specificGravity  of the wood, oven-dry: spruce and pine about 0.42
 * @source NDS 12.2: lag 1800·G^1.5·D^0.75, wood screw 2850·G²·D, lb an inch of thread in the main member
 */
export function withdrawalN(kind: 'lag' | 'wood screw', specificGravity: number, diameterMm: number, threadMm: number): number {
  const g = inRange('specificGravity', specificGravity, 0.3, 0.9)
  const d = positive('diameterMm', diameterMm) / INCH_MM
  const perInch = kind === 'lag' ? 1800 * g ** 1.5 * d ** 0.75 : 2850 * g ** 2 * d
  return perInch * (positive('threadMm', threadMm) / INCH_MM) * LBF_N
}

/** Any other anchor: a quarter of its maker's ultimate load; unknown, no verdict. @source usual factor of safety 4 */
export const anchorN = (ultimateN: number | null): number | null => (ultimateN === null ? null : ultimateN / 4)

/** Volts of the anodic index. @source MIL-STD-889 in its usual tables, from memory */
export const ANODIC_V = {
  monel: 0.3,
  copper: 0.35,
  stainless: 0.5,
  steel: 0.85,
  aluminium: 0.9,
  galvanised: 1.2,
} as const
export type Metal = keyof typeof ANODIC_V
export type Air = 'harsh' | 'normal' | 'controlled'
const MOST_APART_V: Record<Air, number> = { harsh: 0.15, normal: 0.25, controlled: 0.5 }

export interface Couple {
  apartV: number
  mostV: number
  /** `fix`: the baser one goes; `note`: a small noble fastener in a large base plate, greased */
  says: 'good' | 'note' | 'fix'
}

/** @param nobler  what of the two has the smaller area, `fastener` where it is the screw that is nobler */
export function couple(a: Metal, b: Metal, air: Air, o: { smallIs: Metal } | null = null): Couple {
  const apartV = Math.abs(ANODIC_V[a] - ANODIC_V[b])
  const mostV = MOST_APART_V[air]
  if (apartV <= mostV + 1e-9) return { apartV, mostV, says: 'good' }
  const nobler = ANODIC_V[a] < ANODIC_V[b] ? a : b
  return { apartV, mostV, says: o?.smallIs === nobler ? 'note' : 'fix' }
}
