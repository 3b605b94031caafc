<script setup lang="ts">
import { numbered } from '#core/drawing'
import { floorAt } from '#core/site'
import type { Section } from '#core/judge'
import { length, signed } from '#core/units'

/** The house to scale with the kit in it; in Level the level line stands under it on the same axis. */
const props = defineProps<{ section: Section }>()
const store = useOpened()
const prefs = usePrefs()
const t = useSay()
const session = useSession()
const stage = ref<HTMLElement | null>(null)
const levels = computed(() => props.section === 'level')
/** by the window: the picture itself shares it with the plan */
const { width: windowWidth } = useWindowSize()
const small = computed(() => windowWidth.value < 700)
const findings = computed(() =>
  store.result.findings.filter(f => !f.accepted && (f.section === 'place' || (levels.value && f.section === 'level'))),
)
const trouble = computed(() => findings.value.filter(f => f.severity === 'stop' || f.severity === 'fix'))
const notes = computed(() => findings.value.filter(f => f.severity === 'note' && f.cures.length))
const index = ref(0)
const first = computed(() => trouble.value[Math.min(index.value, trouble.value.length - 1)] ?? notes.value[0] ?? null)
const { picked, node, facing, nudge, turn, next: nextPart } = usePickedPart()
useKeys({
  p: { does: 'pick the next part', run: () => nextPart(1) },
  ArrowUp: { does: 'part 0.1 m up', run: () => nudge(0, 0.1) },
  ArrowDown: { does: 'part 0.1 m down', run: () => nudge(0, -0.1) },
  ArrowLeft: { does: 'part 0.1 m toward the mast', run: () => nudge(-0.1, 0) },
  ArrowRight: { does: 'part 0.1 m from the mast', run: () => nudge(0.1, 0) },
  Enter: {
    does: 'apply the first cure',
    run: () => stage.value?.querySelector<HTMLButtonElement>('.callout .cure:not(:disabled)')?.click(),
  },
  r: { does: 'turn the antenna picked 15° right', run: () => turn(15) },
  l: { does: 'turn the antenna picked 15° left', run: () => turn(-15) },
  b: { does: 'next band of the mast', run: nextBand },
  o: { does: 'what stands on the site, photographs', run: () => (pinning.value = true) },
  h: { does: 'height against cable', run: () => (heights.value = true) },
  i: { does: 'isolation, pair by pair', run: () => (isolating.value = !!store.result.loops.length) },
  c: { does: 'coverage of the floors', run: () => levels.value && (covering.value = !covering.value) },
})
const heights = ref(false)
const isolating = ref(false)
const pinning = ref(false)
const pins = computed(() => store.doc.fixtures.length + numbered(store.doc).length)
/** in Level, the floors with what a phone shows all over them */
const covering = ref(false)
const shownLevel = computed(() => {
  const picked_ = node.value && store.result.tree?.servers.some(s => s.node.id === node.value!.id) ? node.value : null
  const at = picked_ ?? store.result.tree?.servers[0]?.node ?? node.value
  return at ? floorAt(store.result.floors, at.upM - 0.01).level : 0
})
/** bands the chosen mast sends, to see the same house on another */
const bands = computed(() => {
  const id = store.result.chosen?.mast.id
  return id ? [...new Set(store.doc.cells.filter(c => c.mastId === id).map(c => c.band))].sort() : []
})
const setBand = (band: string) =>
  store.commit([{ table: 'designs', op: 'update', rowId: store.variant.id, fields: { band } }], `band ${band}`)
function nextBand() {
  const i = bands.value.indexOf(store.design?.band ?? '')
  const band = bands.value[(i + 1) % bands.value.length]
  if (band && session.mayEdit) void setBand(band)
}
const best = computed(() =>
  store.result.heights.reduce<{ heightM: number; netDb: number } | null>((a, b) => (!a || b.netDb > a.netDb + 0.3 ? b : a), null),
)
const stillOpen = computed(() => store.result.acts.plan.open)
</script>

