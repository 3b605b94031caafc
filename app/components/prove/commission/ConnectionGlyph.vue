<script setup lang="ts">
import type { ConnectionKind } from '#core/job'

/** By what a connection comes, at a glance. */
defineProps<{ kind: ConnectionKind }>()
</script>

<template>
  <svg viewBox="0 0 28 28" width="28" height="28" aria-hidden="true" fill="none" stroke="var(--mv-ink)" stroke-width="1.7">
    <template v-if="kind === 'cellular'">
      <path d="M14 9L8 26M14 9L20 26M10.5 19H17.5" />
      <path
        d="M9 4.5A7 7 0 0 0 9 12.5M19 4.5A7 7 0 0 1 19 12.5M5.5 2A11 11 0 0 0 5.5 15M22.5 2A11 11 0 0 1 22.5 15"
        stroke-width="1.3"
      />
    </template>
    <path v-else-if="kind === 'cable line'" d="M4 7V25M24 7V25M2 10H26M4 13C11 18 17 18 24 13M4 19C11 24 17 24 24 19" />
    <path v-else-if="kind === 'satellite'" d="M4 9C4 18 10 24 19 24L4 9ZM11.5 16.5L20 8M17 5L23 11M12 24V27M7 27H17" />
    <path v-else-if="kind === 'site Wi-Fi'" d="M3 12C9 6 19 6 25 12M7 16C11 12 17 12 21 16M11 20C13 18 15 18 17 20M14 24V24.5" />
    <path v-else d="M9 3H19V25H9ZM12.5 22H15.5M9 6.5H19M9 19H19" />
  </svg>
</template>
