import { LineCutter, readNmea } from '#core/formats'
import { useOpening } from '~/instruments/opening'
import type { ModemPort } from '../../shared/modem'

/** So long without a word before it is told, ms. */
const SILENT_MS = 4000
/** Lines without sense, one after the other, before it is told. */
const GARBLED_LINES = 12

export interface Fix {
  latDeg: number
  lonDeg: number
  heightM: number | null
  accuracyM: number | null
}

/** A position receiver or compass that speaks NMEA 0183, whatever lies between. */
export const useReceiver = defineStore('receiver', () => {
  const link = shallowRef<ModemPort | null>(null)
  const { opening, trouble, opened } = useOpening()
  const fix = shallowRef<Fix | null>(null)
  const trueDeg = ref<number | null>(null)
  const magneticDeg = ref<number | null>(null)
  let heardMs = 0
  let garbled = 0

  function take(line: string) {
    const said = readNmea(line)
    // A sentence of another kind is no trouble: only what is none at all.
    garbled = said || /^[$!][A-Z]/.test(line) ? 0 : garbled + 1
    if (garbled >= GARBLED_LINES)
      trouble.value = 'What comes from the port is no receiver’s word: another port, or another speed.'
    if (!said) return
    heardMs = Date.now()
    trouble.value = said.noFix ? 'The receiver has no fix yet: give it a clear sky.' : ''
    if (said.position) fix.value = said.position
    if (said.trueDeg !== undefined) trueDeg.value = said.trueDeg
    if (said.magneticDeg !== undefined) magneticDeg.value = said.magneticDeg
  }
  /** @returns whether it came up; what hindered it stands in `trouble` */
  function open(way: () => Promise<ModemPort>): Promise<boolean> {
    close()
    return opened(way, port => {
      const lines = new LineCutter()
      garbled = 0
      heardMs = Date.now()
      port.onText(text => lines.add(text).forEach(take))
      port.onGone(why => {
        if (link.value !== port) return
        forget()
        trouble.value = why
      })
      port.write('')
      link.value = port
    })
  }
  function forget() {
    link.value = null
    fix.value = null
    trueDeg.value = null
    magneticDeg.value = null
  }
  function close() {
    const was = link.value
    forget()
    was?.close()
  }
  setInterval(() => {
    if (link.value && Date.now() - heardMs > SILENT_MS)
      trouble.value = 'The receiver says nothing: is it switched on, and at 4800 or 115200 baud?'
  }, 1000)
  return { link, opening, trouble, fix, trueDeg, magneticDeg, open, close }
})
