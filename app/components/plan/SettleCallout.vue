<script setup lang="ts">
import type { Finding } from '#core/judge'

/** What is to be fixed, one at a time: pressed through by number. */
defineProps<{ first: Finding; trouble: Finding[] }>()
const index = defineModel<number>('index', { required: true })
</script>

<template>
  <aside class="callout" :class="first.severity" aria-label="What to fix">
    <div v-if="trouble.length > 1" class="pager">
      <button
        v-for="(f, i) in trouble"
        :key="f.key"
        type="button"
        :class="{ on: f === first }"
        :aria-label="`Finding ${i + 1}`"
        @click="index = i"
      >
        {{ i + 1 }}
      </button>
    </div>
    <FindingRow :finding="first" brief />
  </aside>
</template>

<style scoped>
.callout :deep(.finding) {
  border: 0;
  padding: 6px 0;
  margin: 0;
}
.pager {
  display: flex;
  gap: 2px;
  float: right;
  margin-top: 6px;
}
.pager button {
  border: 1px solid var(--mv-line);
  background: none;
  min-width: 24px;
  cursor: pointer;
}
.pager button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
</style>
