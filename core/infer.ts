/**
 * Bayes' rule over causes of which exactly one holds: what is likely after what was seen, and which test tells most in its time.
 * Every likelihood is stated by whoever asks; nothing here knows what the causes are.
 */
import { inRange } from './check'
import { sure } from './sure'

/** How likely each answer of a question is under each cause, 0…1; under each cause the answers' shares sum to one. */
export type Likelihoods<C extends string, A extends string> = Readonly<Record<C, Readonly<Record<A, number>>>>

/** A share so small is no proof of the contrary: an answer may be misread. */
const LEAST = 1e-6

/** @returns the same weights as shares of one. @throws RangeError where none is over zero */
export function asShares<C extends string>(weights: Readonly<Record<C, number>>): Record<C, number> {
  const entries = Object.entries(weights) as [C, number][]
  const sum = entries.reduce((s, [, w]) => s + w, 0)
  if (!(sum > 0) || !Number.isFinite(sum)) throw new RangeError('no cause has any weight')
  return Object.fromEntries(entries.map(([c, w]) => [c, w / sum])) as Record<C, number>
}

/**
 * @returns each cause's share once an answer was seen
 * @throws RangeError where a likelihood is not between 0 and 1
 */
export function updated<C extends string, A extends string>(
  shares: Readonly<Record<C, number>>,
  likelihoods: Likelihoods<C, A>,
  answer: A,
): Record<C, number> {
  const weights = Object.fromEntries(
    (Object.entries(shares) as [C, number][]).map(([cause, share]) => {
      const likely = inRange('likelihood', sure(likelihoods[cause])[answer], 0, 1)
      return [cause, share * Math.max(LEAST, likely)]
    }),
  ) as Record<C, number>
  return asShares(weights)
}

/** @returns how undecided the shares are, bits: 0 where one cause has all. @source Shannon's entropy */
export const undecidedBits = (shares: Readonly<Record<string, number>>): number =>
  Object.values(shares).reduce((s, p) => (p > 0 ? s - p * Math.log2(p) : s), 0)

/** @returns what an answer to the question is expected to take off the undecidedness, bits: never less than none */
export function expectedBits<C extends string, A extends string>(
  shares: Readonly<Record<C, number>>,
  likelihoods: Likelihoods<C, A>,
): number {
  const causes = Object.keys(shares) as C[]
  const answers = Object.keys(sure(likelihoods[sure(causes[0])])) as A[]
  const left = answers.reduce((sum, a) => {
    const chance = causes.reduce((s, c) => s + shares[c] * likelihoods[c][a], 0)
    return chance > 0 ? sum + chance * undecidedBits(updated(shares, likelihoods, a)) : sum
  }, 0)
  return Math.max(0, undecidedBits(shares) - left)
}
