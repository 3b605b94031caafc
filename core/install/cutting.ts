/** Which pieces to cut from which drum, with the least cable bought. */
import { nth } from '../sure'
import { positive } from '../check'

export interface Drum {
  /** as bought, m */
  lengthM: number
  /** cut from it, m */
  piecesM: number[]
}

export interface Cutting {
  drums: Drum[]
  boughtM: number
  wasteM: number
  /** whether it was shown that no less will do */
  exact: boolean
}

/** Steps of the search before it is content with the best found. */
const MOST_STEPS = 200_000
const SLACK_M = 1e-9

/**
 * Cuts pieces from drums of some lengths so that the least cable is bought: longest first into the fullest drum that
 * still takes it, then every other way as long as it may be better.
 *
 * @param piecesM  m, each > 0
 * @param lengthsM  that drums are sold in, m
 * @throws RangeError where a piece is longer than the longest drum
 * @source bin packing with bins of several sizes; first found by best fit decreasing, shown best by branch and bound
 */
export function cutFrom(piecesM: readonly number[], lengthsM: readonly number[]): Cutting {
  const pieces = piecesM.map(p => positive('piece', p)).sort((a, b) => b - a)
  const lengths = [...lengthsM].sort((a, b) => a - b)
  const longest = lengths.at(-1) ?? 0
  if (pieces[0] !== undefined && pieces[0] > longest + SLACK_M)
    throw new RangeError(`a piece of ${pieces[0]} m is longer than the longest drum, ${longest} m`)
  const costOf = (sum: number): number => lengths.find(l => l >= sum - SLACK_M) ?? Infinity

  let best = bestFit(pieces, longest)
  const priceOf = (bins: readonly number[][]): number => bins.reduce((total, b) => total + costOf(sumOf(b)), 0)
  let bestPrice = priceOf(best)
  let steps = 0
  const bins: number[][] = []
  const sums: number[] = []
  const place = (i: number, price: number): void => {
    if (steps++ > MOST_STEPS || price >= bestPrice - SLACK_M) return
    if (i === pieces.length) {
      best = bins.map(b => [...b])
      bestPrice = price
      return
    }
    const piece = nth(pieces, i)
    const tried = new Set<number>()
    for (let b = 0; b < bins.length; b++) {
      const sum = nth(sums, b)
      // Two drums cut alike so far are one and the same choice.
      if (tried.has(sum) || sum + piece > longest + SLACK_M) continue
      tried.add(sum)
      nth(bins, b).push(piece)
      sums[b] = sum + piece
      place(i + 1, price - costOf(sum) + costOf(sum + piece))
      nth(bins, b).pop()
      sums[b] = sum
    }
    bins.push([piece])
    sums.push(piece)
    place(i + 1, price + costOf(piece))
    bins.pop()
    sums.pop()
  }
  place(0, 0)
  const drums = best.map(b => ({ lengthM: costOf(sumOf(b)), piecesM: b }))
  const total = sumOf(pieces)
  return { drums, boughtM: bestPrice, wasteM: Math.max(0, bestPrice - total), exact: steps <= MOST_STEPS }
}

const sumOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0)

function bestFit(pieces: readonly number[], longest: number): number[][] {
  const bins: { left: number; pieces: number[] }[] = []
  for (const piece of pieces) {
    const fitting = bins.filter(b => b.left >= piece - SLACK_M)
    const bin = fitting.reduce<(typeof bins)[number] | null>((a, b) => (!a || b.left < a.left ? b : a), null)
    if (bin) {
      bin.left -= piece
      bin.pieces.push(piece)
    } else bins.push({ left: longest - piece, pieces: [piece] })
  }
  return bins.map(b => b.pieces)
}
