<script setup lang="ts">
/** A text field of a row, or a day: commits when left or when writing pauses, says beside itself what is wrong. */
type Told = Promise<{ field: string; message: string }[]> | undefined
/** Without a text only where none is required. */
type Saved = { required: true; save: (v: string) => Told } | { required?: false; save: (v: string | null) => Told }
const props = defineProps<
  {
    label: string
    value: string | null
    rows?: number
    hint?: string
    type?: 'text' | 'date'
    /** a phrase of a sentence, edited where it stands */
    phrase?: boolean
  } & Saved
>()
const draft = ref(props.value ?? '')
const error = ref('')
const editing = ref(false)
watch(
  () => props.value,
  v => {
    if (!editing.value) draft.value = v ?? ''
  },
)
async function leave() {
  editing.value = false
  await take()
}
/** Takes what is written, as far as it is. */
async function take() {
  const next = draft.value.trim() || null
  if (next === props.value) {
    error.value = ''
    return
  }
  if (props.required && !next) {
    error.value = 'must not be empty'
    return
  }
  error.value = (await (props.save as (v: string | null) => Told)(next))?.[0]?.message ?? ''
}
/** A pause in writing is enough: a page that is closed or falls asleep takes no long text with it. */
const PAUSE_MS = 1500
watchDebounced(
  draft,
  () => {
    if (editing.value && draft.value.trim()) void take()
  },
  { debounce: PAUSE_MS },
)
</script>

<template>
  <PhraseInput
    v-if="phrase"
    v-model="draft"
    :label="label"
    :placeholder="hint"
    :error="error"
    :type="type"
    :long="!!rows"
    @focus="editing = true"
    @leave="leave"
    @take="take"
  />
  <v-textarea
    v-else-if="rows"
    v-model="draft"
    :label="label"
    :rows="rows"
    auto-grow
    :error-messages="error"
    :hint="hint"
    @focus="editing = true"
    @blur="leave"
  />
  <v-text-field
    v-else
    v-model="draft"
    :type="type ?? 'text'"
    :label="label"
    :error-messages="error"
    :hint="hint"
    @focus="editing = true"
    @blur="leave"
    @keydown.enter="leave"
    @change="type === 'date' && take()"
  />
</template>
