/**
 * Sentences as values: text, and quantities that nobody has said yet. `say` alone makes a string of them, in the units of
 * the member who reads it. A sentence without a quantity is its text.
 */
import { capital, distance, length } from './units'
import type { Units } from './units'

/** A length on site, or a distance over land; metres both. */
export type Quantity = { readonly siteM: number } | { readonly landM: number }

/** Words with a quantity among them. As text they would be nothing that a person can read: that is refused, loudly. */
export class Said {
  constructor(readonly said: readonly (string | Quantity)[]) {}

  toString(): string {
    throw new TypeError('words with a quantity become text by say(words, units) alone')
  }
}
/** What a result carries; from a worker or a store it comes as a plain object. */
export type Words = string | Pick<Said, 'said'>

/** @returns a length on site, to the centimetre, to be put into `words` */
export const metres = (m: number): Quantity => ({ siteM: Number(m.toFixed(2)) })
/** @returns a distance over land, given in metres, to be put into `words` */
export const overLand = (m: number): Quantity => ({ landM: Math.round(m) })

const isQuantity = (x: object): x is Quantity => 'siteM' in x || 'landM' in x
const partsOf = (x: Words | Quantity | number): readonly (string | Quantity)[] =>
  typeof x === 'object' ? (isQuantity(x) ? [x] : x.said) : [String(x)]

function wordsOf(parts: readonly (string | Quantity)[]): Words {
  const out: (string | Quantity)[] = []
  for (const part of parts) {
    const last = out.at(-1)
    if (part === '') continue
    if (typeof part === 'string' && typeof last === 'string') out[out.length - 1] = last + part
    else out.push(part)
  }
  return out.every(p => typeof p === 'string') ? (out[0] ?? '') : new Said(out)
}

/** @returns the sentence: words\`raise the donor ${metres(1.9)}\` */
export const words = (texts: TemplateStringsArray, ...values: (Words | Quantity | number)[]): Words =>
  wordsOf(texts.flatMap((t, i) => [t, ...(i < values.length ? partsOf(values[i] ?? '') : [])]))

/** @returns the pieces of a long sentence, one after the other */
export const concat = (...pieces: readonly Words[]): Words => wordsOf(pieces.flatMap(partsOf))

/** @returns a list in one sentence, with what stands between two of it */
export const listed = (list: readonly Words[], between: string): Words =>
  wordsOf(list.flatMap((w, i) => (i ? [between, ...partsOf(w)] : partsOf(w))))

/** @returns a text that is the same for words that say the same, for maps and digests; no person reads it */
export const keyOf = (w: Words): string =>
  partsOf(w)
    .map(p => (typeof p === 'string' ? p : 'siteM' in p ? `{m:${p.siteM.toFixed(2)}}` : `{km:${p.landM}}`))
    .join('')

/** @returns words as a sentence or a line begins with them */
export const begun = (w: Words): Words => {
  const [first, ...rest] = partsOf(w)
  return typeof first === 'string' ? wordsOf([capital(first), ...rest]) : w
}

/** @returns a reason, as a sentence */
export const sentenceOf = (reason: Words): Words => concat(begun(reason), '.')

/** Under a metre a quarter is not a third: two decimals where one would round. */
const decimalsOf = (m: number, units: Units): number =>
  units === 'metric' && Math.abs(m) < 1 && Math.abs(m * 10 - Math.round(m * 10)) > 1e-6 ? 2 : 1

/** Lengths of handovers that were frozen before words were values stand in their text as `{m:2.1}` and `{km:11300}`. */
const FROZEN = /\{(m|km):(-?[\d.]+)\}/g

const quantitySaid = (q: Quantity, units: Units): string =>
  'siteM' in q ? length(q.siteM, units, decimalsOf(q.siteM, units)) : distance(q.landM, units)

/** @returns the words as the member reads them */
export const say = (w: Words, units: Units): string =>
  partsOf(w)
    .map(p =>
      typeof p === 'object'
        ? quantitySaid(p, units)
        : p.replace(FROZEN, (_, kind: string, v: string) =>
            quantitySaid(kind === 'm' ? metres(Number(v)) : overLand(Number(v)), units),
          ),
    )
    .join('')

/** @returns words that stand for others of a language that needs more room: longer by two fifths, every letter marked */
export const pseudo = (w: Words): Words =>
  wordsOf(partsOf(w).map(p => (typeof p === 'string' ? p.replace(/\p{L}+/gu, stretched) : p)))

const MARKED: Record<string, string> = { a: 'å', e: 'é', i: 'ï', o: 'ø', u: 'ü', A: 'Å', E: 'É', I: 'Ï', O: 'Ø', U: 'Ü' }
const LONGER_BY = 0.4
const stretched = (word: string): string => {
  const marked = [...word].map(c => MARKED[c] ?? c).join('')
  return marked + 'æ'.repeat(Math.round(word.length * LONGER_BY))
}
