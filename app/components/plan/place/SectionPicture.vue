<script setup lang="ts">
import { layoutSection, levelHeightPx, photoPlace } from '#core/drawing'
import type { Photo } from '#core/job'
import { floorWords, moveAlong, round2 } from '#core/site'
import type { Point } from '#core/site'

/** The section with its parts to be dragged; with `levels` the level line stands under it on the same axis. */
const { levels = false } = defineProps<{ levels?: boolean }>()
const picked = defineModel<string | null>('picked', { default: null })
const store = useOpened()
const prefs = usePrefs()
const { el, width, height } = useWidth()
const { width: windowWidth } = useWindowSize()
const small = computed(() => windowWidth.value < 700)
const { zoom, to, larger, smaller, whole } = useZoom(el)
const { shown, hold, drop, rowOf } = useMoveParts()
/** the level line keeps its height: it is read, not looked at closely */
const levelHeight = computed(() => (levels ? levelHeightPx(height.value, small.value) : 0))
const view = computed(() =>
  width.value && height.value
    ? layoutSection(shown.value, store.result, {
        width: Math.round(width.value * zoom.value),
        height: Math.round((height.value - levelHeight.value) * zoom.value) + levelHeight.value,
        units: prefs.units,
        levels,
        levelHeight: levelHeight.value || undefined,
        compact: small.value,
        pins: !levels,
      })
    : null,
)

type Handle = NonNullable<typeof view.value>['handles'][number]
function placed(h: Handle, x: number, y: number) {
  const v = view.value
  const row = rowOf(h)
  // A photograph without a place of its own stands where what it shows does.
  const at = row && (row.eastM === null ? photoPlace(store.doc, row as Photo) : (row as Point))
  return at && v ? { ...moveAlong(store.site, at, v.toAlong(x), v.sign), upM: round2(Math.max(0, v.toUp(y))) } : null
}
const { start } = useDragging<Handle>(
  (h, x, y) => drop(h, placed(h, x, y)),
  (h, x, y) => hold(h, placed(h, x, y)),
)

const floors = computed(() => [...store.result.floors].reverse().map(f => ({ level: f.level, name: floorWords(f) })))
/** One floor fills this share of the picture: the floor over it and the one under it stay in sight. */
const FLOOR_SHARE = 0.22
/** Goes to one floor, large enough to be read; to the middle of what was in sight. */
async function toFloor(level: number) {
  const floor = store.result.floors.find(f => f.level === level)
  const frame = el.value
  const v = view.value
  if (!floor || !frame || !v) return
  const picture = height.value - levelHeight.value
  await to((zoom.value * FLOOR_SHARE * picture) / (v.toY(floor.fromM) - v.toY(floor.toM)))
  frame.scrollTo({ top: view.value!.toY((floor.fromM + floor.toM) / 2) - picture / 2 })
}
useKeys({
  '+': { does: 'drawing larger', run: larger },
  '-': { does: 'drawing smaller', run: smaller },
  0: { does: 'whole drawing', run: whole },
})
</script>

<template>
  <div class="frame">
    <div ref="el" class="pull" :class="{ large: zoom > 1 }" data-test="pull">
      <DrawingView v-if="view" :drawing="view.drawing" :label="levels ? 'Section with the level line' : 'Section with the kit'">
        <template v-for="h in view.handles" :key="h.id">
          <g
            v-if="h.kind !== 'spot'"
            class="handle"
            role="button"
            tabindex="0"
            :aria-label="h.kind === 'node' ? `${h.label}, drag or arrow keys` : `${h.label}, drag`"
            :data-test="`part-${h.role ?? h.label}`"
            @pointerdown="
              e => {
                picked = h.id
                start(h, e)
              }
            "
            @focus="picked = h.id"
          >
            <circle :cx="h.x" :cy="h.y" :r="h.kind !== 'node' ? 13 : small ? 28 : 22" :class="{ on: picked === h.id }" />
          </g>
        </template>
      </DrawingView>
    </div>
    <ZoomPress
      :zoom="zoom"
      :floors="floors"
      :style="{ '--under': `${levelHeight}px` }"
      @larger="larger"
      @smaller="smaller"
      @whole="whole"
      @floor="toFloor"
    />
  </div>
</template>

<style scoped>
.frame {
  position: relative;
}
.pull {
  position: absolute;
  inset: 0;
  overflow: hidden;
  touch-action: none;
}
.pull.large {
  overflow: auto;
  scrollbar-width: none;
  cursor: grab;
}
.pull.large :deep(svg) {
  max-width: none;
}
</style>
