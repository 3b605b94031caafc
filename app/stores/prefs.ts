import type { Units } from '#core/units'

/** How this person likes it: units, and sun or night. Kept on the device. */
export const usePrefs = defineStore('prefs', () => {
  const units = useLocalStorage<Units>('mv-units', 'metric')
  const night = useLocalStorage<boolean>('mv-night', false)
  /** the skyline's axis labelled by the compass rather than true */
  const magnetic = useLocalStorage<boolean>('mv-magnetic', false)
  /** sentences longer by two fifths, to see what a screen does with a language that needs the room */
  const pseudo = useLocalStorage<boolean>('mv-pseudo', false)
  return { units, night, magnetic, pseudo }
})
