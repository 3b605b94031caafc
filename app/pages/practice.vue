<script setup lang="ts">
import { endless, EXERCISES, lampsOf, practiceLevel, reachable, scoreAim } from '#core/world/practice'
import type { Exercise, Score } from '#core/world/practice'
import { worldOf } from '#core/world/world'
import { earShare } from '#core/aim/ear'
import { angleBetween, normalise360 } from '#core/geo/angles'
import { median } from '#core/survey/stats'
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
const dial = ref<SVGSVGElement | null>(null)
const R = 150

const open = (e: Exercise) => {
  exercise.value = e
  heading.value = reachable(e)[0]!
  taken.value = []
  score.value = null
  lately = []
  readingSince.value = null
  began.value = Date.now()
  tone.begin()
}
const another = () => open(endless(1 + Math.floor(Math.random() * 9999)))
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
  points.value = { ...points.value, [e.id]: Math.max(points.value[e.id] ?? 0, s.points) }
  tone.stop()
}
/** turned while it is read, a reading is of no place: it begins anew */
watch(heading, () => (readingSince.value = null))
const step = computed(() => exercise.value?.pinsDeg || 5)
function turnTo(deg: number) {
  if (!score.value) heading.value = normalise360(Math.round(deg / step.value) * step.value)
}
function drag(e: PointerEvent) {
  if (!dial.value || !(e.buttons || e.type === 'pointerdown')) return
  const box = dial.value.getBoundingClientRect()
  turnTo((Math.atan2(e.clientX - box.left - box.width / 2, box.top + box.height / 2 - e.clientY) * 180) / Math.PI)
}
const figure = computed(() => {
  const e = exercise.value
  if (!e || level.value === null) return '–'
  if (e.shown === 'tone' && !score.value) return 'listen'
  return e.shown === 'lamps' ? '●'.repeat(lampsOf(level.value)) + '○'.repeat(5 - lampsOf(level.value)) : num(level.value, 1)
})
const at = (deg: number, r: number) => {
  const a = (deg * Math.PI) / 180
  return `${(r * Math.sin(a)).toFixed(1)} ${(-r * Math.cos(a)).toFixed(1)}`
}
const wedge = (deg: number, half: number, r: number) =>
  `M0 0L${at(deg - half, r)}A${r} ${r} 0 ${half > 90 ? 1 : 0} 1 ${at(deg + half, r)}Z`
