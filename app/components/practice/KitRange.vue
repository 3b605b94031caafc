<script setup lang="ts">
import {
  corridorLevels,
  HOUSE,
  layoutBooster,
  layoutCorridor,
  layoutSkylinePractice,
  PADS,
  scoreBooster,
  scoreSkyline,
  scoreTree,
  switchBooster,
  TAPS_DB,
} from '#core/practice'
import type { BoosterPut, BoosterSwitched, KitExercise, KitScore } from '#core/practice'
import { num, signed } from '#core/units'

/** A booster to be placed, a corridor to be balanced, a skyline to be read: tried as often as one likes, and scored. */
const props = defineProps<{ exercise: KitExercise }>()
const emit = defineEmits<{ scored: [points: number]; again: []; another: [] }>()
const { el: stage, width, height } = useWidth()
const size = computed(() => ({ width: width.value, height: Math.max(260, height.value) }))
const score = shallowRef<KitScore | null>(null)
const tries = ref(0)
const timesWords = (n: number) => (n === 1 ? 'once' : n ? `${n} times` : 'not yet')
function scored(s: KitScore) {
  score.value = s
  emit('scored', s.points)
}

// A booster
const BEGUN: BoosterPut = { donorAlongM: -1, donorOverM: 1, serverAlongM: 1, gainDb: 62, padDb: 0 }
const put = ref({ ...BEGUN })
const switched = shallowRef<BoosterSwitched | null>(null)
const booster = computed(() =>
  props.exercise.kind === 'booster' && width.value ? layoutBooster(put.value, switched.value, size.value) : null,
)
const within = (v: number, low: number, high: number) => Math.min(high, Math.max(low, Math.round(v * 2) / 2))
function place(what: 'donor' | 'server', alongM: number, overM: number) {
  if (score.value) return
  const reach = HOUSE.halfM - (what === 'server' ? 0.5 : 0)
  const along = within(alongM, -reach, reach)
  put.value =
    what === 'server'
      ? { ...put.value, serverAlongM: along }
      : { ...put.value, donorAlongM: along, donorOverM: within(overM, 0, HOUSE.overM) }
}
/** moved or set otherwise, what was seen before no longer holds */
watch(put, () => (switched.value = null), { deep: true, flush: 'sync' })
const dragging = ref<'donor' | 'server' | null>(null)
function drag(e: PointerEvent) {
  if (!dragging.value || !stage.value || !booster.value) return
  const box = stage.value.getBoundingClientRect()
  place(dragging.value, booster.value.toAlong(e.clientX - box.left), booster.value.toUp(e.clientY - box.top) - HOUSE.ridgeM)
}
useEventListener(window, 'pointerup', () => (dragging.value = null))
function nudge(what: 'donor' | 'server', alongM: number, overM: number) {
  const { donorAlongM, serverAlongM, donorOverM } = put.value
  place(what, (what === 'donor' ? donorAlongM : serverAlongM) + alongM, donorOverM + overM)
}
function switchOn() {
  if (props.exercise.kind !== 'booster') return
  tries.value++
  switched.value = switchBooster(props.exercise, put.value)
}
const STATE: Record<BoosterSwitched['state'], string> = {
  'runs': 'runs',
  'held back': 'held back',
  'overloaded': 'overloaded: shut down',
  'oscillates': 'hears itself: shut down',
}

// A corridor
const taps = ref<number[]>([])
const read = ref(false)
watch(taps, () => (read.value = false), { deep: true })
watch(
  () => props.exercise,
  e => {
    score.value = null
    tries.value = 0
    switched.value = null
    put.value = { ...BEGUN }
    taps.value = e.kind === 'tree' ? e.cablesM.slice(1).map(() => 12) : []
    read.value = false
  },
  { immediate: true },
)
function readLevels() {
  tries.value++
  read.value = true
}
const drawing = computed(() => {
  const e = props.exercise
  if (!width.value) return null
  if (e.kind === 'tree')
    return layoutCorridor(e, taps.value, read.value || score.value ? corridorLevels(e, taps.value) : null, size.value)
  return e.kind === 'skyline' ? layoutSkylinePractice(e, !!score.value, size.value) : null
})
function finish(chosen?: string) {
  const e = props.exercise
  if (score.value) return
  if (e.kind === 'booster') scored(scoreBooster(e, put.value, Math.max(1, tries.value)))
  else if (e.kind === 'tree') scored(scoreTree(e, taps.value, tries.value))
  else if (chosen) scored(scoreSkyline(e, chosen))
  if (e.kind === 'booster') switched.value = switchBooster(e, put.value)
}
useKeys({
  Enter: {
    does: 'try it',
    run: () => (props.exercise.kind === 'booster' ? switchOn() : props.exercise.kind === 'tree' ? readLevels() : undefined),
  },
  l: { does: 'leave it so', run: () => finish() },
})
</script>

