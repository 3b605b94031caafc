<script setup lang="ts" generic="T extends string | number | boolean">
/** One of a few words, of a row's field. */
defineProps<{
  label: string
  value: T | null
  choices: readonly { value: T; title: string }[]
  /** nothing is a choice too */
  clearable?: boolean
  disabled?: boolean
  save: (v: T | null) => unknown
}>()
</script>

<template>
  <v-select
    :label="label"
    :model-value="value"
    :items="choices"
    :clearable="clearable"
    :disabled="disabled"
    @update:model-value="(v: T | null) => save(v ?? null)"
  />
</template>
