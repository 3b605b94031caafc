import { pseudo, say } from '#core/words'
import type { Words } from '#core/words'

/** @returns what says words in the member's units; longer by two fifths where the overflow of a screen is looked at */
export function useSay(): (words: Words) => string {
  const prefs = usePrefs()
  return words => say(prefs.pseudo ? pseudo(words) : words, prefs.units)
}
