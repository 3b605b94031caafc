/** The two branches of a pair, read one by one. */
import { num } from '../units'

/** Branches of a good pair differ by no more, dB: patterns, polarisation, and one reading each. @source common practice (no source) */
export const BRANCHES_ALIKE_DB = 3
/** From here on one of them does next to nothing for the second layer, dB. @source common practice (no source) */
export const BRANCH_LOST_DB = 8

/** @returns what two levels say of the pair; nothing until both were read */
export function branchWords(firstDbm: number | null, secondDbm: number | null): string {
  if (firstDbm === null || secondDbm === null) return ''
  const apart = Math.abs(firstDbm - secondDbm)
  const weaker = firstDbm < secondDbm ? 1 : 2
  if (apart <= BRANCHES_ALIKE_DB) return `${num(apart, 1)} dB apart: both branches work`
  if (apart < BRANCH_LOST_DB)
    return `branch ${weaker} is ${num(apart, 1)} dB under the other: look at its plugs first, then at where its antenna hangs`
  return `branch ${weaker} is ${num(apart, 1)} dB under the other: a plug, a kink or water; there is no second layer until it is mended`
}
