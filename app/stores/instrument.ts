import { defineStore } from 'pinia'
import type { Sweep } from '#core/job'
import type { ModemPort, TurnedAntenna } from '../../shared/modem'
import { useOpening } from '~/instruments/opening'
import { Ring } from '~/instruments/ring'
import type { Measured } from '~/instruments/ring'
import { ModemSession } from '~/instruments/session'
import type { Sample } from '~/instruments/session'

/** Which of a modem's figures a swept quantity is; speeds and lamps are not told by commands. */
export const MEASURED_AS: Partial<Record<Sweep['quantity'], Measured>> = { SINR: 'sinrDb', RSRP: 'rsrpDbm', RSRQ: 'rsrqDb' }

/** The modem that is listened to, whatever lies between. */
export const useInstrument = defineStore('instrument', () => {
  const link = shallowRef<ModemPort | null>(null)
  const sample = shallowRef<Sample | null>(null)
  const { opening, trouble, opened } = useOpening()
  /** of the antenna that another phone turns, degrees; null while this one turns it */
  const turnedDeg = ref<number | null>(null)
  const ring = new Ring()
  let session: ModemSession | null = null

  const live = computed(() => !!link.value && !!sample.value)

  /** @returns whether it came up; what hindered it stands in `trouble` */
  function open(way: () => Promise<ModemPort>): Promise<boolean> {
    close()
    return opened(way, port => {
      link.value = port
      turnedDeg.value = null
      port.onTurned?.(deg => (turnedDeg.value = deg))
      ring.clear()
      session = new ModemSession(port, {
        sample: s => {
          ring.push(s)
          sample.value = s
        },
        trouble: t => (trouble.value = t ?? ''),
        gone: why => {
          link.value = null
          sample.value = null
          trouble.value = why
        },
      })
      void session.run()
    })
  }

  function close() {
    session?.stop()
    session = null
    link.value = null
    sample.value = null
  }

  return {
    link,
    opening,
    live,
    sample,
    trouble,
    ring,
    close,
    open,
    turnedDeg,
    looksOn: computed(() => link.value?.looksOn === true),
    recording: () => session?.recording() ?? '',
    turn: (stance: TurnedAntenna) => link.value?.turn?.(stance),
  }
})
