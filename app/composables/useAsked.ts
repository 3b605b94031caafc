import type { WatchSource } from 'vue'

/**
 * Something the worker is asked again whenever what it depends on changes: the answer to the last question counts,
 * whichever comes last.
 * @param ask  may tell what stands so far before it answers
 */
export function useAsked<T>(sources: WatchSource[], ask: (tell: (soFar: T) => void) => Promise<T>, debounceMs = 350) {
  const answer = shallowRef<T | null>(null)
  const failed = ref('')
  const working = ref(false)
  let asked = 0
  async function again() {
    const mine = ++asked
    const tell = (soFar: T) => {
      if (mine === asked) answer.value = soFar
    }
    working.value = true
    try {
      tell(await ask(tell))
      if (mine === asked) failed.value = ''
    } catch (e) {
      if (mine === asked) failed.value = messageOf(e)
    }
    if (mine === asked) working.value = false
  }
  watchDebounced(sources, again, { debounce: debounceMs })
  onMounted(again)
  return { answer, failed, working }
}
