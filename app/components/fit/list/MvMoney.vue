<script setup lang="ts">
import { amountWords, parseMoney } from '#core/card'

/** An amount in the crew's currency: comma or point; what is no price is said beside it. */
const props = defineProps<{
  label: string
  minor: number | null
  currency: string
  disabled?: boolean
  save: (minor: number | null) => unknown
}>()
const shown = (v: number | null): string => (v === null ? '' : amountWords(v, props.currency))
const draft = ref(shown(props.minor))
const error = ref('')
const editing = ref(false)
watch([() => props.minor, () => props.currency], () => {
  if (!editing.value) draft.value = shown(props.minor)
})
function leave() {
  editing.value = false
  try {
    const next = parseMoney(draft.value, props.currency)
    error.value = ''
    draft.value = shown(next)
    if (next !== props.minor) props.save(next)
  } catch (e) {
    error.value = messageOf(e)
  }
}
</script>

<template>
  <span class="money">
    <input
      v-model="draft"
      class="fig"
      :aria-label="label"
      :aria-invalid="!!error"
      inputmode="decimal"
      :disabled="disabled"
      autocomplete="off"
      @focus="editing = true"
      @blur="leave"
      @keydown.enter="leave"
    />
    <small v-if="error" class="error" role="alert">{{ error }}</small>
  </span>
</template>

<style scoped>
.money {
  display: block;
}
input {
  width: 100%;
  text-align: right;
  border: 0;
  border-bottom: 1px solid var(--mv-line);
  background: transparent;
  padding: 3px 2px;
}
input:focus {
  border-bottom-color: var(--mv-ink);
}
small {
  display: block;
}
</style>
