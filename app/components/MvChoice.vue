<script setup lang="ts" generic="T extends string | number | boolean">
/** One of a few words or figures. It takes what to do with the choice, and says beside itself why one was refused. */
type Choice = T | { value: T | null; title: string }
/** What to do with the choice; errors beside fields where it was refused. Nothing is a choice only where it can be cleared. */
type Saved = { clearable?: false; save: (v: T) => unknown } | { clearable: boolean; save: (v: T | null) => unknown }
const props = defineProps<
  {
    label?: string
    value: T | null
    choices: readonly Choice[]
    disabled?: boolean
    /** a phrase of a sentence, chosen where it stands */
    phrase?: boolean
    /** shown while nothing is chosen */
    hint?: string
  } & Saved
>()
/** Longer lists are searched; by thumb only much longer ones, where the keyboard costs less than the way down. */
const SEARCHED_ABOVE = { pointer: 8, thumb: 20 }
const thumb = useMediaQuery('(pointer: coarse)')
const searched = computed(() => !props.phrase && props.choices.length > SEARCHED_ABOVE[thumb.value ? 'thumb' : 'pointer'])
const error = ref('')
async function take(v: T | null) {
  const told = await (props.save as (v: T | null) => unknown)(v ?? null)
  error.value = Array.isArray(told) ? ((told[0] as { message?: string } | undefined)?.message ?? '') : ''
}
</script>

<template>
  <v-autocomplete
    v-if="searched"
    class="mv-choice"
    :label="label"
    :model-value="value"
    :items="choices"
    :placeholder="hint"
    :clearable="clearable"
    :disabled="disabled"
    :error-messages="error"
    auto-select-first
    no-data-text="nothing of that name"
    @update:model-value="(v: T | null) => (v !== null || clearable) && v !== value && take(v)"
  />
  <v-select
    v-else
    class="mv-choice"
    :class="{ 'phrase-select': phrase }"
    :variant="phrase ? 'plain' : undefined"
    :label="label"
    :model-value="value"
    :placeholder="hint"
    :persistent-placeholder="!!hint"
    :items="choices"
    :clearable="clearable"
    :disabled="disabled"
    :error-messages="error"
    @update:model-value="(v: T | null) => take(v)"
  />
</template>

<style scoped>
/* As wide as its word, underlined like the phrases beside it; its label is heard, not seen. */
.phrase-select {
  display: inline-flex;
  flex: none;
  font-weight: 700;
}
.phrase-select :deep(.v-field-label) {
  clip-path: inset(50%);
}
.phrase-select :deep(.v-field__input) {
  padding: 0;
  min-height: 28px;
}
.phrase-select :deep(input:placeholder-shown) {
  position: static;
  flex: none;
  min-width: 6ch;
  width: auto;
  field-sizing: content;
  opacity: 1 !important;
}
.phrase-select :deep(input::placeholder) {
  color: var(--mv-soft);
  opacity: 1 !important;
}
.phrase-select :deep(.v-field) {
  padding: 0;
  border-bottom: 2px solid var(--mv-ink);
}
.phrase-select :deep(.v-field__append-inner),
.phrase-select :deep(.v-field__clearable) {
  padding: 0;
}
.phrase-select :deep(.v-input__details) {
  padding: 0;
}
</style>
