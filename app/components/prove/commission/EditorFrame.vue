<script setup lang="ts">
/** What was picked on the picture, as sentences under it: its name, what is done with it, and a way out. */
defineProps<{ label: string }>()
const emit = defineEmits<{ done: [] }>()
const session = useSession()
</script>

<template>
  <section class="editor" :aria-label="label">
    <header>
      <h2><slot name="name" /></h2>
      <span class="acts">
        <slot v-if="session.mayEdit" name="acts" />
        <button type="button" class="press small bare" @click="emit('done')">close <kbd class="key">Esc</kbd></button>
      </span>
    </header>
    <slot />
  </section>
</template>

<style scoped>
.editor {
  padding: 10px 20px 12px;
  border-bottom: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
}
header,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: baseline;
}
header {
  justify-content: space-between;
}
.editor :slotted(.sentence) {
  font-size: 15px;
  line-height: 2;
}
@media (max-width: 900px) {
  .editor {
    padding: 10px 14px;
  }
  .acts :slotted(.press),
  .acts .press {
    min-height: 56px;
  }
  .editor :slotted(.sentence) {
    line-height: 2.4;
  }
}
</style>
