<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import { watchServer } from '~/instruments/watch'
import type { Watched } from '~/instruments/watch'
import { countWords, mostExpected, spanWords } from '#core/prove'
import { num } from '#core/units'

/** The link watched for drop-outs over minutes to hours. */
const props = defineProps<{ spotId: string }>()
const session = useSession()
export interface Kept {
  kind: 'watch'
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
const watching = ref(false)
const state = shallowRef<Watched | null>(null)
const beganUtc = ref('')
let stop: AbortController | null = null
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
  !watching.value && cutOff.value?.jobId === store.id && cutOff.value.spotId === props.spotId && cutOff.value.seconds >= LEAST_S
    ? cutOff.value
    : null,
)
const { isSupported, request, release } = useWakeLock()
/** What is kept of a watch as it stands. */
const row = (seen: Watched): Kept => ({
  kind: 'watch',
  takenAtUtc: beganUtc.value,
  seconds: Math.round(seen.seconds),
  drops: seen.drops,
  longestS: round1(seen.longestS),
  lostS: round1(seen.lostS),
  switchS: null,
  backS: null,
  broke: null,
})
const round1 = (v: number) => Math.round(v * 10) / 10
async function begin() {
  watching.value = true
  state.value = null
  beganUtc.value = nowUtc()
  stop = new AbortController()
  let saved = 0
  const watch = watchServer(w => {
    state.value = w
    if (w.seconds - saved < 10) return
    saved = w.seconds
    cutOff.value = { ...row(w), jobId: store.id, spotId: props.spotId }
  })
  if (isSupported.value) void request('screen').catch(() => {})
  await watch.run(stop.signal)
}
function end(keep: boolean) {
  stop?.abort()
  void release().catch(() => {})
  const seen = state.value
  if (keep && watching.value && seen && seen.seconds >= LEAST_S) emit('watched', row(seen))
  watching.value = false
  cutOff.value = null
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
    <template v-if="watching && state">
      <p class="now" role="status" :class="{ error: state.down }" data-test="watch-now">
        <b class="fig">{{ state.down ? 'no answer' : `answers in ${num(state.answerMs ?? 0)} ms` }}</b>
        <span>{{ spanWords(state.seconds) }} watched · {{ countWords(state.drops) }}</span>
        <span v-if="state.drops" class="soft">longest {{ num(state.longestS, 1) }} s</span>
        <span v-if="atMost !== null" class="soft">fewer than {{ num(atMost, atMost < 10 ? 1 : 0) }} an hour, nine in ten</span>
      </p>
      <div class="pair">
        <button
          type="button"
          class="press"
          :disabled="!session.mayEdit || state.seconds < LEAST_S"
          data-test="watch-keep"
          @click="end(true)"
        >
          stop and keep
        </button>
        <button type="button" class="press bare" data-test="watch-drop" @click="end(false)">stop, keep nothing</button>
      </div>
      <p class="soft">Leave this page open; the screen stays on. An hour or more tells most.</p>
    </template>
    <p v-else-if="watching" class="soft">asking…</p>
    <template v-else>
      <div class="pair">
        <button type="button" class="press" :disabled="!session.mayEdit" data-test="watch-begin" @click="begin()">
          watch for drop-outs
        </button>
        <NuxtLink :to="`/job/${store.id}/commission`" class="plain">failover is timed in Commission</NuxtLink>
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
