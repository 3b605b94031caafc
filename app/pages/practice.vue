<script setup lang="ts">
import { nth } from '#core/sure'
import { endless, endlessKit, EXERCISES, KIT_EXERCISES, lampsOf, practiceLevel, reachable, scoreAim } from '#core/practice'
import { worldOf } from '#core/world'
import type { Exercise, KitExercise, Score } from '#core/practice'
import { earShare } from '#core/aim'
import { layoutPractice } from '#core/drawing'
import { angleBetween, normalise360 } from '#core/geo'
import { median } from '#core/survey'
import { num } from '#core/units'

/** The simulated world as a trainer: a mast is hidden, an antenna is turned, and what was missed is told. */
const points = useLocalStorage<Record<string, number>>('practice', {})
const exercise = shallowRef<Exercise | null>(null)
const world = computed(() => (exercise.value ? worldOf(exercise.value.seed) : null))
const heading = ref(0)
const taken = ref<{ headingDeg: number; value: number }[]>([])
const score = shallowRef<Score | null>(null)
const began = ref(0)
const level = ref<number | null>(null)
const readingSince = ref<number | null>(null)
const READ_MS = 2000
let lately: { atMs: number; value: number }[] = []
const tone = useTone()
const { el: stage, width, height } = useWidth()

const open = (e: Exercise) => {
  exercise.value = e
  heading.value = nth(reachable(e), 0)
  taken.value = []
  score.value = null
  lately = []
  readingSince.value = null
  began.value = Date.now()
  tone.begin()
}
const kit = shallowRef<KitExercise | null>(null)
const anyNumber = () => 1 + Math.floor(Math.random() * 9999)
/** best so far of an exercise */
const won = (id: string, got: number) => (points.value = { ...points.value, [id]: Math.max(points.value[id] ?? 0, got) })
const GROUPS = [
  { words: 'Aim', list: EXERCISES },
  { words: 'Booster, tree and skyline', list: KIT_EXERCISES },
] as const
const start = (e: Exercise | KitExercise) => ('kind' in e ? (kit.value = e) : open(e))
function leave() {
  exercise.value = null
  kit.value = null
  tone.stop()
}
const another = () => open(endless(anyNumber()))
const out = computed(() => exercise.value?.most != null && taken.value.length >= exercise.value.most)
const struck = computed(() => exercise.value?.struckDeg.some(s => angleBetween(s, heading.value) < 1) ?? false)

useIntervalFn(() => {
  const e = exercise.value
  if (!e || !world.value || score.value) return
  const now = Date.now()
  const value = practiceLevel(world.value, e, heading.value, (now - began.value) / 1000)
  level.value = value
  lately = [...lately.filter(x => now - x.atMs < READ_MS), { atMs: now, value }]
  tone.set(earShare('RSRP', value), num(value))
  if (readingSince.value !== null && now - readingSince.value >= READ_MS) keep()
}, 100)
function keep() {
  readingSince.value = null
  const value = median(lately.map(x => x.value))
  taken.value = [...taken.value, { headingDeg: heading.value, value }]
  tone.kept(value)
}
function read() {
  if (out.value || struck.value || score.value || readingSince.value !== null) return
  lately = []
  readingSince.value = Date.now()
}
function lock() {
  const e = exercise.value
  if (!e || score.value || struck.value) return
  const s = scoreAim(
    e,
    heading.value,
    taken.value.map(t => t.headingDeg),
  )
  score.value = s
  won(e.id, s.points)
  tone.stop()
}
/** turned while it is read, a reading is of no place: it begins anew */
watch(heading, () => (readingSince.value = null))
const step = computed(() => exercise.value?.pinsDeg || 5)
function turnTo(deg: number) {
  if (!score.value) heading.value = normalise360(Math.round(deg / step.value) * step.value)
}
function drag(e: PointerEvent) {
  if (!stage.value || !(e.buttons || e.type === 'pointerdown')) return
  const box = stage.value.getBoundingClientRect()
  turnTo((Math.atan2(e.clientX - box.left - box.width / 2, box.top + box.height / 2 - e.clientY) * 180) / Math.PI)
}
const figure = computed(() => {
  const e = exercise.value
  if (!e || level.value === null) return '–'
  if (e.shown === 'tone' && !score.value) return 'listen'
  return e.shown === 'lamps' ? '●'.repeat(lampsOf(level.value)) + '○'.repeat(5 - lampsOf(level.value)) : num(level.value, 1)
})
const dial = computed(() =>
  layoutPractice({
    size: Math.max(200, Math.min(width.value, height.value)),
    headingDeg: heading.value,
    beamwidthDeg: exercise.value!.antenna.beamwidthDeg,
    taken: taken.value,
    struckDeg: exercise.value!.struckDeg,
    truth: score.value,
  }),
)
const shownValue = (v: number) =>
  exercise.value?.shown === 'lamps' ? `${lampsOf(v)} of 5` : exercise.value?.shown === 'tone' ? '' : num(v, 1)
useKeys({
  ArrowRight: { does: 'turn right', run: () => turnTo(heading.value + step.value) },
  ArrowLeft: { does: 'turn left', run: () => turnTo(heading.value - step.value) },
  Enter: { does: 'read here', run: read },
  l: { does: 'lock here', run: lock },
  t: { does: 'tone', run: tone.toggle },
})
onUnmounted(tone.stop)
</script>

