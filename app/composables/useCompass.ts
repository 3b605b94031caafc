import { angleBetween, normalise360 } from '#core/geo'

interface AppleOrientation extends DeviceOrientationEvent {
  webkitCompassHeading?: number
  webkitCompassAccuracy?: number
}
type Asks = typeof DeviceOrientationEvent & { requestPermission?: () => Promise<'granted' | 'denied'> }

/** A hand trembles by less than this: the antenna still stands, degrees. */
const STILL_DEG = 3
/** A phone's compass, away from steel. @source common practice (no source) */
const USUAL_ACCURACY_DEG = 10
/** Without an event for so long there is no compass in it, ms. */
const WAIT_MS = 3000

/** This phone's own compass: which way its upper edge points, magnetic. */
export function useCompass() {
  const on = ref(false)
  const headingDeg = ref<number | null>(null)
  const accuracyDeg = ref(USUAL_ACCURACY_DEG)
  const trouble = ref('')
  const EVENTS = ['deviceorientationabsolute', 'deviceorientation'] as const
  let waiting: ReturnType<typeof setTimeout> | undefined

  function take(e: Event) {
    const o = e as AppleOrientation
    const magnetic = o.webkitCompassHeading ?? (o.absolute && o.alpha !== null ? normalise360(360 - o.alpha) : null)
    if (magnetic === null) return
    clearTimeout(waiting)
    trouble.value = ''
    accuracyDeg.value = o.webkitCompassAccuracy && o.webkitCompassAccuracy > 0 ? o.webkitCompassAccuracy : USUAL_ACCURACY_DEG
    if (headingDeg.value === null || angleBetween(headingDeg.value, magnetic) >= STILL_DEG)
      headingDeg.value = Math.round(magnetic)
  }
  async function start() {
    trouble.value = ''
    const asks = window.DeviceOrientationEvent as Asks | undefined
    if (!asks) {
      trouble.value = 'no compass in this device: type the heading'
      return
    }
    if (asks.requestPermission && (await asks.requestPermission().catch(() => 'denied')) !== 'granted') {
      trouble.value = 'the compass was refused: allow motion and orientation for this page'
      return
    }
    on.value = true
    for (const name of EVENTS) window.addEventListener(name, take)
    waiting = setTimeout(() => {
      stop()
      trouble.value = 'no compass in this device: type the heading'
    }, WAIT_MS)
  }
  function stop() {
    clearTimeout(waiting)
    for (const name of EVENTS) window.removeEventListener(name, take)
    on.value = false
    headingDeg.value = null
  }
  onScopeDispose(stop)
  return { on, headingDeg, accuracyDeg, trouble, toggle: () => (on.value ? stop() : void start()) }
}
