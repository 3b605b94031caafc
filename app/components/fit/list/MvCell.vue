<script setup lang="ts">
/** A field of a line: what is being typed stays, whatever else of the page is drawn anew meanwhile. */
const props = defineProps<{
  label: string
  value: string
  type?: 'text' | 'date' | 'number'
  disabled?: boolean
  placeholder?: string
  maxlength?: number
  /** @returns why it was not taken; nothing where it was */
  save: (text: string) => string | undefined
}>()
const draft = ref(props.value)
const error = ref('')
const editing = ref(false)
watch(
  () => props.value,
  v => {
    if (!editing.value) draft.value = v
  },
)
function leave() {
  editing.value = false
  const text = draft.value.trim()
  error.value = text === props.value ? '' : (props.save(text) ?? '')
}
</script>

<template>
  <span class="cell">
    <input
      v-model="draft"
      :type="type === 'date' ? 'date' : 'text'"
      :class="{ fig: type === 'number' }"
      :inputmode="type === 'number' ? 'decimal' : undefined"
      :aria-label="label"
      :aria-invalid="!!error"
      :placeholder="placeholder"
      :maxlength="maxlength"
      :disabled="disabled"
      autocomplete="off"
      @focus="editing = true"
      @blur="leave"
      @keydown.enter="leave"
      @change="type === 'date' && leave()"
    />
    <small v-if="error" class="error" role="alert">{{ error }}</small>
  </span>
</template>

<style scoped>
.cell {
  display: block;
}
input {
  width: 100%;
  min-width: 0;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  background: transparent;
  padding: 3px 0;
  color: var(--mv-ink);
}
input.fig {
  text-align: right;
}
input:focus {
  border-bottom-color: var(--mv-ink);
}
small {
  display: block;
}
</style>
