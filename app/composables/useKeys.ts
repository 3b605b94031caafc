/** Keys of the page, silent while someone types. */
export type KeyMap = Record<string, { does: string; run: () => void }>

const active = shallowRef<KeyMap[]>([])

/** Every key that works now, for the list behind `?`. */
export const keysNow = computed(() => active.value.flatMap(m => Object.entries(m).map(([key, k]) => ({ key, does: k.does }))))

const typing = (e: KeyboardEvent): boolean => {
  const t = e.target
  if (!(t instanceof HTMLElement)) return false
  return (
    t.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(t.tagName) ||
    !!t.closest('[role="combobox"], [role="listbox"]')
  )
}

export function useKeys(map: KeyMap): void {
  onMounted(() => (active.value = [...active.value, map]))
  onUnmounted(() => (active.value = active.value.filter(m => m !== map)))
  useEventListener(document, 'keydown', (e: KeyboardEvent) => {
    if (e.altKey || e.isComposing) return
    const name =
      (e.ctrlKey || e.metaKey ? `Ctrl ${e.shiftKey ? 'Shift ' : ''}` : '') +
      (e.key.length === 1 && (e.ctrlKey || e.metaKey) ? e.key.toUpperCase() : e.key)
    if (typing(e) && !name.startsWith('Ctrl ')) return
    if (typing(e) && (e.target as HTMLInputElement).value) return
    if (document.querySelector('.v-overlay--active .v-card') && name !== 'Escape') return
    const hit = map[name]
    if (hit) {
      e.preventDefault()
      hit.run()
    }
  })
}
