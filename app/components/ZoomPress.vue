<script setup lang="ts">
/** How large a drawing is laid out, and its floors to go to one by one. */
const { floors = [] } = defineProps<{ zoom: number; floors?: { level: number; name: string }[] }>()
const emit = defineEmits<{ larger: []; smaller: []; whole: []; floor: [level: number] }>()
</script>

<template>
  <div class="zoom" :class="{ whole: zoom === 1 }" role="group" aria-label="size of the drawing">
    <template v-if="floors.length > 1">
      <button
        v-for="f in floors"
        :key="f.level"
        type="button"
        class="floor"
        :data-test="`floor-${f.level}`"
        @click="emit('floor', f.level)"
      >
        {{ f.name }}
      </button>
    </template>
    <button type="button" aria-label="smaller" :disabled="zoom === 1" @click="emit('smaller')">−</button>
    <button
      type="button"
      class="fig"
      aria-label="whole drawing"
      :disabled="zoom === 1"
      data-test="zoom-whole"
      @click="emit('whole')"
    >
      {{ Math.round(100 * zoom) }} %
    </button>
    <button type="button" aria-label="larger" data-test="zoom-larger" @click="emit('larger')">+</button>
  </div>
</template>

<style scoped>
.zoom {
  position: absolute;
  left: 8px;
  /* over the level line, where there is one */
  bottom: calc(var(--under, 0px) + 8px);
  display: flex;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-line);
}
button {
  border: 0;
  border-right: 1px solid var(--mv-line);
  background: none;
  min-width: 30px;
  min-height: 28px;
  padding: 0 8px;
  font-size: 12.5px;
  cursor: pointer;
}
button:last-child {
  border-right: 0;
}
button:disabled {
  color: var(--mv-soft);
  cursor: default;
}
.floor {
  max-width: 120px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 900px) {
  /* In the sky, off the floors. */
  .zoom {
    left: auto;
    right: 8px;
    bottom: auto;
    top: 8px;
  }
  /* Two fingers zoom; what is shown whole has no press. */
  .whole {
    display: none;
  }
  button {
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
