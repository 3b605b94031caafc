<script setup lang="ts">
import { asNegative, parseNumber } from '#core/formats'

/** A number field of a row: comma or point, a range it says, negative where only that makes sense. */
type Told = Promise<{ field: string; message: string }[]> | undefined
/** Without a number only where none is required. */
type Saved = { required: true; save: (v: number) => Told } | { required?: false; save: (v: number | null) => Told }
const props = defineProps<
  {
    label: string
    value: number | null
    unit: string
    low: number
    high: number
    negative?: boolean
    decimals?: number
    /** stored = typed / factor */
    factor?: number
    /** shown while nothing is entered */
    hint?: string
    /** a phrase of a sentence, edited where it stands */
    phrase?: boolean
  } & Saved
>()
const f = computed(() => props.factor ?? 1)
const shown = (v: number | null) =>
  v === null ? '' : String(Number((v * f.value).toFixed(props.decimals ?? 2))).replace('-', '−')
const draft = ref(shown(props.value))
const error = ref('')
const editing = ref(false)
watch([() => props.value, () => f.value], () => {
  if (!editing.value) draft.value = shown(props.value)
})
async function leave() {
  editing.value = false
  let next: number | null
  try {
    next = parseNumber(draft.value)
    if (props.negative) next = asNegative(next)
  } catch (e) {
    error.value = messageOf(e)
    return
  }
  if (next === null && props.required) {
    error.value = 'a number is needed'
    return
  }
  if (next !== null) next = next / f.value
  if (next !== null && (next < props.low - 1e-9 || next > props.high + 1e-9)) {
    error.value = `${shown(props.low) || props.low} to ${shown(props.high)} ${props.unit}`
    return
  }
  error.value = ''
  if (next === props.value || (next !== null && props.value !== null && Math.abs(next - props.value) < 1e-9)) {
    draft.value = shown(props.value)
    return
  }
  error.value = (await (props.save as (v: number | null) => Told)(next))?.[0]?.message ?? ''
}
</script>

<template>
  <PhraseInput
    v-if="phrase"
    v-model="draft"
    class="fig"
    :label="label"
    :placeholder="hint"
    :error="error"
    numeric
    @focus="editing = true"
    @leave="leave"
  />
  <v-text-field
    v-else
    v-model="draft"
    class="fig"
    :label="label"
    :suffix="unit"
    :placeholder="hint"
    :persistent-placeholder="!!hint"
    inputmode="decimal"
    autocomplete="off"
    :error-messages="error"
    @focus="editing = true"
    @blur="leave"
    @keydown.enter="leave"
  />
</template>
