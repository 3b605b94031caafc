/** The size of an element, followed. */
export function useWidth() {
  const el = ref<HTMLElement | null>(null)
  const { width, height } = useElementSize(el)
  return { el, width, height }
}
