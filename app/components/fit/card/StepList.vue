<script setup lang="ts">
import { nth } from '#core/sure'
import { insert } from '#core/job'
import { runsOf, spanOf } from '#core/card'
import type { CardStep } from '#core/card'
import { num } from '#core/units'

/** Every step of the card: done ones, then the open ones by where one stands; a step of one's own at its end. */
const props = defineProps<{ steps: readonly CardStep[]; stepId: string | null }>()
const emit = defineEmits<{ pick: [id: string] }>()
const store = useJob()
const session = useSession()
const { once, doing } = useOnce()
const t = useSay()

/** the open steps by where one stands: a climb is one block */
const standOf = (s: CardStep): CardStep['stand'] | 'done' => (s.done ? 'done' : s.stand)
const blocks = computed(() => runsOf(props.steps, standOf).map(steps => ({ stand: standOf(nth(steps, 0)), steps })))
const STANDS = { 'done': 'done', 'in coverage': 'while there is coverage', 'ground': 'on the ground, inside', 'up': 'one climb' }
const sign = (s: CardStep): string => (s.done ? '✓' : s.notSo ? '!' : s.waits || s.hardensUntil ? '…' : '')
const waitWords = (s: CardStep): string => {
  if (!s.waits) return ''
  const { line, itself } = s.waits
  const when = line.dueOn ? `due ${dayWords(line.dueOn)}` : 'ordered, no day known'
  return itself ? `${line.name}: ${when}` : `waits, ${when}`
}

const adding = ref(false)
const words = ref('')
const minutes = ref('15')
const up = ref(false)
const error = ref('')
/** it goes in behind the step that is looked at, or before it */
const add = (where: 'afterKey' | 'beforeKey') =>
  once(async () => {
    const m = Number(minutes.value.replace(',', '.'))
    error.value = words.value.trim() ? '' : 'say what is done'
    if (!(m >= 1 && m <= 960)) error.value = '1 to 960 minutes'
    if (error.value) return
    const fields = {
      words: words.value.trim(),
      stand: up.value ? ('up' as const) : ('ground' as const),
      minutes: m,
      afterKey: null,
      beforeKey: null,
      [where]: props.stepId,
    }
    const bad = await store.commit([insert('ownSteps', fields)], 'a step by hand')
    error.value = bad[0]?.message ?? ''
    if (bad.length) return
    words.value = ''
    adding.value = false
  })
</script>

<template>
  <section v-for="(b, i) in blocks" :key="i">
    <h3>
      {{ STANDS[b.stand] }}<span class="soft">{{ b.stand === 'up' ? ` · ${b.steps.length} steps` : '' }}</span>
    </h3>
    <ol>
      <li v-for="s in b.steps" :key="s.id">
        <button
          type="button"
          :class="{ on: s.id === stepId, done: s.done, stopped: s.notSo, waits: s.waits }"
          :data-test="`step-${s.id.split(':')[0]}`"
          @click="emit('pick', s.id)"
        >
          <i aria-hidden="true">{{ sign(s) }}</i><span
            >{{ t(s.words) }}<small v-if="s.against" class="error">{{ s.against }}</small
            ><small v-if="s.changed" class="error">the plan changed since</small
            ><small v-if="s.notSo" class="error">{{ s.notSo }}</small
            ><small v-else-if="s.waits" class="late">{{ waitWords(s) }}</small></span
          >
          <span class="fig soft">{{ s.done ? '' : `${num(spanOf(s.minutes).likely)} min` }}</span>
        </button>
      </li>
    </ol>
  </section>
  <template v-if="session.mayEdit">
    <button v-if="!adding" type="button" class="plain add" data-test="add-step" @click="adding = true">a step of your own</button>
    <form v-else class="own" @submit.prevent="add('afterKey')">
      <v-text-field
        v-model="words"
        label="What is done"
        autofocus
        maxlength="160"
        :error-messages="error"
        data-test="own-words"
      />
      <v-text-field v-model="minutes" label="Minutes" inputmode="decimal" data-test="own-minutes" />
      <label><input v-model="up" type="checkbox" /> up there</label>
      <button type="submit" class="press" :disabled="doing">put it after this step</button>
      <button type="button" class="press" :disabled="doing" data-test="own-before" @click="add('beforeKey')">before it</button>
      <button type="button" class="press bare" @click="adding = false">cancel</button>
    </form>
  </template>
</template>

<style scoped>
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 10px 0 4px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li button {
  width: 100%;
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 6px;
  text-align: left;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  padding: 6px 4px;
  color: var(--mv-ink);
  cursor: pointer;
}
li button.done,
li button.waits {
  color: var(--mv-soft);
}
li button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
.on .soft,
.on .error,
.on .late {
  color: inherit;
}
i {
  font-style: normal;
  font-weight: 700;
  color: var(--mv-met);
}
.stopped i,
.waits i,
.late {
  color: var(--mv-short);
}
.on i {
  color: inherit;
}
small {
  display: block;
}
.add {
  margin: 12px 0;
}
.own {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 12px 0;
}
.own > :first-child {
  flex: 1 1 100%;
}
.own > :nth-child(2) {
  flex: 0 0 110px;
}
@media (max-width: 900px) {
  li button {
    min-height: 56px;
    align-items: center;
  }
  .add {
    min-height: 44px;
  }
}
</style>
