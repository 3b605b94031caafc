import { obstaclesHere } from '#core/survey'
import type { Horizon } from '#core/terrain'

/** The skyline round the site as seen from the mount; null until it is worked out. */
export function useHorizon() {
  const store = useOpened()
  const { engine } = useEngine()
  const horizon = shallowRef<Horizon | null>(null)
  const eyeM = computed(() => Math.max(1.5, store.result.mountHeightM))
  let asked = 0
  watch(
    [
      () => store.site.latDeg,
      () => store.site.lonDeg,
      () => store.site.groundM,
      () => store.job.kFactor,
      () => Math.round(eyeM.value * 2),
      () => JSON.stringify(obstaclesHere(store.doc)),
      () => store.terrainVersion,
    ],
    async () => {
      const mine = ++asked
      const h = await engine.horizon(toRaw(store.doc), eyeM.value)
      if (mine === asked) horizon.value = h
    },
    { immediate: true },
  )
  return horizon
}
