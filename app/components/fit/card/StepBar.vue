<script setup lang="ts">
import type { CardStep } from '#core/card'

/** How far the card is: done, stopped, waiting, and where one stands. */
defineProps<{ steps: readonly CardStep[]; stepId: string }>()
</script>

<template>
  <div class="bar" aria-hidden="true">
    <i
      v-for="s in steps"
      :key="s.id"
      v-memo="[s.done, s.id === stepId, s.notSo, !s.waits]"
      :class="{ done: s.done, here: s.id === stepId, stopped: s.notSo, waits: s.waits && !s.done }"
    />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 2px;
}
.bar i {
  flex: 1;
  height: 8px;
  background: var(--mv-line);
}
.bar .done {
  background: var(--mv-met);
}
.bar .stopped {
  background: var(--mv-short);
}
.bar .waits {
  background: var(--mv-agreed);
}
.bar .here {
  background: var(--mv-ink);
}
</style>
