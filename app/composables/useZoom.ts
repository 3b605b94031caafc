import { clamp } from '@vueuse/core'

/** So far in a drawing may be laid out larger than its frame. */
const MOST = 8
/** of one turn of the wheel, one press, one key */
const STEP = 1.4

/**
 * A drawing laid out larger than its frame, so that its words keep their size: by wheel, by two fingers, by key and by press. What
 * is under the pointer stays there; the paper is pulled to move the drawing.
 */
export function useZoom(frame: Ref<HTMLElement | null>) {
  const zoom = ref(1)

  async function to(next: number, at?: { x: number; y: number }) {
    const el = frame.value
    const z = clamp(Math.abs(next - 1) < 0.05 ? 1 : next, 1, MOST)
    if (!el || z === zoom.value) return
    const { x, y } = at ?? { x: el.clientWidth / 2, y: el.clientHeight / 2 }
    const ratio = z / zoom.value
    const [left, top] = [(el.scrollLeft + x) * ratio - x, (el.scrollTop + y) * ratio - y]
    zoom.value = z
    await nextTick()
    el.scrollTo(left, top)
  }
  const inFrame = (e: { clientX: number; clientY: number }) => {
    const r = frame.value!.getBoundingClientRect()
    return { x: e.clientX - r.left, y: e.clientY - r.top }
  }

  useEventListener(
    frame,
    'wheel',
    (e: WheelEvent) => {
      if (zoom.value === 1 && e.deltaY > 0) return
      e.preventDefault()
      void to(zoom.value * STEP ** (-Math.sign(e.deltaY) * Math.min(1, Math.abs(e.deltaY) / 80)), inFrame(e))
    },
    { passive: false },
  )

  /** fingers down on the paper, by id: one pulls, two zoom */
  const down = new Map<number, { x: number; y: number }>()
  let apart = 0
  const spread = (): number => {
    const [a, b] = [...down.values()]
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0
  }
  useEventListener(frame, 'pointerdown', (e: PointerEvent) => {
    if ((e.target as Element).closest('[role=button], button')) return
    down.set(e.pointerId, { x: e.clientX, y: e.clientY })
    apart = spread()
  })
  useEventListener(frame, 'pointermove', (e: PointerEvent) => {
    const was = down.get(e.pointerId)
    if (!was) return
    down.set(e.pointerId, { x: e.clientX, y: e.clientY })
    if (down.size === 1) return void frame.value!.scrollBy(was.x - e.clientX, was.y - e.clientY)
    const now = spread()
    if (apart > 0 && now > 0) {
      const [a, b] = [...down.values()].map(p => inFrame({ clientX: p.x, clientY: p.y }))
      void to((zoom.value * now) / apart, { x: (a!.x + b!.x) / 2, y: (a!.y + b!.y) / 2 })
    }
    apart = now
  })
  const lift = (e: PointerEvent) => void down.delete(e.pointerId)
  useEventListener(window, ['pointerup', 'pointercancel'], lift)

  return {
    zoom: readonly(zoom),
    to,
    larger: () => to(zoom.value * STEP),
    smaller: () => to(zoom.value / STEP),
    whole: () => to(1),
  }
}
