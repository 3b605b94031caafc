import { defineStore } from 'pinia'
import type { Sweep } from '#core/job/schema'
import { openBridge } from '~/instruments/bridge'
import type { Link, Stance } from '~/instruments/link'
import { recordingLink } from '~/instruments/recording'
import { Ring } from '~/instruments/ring'
import type { Measured } from '~/instruments/ring'
import { openSerial } from '~/instruments/serial'
import { ModemSession } from '~/instruments/session'
import type { Sample } from '~/instruments/session'

/** Which of a modem's figures a swept quantity is; speeds and lamps are not told by commands. */
export const MEASURED_AS: Partial<Record<Sweep['quantity'], Measured>> = { SINR: 'sinrDb', RSRP: 'rsrpDbm', RSRQ: 'rsrqDb' }

/** The modem that is listened to, whatever lies between. */
export const useInstrument = defineStore('instrument', () => {
  const link = shallowRef<Link | null>(null)
  const opening = ref(false)
  const sample = shallowRef<Sample | null>(null)
  const trouble = ref('')
  const ring = new Ring()
  let session: ModemSession | null = null

  const live = computed(() => !!link.value && !!sample.value)

  /** @returns whether it came up; what hindered it stands in `trouble` */
  async function open(way: () => Promise<Link>): Promise<boolean> {
    close()
    trouble.value = ''
    opening.value = true
    try {
      const l = await way()
      link.value = l
      ring.clear()
      session = new ModemSession(l, {
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
      return true
    } catch (e) {
      trouble.value = messageOf(e)
      return false
    } finally {
      opening.value = false
    }
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
    toBridge: (url: string, code: string) => open(() => openBridge(url, code)),
    toSerial: () => open(openSerial),
    replay: (text: string, name: string) => open(() => Promise.resolve(recordingLink(text, name))),
    recording: () => session?.recording() ?? '',
    turn: (stance: Stance) => link.value?.turn?.(stance),
  }
})
