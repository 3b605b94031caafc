<script setup lang="ts">
import type { Measured } from '~/instruments/ring'

/** The last minute of what the modem says, with what was kept as a line across. */
const props = defineProps<{ what: Measured; low: number; high: number; best?: number | null }>()
const modem = useInstrument()
const { el, width, height } = useWidth()
const SPAN_MS = 60_000
const path = ref('')
const drawn = ref(0)
useIntervalFn(() => {
  const now = Date.now()
  const list = modem.ring.since(props.what, now - SPAN_MS)
  drawn.value = list.length
  path.value = list
    .map((s, i) => `${i ? 'L' : 'M'}${(width.value * (1 - (now - s.atMs) / SPAN_MS)).toFixed(1)} ${y(s.value).toFixed(1)}`)
    .join('')
}, 200)
const y = (v: number) => height.value * (1 - Math.min(1, Math.max(0, (v - props.low) / (props.high - props.low))))
</script>

<template>
  <div ref="el" class="strip" role="img" :aria-label="`the last minute, ${drawn} readings`">
    <svg :width="width" :height="height" aria-hidden="true">
      <line v-if="best != null" x1="0" :x2="width" :y1="y(best)" :y2="y(best)" class="best" />
      <path :d="path" />
    </svg>
  </div>
</template>

<style scoped>
.strip {
  height: 56px;
  border: 1px solid var(--mv-line);
  background: var(--mv-sheet);
  overflow: hidden;
}
svg {
  display: block;
}
path {
  fill: none;
  stroke: var(--mv-ink);
  stroke-width: 1.6;
}
.best {
  stroke: var(--mv-met);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
</style>
