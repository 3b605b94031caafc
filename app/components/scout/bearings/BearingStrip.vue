<script setup lang="ts">
import { layoutSightLine, layoutSkyline } from '#core/drawing'
import { normalise360 } from '#core/geo'
import type { MastView } from '#core/masts'
import { moves, obstaclesHere } from '#core/survey'
import { skylineAt } from '#core/terrain'
import type { Horizon, PathResult } from '#core/terrain'
import { bearing, distance, num } from '#core/units'

/** The strip under dial and list: the skyline with the masts, the sight line to the picked one, or how high is worth it. */
const props = defineProps<{
  masts: MastView[]
  selected: MastView | null
  horizon: Horizon | null
  sun: { azimuthDeg: number; altitudeDeg: number } | null
  now: Date
}>()
const strip = defineModel<'skyline' | 'sight' | 'height'>({ required: true })
const emit = defineEmits<{ pick: [id: string] }>()
const store = useOpened()
const prefs = usePrefs()
const { engine } = useEngine()
const { el: stripEl, width: stripWidth, height: stripHeight } = useWidth()
const small = useMediaQuery('(max-width: 900px)')
const hasPlace = computed(() => store.site.latDeg !== null && store.site.lonDeg !== null)
const { landmarks } = useBearingWords(() => props.selected)
const dec = computed(() => store.result.declination)
const moving = computed(() => moves(store.doc))
const closer = ref(false)
/** bearings the strip shows, degrees, and the one in its middle */
const span = computed(() => (closer.value ? 90 : small.value ? 180 : 360))
const centre = computed(() => props.selected?.bearingDeg ?? 180)
const skyline = computed(() =>
  props.horizon && stripWidth.value
    ? layoutSkyline(props.horizon, {
        width: stripWidth.value,
        height: Math.max(110, stripHeight.value),
        units: prefs.units,
        centreDeg: centre.value,
        spanDeg: span.value,
        masts: props.masts.filter(m => m.rank <= (small.value ? 4 : 9) || m === props.selected),
        selectedId: props.selected?.mast.id ?? null,
        declination: dec.value,
        magnetic: prefs.magnetic,
        sun: props.sun,
        landmarks: landmarks.value,
        obstacles: obstaclesHere(store.doc),
        headingDeg: moving.value ? store.site.headingDeg : null,
        bowWord: store.job.kind === 'boat' ? 'bow' : 'nose',
        compact: small.value,
      })
    : null,
)

const farPath = shallowRef<PathResult | null>(null)
watch(
  [() => props.selected?.mast.id, () => props.selected?.path?.key, () => strip.value],
  async () => {
    farPath.value = null
    const m = props.selected
    if (strip.value === 'sight' && m?.path && !m.path.sketch.distanceM.length)
      farPath.value = await engine.path(toRaw(store.doc), m.mast.id)
  },
  { immediate: true },
)
const sight = computed(() => {
  const m = props.selected
  const path = m?.path?.sketch.distanceM.length ? m.path : farPath.value
  if (!m?.best || !path || path.mastId !== m.mast.id || !stripWidth.value) return null
  return layoutSightLine(path, {
    width: stripWidth.value,
    height: Math.max(110, stripHeight.value),
    units: prefs.units,
    band: m.best.band,
    heightM: store.result.mountHeightM,
    mastName: m.mast.name,
    diffractionDb: m.best.diffractionDb,
    compact: stripWidth.value < 620,
  })
})

/** what the pointer rests on: the skyline there, and the ridge that makes it */
const pointed = ref('')
function point(e: PointerEvent) {
  const h = props.horizon
  if (!h || strip.value !== 'skyline') return
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const deg = normalise360(centre.value + ((e.clientX - box.left) / box.width - 0.5) * span.value)
  const s = skylineAt(h, deg)
  pointed.value = Number.isNaN(s.elevationDeg)
    ? `${bearing(deg)}: ground unknown`
    : `${bearing(deg)} true, skyline ${num(s.elevationDeg, 1)}° up, ridge ${distance(s.ridgeM, prefs.units)} off`
}
useKeys({
  s: { does: 'skyline', run: () => (strip.value = 'skyline') },
  l: { does: 'sight line', run: () => (strip.value = 'sight') },
  h: { does: 'how high is worth it', run: () => (strip.value = 'height') },
  z: { does: 'closer on the skyline', run: () => (closer.value = !closer.value) },
})
</script>

<template>
  <div class="strip">
    <div class="head no-print">
      <span class="tabs" role="tablist"
        ><button
          v-for="[id, word, key] in [
            ['skyline', 'Skyline', 'S'],
            ['sight', 'Sight line', 'L'],
            ['height', 'How high', 'H'],
          ] as const"
          :key="id"
          type="button"
          role="tab"
          :aria-selected="strip === id"
          :class="{ on: strip === id }"
          :data-test="`strip-${id}`"
          @click="strip = id"
        >
          {{ word }} <kbd v-if="!small" class="key">{{ key }}</kbd>
        </button></span
      >
      <p v-if="pointed" class="pointed fig">{{ pointed }}</p>
      <AimWords v-else-if="selected" :mast="selected" :now="now" />
      <button v-if="strip === 'skyline' && !small" type="button" class="plain" :aria-pressed="closer" @click="closer = !closer">
        {{ closer ? 'all round' : 'closer' }} <kbd class="key">Z</kbd>
      </button>
      <button
        v-if="strip === 'skyline' && dec"
        type="button"
        class="plain"
        :aria-pressed="prefs.magnetic"
        @click="prefs.magnetic = !prefs.magnetic"
      >
        {{ prefs.magnetic ? 'axis by compass' : 'axis by true north' }}
      </button>
    </div>
    <div ref="stripEl" class="line" :class="{ roomy: strip === 'height' }" @pointermove="point" @pointerleave="pointed = ''">
      <template v-if="strip === 'skyline'"
        ><DrawingView
          v-if="skyline"
          :drawing="skyline"
          label="Skyline all round, with the masts"
          @pick="id => emit('pick', id)"
        />
        <p v-else class="soft wait">{{ hasPlace ? 'Working out the skyline…' : '' }}</p></template
      >
      <DrawingView v-else-if="strip === 'sight' && sight" :drawing="sight" label="Sight line to the mast" />
      <HeightPanel v-else-if="strip === 'height' && selected?.best" :mast="selected" />
      <p v-else class="soft wait">{{ selected && !selected.best ? 'This mast sends no band that the kit covers.' : '' }}</p>
    </div>
  </div>
</template>

<style scoped>
.strip {
  border-top: 1px solid var(--mv-ink);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.head {
  padding: 4px 16px 4px 0;
  font-size: 13px;
  display: flex;
  align-items: center;
  gap: 14px;
}
.tabs {
  display: flex;
  flex: none;
}
.tabs button {
  background: none;
  border: 0;
  border-bottom: 3px solid transparent;
  padding: 6px 12px;
  cursor: pointer;
  white-space: nowrap;
}
.tabs button.on {
  border-color: var(--mv-ink);
  font-weight: 700;
}
.pointed {
  flex: 1;
}
.line {
  flex: 1;
  min-height: 0;
  overflow: hidden;
}
.line.roomy {
  overflow: auto;
}
.wait {
  padding: 18px 20px;
}
@media (max-width: 900px) {
  .head {
    flex-wrap: wrap;
    gap: 4px 14px;
    padding: 4px 8px;
  }
  .head > :deep(.aim-words),
  .pointed {
    order: 3;
    flex: 1 0 100%;
    padding: 0 6px 4px;
  }
  .tabs button,
  .head > .plain {
    min-height: 48px;
  }
}
</style>
