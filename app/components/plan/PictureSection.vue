<script setup lang="ts">
import { nth } from '#core/sure'
import { layoutSection, numbered, photoPlace } from '#core/drawing'
import type { Photo } from '#core/job'
import { along, axisSign, floorAt, moveAlong, round2 } from '#core/site'
import type { Point } from '#core/site'
import type { Section } from '#core/judge'
import { facingOf, partOf } from '#core/chain'
import { bearing, length, num, signed } from '#core/units'

/** The house to scale with the kit in it; in Level the level line stands under it on the same axis. */
const props = defineProps<{ section: Section }>()
const store = useOpened()
const prefs = usePrefs()
const t = useSay()
const session = useSession()
const { el, width, height } = useWidth()
const levels = computed(() => props.section === 'level')
/** by the window: the picture itself shares it with the plan */
const { width: windowWidth } = useWindowSize()
const small = computed(() => windowWidth.value < 700)
const picked = ref<string | null>(null)
const { shown: shownDoc, move, hold, drop, rowOf } = useMoveParts()
const view = computed(() =>
  width.value && height.value
    ? layoutSection(shownDoc.value, store.result, {
        width: width.value,
        height: height.value,
        units: prefs.units,
        levels: levels.value,
        levelHeight: small.value ? Math.round(height.value * 0.46) : undefined,
        compact: small.value,
        pins: !levels.value,
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
const findings = computed(() =>
  store.result.findings.filter(f => !f.accepted && (f.section === 'place' || (levels.value && f.section === 'level'))),
)
const trouble = computed(() => findings.value.filter(f => f.severity === 'stop' || f.severity === 'fix'))
const notes = computed(() => findings.value.filter(f => f.severity === 'note' && f.cures.length))
const index = ref(0)
const first = computed(() => trouble.value[Math.min(index.value, trouble.value.length - 1)] ?? notes.value[0] ?? null)
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
/** the three figures of its place stand open beside it */
const byFigure = ref(false)
const pickedName = computed(() => store.result.tree?.nodes.find(n => n.node.id === picked.value)?.name ?? 'part')
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
function nextPart(by: number) {
  const order = store.result.tree?.nodes ?? []
  if (!order.length) return
  const i = order.findIndex(o => o.node.id === picked.value)
  picked.value = nth(order, (i + by + order.length) % order.length).node.id
}
useKeys({
  p: { does: 'pick the next part', run: () => nextPart(1) },
  ArrowUp: { does: 'part 0.1 m up', run: () => nudge(0, 0.1) },
  ArrowDown: { does: 'part 0.1 m down', run: () => nudge(0, -0.1) },
  ArrowLeft: { does: 'part 0.1 m toward the mast', run: () => nudge(-0.1, 0) },
  ArrowRight: { does: 'part 0.1 m from the mast', run: () => nudge(0.1, 0) },
  Enter: {
    does: 'apply the first cure',
    run: () => el.value?.closest('.stage')?.querySelector<HTMLButtonElement>('.callout .cure:not(:disabled)')?.click(),
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
  <div class="stage">
    <VariantBar />
    <CoverageView v-if="levels && covering" class="cover" />
    <div v-show="!(levels && covering)" class="main">
      <div ref="el" class="picture">
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
    <div v-if="node && !small && !covering" class="picked">
      <strong data-test="picked-name">{{ pickedName }}</strong> <span class="fig">{{ length(node.upM, prefs.units) }}</span> up
      <template v-if="facing !== null">
        · looks <span class="fig">{{ bearing(facing) }}</span>
        <button type="button" class="turn" :disabled="!session.mayEdit" aria-label="turn left" @click="turn(-15)">↶</button>
        <button
          type="button"
          class="turn"
          :disabled="!session.mayEdit"
          aria-label="turn right"
          data-test="turn-right"
          @click="turn(15)"
        >
          ↷
        </button>
      </template>
      <span class="soft">· drag it, or arrow keys, 0.1 m a press{{ facing !== null ? '; L and R turn it' : '' }}, or&nbsp;</span>
      <button type="button" class="plain" :aria-expanded="byFigure" data-test="by-figure" @click="byFigure = !byFigure">
        by figure
      </button>
      <PlaceFigures v-if="byFigure" :key="node.id" :node="node" />
    </div>
    <div v-if="!small" class="below">
      <CautionTicks :section="section" brief />
      <table v-if="levels && store.result.bands.length" class="bandtable" data-test="bands">
        <thead>
          <tr>
            <th scope="col">band <kbd class="key">B</kbd></th>
            <th scope="col" class="r">{{ store.result.rooms.length ? 'worst room' : 'at the modem' }}</th>
            <th v-if="store.result.loops.length" scope="col">the loop</th>
            <th
              v-if="store.result.loops.length"
              scope="col"
              class="r"
              title="from a phone in the hardest room toward the mast, against the same phone outside"
            >
              up, over the phone’s own
            </th>
            <th v-if="store.result.loops.length" scope="col" class="r" title="the booster’s own noise toward the mast, EIRP">
              noise up
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="b in store.result.bands" :key="b.band" :class="{ on: b.band === store.design?.band }">
            <td>
              <button
                type="button"
                :disabled="!session.mayEdit"
                :aria-pressed="b.band === store.design?.band"
                @click="setBand(b.band)"
              >
                {{ b.band }}
              </button>
            </td>
            <td class="r fig">
              {{ b.rsrpDbm === null ? '–' : `${num(b.rsrpDbm)} dBm`
              }}<small v-if="b.short" class="bad">&nbsp;{{ b.short }} short</small>
            </td>
            <td v-if="store.result.loops.length" :class="{ bad: b.loop?.state === 'oscillating' }">
              {{ b.loop ? loopWords(b.loop) : '–' }}
            </td>
            <td v-if="store.result.loops.length" class="r fig">{{ b.upGainDb === null ? '–' : `${signed(b.upGainDb)} dB` }}</td>
            <td v-if="store.result.loops.length" class="r fig">
              {{ b.upNoiseDbmPerMHz === null ? '–' : `${num(b.upNoiseDbmPerMHz)} dBm/MHz` }}
            </td>
          </tr>
        </tbody>
      </table>
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
.bandtable {
  border-collapse: collapse;
  flex: none;
}
.bandtable th {
  white-space: nowrap;
  font-weight: 400;
  color: var(--mv-soft);
  text-align: left;
  padding: 0 14px 0 0;
  position: sticky;
  top: 0;
  background: var(--mv-paper);
}
.bandtable td {
  padding: 0 14px 0 0;
  white-space: nowrap;
}
.bandtable .r {
  text-align: right;
}
.bandtable button {
  background: none;
  border: 0;
  padding: 0 4px 0 0;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.bandtable tr.on td {
  font-weight: 700;
}
.bad {
  color: var(--mv-short);
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
.fine {
  color: var(--mv-met);
  font-weight: 600;
}
.turn {
  border: 1px solid var(--mv-line);
  background: none;
  cursor: pointer;
  padding: 0 6px;
  min-height: 24px;
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
.picked {
  position: absolute;
  left: 16px;
  top: 46px;
  font-size: 13px;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-line);
  padding: 3px 10px;
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
