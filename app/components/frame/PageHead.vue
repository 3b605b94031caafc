<script setup lang="ts">
/** The head of a page that is no job: what it is, a word beside it, ways from here. */
defineProps<{ title: string; note?: string }>()
/** by thumb the ways from here fold away behind one press, where the page has a main one */
const open = ref(false)
</script>

<template>
  <header class="pagehead">
    <h1>
      {{ title }} <small v-if="note" class="soft">{{ note }}</small>
    </h1>
    <nav class="no-print" :class="{ folds: $slots.main, open }"><slot /></nav>
    <div v-if="$slots.main" class="main no-print">
      <button type="button" class="press bare menu" :aria-expanded="open" data-test="menu" @click="open = !open">
        {{ open ? 'less' : 'more' }}
      </button>
      <slot name="main" />
    </div>
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
  margin-left: auto;
}
.menu {
  display: none;
}
nav,
.main {
  display: flex;
  gap: 4px;
  align-items: center;
  flex-wrap: wrap;
}
nav :slotted(.press),
.main :slotted(.press) {
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
@media (max-width: 640px) {
  .pagehead:has(.folds) {
    padding-top: 6px;
    padding-bottom: 6px;
  }
  .folds ~ .main {
    margin-left: auto;
  }
  .folds,
  .pagehead:has(.folds) small {
    display: none;
  }
  .folds.open {
    display: flex;
    order: 1;
    flex: 1 0 100%;
  }
  .menu {
    display: inline-flex;
    align-items: center;
  }
  .main :slotted(.press) .key {
    display: none;
  }
}
</style>
