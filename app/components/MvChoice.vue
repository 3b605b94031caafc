<script setup lang="ts" generic="T extends string | number | boolean">
/** One of a few words or figures. It takes what to do with the choice, and says beside itself why one was refused. */
type Choice = T | { value: T | null; title: string }
const props = defineProps<{
  label?: string
  value: T | null
  choices: readonly Choice[]
  /** nothing is a choice too */
  clearable?: boolean
  disabled?: boolean
  /** errors beside fields where it was refused */
  save: (v: T | null) => unknown
}>()
const error = ref('')
async function take(v: T | null) {
  const told = await props.save(v ?? null)
  error.value = Array.isArray(told) ? ((told[0] as { message?: string } | undefined)?.message ?? '') : ''
}
</script>

<template>
  <v-select
    :label="label"
    :model-value="value"
    :items="choices"
    :clearable="clearable"
    :disabled="disabled"
    :error-messages="error"
    @update:model-value="(v: T | null) => take(v)"
  />
</template>
