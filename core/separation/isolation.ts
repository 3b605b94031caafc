/** How much of what the inside antenna sends comes back to the donor. */
import { finite, inRange, positive } from '../check'
import { freeSpaceLossDb, wavelengthM } from '../radio/freespace'

/** What scatter lets past however far apart the antennas are, until it is measured. Assumed. */
export const ISOLATION_CAP_DB = 70

/** Gain left unused so that people and doors moving do not start an oscillation. 10–20 dB in use. @source common practice (no source) */
export const DEFAULT_MARGIN_DB = 15

/**
 * Isolation of two antennas side by side.
 * @param gainTowardSumDb  gains of both antennas toward each other, added, dBi
 * @source 22 + 20·log10(d/λ) − (G1 + G2), the far field of two antennas, common practice
 */
export const horizontalIsolationDb = (distanceM: number, frequencyMHz: number, gainTowardSumDb: number): number =>
  22 + 20 * Math.log10(positive('distanceM', distanceM) / wavelengthM(frequencyMHz)) - finite('gainTowardSumDb', gainTowardSumDb)

/** Isolation of two antennas one above the other, on one axis. @source 28 + 40·log10(d/λ), common practice */
export const verticalIsolationDb = (distanceM: number, frequencyMHz: number): number =>
  28 + 40 * Math.log10(positive('distanceM', distanceM) / wavelengthM(frequencyMHz))

export interface IsolationInput {
  /** distance on the ground between the antennas, m */
  alongM: number
  /** height of one above the other, m, >= 0 */
  upM: number
  frequencyMHz: number
  /** each antenna's gain toward the other, dBi */
  gainTowardDbi: readonly [number, number]
  /** walls, roof or sheet between, dB */
  obstructionDb?: number
}

export interface Isolation {
  isolationDb: number
  horizontalDb: number | null
  verticalDb: number | null
  slantDb: number
  /** free space with both patterns, dB */
  freeSpaceDb: number
  /** angle of the line between them above the horizontal, 0…90 */
  angleDeg: number
  rule: 'slant' | 'free space' | 'cap'
  /** false where they stand too close for the formulas */
  farField: boolean
}

/**
 * The lower of the slant rule and of free space with both patterns, plus what stands between,
 * never above the cap of scatter.
 *
 * @throws RangeError where the antennas are in the same place
 * @source slant (Iv − Ih)·θ/90° + Ih, common practice; valid from about 3λ along and λ up
 */
export function isolation(input: IsolationInput): Isolation {
  const alongM = inRange('alongM', input.alongM, 0, 1e5)
  const upM = inRange('upM', Math.abs(input.upM), 0, 1e4)
  const distanceM = positive('distance between the antennas', Math.hypot(alongM, upM))
  const lambda = wavelengthM(input.frequencyMHz)
  const gains = input.gainTowardDbi[0] + input.gainTowardDbi[1]
  const angleDeg = (Math.atan2(upM, alongM) * 180) / Math.PI
  // Each rule takes its own component, held at its nearest valid distance so that a small one cannot run to −∞.
  const horizontalDb = horizontalIsolationDb(Math.max(alongM, lambda / 2), input.frequencyMHz, gains)
  const verticalDb = verticalIsolationDb(Math.max(upM, lambda / 2), input.frequencyMHz)
  const slantDb = ((verticalDb - horizontalDb) * angleDeg) / 90 + horizontalDb
  const freeSpaceDb = freeSpaceLossDb(distanceM, input.frequencyMHz) - gains
  const between = inRange('obstructionDb', input.obstructionDb ?? 0, 0, 100)
  const open = Math.min(slantDb, freeSpaceDb) + between
  return {
    isolationDb: Math.min(open, ISOLATION_CAP_DB),
    horizontalDb: alongM > 0 ? horizontalDb : null,
    verticalDb: upM > 0 ? verticalDb : null,
    slantDb,
    freeSpaceDb,
    angleDeg,
    rule: open > ISOLATION_CAP_DB ? 'cap' : slantDb <= freeSpaceDb ? 'slant' : 'free space',
    farField: alongM >= 3 * lambda || upM >= lambda,
  }
}

/**
 * Distances fitters use without a sum: either one is taken as enough.
 * @source 20 ft vertical or 50 ft horizontal, common practice (no source)
 */
export const RULE_OF_THUMB = { upM: 6.1, alongM: 15.2 } as const

export const meetsRuleOfThumb = (alongM: number, upM: number): boolean =>
  Math.abs(upM) >= RULE_OF_THUMB.upM || alongM >= RULE_OF_THUMB.alongM

export type LoopState = 'stable' | 'held back' | 'oscillating'

/**
 * What the amplifier does at this isolation.
 *
 * Stable where isolation covers gain and margin; held back where an amplifier that measures its own
 * loop lowers its gain until it does; oscillating where its gain cannot come down that far.
 *
 * @param lowestGainDb  the least gain it can set itself to; equal to `gainDb` for one with no control
 * @returns gain left, dB, and what is held back, dB
 */
export function willOscillate(
  isolationDb: number,
  gainDb: number,
  marginDb: number,
  lowestGainDb: number,
): { state: LoopState; gainDb: number; heldBackDb: number } {
  finite('isolationDb', isolationDb)
  inRange('marginDb', marginDb, 0, 60)
  inRange('lowestGainDb', lowestGainDb, 0, Math.max(gainDb, 0))
  const allowed = isolationDb - marginDb
  if (allowed >= gainDb) return { state: 'stable', gainDb, heldBackDb: 0 }
  if (allowed >= lowestGainDb) return { state: 'held back', gainDb: allowed, heldBackDb: gainDb - allowed }
  return { state: 'oscillating', gainDb: 0, heldBackDb: gainDb }
}

/**
 * The least move of one antenna, in one direction, at which isolation reaches what is needed.
 *
 * @param isolationAt  isolation after moving by x metres; it must not fall as x grows beyond the answer
 * @param limitM  as far as is worth looking
 * @returns metres, to 0.1, or null where no move within the limit is enough
 */
export function leastMove(isolationAt: (xM: number) => number, neededDb: number, limitM: number): number | null {
  let low = 0
  let high = -1
  for (let x = 0; x <= limitM + 1e-9; x += 0.25) {
    if (isolationAt(x) >= neededDb) {
      high = x
      break
    }
    low = x
  }
  if (high < 0) return null
  while (high - low > 0.02) {
    const mid = (low + high) / 2
    if (isolationAt(mid) >= neededDb) high = mid
    else low = mid
  }
  return Math.max(0, Math.ceil(high * 10 - 1e-6)) / 10
}
