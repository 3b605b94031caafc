/** Numbers on cards: read, and held against their check digit. */
import { luhnFits } from '../formats/box-label'
import type { Modem } from '../chain/modems'
import type { Sim } from '../job/schema'

/** First digits of every card of a network operator. @source ITU-T E.118 */
const TELECOM = '89'

/**
 * @returns 19 or 20 digits; a filling F at the end, as some modems answer, goes
 * @throws RangeError where it is no number of a card
 * @source ITU-T E.118, ETSI TS 102 221 13.2, from memory
 */
export function parseIccid(text: string): string {
  const digits = text.replace(/[\s.-]/g, '').replace(/F$/i, '')
  if (!/^\d+$/.test(digits)) throw new RangeError('the number on a SIM has digits only')
  if (digits.length < 19 || digits.length > 20)
    throw new RangeError(`the number on a SIM has 19 or 20 digits, got ${digits.length}`)
  if (!digits.startsWith(TELECOM)) throw new RangeError('the number on a SIM begins with 89')
  return digits
}

/** @returns whether its last digit is what the others make it: some operators print none that is. @source ITU-T E.118, Luhn */
export const iccidChecks = (digits: string): boolean => luhnFits(digits)

/** Sizes of cards, the largest first, mm. @source ETSI TS 102 221 4.0 (2FF, 3FF, 4FF), ISO/IEC 7810, from memory */
export const SIM_MM = { mini: [25, 15], micro: [15, 12], nano: [12.3, 8.8] } as const
export type CardSize = keyof typeof SIM_MM
const SIZES = Object.keys(SIM_MM) as CardSize[]

/** @returns whether a card goes into a slot: as it is, in an adapter, or not at all; null where one of them is not known */
export function cardFits(card: Sim['size'], slot: Sim['size'] | undefined): 'fits' | 'adapter' | 'too large' | null {
  if (!card || !slot || card === 'eSIM' || slot === 'eSIM') return null
  const by = SIZES.indexOf(card) - SIZES.indexOf(slot)
  return by === 0 ? 'fits' : by > 0 ? 'adapter' : 'too large'
}

/** @returns every card that goes into its slot with an adapter only, as the SIMs lie */
export const adaptersIn = (modems: readonly Modem[]): { sim: Sim; slot: number; at: Modem['at']; words: string }[] =>
  modems.flatMap(({ at, slots }) =>
    slots.flatMap(({ sim, slot }) =>
      sim && cardFits(sim.size, at.part.simSize) === 'adapter'
        ? [{ sim, slot, at, words: `${sim.size} card to ${at.part.simSize} slot` }]
        : [],
    ),
  )
