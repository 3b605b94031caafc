import type { Sweep } from '#core/job'
import { MEASURED_AS } from '~/stores/instrument'

/** The figure shown is the middle of so long, ms: a single answer jumps. */
const SHOWN_MS = 2000

/**
 * What the modem says of a quantity: the figure now, and what it is since the antenna stands as it does.
 * @param heading  where the antenna stands; turned, it begins anew
 */
export function useLive(quantity: Ref<Sweep['quantity']>, heading: Ref<number>) {
  const modem = useInstrument()
  const sinceMs = ref(Date.now())
  const what = computed(() => MEASURED_AS[quantity.value] ?? null)
  /** null where no modem is listened to, or it does not tell this quantity */
  const value = computed(() => {
    const s = modem.sample
    const w = what.value
    if (!s || !w || !modem.live) return null
    // Just turned: the last answer stands until there is one of here.
    return modem.ring.median(w, Math.max(sinceMs.value, s.atMs - SHOWN_MS)) ?? s[w]?.value ?? null
  })
  const dwelt = computed(() => (modem.sample && what.value ? modem.ring.median(what.value, sinceMs.value) : null))
  const heldS = computed(() => (modem.sample ? Math.max(0, Math.floor((modem.sample.atMs - sinceMs.value) / 1000)) : 0))
  /** quantities that the modem tells, the best first: what it shows by default */
  const told = computed(() => (['SINR', 'RSRP', 'RSRQ'] as const).filter(q => modem.sample?.[MEASURED_AS[q]!] != null))
  const again = () => (sinceMs.value = Date.now())
  watch(heading, again)
  return { modem, what, value, dwelt, heldS, told, again }
}
