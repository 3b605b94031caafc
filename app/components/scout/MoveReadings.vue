<script setup lang="ts">
import { countUnder, MADE_WITH, movedTo, setupWords } from '#core/survey'
import { num } from '#core/units'

/** What was noted under the wrong set-up, moved to another: corrections in its place, one undo takes them back. */
const props = defineProps<{ spotId: string; spotName: string }>()
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const { all } = useSetups()
const { doing, once } = useOnce()
/** the set-up that was not named has no id */
const UNNAMED = 'none'
const WORDS = {
  readings: ['reading', 'readings'],
  speedRuns: ['test', 'tests'],
  calls: ['call', 'calls'],
  watches: ['watch', 'watches'],
}
const everywhere = ref(false)
const where = computed(() => (everywhere.value ? null : props.spotId))
const idOf = (key: string | null) => (key === UNNAMED ? null : key)
function countOf(key: string): string {
  const counts = countUnder(store.doc, idOf(key), where.value)
  return MADE_WITH.filter(t => counts[t])
    .map(t => `${num(counts[t])} ${WORDS[t][counts[t] === 1 ? 0 : 1]}`)
    .join(', ')
}
const names = computed(() => new Map([...all.value.map(s => [s.row.id, setupWords(s)] as const), [UNNAMED, 'not said'] as const]))
const counts = computed(() => new Map([...names.value.keys()].map(key => [key, countOf(key)])))
const used = computed(() => [...names.value.keys()].filter(key => counts.value.get(key)))
const from = ref<string | null>(null)
const to = ref<string | null>(null)
watchEffect(() => {
  if (!from.value || !used.value.includes(from.value)) from.value = used.value[0] ?? null
  if (to.value === from.value) to.value = null
})
const what = computed(() => (from.value && counts.value.get(from.value)) || '')
const error = ref('')
const move = () =>
  once(async () => {
    const steps = movedTo(store.doc, { fromId: idOf(from.value), toId: to.value!, spotId: where.value })
    const wrong = await store.commit(steps, 'move to another set-up')
    error.value = wrong[0]?.message ?? ''
    if (!wrong.length) open.value = false
  })
</script>

<template>
  <MvSheet v-model="open" title="Made with another set-up">
    <p class="soft">
      Each stays in the log as it was noted; a correction with the same figures and the same time stands in its place. One undo
      takes them back.
    </p>
    <div class="fields">
      <MvChoice
        label="Noted under"
        :value="from"
        :choices="used.map(key => ({ value: key, title: `${names.get(key)}: ${counts.get(key)}` }))"
        data-test="move-from"
        :save="v => (from = v)"
      />
      <MvChoice
        label="Made with"
        :value="to"
        :choices="all.filter(s => s.row.id !== from).map(s => ({ value: s.row.id, title: setupWords(s) }))"
        data-test="move-to"
        :save="v => (to = v)"
      />
      <v-checkbox v-model="everywhere" :label="`At every spot, not only ${spotName}`" data-test="move-everywhere" />
    </div>
    <button type="button" class="press filled" :disabled="!to || !what || doing" data-test="move-them" @click="move">
      move {{ what || 'nothing' }}
    </button>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </MvSheet>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  margin: 14px 0;
}
</style>
