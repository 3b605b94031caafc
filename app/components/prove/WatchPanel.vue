<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import { watchServer } from '~/instruments/watch'
import type { LinkWatch, Watched } from '~/instruments/watch'
import { countWords, mostExpected, spanWords } from '#core/prove'
import { num } from '#core/units'

/** The link watched for drop-outs over minutes to hours; or the main line pulled on purpose, and what then happens timed. */
const props = defineProps<{ spotId: string }>()
const session = useSession()
export interface Kept {
  kind: 'watch' | 'drill'
  takenAtUtc: string
  seconds: number
  drops: number
  longestS: number
  lostS: number
  switchS: number | null
  backS: number | null
  broke: string | null
}
const emit = defineEmits<{ watched: [row: Kept] }>()
const store = useOpened()
const kind = ref<'watch' | 'drill' | null>(null)
const state = shallowRef<Watched | null>(null)
const beganUtc = ref('')
const pulled = ref(false)
const returned = ref(false)
const broke = ref('')
let stop: AbortController | null = null
let watch_: LinkWatch | null = null
/** shorter than this says nothing, s */
const LEAST_S = 10

/** A watch that was cut off, by a closed page or an empty battery, is offered to be kept. */
interface Partial_ extends Kept {
  jobId: string
  spotId: string
}
const cutOff = useLocalStorage<Partial_ | null>('watch-under-way', null, {
  serializer: { read: v => (v ? (JSON.parse(v) as Partial_) : null), write: v => JSON.stringify(v) },
})
const left = computed(() =>
  kind.value === null &&
  cutOff.value?.jobId === store.id &&
  cutOff.value.spotId === props.spotId &&
  cutOff.value.seconds >= LEAST_S
    ? cutOff.value
    : null,
)
const { isSupported, request, release } = useWakeLock()
/** What is kept of a watch as it stands. */
const row = (what: 'watch' | 'drill', seen: Watched): Kept => ({
  kind: what,
  takenAtUtc: beganUtc.value,
  seconds: Math.round(seen.seconds),
  drops: seen.drops,
  longestS: round1(seen.longestS),
  lostS: round1(seen.lostS),
  switchS: what === 'drill' ? rounded(drill.value.switchS) : null,
  backS: what === 'drill' ? rounded(drill.value.backS) : null,
  broke: broke.value.trim() || null,
})
const round1 = (v: number) => Math.round(v * 10) / 10
const rounded = (v: number | null) => (v === null ? null : round1(v))
const drill = ref({ switchS: null as number | null, backS: null as number | null })
async function begin(what: 'watch' | 'drill') {
  kind.value = what
  state.value = null
  pulled.value = returned.value = false
  drill.value = { switchS: null, backS: null }
  broke.value = ''
  beganUtc.value = nowUtc()
  stop = new AbortController()
  let saved = 0
  const watch = watchServer(
    w => {
      state.value = w
      drill.value = { ...watch.drill }
      if (what === 'watch' && w.seconds - saved >= 10) {
        saved = w.seconds
        cutOff.value = { ...row(what, w), jobId: store.id, spotId: props.spotId }
      }
    },
    what === 'drill' ? 500 : 1000,
  )
  watch_ = watch
  if (isSupported.value) void request('screen').catch(() => {})
  await watch.run(stop.signal)
}
function end(keep: boolean) {
  stop?.abort()
  void release().catch(() => {})
  const [what, seen] = [kind.value, state.value]
  if (keep && what && seen && (what === 'drill' ? pulled.value : seen.seconds >= LEAST_S)) emit('watched', row(what, seen))
  kind.value = null
  cutOff.value = null
}
function pull() {
  watch_?.pull()
  pulled.value = true
}
function putBack() {
  watch_?.putBack()
  returned.value = true
}
function keepLeft() {
  if (!left.value) return
  const { jobId: _job, spotId: _spot, ...kept } = left.value
  emit('watched', kept)
  cutOff.value = null
}
onBeforeUnmount(() => stop?.abort())
const atMost = computed(() =>
  state.value && state.value.seconds >= LEAST_S ? (mostExpected(state.value.drops) * 3600) / state.value.seconds : null,
)
</script>

