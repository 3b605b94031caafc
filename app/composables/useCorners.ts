import { along, axisSign, moveAlong, round2 } from '#core/site'
import type { Point } from '#core/site'
import type { SectionView } from '#core/drawing'

/** Corners of a way on the section: where each is drawn, dragged by hand, moved by keys. Written when it is let go. */
export function useCorners(o: {
  view: () => SectionView | null
  corners: () => readonly Point[] | null
  hold: (corners: Point[]) => void
  write: (corners: Point[], label: string) => void
}) {
  const store = useOpened()
  const session = useSession()
  const dots = computed(() => {
    const v = o.view()
    if (!v) return []
    return (o.corners() ?? []).map((p, index) => ({ index, x: v.toX(along(store.site, p, v.sign)), y: v.toY(p.upM) }))
  })
  function placed(index: number, x: number, y: number): Point[] | null {
    const v = o.view()
    const corners = [...(o.corners() ?? [])]
    const old = corners[index]
    if (!v || !old) return null
    corners[index] = { ...moveAlong(store.site, old, v.toAlong(x), v.sign), upM: round2(v.toUp(y)) }
    return corners
  }
  const { start } = useDragging<number>(
    (index, x, y) => {
      const corners = placed(index, x, y)
      if (corners) o.write(corners, 'move a corner')
    },
    (index, x, y) => {
      const corners = placed(index, x, y)
      if (corners) o.hold(corners)
    },
  )
  function nudge(index: number, alongM: number, upM: number) {
    const corners = o.corners()
    const p = corners?.[index]
    if (!corners || !p || !session.mayEdit) return
    const sign = o.view()?.sign ?? axisSign(store.site, null)
    const moved = moveAlong(store.site, p, along(store.site, p, sign) + alongM, sign)
    o.write(
      corners.map((w, i) => (i === index ? { ...w, ...moved, upM: round2(p.upM + upM) } : w)),
      'move a corner',
    )
  }
  return { dots, start, nudge }
}
