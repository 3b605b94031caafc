<script setup lang="ts">
import { layoutSection } from '#core/drawing'
import { movesAbout } from '#core/job'

/** The site as it is told, to scale; a house has its measures on the drawing, where they are changed. */
const store = useOpened()
const prefs = usePrefs()
const { width, el } = useWidth()
const site = computed(() => store.site)
const measured = computed(() => !movesAbout(store.job.kind))
const view = computed(() =>
  width.value
    ? layoutSection(store.doc, store.result, {
        width: width.value,
        height: Math.min(430, Math.max(230, width.value * 0.6)),
        units: prefs.units,
        levels: false,
        loops: false,
        compact: width.value < 760,
      })
    : null,
)
const { unit } = useLengths()
/** half the mark at the end of a dimension line, px */
const ENDS_PX = 5
/** dimension lines: where each runs; its figure stands at its middle */
const lines = computed(() => {
  const v = view.value
  if (!v || !measured.value) return []
  const s = site.value
  const [x1, x2] = [v.toX(-s.lengthM / 2), v.toX(s.lengthM / 2)]
  const eavesM = s.storeys * s.storeyHeightM
  const right = Math.min(x2 + 26, width.value - 60)
  const upright = (field: OnDrawing, fromM: number, toM: number) => {
    const [y1, y2] = [v.toY(toM), v.toY(fromM)]
    return { field, x1: right, y1, x2: right, y2, endX: ENDS_PX, endY: 0 }
  }
  const y = v.groundY + 22
  return [
    { field: 'lengthM' as OnDrawing, x1, y1: y, x2, y2: y, endX: 0, endY: ENDS_PX },
    upright('storeyHeightM', 0, s.storeyHeightM),
    upright('roofRiseM', eavesM, eavesM + s.roofRiseM),
  ]
})
</script>

<template>
  <div ref="el" class="picture">
    <DrawingView v-if="view" :drawing="view.drawing" label="Section to scale">
      <g v-for="l in lines" :key="l.field" class="dimension">
        <line :x1="l.x1" :y1="l.y1" :x2="l.x2" :y2="l.y2" />
        <line :x1="l.x1 - l.endX" :y1="l.y1 - l.endY" :x2="l.x1 + l.endX" :y2="l.y1 + l.endY" />
        <line :x1="l.x2 - l.endX" :y1="l.y2 - l.endY" :x2="l.x2 + l.endX" :y2="l.y2 + l.endY" />
      </g>
    </DrawingView>
    <span
      v-for="l in lines"
      :key="l.field"
      class="measure"
      :style="{ left: `${(l.x1 + l.x2) / 2}px`, top: `${(l.y1 + l.y2) / 2}px` }"
    >
      <MeasureField phrase :field="l.field" v-bind="ON_DRAWING[l.field]" />
      {{ unit }}
    </span>
    <p class="soft">
      <template v-if="measured">Drawn from the numbers, the chosen mast on the left; press a measure to change it.</template>
      <template v-else>
        Drawn from the numbers, stern to bow, the chosen mast on the left; its heading is given in Bearings, under the compass.
      </template>
    </p>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  overflow: hidden;
}
.dimension line {
  stroke: var(--mv-ink);
  stroke-width: 1;
}
.measure {
  position: absolute;
  transform: translate(-50%, -50%);
  background: var(--mv-paper);
  padding: 0 4px;
  white-space: nowrap;
  font-weight: 700;
}
.picture p {
  padding: 10px 20px;
}
</style>
