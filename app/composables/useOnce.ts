/** One thing at a time: while one is under way a second press does nothing, and whatever ends it lets the next one in. */
export function useOnce() {
  const doing = ref(false)
  async function once<T>(work: () => Promise<T>): Promise<T | undefined> {
    if (doing.value) return undefined
    doing.value = true
    try {
      return await work()
    } finally {
      doing.value = false
    }
  }
  return { doing: readonly(doing), once }
}
