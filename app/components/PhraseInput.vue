<script setup lang="ts">
/** A phrase of a sentence that is edited where it stands: as wide as what is in it. */
const {
  label,
  placeholder = '…',
  error = '',
  type = 'text',
  numeric = false,
} = defineProps<{
  label: string
  placeholder?: string
  error?: string
  type?: 'text' | 'date'
  numeric?: boolean
  /** more than a line may be said */
  long?: boolean
}>()
const draft = defineModel<string>({ required: true })
const emit = defineEmits<{ focus: []; leave: []; take: [] }>()
const id = useId()
</script>

<template>
  <span class="phrase">
    <textarea
      v-if="long"
      v-model="draft"
      rows="1"
      :aria-label="label"
      :placeholder="placeholder"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="error ? id : undefined"
      @focus="emit('focus')"
      @blur="emit('leave')"
    />
    <input
      v-else
      v-model="draft"
      :type="type"
      :aria-label="label"
      :placeholder="placeholder"
      :inputmode="numeric ? 'decimal' : undefined"
      :size="Math.max(1, (draft || placeholder).length)"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="error ? id : undefined"
      :class="{ none: type === 'date' && !draft }"
      autocomplete="off"
      @focus="emit('focus')"
      @blur="emit('leave')"
      @keydown.enter="emit('leave')"
      @change="type === 'date' && emit('take')"
    />
    <span v-if="type === 'date' && !draft" class="stand" aria-hidden="true">{{ placeholder }}</span>
    <span v-if="error" :id="id" class="error" role="alert">{{ error }}</span>
  </span>
</template>

<style scoped>
.phrase {
  display: inline-block;
  position: relative;
  max-width: 100%;
}
input,
textarea {
  border: 0;
  border-bottom: 2px solid var(--mv-ink);
  background: none;
  padding: 0 1px;
  font-weight: 700;
  field-sizing: content;
  line-height: 1.3;
  resize: none;
  vertical-align: baseline;
  min-width: 1.2ch;
  max-width: 100%;
}
/* A day not set shows words, not the pattern of a date. */
.none:not(:focus) {
  color: transparent;
}
.none:focus + .stand {
  display: none;
}
.stand {
  position: absolute;
  left: 1px;
  top: 0;
  pointer-events: none;
}
.stand,
::placeholder {
  color: var(--mv-soft);
  font-weight: 400;
}
[aria-invalid] {
  border-color: var(--mv-short);
}
.error {
  display: block;
  font-family: var(--mv-sans);
  font-size: 13px;
  font-weight: 400;
  line-height: 1.3;
}
@media (max-width: 900px) {
  input,
  textarea {
    padding-top: 12px;
  }
  .stand {
    top: 12px;
  }
}
</style>
