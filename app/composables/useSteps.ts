import { createSharedComposable } from '@vueuse/core'
import { progressOf, stepsOf } from '#core/card'
import { atPresentStop } from '#core/survey'

/** The steps of the open job's plan, made once for all that show them, and how far they are. */
export const useSteps = createSharedComposable(() => {
  const store = useJob()
  const planned = usePlanned()
  const steps = computed(() => (store.doc && store.result ? stepsOf(atPresentStop(planned.value), store.result) : []))
  const progress = computed(() => (store.doc ? progressOf(steps.value, store.doc) : null))
  return { planned, steps, progress }
})
