<script setup lang="ts">
import { layoutPlan } from '#core/drawing'
import type { FloorCoverage } from '#core/coverage'
import { between, round2 } from '#core/site'

/** A floor from above: parts are dragged, antennas turned by the end of their beam, walls drawn from point to point. */
const props = defineProps<{
  level: number
  coverage?: FloorCoverage | null
  proposed?: { eastM: number; northM: number; share: number }[]
  /** a wall is being drawn: each press adds a point */
  drawing?: boolean
  compact?: boolean
  /** sockets, roof units, terminal and photographs */
  pins?: boolean
}>()
const picked = defineModel<string | null>('picked', { default: null })
const emit = defineEmits<{ wall: [from: { eastM: number; northM: number }, to: { eastM: number; northM: number }] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const { shown, hold, drop } = useMoveParts()
const { el, width, height } = useWidth()
const pending = shallowRef<{ eastM: number; northM: number }[]>([])
const picture = computed(() => store.doc.floorPlans.find(p => p.level === props.level && p.affine) ?? null)
const view = computed(() =>
  width.value > 40 && height.value > 40
    ? layoutPlan(shown.value, store.result, {
        width: width.value,
        height: height.value,
        units: prefs.units,
        level: props.level,
        coverage: props.coverage,
        proposed: props.proposed,
        pending: pending.value,
        compact: props.compact,
        pins: props.pins,
        hollow: !!picture.value,
      })
    : null,
)

type Handle = NonNullable<typeof view.value>['handles'][number]
const at = (e: MouseEvent, svg: Element) => {
  const r = svg.getBoundingClientRect()
  return { x: e.clientX - r.left, y: e.clientY - r.top }
}
function fieldsAt(h: Handle, x: number, y: number): Record<string, number> | null {
  const to = view.value!.toSite(x, y)
  if (h.kind !== 'turn') return { eastM: round2(to.eastM), northM: round2(to.northM) }
  const node = store.doc.nodes.find(n => n.id === h.id)
  if (!node) return null
  const { bearingDeg } = between(node, { ...to, upM: node.upM })
  return { azimuthDeg: (Math.round(bearingDeg / 5) * 5) % 360 }
}
const { start } = useDragging<Handle>(
  (h, x, y) => drop(h, fieldsAt(h, x, y)),
  (h, x, y) => hold(h, fieldsAt(h, x, y)),
)
function pick(h: Handle, e: PointerEvent) {
  picked.value = h.id
  start(h, e)
}

/** walls run square to the building unless a key is held */
function square(from: { eastM: number; northM: number }, x: number, y: number, free: boolean) {
  const [fx, fy] = view.value!.toXY(from)
  return free || Math.hypot(x - fx, y - fy) < 6
    ? view.value!.toSite(x, y)
    : Math.abs(x - fx) > Math.abs(y - fy)
      ? view.value!.toSite(x, fy)
      : view.value!.toSite(fx, y)
}
function press(e: MouseEvent) {
  if (!props.drawing || !view.value || !session.mayEdit) return
  const p = at(e, e.currentTarget as Element)
  const [from] = pending.value
  if (!from) {
    pending.value = [view.value.toSite(p.x, p.y)]
    return
  }
  const to = square(from, p.x, p.y, e.altKey)
  // The next wall begins where this one ends.
  pending.value = [to]
  emit('wall', from, to)
}
function hover(e: MouseEvent) {
  const [from] = pending.value
  if (!props.drawing || !from || !view.value) return
  const p = at(e, e.currentTarget as Element)
  pending.value = [from, square(from, p.x, p.y, e.altKey)]
}
watch(
  () => props.drawing,
  () => (pending.value = []),
)
useEventListener(document, 'keydown', e => {
  if (e.key === 'Escape') pending.value = []
})

const { url: bytes } = usePictureUrl(() => picture.value?.id)
/** the picture's pixels on the drawing */
const matrix = computed(() => {
  const p = picture.value
  if (!p?.affine || !view.value) return ''
  const [a, b, c, d, e, f] = p.affine as [number, number, number, number, number, number]
  const on = (x: number, y: number) => view.value!.toXY({ eastM: a * x + b * y + c, northM: d * x + e * y + f })
  const [o, u, v] = [on(0, 0), on(1, 0), on(0, 1)]
  return `matrix(${u[0] - o[0]} ${u[1] - o[1]} ${v[0] - o[0]} ${v[1] - o[1]} ${o[0]} ${o[1]})`
})
</script>

<template>
  <div ref="el" class="plan" :class="{ drawing }" @click="press" @mousemove="hover">
    <DrawingView v-if="view" :drawing="view.drawing" :label="coverage ? 'Coverage of the floor' : 'The floor from above'">
      <template #under>
        <image
          v-if="bytes && picture"
          :href="bytes"
          :width="picture.widthPx"
          :height="picture.heightPx"
          :transform="matrix"
          :opacity="picture.opacity"
        />
      </template>
      <template v-for="h in view.handles" :key="h.id + h.kind">
        <g
          v-if="!drawing"
          class="handle"
          role="button"
          tabindex="0"
          :aria-label="h.kind === 'turn' ? `turn ${h.label}` : `${h.label}, drag`"
          :data-test="`plan-${h.kind}-${h.role ?? h.label}`"
          @pointerdown="e => pick(h, e)"
          @focus="picked = h.id"
        >
          <circle :cx="h.x" :cy="h.y" :r="h.kind === 'turn' ? 9 : 13" :class="{ on: picked === h.id, turn: h.kind === 'turn' }" />
        </g>
      </template>
    </DrawingView>
  </div>
</template>

<style scoped>
.plan {
  overflow: hidden;
  touch-action: none;
  min-height: 0;
}
.plan.drawing {
  cursor: crosshair;
}
.handle circle.turn {
  stroke: var(--mv-computed);
  stroke-width: 1.4;
  fill: var(--mv-sheet);
  r: 5;
}
</style>
