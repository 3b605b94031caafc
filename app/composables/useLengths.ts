import { fromMetres } from '#core/units'

/** How lengths are typed and shown: the unit's sign, and what metres are multiplied by. */
export function useLengths() {
  const prefs = usePrefs()
  return {
    unit: computed(() => (prefs.units === 'metric' ? 'm' : 'ft')),
    factor: computed(() => fromMetres(1, prefs.units)),
  }
}
