import type { ComputedRef } from 'vue'
import type { SectionView } from '#core/drawing/section'

/** Dragging a part or a spot along the section; a press without moving is a pick. */
export function useDragging(
  view: ComputedRef<SectionView | null>,
  drop: (id: string, alongM: number, upM: number) => void,
  during?: (id: string, alongM: number, upM: number) => void,
) {
  const drag = ref<{ id: string; x: number; y: number } | null>(null)

  function start(id: string, e: PointerEvent) {
    const session = useSession()
    if (!session.mayEdit) return
    const svg = (e.currentTarget as SVGElement).ownerSVGElement!
    const at = (p: PointerEvent) => {
      const r = svg.getBoundingClientRect()
      return { x: p.clientX - r.left, y: p.clientY - r.top }
    }
    const from = at(e)
    let moved = false
    const move = (p: PointerEvent) => {
      const now = at(p)
      if (!moved && Math.hypot(now.x - from.x, now.y - from.y) < 5) return
      moved = true
      drag.value = { id, ...now }
      if (view.value) during?.(id, view.value.toAlong(now.x), view.value.toUp(now.y))
    }
    const up = (p: PointerEvent) => {
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', up)
      drag.value = null
      if (moved && view.value) {
        const now = at(p)
        drop(id, view.value.toAlong(now.x), view.value.toUp(now.y))
      }
    }
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', up)
  }

  return { drag, start }
}
