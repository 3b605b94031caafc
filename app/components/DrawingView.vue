<script setup lang="ts">
import { attributes } from '#core/drawing'
import type { Drawing, Primitive } from '#core/drawing'

/** Draws primitives as SVG, painted by the theme's roles. */
defineProps<{ drawing: Drawing; label: string }>()
const emit = defineEmits<{ pick: [id: string] }>()
const paint = (p: Primitive) => attributes(p, role => (role === 'none' ? 'none' : `var(--mv-${role})`))
</script>

<template>
  <svg
    :viewBox="`0 0 ${drawing.width} ${drawing.height}`"
    :width="drawing.width"
    :height="drawing.height"
    :role="$slots.default ? 'group' : 'img'"
    :aria-label="label"
  >
    <slot name="under" />
    <template v-for="(p, i) in drawing.primitives" :key="i">
      <text v-if="p.kind === 'text'" v-bind="paint(p)" @click="p.id && emit('pick', p.id)">{{ p.text }}</text>
      <component :is="p.kind" v-else v-bind="paint(p)" @click="p.id && emit('pick', p.id)">
        <title v-if="p.title">{{ p.title }}</title>
      </component>
    </template>
    <slot />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  user-select: none;
}
text {
  font-variant-numeric: tabular-nums slashed-zero;
}
</style>