<template>
  <div class="watch" data-test="watch-panel">
    <template v-if="kind && state">
      <p class="now" role="status" :class="{ error: state.down }" data-test="watch-now">
        <b class="fig">{{ state.down ? 'no answer' : `answers in ${num(state.answerMs ?? 0)} ms` }}</b>
        <span>{{ spanWords(state.seconds) }} watched · {{ countWords(state.drops) }}</span>
        <span v-if="state.drops" class="soft">longest {{ num(state.longestS, 1) }} s</span>
        <span v-if="kind === 'watch' && atMost !== null" class="soft"
          >fewer than {{ num(atMost, atMost < 10 ? 1 : 0) }} an hour, nine in ten</span
        >
      </p>
      <template v-if="kind === 'drill'">
        <ol class="drill">
          <li :class="{ done: pulled }">
            <button v-if="!pulled" type="button" class="press filled" data-test="drill-pull" @click="pull">
              I pull the main line now
            </button>
            <span v-else-if="drill.switchS === null">pulled: waiting for the other way</span>
            <b v-else data-test="drill-switched">the other way answers after {{ num(drill.switchS, 1) }} s</b>
          </li>
          <li v-if="pulled">
            <button v-if="!returned" type="button" class="press" data-test="drill-back" @click="putBack">
              I put it back now
            </button>
            <span v-else-if="drill.backS === null">back in: waiting for the way back</span>
            <b v-else>back on it after {{ num(drill.backS, 1) }} s</b>
          </li>
        </ol>
        <label v-if="pulled" class="broke"
          >what broke
          <input
            v-model="broke"
            type="text"
            maxlength="500"
            placeholder="a call, a film, the alarm; nothing"
            data-test="drill-broke"
        /></label>
      </template>
      <div class="pair">
        <button
          type="button"
          class="press"
          :disabled="!session.mayEdit || (kind === 'drill' ? !pulled : state.seconds < LEAST_S)"
          data-test="watch-keep"
          @click="end(true)"
        >
          {{ kind === 'watch' ? 'stop and keep' : 'done: keep the drill' }}
        </button>
        <button type="button" class="press bare" data-test="watch-drop" @click="end(false)">stop, keep nothing</button>
      </div>
      <p v-if="kind === 'watch'" class="soft">Leave this page open; the screen stays on. An hour or more tells most.</p>
    </template>
    <p v-else-if="kind" class="soft">asking…</p>
    <template v-else>
      <div class="pair">
        <button type="button" class="press" :disabled="!session.mayEdit" data-test="watch-begin" @click="begin('watch')">
          watch for drop-outs
        </button>
        <button type="button" class="press" :disabled="!session.mayEdit" data-test="drill-begin" @click="begin('drill')">
          failover drill
        </button>
      </div>
      <p class="soft">
        Through the link that is to be proved: this device on its Wi-Fi or lead, its own radio off. A few MB an hour.
      </p>
      <p v-if="left" class="left">
        A watch of {{ spanWords(left.seconds) }} with {{ countWords(left.drops) }} was cut off.
        <button type="button" class="press small" data-test="watch-left" @click="keepLeft">keep it</button>
        <button type="button" class="press small bare" @click="cutOff = null">drop it</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.now {
  display: flex;
  gap: 4px 14px;
  flex-wrap: wrap;
  align-items: baseline;
  margin: 0 0 8px;
}
.now b {
  font-size: 20px;
}
.pair {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 6px 0;
}
.drill {
  padding-left: 20px;
  margin: 0;
}
.drill li {
  margin: 4px 0;
}
.broke {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.broke input {
  flex: 1;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  background: none;
  padding: 6px 2px;
  color: var(--mv-ink);
}
.soft {
  font-size: 12.5px;
}
@media (max-width: 640px) {
  .press {
    min-height: 56px;
  }
  .now b {
    font-size: 34px;
    width: 100%;
  }
}
</style>
