/** Dragging something on a drawing, in the drawing's own pixels; a press without moving is a pick. */
export function useDragging<T>(drop: (what: T, x: number, y: number) => void, during?: (what: T, x: number, y: number) => void) {
  const drag = shallowRef<{ what: T; x: number; y: number } | null>(null)

  function start(what: T, e: PointerEvent) {
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
      drag.value = { what, ...now }
      during?.(what, now.x, now.y)
    }
    const up = (p: PointerEvent) => {
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', up)
      drag.value = null
      if (!moved) return
      const now = at(p)
      drop(what, now.x, now.y)
    }
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', up)
  }

  return { drag, start }
}
