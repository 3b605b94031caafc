<script setup lang="ts">
import type { CardStep } from '#core/card'
import { refuseLarge } from '~/utils/photos'

/** What can be done with a step, always in reach: it is done, there is a problem, it is photographed. */
const props = defineProps<{ step: CardStep; ready: boolean; busy: boolean; hasNext: boolean }>()
const emit = defineEmits<{ done: []; undone: []; next: []; problem: [why: string]; drop: [] }>()
const store = useOpened()
const { add: addPhotos, busy: taking, error: photoError } = usePhotos()

const telling = ref(false)
const why = ref('')
function tell() {
  if (!why.value.trim()) return
  emit('problem', why.value.trim())
  telling.value = false
  why.value = ''
}
watch(
  () => props.step.id,
  () => (telling.value = false),
)

/** A label is covered first; everything else is kept at once. */
const labelled = ref<File | null>(null)
const labelling = ref(false)
function shoot(e: Event) {
  const input = e.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  try {
    refuseLarge(file)
  } catch (x) {
    photoError.value = messageOf(x)
    return
  }
  photoError.value = ''
  if (props.step.photo?.includes('label')) {
    labelled.value = file
    labelling.value = true
    return
  }
  const node = store.doc.nodes.find(n => props.step.id.endsWith(n.id))
  void addPhotos([file], { nodeId: node?.id, at: node ? null : props.step.at, stepKey: props.step.id })
}
</script>

<template>
  <div class="doing no-print">
    <p v-if="photoError" class="error" role="alert">{{ photoError }}</p>
    <form v-if="telling" class="wrong" @submit.prevent="tell">
      <v-text-field v-model="why" label="What is wrong?" autofocus data-test="why" @keydown.esc="telling = false" />
      <button type="submit" class="press">keep</button>
    </form>
    <div class="does">
      <template v-if="step.done">
        <button v-if="hasNext" type="button" class="press filled first" @click="emit('next')">To the next step</button>
        <button type="button" class="press" :disabled="busy" data-test="undone" @click="emit('undone')">
          not done after all
        </button>
      </template>
      <template v-else>
        <button type="button" class="press filled first" :disabled="!ready || busy" data-test="step-done" @click="emit('done')">
          Done, next
        </button>
        <button v-if="step.notSo" type="button" class="press" :disabled="busy" data-test="so-now" @click="emit('undone')">
          solved
        </button>
        <button v-else type="button" class="press" :aria-expanded="telling" data-test="not-so" @click="telling = !telling">
          problem
        </button>
        <button v-if="step.own" type="button" class="press" :disabled="busy" @click="emit('drop')">take it away</button>
      </template>
      <label class="press file"
        >{{ taking ? 'taking it in…' : 'photo'
        }}<input
          type="file"
          accept="image/*"
          capture="environment"
          :disabled="taking"
          aria-label="photograph of this step"
          @change="shoot"
      /></label>
    </div>
    <LabelSheet v-model="labelling" :file="labelled" :step="step" />
  </div>
</template>

<style scoped>
.doing {
  padding: 8px 24px;
  border-top: 1px solid var(--mv-line);
  background: var(--mv-paper);
}
.does,
.wrong {
  display: flex;
  gap: 10px;
  max-width: 712px;
}
.wrong {
  margin-bottom: 8px;
}
.press {
  min-height: 56px;
  padding: 0 18px;
  display: flex;
  align-items: center;
}
.first {
  flex: 1;
  font-size: 16px;
}
@media (max-width: 900px) {
  .doing {
    padding: 8px 14px;
  }
}
</style>