<template>
  <PracticeRange :score="score" @again="emit('again')" @another="emit('another')">
    <template #tells>
      <p>{{ exercise.task }}</p>
      <template v-if="exercise.kind === 'booster'">
        <p class="big" :class="{ error: switched && !switched.gainDb }" role="status" data-test="kit-state">
          {{ switched ? STATE[switched.state] : 'off' }}
        </p>
        <p v-if="switched" class="fig">
          {{ num(switched.gainDb) }} dB of {{ put.gainDb }} · far room
          {{ switched.roomDbm === null ? 'nothing' : `${num(switched.roomDbm)} dBm` }}
        </p>
        <label
          >gain set
          <input
            v-model.number="put.gainDb"
            type="range"
            :min="exercise.amplifier.lowestGainDb"
            :max="exercise.amplifier.gainDb"
            :disabled="!!score"
          />
          <b class="fig">{{ put.gainDb }} dB</b></label
        >
        <p class="row" role="group" aria-label="Pad at the donor port">
          pad
          <button
            v-for="pad in PADS"
            :key="pad"
            type="button"
            class="press small"
            :class="{ on: put.padDb === pad }"
            :disabled="!!score"
            :data-test="`pad-${pad}`"
            @click="put.padDb = pad"
          >
            {{ pad ? `${pad} dB` : 'none' }}
          </button>
        </p>
        <p class="soft">Drag donor and dome, or step them with the arrow keys. Switched on {{ timesWords(tries) }}.</p>
      </template>
      <template v-else-if="exercise.kind === 'tree'">
        <ol class="taps">
          <li v-for="(_, i) in taps" :key="i">
            <span>tap {{ i + 1 }}</span>
            <select
              v-model.number="taps[i]"
              class="press small"
              :disabled="!!score"
              :aria-label="`Tap ${i + 1}`"
              :data-test="`tap-${i}`"
            >
              <option v-for="d in TAPS_DB" :key="d" :value="d">{{ d }} dB</option>
            </select>
          </li>
        </ol>
        <p class="soft">
          {{ signed(exercise.inDbm) }} dBm leave the amplifier; cable takes 0.19 dB a metre; the last antenna has no tap. Read
          {{ timesWords(tries) }}.
        </p>
      </template>
      <template v-else>
        <table>
          <thead>
            <tr>
              <th>mast</th>
              <th>bearing</th>
              <th>distance</th>
              <th>its top over you</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in exercise.masts" :key="m.name" class="fig">
              <td>
                <b>{{ m.name }}</b>
              </td>
              <td>{{ num(m.bearingDeg % 360) }}°</td>
              <td>{{ num(m.distanceKm, 1) }} km</td>
              <td>{{ num(m.overM) }} m</td>
            </tr>
          </tbody>
        </table>
        <p class="soft">The ridge is {{ num(exercise.ridgeKm, 1) }} km off.</p>
      </template>
    </template>
    <template #stage>
      <div ref="stage" class="stage" @pointermove="drag">
        <DrawingView v-if="booster" :drawing="booster.drawing" label="House with donor and dome">
          <circle
            v-for="h in booster.handles"
            :key="h.what"
            :cx="h.x"
            :cy="h.y"
            r="26"
            fill="transparent"
            class="handle"
            tabindex="0"
            role="button"
            :aria-label="`${h.label}: arrow keys move it`"
            :data-test="`put-${h.what}`"
            @pointerdown="dragging = h.what"
            @keydown.left.prevent.stop="nudge(h.what, -0.5, 0)"
            @keydown.right.prevent.stop="nudge(h.what, 0.5, 0)"
            @keydown.up.prevent.stop="nudge(h.what, 0, 0.5)"
            @keydown.down.prevent.stop="nudge(h.what, 0, -0.5)"
          />
        </DrawingView>
        <DrawingView
          v-else-if="drawing"
          :drawing="drawing"
          :label="exercise.kind === 'tree' ? 'Corridor of antennas' : 'Skyline'"
        />
      </div>
    </template>
    <template #acts>
      <template v-if="exercise.kind === 'skyline'">
        <button
          v-for="m in exercise.masts"
          :key="m.name"
          type="button"
          class="press"
          :data-test="`pick-${m.name}`"
          @click="finish(m.name)"
        >
          {{ m.name }}
        </button>
      </template>
      <template v-else>
        <button
          type="button"
          class="press filled"
          data-test="kit-try"
          @click="exercise.kind === 'booster' ? switchOn() : readLevels()"
        >
          {{ exercise.kind === 'booster' ? 'Switch it on' : 'Read the levels' }} <kbd class="key">↵</kbd>
        </button>
        <button type="button" class="press go" data-test="kit-finish" @click="finish()">
          Leave it so <kbd class="key">L</kbd>
        </button>
      </template>
    </template>
  </PracticeRange>
</template>

<style scoped>
.big {
  font-size: 34px;
  font-weight: 600;
  line-height: 1.1;
}
label {
  display: flex;
  gap: 10px;
  align-items: center;
}
label input {
  flex: 1;
  min-height: 32px;
  accent-color: var(--mv-ink);
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.taps {
  list-style: none;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
.taps li {
  display: flex;
  gap: 14px;
  align-items: center;
}
.taps select {
  appearance: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: right;
  padding: 6px 4px;
  border-bottom: 1px solid var(--mv-line);
}
th {
  font-weight: 400;
  color: var(--mv-soft);
  font-size: 12.5px;
}
th:first-child,
td:first-child {
  text-align: left;
}
.stage {
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  touch-action: none;
}
.handle {
  cursor: grab;
}
.handle:focus-visible {
  outline: none;
  stroke: var(--mv-computed);
  stroke-width: 2;
}
@media (max-width: 900px) {
  .stage {
    flex: 1 1 300px;
    min-height: 280px;
  }
  .row .press.small,
  .taps .press.small {
    min-height: 48px;
  }
}
</style>
