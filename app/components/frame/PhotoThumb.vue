<script setup lang="ts">
import type { Photo } from '#core/job'

/** A photograph small; pressed, it is seen whole. */
const props = defineProps<{ photo: Photo & { number?: number } }>()
const { url, gone } = usePictureUrl(() => props.photo.id)
const whole = ref(false)
const label = computed(() => props.photo.caption ?? `photograph ${props.photo.number ?? ''}`)
</script>

<template>
  <button type="button" class="thumb" :aria-label="`see ${label}`" :disabled="!url" @click="whole = true">
    <img v-if="url" :src="url" :alt="label" />
    <span v-else class="soft">{{ gone ? 'not on this device yet' : '…' }}</span>
    <b v-if="photo.number" class="fig">{{ photo.number }}</b>
  </button>
  <v-dialog v-model="whole" max-width="1200" :aria-label="label">
    <img v-if="url" :src="url" :alt="label" class="whole" @click="whole = false" />
  </v-dialog>
</template>

<style scoped>
.thumb {
  position: relative;
  width: 148px;
  height: 111px;
  flex: none;
  padding: 0;
  border: 1px solid var(--mv-line);
  background: var(--mv-paper);
  cursor: zoom-in;
  overflow: hidden;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.thumb b {
  position: absolute;
  left: 4px;
  top: 4px;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-ink);
  padding: 0 5px;
  font-size: 12px;
}
.whole {
  max-width: 100%;
  max-height: 86vh;
  object-fit: contain;
  cursor: zoom-out;
}
</style>