const bars = computed(() => {
  if (!taken.value.length) return []
  const values = taken.value.map(t => t.value)
  const [low, high] = [Math.min(...values) - 3, Math.max(...values)]
  return taken.value.map(t => ({ ...t, r: 30 + (R - 44) * ((t.value - low) / (high - low || 1)) }))
})
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
    <header>
      <h1>Practice</h1>
      <span v-if="exercise" class="soft">{{ exercise.title }}</span>
      <button v-if="exercise" type="button" class="press" data-test="all-exercises" @click="exercise = null">
        all exercises
      </button>
      <NuxtLink to="/" class="press">All jobs</NuxtLink>
    </header>
    <main v-if="!exercise" class="list">
      <p>
        A mast is hidden somewhere about you. Turn the antenna, read, lock where it hears best. Each place fades, reflects and is
        disturbed as real ones are; none of it is known to the planner.
      </p>
      <ol>
        <li v-for="e in EXERCISES" :key="e.id">
          <button type="button" class="press" :data-test="`exercise-${e.id}`" @click="open(e)">
            <b class="fig">{{ e.id }}</b>
            <span
              ><strong>{{ e.title }}</strong
              ><small class="soft">{{ e.task }}</small></span
            >
            <em class="fig">{{ points[e.id] !== undefined ? `${points[e.id]} of 100` : '' }}</em>
          </button>
        </li>
      </ol>
      <button type="button" class="press filled" data-test="endless" @click="another">any place, any antenna</button>
    </main>
    <main v-else class="range">
      <section class="tells">
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
        <section v-if="score" class="score" aria-live="polite" data-test="practice-score">
          <h2>{{ score.points }} of 100</h2>
          <p>
            {{ num(score.lostDb, 1) }} dB under the best, {{ taken.length }} readings where {{ score.par }} are enough for the
            program’s own estimator.
          </p>
          <p v-for="s in score.said" :key="s">{{ s }}</p>
          <p class="row">
            <button type="button" class="press" @click="open(exercise!)">again</button>
            <button type="button" class="press" @click="another">another place</button>
          </p>
        </section>
        <ol v-else-if="taken.length" class="taken fig">
          <li v-for="(t, i) in taken" :key="i">{{ num(t.headingDeg) }}° {{ shownValue(t.value) }}</li>
        </ol>
      </section>
      <svg
        ref="dial"
        :viewBox="`${-R - 34} ${-R - 34} ${2 * R + 68} ${2 * R + 68}`"
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
        <circle :r="R" class="ring" />
        <path :d="wedge(heading, Math.min(85, exercise.antenna.beamwidthDeg / 2), R - 6)" class="beam" />
        <line x1="0" y1="0" :x2="at(heading, R).split(' ')[0]" :y2="at(heading, R).split(' ')[1]" class="axis" />
        <path v-for="d in 24" :key="d" :d="`M${at(d * 15, R)}L${at(d * 15, R + (d % 3 ? 5 : 9))}`" class="tick" />
        <text v-for="(w, i) in ['N', 'E', 'S', 'W']" :key="w" :transform="`translate(${at(i * 90, R + 21)})`" dy="5">
          {{ w }}
        </text>
        <path v-for="s in exercise.struckDeg" :key="s" :d="wedge(s, 14, R)" class="struck" />
        <path v-for="(b, i) in bars" :key="i" :d="`M${at(b.headingDeg, 26)}L${at(b.headingDeg, b.r)}`" class="bar" />
        <template v-if="score">
          <path :d="`M0 0L${at(score.bestDeg, R + 4)}`" class="best" />
          <circle :transform="`translate(${at(score.mastDeg, R + 4)})`" r="6" class="mast" />
        </template>
      </svg>
      <div class="acts">
        <button type="button" class="press" @click="turnTo(heading - step)">−{{ step }}°</button>
        <button
          type="button"
          class="press filled"
          data-test="practice-read"
          :disabled="out || struck || !!score || readingSince !== null"
          @click="read"
        >
          {{ readingSince !== null ? 'reading…' : out ? 'no more readings' : 'Read here' }} <kbd class="key">↵</kbd>
        </button>
        <button type="button" class="press go" data-test="practice-lock" :disabled="!!score || struck" @click="lock">
          Lock here <kbd class="key">L</kbd>
        </button>
        <button type="button" class="press" @click="turnTo(heading + step)">+{{ step }}°</button>
        <button type="button" class="press" :aria-pressed="tone.on.value" @click="tone.toggle">
          {{ tone.on.value ? 'tone off' : 'tone' }} <kbd class="key">T</kbd>
        </button>
      </div>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-ink);
}
header h1 {
  flex: 0 0 auto;
}
header > span {
  flex: 1;
}
header > :last-child {
  margin-left: auto;
  color: inherit;
  text-decoration: none;
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
  margin: 16px 0;
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
.range {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) auto / 380px minmax(0, 1fr);
}
.tells {
  padding: 16px 20px;
  border-right: 1px solid var(--mv-line);
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow: auto;
}
.big {
  font-size: 68px;
  font-weight: 600;
  line-height: 1;
}
.score {
  border-top: 2px solid var(--mv-met);
  padding-top: 10px;
  display: grid;
  gap: 8px;
}
.score h2 {
  font-size: 30px;
}
.row {
  display: flex;
  gap: 10px;
}
.taken {
  padding-left: 22px;
  margin: 0;
}
.dial {
  width: 100%;
  height: 100%;
  min-height: 0;
  padding: 12px;
  touch-action: none;
  cursor: grab;
}
.ring {
  fill: var(--mv-sheet);
  stroke: var(--mv-ink);
}
.tick {
  stroke: var(--mv-ink);
  fill: none;
}
.beam {
  fill: var(--mv-beam);
  opacity: 0.7;
}
.axis {
  stroke: var(--mv-computed);
  stroke-width: 2;
}
.struck {
  fill: var(--mv-short);
  opacity: 0.16;
}
.bar {
  stroke: var(--mv-ink);
  stroke-width: 3;
}
.best {
  stroke: var(--mv-met);
  stroke-width: 3;
}
.mast {
  fill: var(--mv-computed);
}
svg text {
  text-anchor: middle;
  font-weight: 700;
  font-size: 10px;
  fill: var(--mv-ink);
}
.acts {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 0.6fr 1.6fr 1.6fr 0.6fr 0.8fr;
  gap: 10px;
  padding: 12px 16px;
  border-top: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
.acts .press {
  min-height: 60px;
  text-align: center;
  font-size: 17px;
}
@media (max-width: 900px) {
  .list ol {
    grid-template-columns: 1fr;
  }
  .range {
    display: flex;
    flex-direction: column;
  }
  .tells {
    border: 0;
    padding: 8px 16px;
    gap: 4px;
    flex: none;
    max-height: 46%;
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
  header > span {
    display: none;
  }
  header .press {
    white-space: nowrap;
    padding: 6px 10px;
  }
  .acts {
    grid-template-columns: repeat(6, 1fr);
    flex: none;
  }
  .acts .press {
    grid-column: span 2;
    padding: 6px 4px;
  }
  .acts .press.filled,
  .acts .press.go {
    grid-column: span 3;
    order: 1;
  }
  .key {
    display: none;
  }
}
</style>
