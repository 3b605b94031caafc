<script setup lang="ts">
import { layoutSection } from '#core/drawing'
import { movesAbout } from '#core/job'
import type { Site } from '#core/job'

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
const edits = useSiteEdits()
const setSite = (field: keyof Site) => (v: unknown) => edits.setSite({ [field]: v }, fieldWord(field))
const { unit, factor } = useLengths()
/** dimension lines: where each runs, and where its figure stands */
const ENDS_PX = 5
const lines = computed(() => {
  const v = view.value
  if (!v || !measured.value) return []
  const s = site.value
  const [x1, x2] = [v.toX(-s.lengthM / 2), v.toX(s.lengthM / 2)]
  const top = s.storeys * s.storeyHeightM
  const right = Math.min(x2 + 26, width.value - 60)
  return [
    { field: 'lengthM' as const, label: 'Length', low: 3, high: 400, x1, y1: v.groundY + 22, x2, y2: v.groundY + 22 },
    {
      field: 'storeyHeightM' as const,
      label: 'Storey height',
      low: 2,
      high: 6,
      x1: right,
      y1: v.toY(s.storeyHeightM),
      x2: right,
      y2: v.groundY,
    },
    {
      field: 'roofRiseM' as const,
      label: 'Roof above eaves, 0 is flat',
      low: 0,
      high: 10,
      x1: right,
      y1: v.toY(top + s.roofRiseM),
      x2: right,
      y2: v.toY(top),
    },
  ]
})
</script>

<template>
  <div ref="el" class="picture">
    <DrawingView v-if="view" :drawing="view.drawing" label="Section to scale">
      <g v-for="l in lines" :key="l.field" class="dimension">
        <line :x1="l.x1" :y1="l.y1" :x2="l.x2" :y2="l.y2" />
        <template v-if="l.y1 === l.y2">
          <line :x1="l.x1" :y1="l.y1 - ENDS_PX" :x2="l.x1" :y2="l.y1 + ENDS_PX" />
          <line :x1="l.x2" :y1="l.y2 - ENDS_PX" :x2="l.x2" :y2="l.y2 + ENDS_PX" />
        </template>
        <template v-else>
          <line :x1="l.x1 - ENDS_PX" :y1="l.y1" :x2="l.x1 + ENDS_PX" :y2="l.y1" />
          <line :x1="l.x2 - ENDS_PX" :y1="l.y2" :x2="l.x2 + ENDS_PX" :y2="l.y2" />
        </template>
      </g>
    </DrawingView>
    <span
      v-for="l in lines"
      :key="l.field"
      class="measure"
      :style="{ left: `${(l.x1 + l.x2) / 2}px`, top: `${(l.y1 + l.y2) / 2}px` }"
    >
      <MvNumber
        phrase
        :label="l.label"
        :unit="unit"
        :factor="factor"
        :value="site[l.field]"
        :low="l.low"
        :high="l.high"
        required
        :decimals="1"
        :save="setSite(l.field)"
      />
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
