<script setup lang="ts">
import type { Advice } from '#core/solve'

/** An approach at a glance: where the antenna is, where the box, and what goes out from it. */
const props = defineProps<{ way: Advice['id'] }>()
/** what stands on the roof */
const antenna = computed(() => ['router', 'booster', 'booster and router', 'stick'].includes(props.way))
const boosts = computed(() => ['booster', 'booster and router'].includes(props.way))
const box = computed(
  () =>
    (({ outdoors: [44, 12], window: [35, 17], move: [40, 29], extender: [36, 17] }) as Partial<Record<Advice['id'], number[]>>)[
      props.way
    ] ?? [24, 29],
)
</script>

<template>
  <svg viewBox="0 0 56 42" width="56" height="42" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.6">
    <path d="M12 39V20L30 8L48 20V39Z" fill="var(--mv-sheet)" />
    <path v-if="antenna" d="M14 19V2M6 4H14M8 1V7M11 2V6M14 12V32H22" />
    <path v-if="way === 'outdoors'" d="M49 19V32H30" />
    <path v-if="way === 'move'" d="M18 33H34M31 30L34 33L31 36" stroke-width="1.3" />
    <path v-if="way === 'band' || way === 'sim'" d="M21 28V37H33V31L30 28ZM24 33H30" stroke-width="1.3" />
    <rect v-else :x="box[0]" :y="box[1]" width="10" height="8" fill="currentColor" stroke="none" />
    <path v-if="boosts" d="M34 33H40V27M36 27H44L42 31H38Z" stroke-width="1.3" />
    <path v-if="way === 'extender'" d="M22 36H30M22 32H30V36M33 20Q28 22 27 28" stroke-width="1.3" />
    <path
      v-if="way !== 'booster' && way !== 'nothing' && way !== 'band' && way !== 'sim'"
      :d="way === 'outdoors' || way === 'window' || way === 'extender' ? 'M22 27Q19 31 22 35' : 'M37 29Q40 33 37 37'"
      stroke-width="1.3"
    />
  </svg>
</template>