<template>
  <div class="page">
    <PageHead title="Practice" :note="(exercise ?? kit)?.title">
      <button v-if="exercise || kit" type="button" class="press" data-test="all-exercises" @click="leave">all exercises</button>
      <NuxtLink to="/" class="press">All jobs</NuxtLink>
    </PageHead>
    <KitRange
      v-if="kit"
      :key="kit.id"
      :exercise="kit"
      @scored="p => won(kit!.id, p)"
      @again="kit = { ...kit! }"
      @another="kit = endlessKit(kit!.kind, anyNumber())"
    />
    <main v-else-if="!exercise" class="list">
      <p>
        A mast is hidden somewhere about you. Turn the antenna, read, lock where it hears best. Each place fades, reflects and is
        disturbed as real ones are; none of it is known to the planner.
      </p>
      <template v-for="g in GROUPS" :key="g.words">
        <h2>{{ g.words }}</h2>
        <ol>
          <li v-for="e in g.list" :key="e.id">
            <button type="button" class="press" :data-test="`exercise-${e.id}`" @click="start(e)">
              <b class="fig">{{ e.id }}</b>
              <span
                ><strong>{{ e.title }}</strong
                ><small class="soft">{{ e.task }}</small></span
              >
              <em class="fig">{{ points[e.id] !== undefined ? `${points[e.id]} of 100` : '' }}</em>
            </button>
          </li>
        </ol>
      </template>
      <button type="button" class="press filled" data-test="endless" @click="another">any place, any antenna</button>
    </main>
    <PracticeRange v-else class="turned" :score="score" @again="open(exercise!)" @another="another">
      <template #tells>
        <p class="big fig" data-test="practice-figure" aria-live="off">{{ figure }}</p>
        <p class="soft">
          {{ exercise.shown === 'lamps' ? 'lamps' : exercise.shown === 'tone' ? 'no figure here' : 'RSRP, dBm' }} · beam
          {{ exercise.antenna.beamwidthDeg }}°
        </p>
        <p>{{ exercise.task }}</p>
        <p>
          Antenna at <b class="fig">{{ num(heading) }}°</b>, {{ taken.length }} read{{
            exercise.most ? ` of ${exercise.most}` : ''
          }}
          <span v-if="struck" class="error"> · out of reach</span>
        </p>
      </template>
      <template #scored>
        <p>
          {{ num(score!.lostDb, 1) }} dB under the best, {{ taken.length }} readings where {{ score!.par }} are enough for the
          program’s own estimator.
        </p>
      </template>
      <template #taken>
        <ol v-if="taken.length" class="taken fig">
          <li v-for="(t, i) in taken" :key="i">{{ num(t.headingDeg) }}° {{ shownValue(t.value) }}</li>
        </ol>
      </template>
      <template #stage>
        <div
          ref="stage"
          class="dial"
          role="slider"
          tabindex="0"
          aria-label="Antenna’s heading, degrees"
          aria-valuemin="0"
          aria-valuemax="359"
          :aria-valuenow="heading"
          @pointerdown="drag"
          @pointermove="drag"
        >
          <DrawingView :drawing="dial" label="Dial: the beam, and what was read" />
        </div>
      </template>
      <template #acts>
        <button type="button" class="press" @click="turnTo(heading - step)">−{{ step }}°</button>
        <button
          type="button"
          class="press filled"
          data-test="practice-read"
          :disabled="out || struck || readingSince !== null"
          @click="read"
        >
          {{ readingSince !== null ? 'reading…' : out ? 'no more readings' : 'Read here' }} <kbd class="key">↵</kbd>
        </button>
        <button type="button" class="press go" data-test="practice-lock" :disabled="struck" @click="lock">
          Lock here <kbd class="key">L</kbd>
        </button>
        <button type="button" class="press" @click="turnTo(heading + step)">+{{ step }}°</button>
        <button type="button" class="press" :aria-pressed="tone.on.value" @click="tone.toggle">
          {{ tone.on.value ? 'tone off' : 'tone' }} <kbd class="key">T</kbd>
        </button>
      </template>
    </PracticeRange>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.list {
  padding: 20px;
  max-width: 980px;
}
.list ol {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 8px 0 18px;
}
.list .press {
  width: 100%;
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 56px;
}
.list .press.filled {
  width: auto;
}
.list li b {
  font-size: 22px;
  flex: 0 0 34px;
}
.list li span {
  flex: 1;
  display: flex;
  flex-direction: column;
}
.list li small {
  font-weight: 400;
}
.list li .press:hover small {
  color: inherit;
}
.list em {
  font-style: normal;
  white-space: nowrap;
}
.big {
  font-size: 68px;
  font-weight: 600;
  line-height: 1;
}
.taken {
  padding-left: 22px;
  margin: 0;
}
.dial {
  min-width: 0;
  min-height: 0;
  display: flex;
  align-items: center;
  justify-content: center;
  overflow: hidden;
  touch-action: none;
  cursor: grab;
}
.turned :deep(.acts) {
  grid-template-columns: 0.6fr 1.6fr 1.6fr 0.6fr 0.8fr;
}
@media (max-width: 900px) {
  .list ol {
    grid-template-columns: 1fr;
  }
  .big {
    font-size: 56px;
  }
  .taken {
    display: none;
  }
  .dial {
    flex: 1 1 220px;
  }
  .turned :deep(.acts) {
    grid-template-columns: repeat(6, 1fr);
    grid-auto-flow: row;
  }
  .turned .press {
    grid-column: span 2;
    padding: 6px 4px;
  }
  .turned .press.filled,
  .turned .press.go {
    grid-column: span 3;
    order: 1;
  }
}
</style>
