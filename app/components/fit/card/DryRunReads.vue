<script setup lang="ts">
import { causesOf, readsBeside } from '#core/card'
import type { ReadBeside } from '#core/card'
import { num } from '#core/units'

/** What the dry run reads beside what the plan says; where it stops, what is likely behind it and where the plan is mended. */
const store = useOpened()
const { note } = useChecks()
const t = useSay()
const drill = computed(() => store.result.drill)
const reads = computed(() => readsBeside(store.doc, drill.value.dryRun))
const causes = computed(() => causesOf(reads.value, store.result))
const save = (r: ReadBeside) => (value: number | null) =>
  note({ kind: 'read', key: r.key, done: value !== null, value }, 'a figure of the dry run')
const offWords = (r: ReadBeside): string => {
  if (r.value === null) return `stop ${r.stopWhen} ${num(r.stopAt)}`
  const off = `${r.off! < 0 ? '' : '+'}${num(r.off!, 1)} ${r.unit === 'Mbit/s' ? r.unit : 'dB'}`
  return r.stop ? `${off}: stop` : `${off}: as it should be`
}
const SECTION = computed(() => new Map(SECTIONS.map(s => [s.id, s.name])))
</script>

<template>
  <div class="reads" data-test="dry-reads">
    <div v-for="r in reads" :key="r.key" class="read" :class="{ stop: r.stop, fine: r.value !== null && !r.stop }">
      <span
        ><b>{{ r.quantity }}</b> <span class="soft">{{ t(r.where) }}</span></span
      >
      <span class="fig sum"
        ><small class="soft">sum</small> {{ num(r.expected) }} <small>{{ r.unit }}</small></span
      >
      <MvNumber
        label="read"
        :value="r.value"
        :unit="r.unit"
        :low="-160"
        :high="10000"
        :negative="r.unit === 'dBm'"
        :decimals="1"
        :save="save(r)"
      />
      <span class="off" :class="r.stop ? 'error' : 'soft'">{{ offWords(r) }}</span>
    </div>
    <section v-if="causes.length" class="causes" data-test="causes">
      <h2>Stop. Not as it should be: find out before anything is drilled</h2>
      <ol>
        <li v-for="c in causes" :key="c.words">
          <b>{{ c.words }}</b><br />{{ t(c.look) }}; then
          <NuxtLink :to="`/job/${store.id}/${c.section}`">back to {{ SECTION.get(c.section) }}</NuxtLink>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.reads {
  margin: 12px 0;
}
.read {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 130px 130px 150px;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--mv-line);
  padding: 6px 0;
}
.read.stop {
  border-left: 4px solid var(--mv-short);
  padding-left: 8px;
}
.read.fine {
  border-left: 4px solid var(--mv-met);
  padding-left: 8px;
}
.sum {
  text-align: right;
}
.causes {
  border: 2px solid var(--mv-short);
  background: var(--mv-sheet);
  padding: 10px 14px;
}
.causes h2 {
  color: var(--mv-short);
}
ol {
  margin: 8px 0 0;
  padding-left: 20px;
}
li {
  padding: 3px 0;
}
a {
  color: var(--mv-computed);
}
@media (max-width: 900px) {
  .read {
    grid-template-columns: 1fr 120px;
  }
  .sum {
    text-align: left;
  }
}
</style>
