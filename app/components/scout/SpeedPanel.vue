<script setup lang="ts">
import { standing } from '#core/job'
import { lastOf } from '#core/sure'
import { num } from '#core/units'
import { testSpeed } from '~/instruments/speed'
import type { TestedSpeed } from '~/instruments/speed'

/** A timed transfer to our own server, over the link that is to be proved. */
const props = defineProps<{ setupId: string | null }>()
const emit = defineEmits<{ tested: [result: TestedSpeed] }>()
const store = useOpened()
const running = shallowRef<AbortController | null>(null)
const asking = ref(false)
const doing = ref('')
const mbps = ref(0)
const share = ref(0)
const error = ref('')
const last = shallowRef<Omit<TestedSpeed, 'doubted'> | null>(null)
const SECONDS = 6
const mostMb = useLocalStorage('speed-most-mb', 40)
/** what the last tests here came to says how much it will take */
const expectedMb = computed(() => {
  const run = standing(store.doc.speedRuns).at(-1)
  const guess = run ? (((run.downMbps ?? 0) + (run.upMbps ?? 0)) * SECONDS) / 8 : Infinity
  return Math.min(2 * mostMb.value, guess)
})
const linkWords = computed(() => {
  const s = store.doc.setups.find(x => x.id === props.setupId)
  return s ? `${s.link === 'device' ? 'this device’s own radio' : s.link}, ${s.antenna} antenna` : 'the link of the set-up'
})
async function run() {
  asking.value = false
  error.value = ''
  const stop = new AbortController()
  running.value = stop
  try {
    const result = await testSpeed({
      seconds: SECONDS,
      mostBytes: mostMb.value * 1e6,
      signal: stop.signal,
      progress: (what, s, m) => {
        doing.value = what
        share.value = s
        mbps.value = m
      },
    })
    last.value = result
    const earlier = standing(store.doc.speedRuns).filter(r => r.setupId === props.setupId && r.via && !r.doubted)
    emit('tested', { ...result, doubted: earlier.length > 0 && lastOf(earlier).via !== result.via })
  } catch (e) {
    error.value = messageOf(e)
  }
  running.value = null
}
onBeforeUnmount(() => running.value?.abort())
</script>

<template>
  <div class="speed">
    <template v-if="running">
      <strong role="status">{{ doing === 'idle' ? 'answers, idle' : `${doing} ${num(mbps, 1)} Mbit/s` }}</strong>
      <progress :value="doing === 'up' ? 1 + share : share" max="2" aria-label="How far the test is" />
      <button type="button" class="press small" data-test="speed-stop" @click="running.abort()">stop</button>
    </template>
    <template v-else-if="asking">
      <span>
        Over <b>{{ linkWords }}</b>? It takes {{ expectedMb >= 2 * mostMb ? 'at most' : 'about' }} {{ num(expectedMb) }} MB of the
        plan.
      </span>
      <label class="soft">
        no more than <input v-model.number="mostMb" class="fig" inputmode="numeric" aria-label="Most MB each way" /> MB each way
      </label>
      <button type="button" class="press filled" data-test="speed-go" @click="run">yes, test</button>
      <button type="button" class="press bare" @click="asking = false">no</button>
    </template>
    <button v-else type="button" class="press small" data-test="speed-run" @click="asking = true">run a test</button>
    <span v-if="last && !running" class="soft" data-test="speed-said"
      >an answer {{ last.pingMs }} ms idle, {{ last.loadedMs }} ms under load · {{ num(last.bytes / 1e6, 1) }} MB used</span
    >
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.speed {
  display: flex;
  gap: 8px 12px;
  align-items: center;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.speed input {
  width: 48px;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
  text-align: right;
}
progress {
  accent-color: var(--mv-computed);
}
@media (max-width: 640px) {
  .speed .press {
    min-height: 56px;
  }
}
</style>
