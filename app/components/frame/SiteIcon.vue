<script setup lang="ts">
/** The kind of a site at a glance: a house, a vehicle, a boat, each with its antenna. */
defineProps<{ kind: string }>()
</script>

<template>
  <svg viewBox="0 0 60 40" width="60" height="40" aria-hidden="true">
    <template v-if="kind === 'vehicle'">
      <path d="M6 32V12H38L46 22L54 24V32Z" fill="var(--mv-sheet)" stroke="var(--mv-ink)" stroke-width="1.6" />
      <circle cx="16" cy="33" r="4.5" fill="var(--mv-ink)" />
      <circle cx="44" cy="33" r="4.5" fill="var(--mv-ink)" />
      <path d="M16 12V3" stroke="var(--mv-ink)" stroke-width="1.8" />
    </template>
    <template v-else-if="kind === 'boat'">
      <path d="M4 24H54C52 31 47 35 40 35H16C9 35 5 31 4 24Z" fill="var(--mv-sheet)" stroke="var(--mv-ink)" stroke-width="1.6" />
      <path d="M32 24V2M27 11H37M32 3L52 24M32 3L6 24" fill="none" stroke="var(--mv-ink)" stroke-width="1.2" />
    </template>
    <template v-else-if="kind === 'building'">
      <path d="M12 38V12H46V38Z" fill="var(--mv-sheet)" stroke="var(--mv-ink)" stroke-width="1.6" />
      <path d="M12 21H46M12 29.5H46" stroke="var(--mv-ink)" stroke-width="1.2" />
      <path d="M20 12V1M11 3H20M13 0V6M16 -1V7" stroke="var(--mv-ink)" stroke-width="1.6" fill="none" />
    </template>
    <template v-else>
      <path d="M14 38V22L30 10L46 22V38Z" fill="var(--mv-sheet)" stroke="var(--mv-ink)" stroke-width="1.6" />
      <path d="M18 20V6M10 8H18M12 5V11M15 3V13" stroke="var(--mv-ink)" stroke-width="1.6" fill="none" />
    </template>
    <path d="M0 38H60" stroke="var(--mv-ink)" :stroke-width="kind === 'boat' ? 1 : 2" />
  </svg>
</template>
