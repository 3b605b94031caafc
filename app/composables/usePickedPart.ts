import { nth } from '#core/sure'
import { facingOf, partOf } from '#core/chain'
import { along, axisSign, moveAlong, round2 } from '#core/site'

/** The part picked on a picture: moved by keys, turned, and the next one picked. */
export function usePickedPart() {
  const store = useOpened()
  const session = useSession()
  const { move } = useMoveParts()
  const picked = ref<string | null>(null)
  const node = computed(() => store.doc.nodes.find(n => n.id === picked.value))
  function nudge(dx: number, dy: number) {
    const n = node.value ?? store.result.tree?.donors[0]?.node
    if (!n || !session.mayEdit) return
    picked.value = n.id
    const chosen = store.result.chosen
    const sign = axisSign(store.site, chosen?.path ? chosen.frameBearingDeg : null)
    const at = along(store.site, n, sign) + dx
    move(n.id, { ...moveAlong(store.site, n, at, sign), upM: round2(Math.max(0, n.upM + dy)) })
  }
  /** Turns an antenna, clockwise from above. */
  function turn(by: number) {
    const n = node.value
    if (!n || !session.mayEdit || pickedPart.value?.kind !== 'antenna') return
    const now = n.azimuthDeg ?? facing.value ?? 0
    move(n.id, { azimuthDeg: (Math.round((now + by) / 5) * 5 + 360) % 360 }, 'turn an antenna')
  }
  const pickedPart = computed(() => (node.value ? partOf(node.value) : undefined))
  /** the way the antenna picked looks now, degrees in the site frame; null where it looks all round */
  const facing = computed(() => {
    const { tree, chosen } = store.result
    const n = node.value
    const part = pickedPart.value
    if (!n || !tree || part?.kind !== 'antenna' || part.ranges.every(r => r.beamwidthDeg >= 180)) return null
    const server = tree.servers.find(s => s.node.id === n.id)
    return server ? facingOf(tree, server) : (n.azimuthDeg ?? (chosen?.path ? chosen.frameBearingDeg : 0))
  })
  function next(by: number) {
    const order = store.result.tree?.nodes ?? []
    if (!order.length) return
    const i = order.findIndex(o => o.node.id === picked.value)
    picked.value = nth(order, (i + by + order.length) % order.length).node.id
  }

  return { picked, node, facing, nudge, turn, next }
}
