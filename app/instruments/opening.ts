import type { ModemPort } from '../../shared/modem'

/** A port being opened: one at a time told as under way, what hindered it in words. */
export function useOpening() {
  const opening = ref(false)
  const trouble = ref('')

  /** @returns whether it came up and was taken */
  async function opened(way: () => Promise<ModemPort>, take: (port: ModemPort) => void): Promise<boolean> {
    trouble.value = ''
    opening.value = true
    try {
      take(await way())
      return true
    } catch (e) {
      trouble.value = messageOf(e)
      return false
    } finally {
      opening.value = false
    }
  }
  return { opening, trouble, opened }
}
