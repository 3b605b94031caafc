<script setup lang="ts">
/** The head of a page that is no job: what it is, a word beside it, ways from here. */
defineProps<{ title: string; note?: string }>()
</script>

<template>
  <header class="pagehead">
    <h1>
      {{ title }} <small v-if="note" class="soft">{{ note }}</small>
    </h1>
    <nav class="no-print"><slot /></nav>
  </header>
</template>

<style scoped>
.pagehead {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  flex-wrap: wrap;
  padding: 12px 24px;
  border-bottom: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
small {
  font-weight: 400;
  font-size: 14px;
  margin-left: 8px;
}
nav {
  display: flex;
  gap: 4px;
  align-items: center;
  flex-wrap: wrap;
}
nav :slotted(.press) {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  text-decoration: none;
}
nav :slotted(a.press) {
  color: inherit;
}
@media (max-width: 900px) {
  .pagehead {
    padding-left: 14px;
    padding-right: 14px;
  }
  nav :slotted(.press) {
    white-space: nowrap;
  }
}
</style>
