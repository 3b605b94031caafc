<script setup lang="ts">
import { sure } from '#core/sure'
import type { Act } from '#core/judge'

/** What keeps the act from being green, then every finding: those of this act first. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ act: Act }>()
const store = useJob()
const t = useSay()
const mine = new Set(SECTIONS.filter(s => s.act === props.act).map(s => s.id))
const findings = computed(() => {
  const all = store.result?.findings ?? []
  return [...all.filter(f => mine.has(f.section)), ...all.filter(f => !mine.has(f.section))]
})
const act = computed(() => sure(ACTS.find(a => a.id === props.act)).name)
const state = useActStates()
const lacks = computed(() => state(props.act).open)
</script>

<template>
  <MvSheet v-model="open" title="Open, and findings">
    <p v-if="!store.result" class="soft" role="status">The job is being worked out: what is open is not known yet.</p>
    <section v-else data-test="open-list">
      <h3>{{ lacks.length ? `Still open in ${act}` : `Nothing is open in ${act}` }}</h3>
      <ul v-if="lacks.length">
        <li v-for="(w, i) in lacks" :key="i">{{ t(w) }}</li>
      </ul>
    </section>
    <p v-if="store.result && !findings.length" class="soft">Nothing to say yet: findings come with readings, masts and a kit.</p>
    <FindingRow v-for="f in findings" :key="f.key" :finding="f" />
  </MvSheet>
</template>

<style scoped>
h3 {
  font-size: 15px;
}
ul {
  margin: 4px 0 14px;
  padding-left: 18px;
}
</style>
