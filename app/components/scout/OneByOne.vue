<script setup lang="ts">
import { nowUtc } from '../../replica/clock'
import { closePair, closeTurns, oneByOne } from '#core/survey'
import type { Close, Turn, Varied } from '#core/survey'

/** Bands, SIMs or hours tried one by one at a spot: do this, wait, measure, next. */
const props = defineProps<{ spotId: string }>()
/** the set-up that reads; each turn is a copy of it with one thing changed */
const setupId = defineModel<string | null>({ required: true })
const emit = defineEmits<{ band: [name: string] }>()
const store = useOpened()
const session = useSession()
const { all, copyOf, error } = useSetups()
const open = ref(false)
const vary = ref<Varied>('band')
const CHOICES: { vary: Varied; words: string }[] = [
  { vary: 'band', words: 'bands' },
  { vary: 'SIM', words: 'SIMs' },
  { vary: 'hours', words: 'hours of the day' },
  { vary: 'close', words: 'the two that are close' },
]
/** begun with the first press; its turns stay as they were told, whatever comes out meanwhile */
const close = shallowRef<Close | null>(null)
watch([() => props.spotId, vary, open], () => (close.value = open.value && vary.value === 'close' ? pairNow() : null))
const pairNow = () => closePair(store.here, store.log, props.spotId, nowUtc())
const now = useNow({ interval: 60_000 })
const from = computed(() => all.value.find(s => s.row.id === setupId.value) ?? all.value.find(s => s.phase !== 'after') ?? null)
const turns = computed<Turn[]>(() =>
  close.value
    ? closeTurns(close.value, store.log)
    : open.value && from.value
      ? oneByOne(vary.value, {
          doc: store.doc,
          log: store.log,
          spotId: props.spotId,
          from: from.value.row,
          atUtc: now.value.toISOString(),
        })
      : [],
)
const isNow = (t: Turn) =>
  vary.value === 'close'
    ? t.now && t.setupId === setupId.value
    : vary.value === 'hours'
      ? t.now
      : !!from.value && Object.entries(t.changed).every(([k, v]) => (from.value!.row[k as 'bandLock'] ?? null) === (v ?? null))
const current = computed(() => turns.value.find(isNow) ?? null)
const next = computed(() =>
  vary.value === 'hours' ? null : (turns.value.find(t => !t.taken && !isNow(t) && (vary.value !== 'close' || t.now)) ?? null),
)
const done = computed(() => turns.value.length > 0 && turns.value.every(t => t.taken))
const { doing, once } = useOnce()
const go = (t: Turn) =>
  once(async () => {
    if (vary.value === 'hours' || !session.mayEdit) return
    if (t.setupId) return void (setupId.value = t.setupId)
    const id = await copyOf(from.value, t.changed, null)
    if (id) setupId.value = id
    if (id && vary.value === 'band') emit('band', t.key)
  })
</script>

<template>
  <div class="onebyone" data-test="one-by-one">
    <button
      type="button"
      class="press small"
      :class="{ on: open }"
      :aria-expanded="open"
      data-test="one-by-one-open"
      @click="open = !open"
    >
      one by one
    </button>
    <div v-if="open" class="pick" role="group" aria-label="What is tried one by one">
      <button
        v-for="c in CHOICES"
        :key="c.vary"
        type="button"
        class="press small"
        :class="{ on: vary === c.vary }"
        :aria-pressed="vary === c.vary"
        :data-test="`vary-${c.vary}`"
        @click="vary = c.vary"
      >
        {{ c.words }}
      </button>
    </div>
    <div v-if="open" class="turns">
      <p v-if="!from" class="soft">Say first what it is read with.</p>
      <p v-else-if="turns.length < 2 && vary === 'SIM'" class="soft">One SIM is in the job: more are added in Ask.</p>
      <p v-else-if="!turns.length && vary === 'close'" class="soft">
        No two set-ups here that some more tests would tell apart: each needs a test, and the ranking says what is open.
      </p>
      <p v-else-if="turns.length < 2 && vary === 'band'" class="soft">
        One band or none is known here: bring the list of masts in Bearings, or type a band in “with…”.
      </p>
      <ol v-else>
        <li v-for="t in turns" :key="t.key">
          <button
            type="button"
            class="turn"
            :class="{ now: isNow(t), taken: t.taken }"
            :disabled="doing || !session.mayEdit || vary === 'hours' || (vary === 'close' && !t.now)"
            :aria-current="isNow(t) ? 'step' : undefined"
            :data-test="`turn-${t.setupId ? t.key : t.words}`"
            @click="go(t)"
          >
            <b>{{ t.words }}</b><span>{{ t.taken ? `${t.taken}×` : 'not yet' }}</span>
          </button>
        </li>
      </ol>
      <p v-if="turns.length > 1" class="task" role="status">
        <template v-if="current"
          ><b>{{ current.words }}:</b> {{ current.task }}</template
        ><template v-else>Begin with {{ next?.words }}.</template>
        <button v-if="next" type="button" class="press small" :disabled="doing" data-test="turn-next" @click="go(next)">
          next: {{ next.words }}
        </button>
        <span v-else-if="done && vary !== 'hours'" class="met"
          >{{ vary === 'close' ? 'Tested in turns' : 'All tried here' }}: the ranking stands below.</span
        >
      </p>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </div>
  </div>
</template>

<style scoped>
.onebyone {
  display: contents;
}
.pick {
  display: flex;
  gap: 6px;
  align-items: center;
}
.turns {
  flex: 1 1 100%;
}
ol {
  list-style: none;
  padding: 0;
  margin: 8px 0 4px;
  display: flex;
  gap: 0;
  flex-wrap: wrap;
}
.turn {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  min-width: 74px;
  padding: 4px 10px;
  background: none;
  border: 0;
  border-top: 3px solid var(--mv-line);
  color: var(--mv-soft);
  font-size: 12.5px;
  cursor: pointer;
}
.turn b {
  font-size: 15px;
}
.turn.taken {
  border-color: var(--mv-ink);
  color: var(--mv-ink);
}
.turn.now {
  border-color: var(--mv-ink);
  background: var(--mv-sheet);
  color: var(--mv-ink);
}
.turn:disabled {
  cursor: default;
}
.task {
  display: flex;
  gap: 4px 10px;
  align-items: center;
  flex-wrap: wrap;
  margin: 0;
}
.met {
  color: var(--mv-met);
  font-weight: 600;
}
@media (max-width: 640px) {
  .pick .press.small {
    min-height: 44px;
  }
  .turn,
  .task .press {
    min-height: 56px;
  }
}
</style>