<template>
  <div ref="stage" class="stage">
    <VariantBar />
    <CoverageView v-if="levels && covering" class="cover" />
    <div v-show="!(levels && covering)" class="main">
      <SectionPicture v-model:picked="picked" class="picture" :levels="levels" />
      <div v-if="!levels && !small" class="beside">
        <SettleCallout v-if="first" v-model:index="index" :first="first" :trouble="trouble" />
        <PlanPane v-model:picked="picked" class="above" :level="shownLevel" compact pins />
      </div>
    </div>
    <p v-if="!store.result.tree?.nodes.length && !covering" class="over soft">
      No kit yet: lay one out in <NuxtLink :to="`/job/${store.id}/choose`">Choose</NuxtLink>.
    </p>
    <SettleCallout v-if="first && (levels || small) && !covering" v-model:index="index" :first="first" :trouble="trouble" />
    <aside v-else-if="store.result.levels && !first && !covering" class="callout" :class="{ good: !stillOpen.length }">
      <p v-if="!stillOpen.length" class="fine" data-test="comes-out">The sum comes out: nothing is open in the plan.</p>
      <template v-else>
        <p>Nothing to fix here. Still open in the plan:</p>
        <ul data-test="still-open">
          <li v-for="(w, i) in stillOpen.slice(0, 4)" :key="i">{{ t(w) }}</li>
          <li v-if="stillOpen.length > 4">and {{ stillOpen.length - 4 }} more</li>
        </ul>
      </template>
    </aside>
    <PartBar v-if="node && !small && !covering" :node="node" :facing="facing" @turn="turn" />
    <div v-if="!small" class="below">
      <CautionTicks :section="section" brief />
      <BandTable v-if="levels && store.result.bands.length" @band="setBand" />
      <span v-else-if="bands.length > 1" class="bands"
        >band
        <button
          v-for="b in bands"
          :key="b"
          type="button"
          :class="{ on: b === store.design?.band }"
          :disabled="!session.mayEdit"
          :aria-pressed="b === store.design?.band"
          @click="setBand(b)"
        >
          {{ b }}
        </button>
        <kbd class="key">B</kbd></span
      >
      <button
        v-if="store.result.loops.length && !levels"
        type="button"
        class="press small"
        data-test="isolation"
        @click="isolating = true"
      >
        isolation, pair by pair <kbd class="key">I</kbd>
      </button>
      <button v-if="!levels" type="button" class="press small" data-test="pins" @click="pinning = true">
        sockets, roof, photographs{{ pins ? ` · ${pins}` : '' }} <kbd class="key">O</kbd>
      </button>
      <button
        v-if="levels"
        type="button"
        class="press small"
        :aria-pressed="covering"
        data-test="coverage"
        @click="covering = !covering"
      >
        {{ covering ? 'the section' : 'floors: coverage' }} <kbd class="key">C</kbd>
      </button>
      <button v-if="levels && best" type="button" class="press small" @click="heights = true">
        {{
          best.netDb > 1
            ? `mount at ${length(best.heightM, prefs.units, 0)} gains ${signed(best.netDb, 1)} dB net over ${length(1.5, prefs.units)}`
            : 'height hardly matters on this path'
        }}
        <kbd class="key">H</kbd>
      </button>
    </div>
    <details v-if="small" class="roofcare">
      <summary>before anything is drilled or wired</summary>
      <CautionTicks :section="section" />
    </details>
    <button v-if="small && !levels" type="button" class="press roofpins" data-test="pins" @click="pinning = true">
      sockets, roof, photographs{{ pins ? ` · ${pins}` : '' }}
    </button>
    <LazyPinsSheet v-if="pinning" v-model="pinning" :picked="picked" />
    <LazyIsolationSheet v-if="isolating" v-model="isolating" />
    <MvSheet v-model="heights" title="Height against cable" wide>
      <HeightPanel v-if="heights && store.result.chosen?.best" :mast="store.result.chosen" />
      <p v-else class="soft">Choose a mast in Bearings first.</p>
    </MvSheet>
  </div>
</template>

<style scoped>
.stage {
  height: 100%;
  position: relative;
  display: flex;
  flex-direction: column;
}
.main {
  flex: 1;
  min-height: 0;
  display: flex;
}
.cover {
  flex: 1;
  min-height: 0;
}
.beside {
  width: 420px;
  flex: none;
  border-left: 1px solid var(--mv-line);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.beside .callout {
  position: static;
  width: auto;
  max-height: 54%;
  border-width: 0 0 1px;
  flex: none;
}
.above {
  flex: 1;
  min-height: 0;
}
.picture {
  flex: 1;
  min-height: 0;
  overflow: hidden;
  touch-action: none;
}
.callout {
  position: absolute;
  right: 20px;
  top: 48px;
  width: 400px;
  max-height: 43%;
  overflow: auto;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-ink);
  padding: 4px 12px 2px;
}
.callout.good {
  width: auto;
  padding: 8px 14px;
}
.roofpins {
  margin: 0 14px 8px;
  min-height: 56px;
}
.roofcare {
  border-top: 1px solid var(--mv-line);
  padding: 0 14px;
  max-height: 46%;
  overflow: auto;
}
.roofcare summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 600;
  cursor: pointer;
}
.over {
  position: absolute;
  left: 20px;
  top: 52px;
  font-size: 16px;
  background: var(--mv-paper);
  padding: 6px 10px;
}
.below {
  display: flex;
  gap: 18px;
  align-items: center;
  padding: 4px 20px;
  border-top: 1px solid var(--mv-line);
  font-size: 12.5px;
  min-height: 42px;
  justify-content: space-between;
}
.below > :first-child {
  flex: 0 1 auto;
  min-width: 0;
}
.below .press {
  white-space: nowrap;
  flex: none;
}

.bands {
  white-space: nowrap;
}
.bands button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 4px 6px;
  cursor: pointer;
  min-height: 32px;
}
.bands button.on {
  border-color: var(--mv-ink);
  font-weight: 700;
}
@media (max-width: 900px) {
  .callout {
    position: static;
    width: auto;
    max-height: 34%;
    border-width: 1px 0 0;
  }
}
</style>
