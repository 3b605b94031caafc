import { fitState } from '#core/card'
import type { Act, ActState } from '#core/judge'

const NONE: ActState = { words: '–', done: 0, state: 'empty', open: [] }

/** How far each act is: Fit by the steps of the card where there are any, all else as it was judged. */
export function useActStates(): (act: Act) => ActState {
  const store = useJob()
  const { progress } = useSteps()
  const fit = computed(() => (progress.value ? fitState(progress.value) : null))
  return act => (act === 'fit' ? fit.value : null) ?? store.result?.acts[act] ?? NONE
}
