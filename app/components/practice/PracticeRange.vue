<script setup lang="ts">
/** An exercise: what it tells on one side, the picture beside it, what can be done under both, and at the end its score. */
defineProps<{ score: { points: number; said: readonly string[] } | null }>()
const emit = defineEmits<{ again: []; another: [] }>()
</script>

<template>
  <main class="range">
    <section class="tells">
      <slot name="tells" />
      <section v-if="score" class="score" aria-live="polite" data-test="practice-score">
        <h2>{{ score.points }} of 100</h2>
        <slot name="scored" />
        <p v-for="s in score.said" :key="s">{{ s }}</p>
        <p class="row">
          <button type="button" class="press" @click="emit('again')">again</button>
          <button type="button" class="press" @click="emit('another')">another place</button>
        </p>
      </section>
      <slot v-else name="taken" />
    </section>
    <slot name="stage" />
    <div v-if="!score" class="acts"><slot name="acts" /></div>
  </main>
</template>

<style scoped>
.range {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) auto / 380px minmax(0, 1fr);
}
.tells {
  padding: 16px 20px;
  border-right: 1px solid var(--mv-line);
  display: flex;
  flex-direction: column;
  gap: 8px;
  overflow: auto;
}
.score {
  border-top: 2px solid var(--mv-met);
  padding-top: 10px;
  display: grid;
  gap: 8px;
}
.score h2 {
  font-size: 30px;
}
.row {
  display: flex;
  gap: 10px;
}
.acts {
  grid-column: 1 / -1;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 10px;
  padding: 12px 16px;
  border-top: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
.acts :slotted(.press) {
  min-height: 60px;
  text-align: center;
  font-size: 17px;
}
@media (max-width: 900px) {
  .range {
    display: flex;
    flex-direction: column;
  }
  .tells {
    border: 0;
    padding: 8px 16px;
    gap: 4px;
    flex: none;
    max-height: 46%;
  }
  /* what was missed is read before the picture is looked at again */
  .tells:has(.score) {
    max-height: 64%;
  }
  .acts {
    flex: none;
  }
  .acts :slotted(.press) .key {
    display: none;
  }
}
</style>
