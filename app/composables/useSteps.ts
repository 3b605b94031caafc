import { createSharedComposable } from '@vueuse/core'
import { progressOf } from '#core/card/progress'
import { stepsOf } from '#core/card/steps'
import { atPresentStop } from '#core/survey/place'

/** The steps of the open job's plan, made once for all that show them, and how far they are. */
export const useSteps = createSharedComposable(() => {
  const store = useJob()
  const planned = usePlanned()
  const steps = computed(() => (store.doc && store.result ? stepsOf(atPresentStop(planned.value), store.result) : []))
  const progress = computed(() => (store.doc ? progressOf(steps.value, store.doc) : null))
  return { planned, steps, progress }
})
