<script setup lang="ts">
import { layoutDial } from '#core/drawing'
import { sunPosition } from '#core/geo'
import type { MastView } from '#core/masts'
import { moves } from '#core/survey'

/** Which mast, which way, how high, and why not the others: dial or map, the list in words, and the strip below. */
const store = useOpened()
const session = useSession()
const { el: dialEl, width: dialWidth, height: dialHeight } = useWidth()
const small = useMediaQuery('(max-width: 900px)')
const masts = computed(() => store.result.masts.filter(m => m.path))
const picked = ref<string | null>(store.design?.mastId ?? null)
const selected = computed(() => masts.value.find(m => m.mast.id === picked.value) ?? masts.value[0] ?? null)
const view = ref<'dial' | 'map'>('dial')
const strip = ref<'skyline' | 'sight' | 'height'>('skyline')
const horizon = useHorizon()
const now = useNow({ interval: 20_000 })
const sun = computed(() => {
  const { latDeg, lonDeg } = store.site
  return latDeg !== null && lonDeg !== null ? sunPosition({ latDeg, lonDeg }, now.value) : null
})
const dialSize = computed(() => Math.max(220, Math.min(dialWidth.value, (dialHeight.value || 400) - 4)))
const dial = computed(() =>
  layoutDial(store.result, {
    size: dialSize.value,
    width: Math.max(dialSize.value, Math.min(dialWidth.value, dialSize.value + 240)),
    masts: 6,
    showSweep: true,
    headingDeg: store.design?.aimedDeg ?? null,
    selectedId: selected.value?.mast.id ?? null,
    horizon: horizon.value,
    bowDeg: moves(store.doc) ? store.site.headingDeg : null,
    sunDeg: sun.value && sun.value.altitudeDeg > 0 ? sun.value.azimuthDeg : null,
  }),
)

async function choose(m: MastView) {
  if (m.best)
    await store.commit(
      [{ table: 'designs', op: 'update', rowId: store.variant.id, fields: { mastId: m.mast.id, band: m.best.band } }],
      'choose the mast',
    )
}
const picking = ref(false)
const spot = ref<{ latDeg: number; lonDeg: number; bearingDeg: number; distanceM: number } | null>(null)
function pickPlace() {
  view.value = 'map'
  picking.value = true
}
function placed(at: NonNullable<typeof spot.value>) {
  picking.value = false
  spot.value = at
}
useKeys({
  Enter: { does: 'aim at this mast', run: () => selected.value && session.mayEdit && void choose(selected.value) },
  v: { does: 'dial or map', run: () => (view.value = view.value === 'dial' ? 'map' : 'dial') },
  Escape: { does: 'leave picking on the map', run: () => (picking.value = false) },
})
</script>

<template>
  <div class="bearings" :class="{ high: strip === 'height' }">
    <div ref="dialEl" class="dial" :class="{ mapped: view === 'map' }">
      <LazyMapView
        v-if="view === 'map'"
        :masts="masts"
        :selected-id="selected?.mast.id ?? null"
        :picking="picking"
        @pick="id => (picked = id)"
        @place="placed"
      />
      <DrawingView v-else :drawing="dial" label="Dial of bearings" @pick="id => (picked = id)" />
      <button type="button" class="press small turn" data-test="view" @click="view = view === 'dial' ? 'map' : 'dial'">
        {{ view === 'dial' ? 'map' : 'dial' }} <kbd v-if="!small" class="key">V</kbd>
      </button>
    </div>
    <MastList class="masts" :masts="masts" :selected="selected" @pick="id => (picked = id)" @choose="choose">
      <BearingTools v-model:spot="spot" :mast="selected" @map="pickPlace" />
    </MastList>
    <BearingStrip
      v-model="strip"
      class="under"
      :masts="masts"
      :selected="selected"
      :horizon="horizon"
      :sun="sun"
      :now="now"
      @pick="id => (picked = id)"
    />
  </div>
</template>

<style scoped>
.bearings {
  height: 100%;
  display: grid;
  grid-template: minmax(0, 1fr) minmax(230px, 37%) / minmax(360px, 42%) 1fr;
}
.bearings.high {
  grid-template-rows: minmax(0, 1fr) 52%;
}
.dial {
  padding: 6px;
  display: flex;
  justify-content: center;
  align-items: center;
  overflow: hidden;
  min-height: 0;
  position: relative;
}
.dial.mapped {
  padding: 0;
}
.turn {
  position: absolute;
  left: 10px;
  bottom: 10px;
}
.mapped .turn {
  bottom: 34px;
  left: 8px;
}
.under {
  grid-column: 1 / -1;
}
@media (max-width: 900px) {
  .bearings {
    display: flex;
    flex-direction: column;
    overflow: auto;
  }
  .dial {
    flex: none;
    height: 330px;
  }
  .under {
    order: 1;
    flex: none;
    height: 300px;
    border-bottom: 1px solid var(--mv-ink);
  }
  .high .under {
    height: auto;
  }
  .masts {
    order: 2;
    flex: none;
  }
  .turn,
  .mapped .turn {
    left: auto;
    right: 10px;
    bottom: auto;
    top: 10px;
  }
}
</style>
