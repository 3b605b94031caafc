<script setup lang="ts">
/** A sheet that lies over the page from the right, with a title and a way out. */
defineProps<{ title: string; wide?: boolean }>()
const open = defineModel<boolean>({ required: true })
// Escape pressed before the sheet has taken the focus, while it is still coming in.
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if (e.key === 'Escape' && open.value && (document.activeElement === document.body || !document.activeElement))
    open.value = false
})
</script>

<template>
  <v-dialog v-model="open" :max-width="wide ? 900 : 560" scrollable :aria-label="title">
    <v-card class="sheet">
      <header>
        <h2>{{ title }}</h2>
        <button type="button" class="press bare" aria-label="Close" @click="open = false">
          close <kbd class="key">Esc</kbd>
        </button>
      </header>
      <div class="body" tabindex="0" role="region" :aria-label="title">
        <slot />
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.sheet {
  max-height: 86vh;
  display: flex;
  flex-direction: column;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 8px 8px 8px 20px;
  border-bottom: 1px solid var(--mv-line);
}
h2 {
  font-size: 18px;
}
.body {
  padding: 16px 20px 20px;
  overflow: auto;
}
</style>
