import { magneticToTrue, normalise360 } from '#core/geo'

/** What tells where the antenna looks: this phone's compass, a receiver on the pole, another phone; else it is typed. */
export function useTurned(heading: Ref<number>, declinationDeg: Ref<number>) {
  const compass = useCompass()
  const receiver = useReceiver()
  const modem = useInstrument()
  const byReceiver = computed(() => {
    if (receiver.trueDeg !== null) return receiver.trueDeg
    return receiver.magneticDeg === null ? null : magneticToTrue(receiver.magneticDeg, declinationDeg.value)
  })
  /** what follows it now */
  const by = computed<'phone' | 'receiver' | 'other phone' | null>(() => {
    if (modem.looksOn) return 'other phone'
    if (byReceiver.value !== null) return 'receiver'
    return compass.on.value ? 'phone' : null
  })
  watch(compass.headingDeg, h => {
    if (h !== null && by.value === 'phone') heading.value = normalise360(magneticToTrue(h, declinationDeg.value))
  })
  watch(byReceiver, h => {
    if (h !== null && by.value === 'receiver') heading.value = normalise360(Math.round(h))
  })
  watch(
    () => modem.turnedDeg,
    h => {
      if (h !== null && by.value === 'other phone') heading.value = normalise360(h)
    },
    { immediate: true },
  )
  return { compass, receiver, by }
}
