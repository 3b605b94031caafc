<script setup lang="ts">
import { lessonsOf, offered } from '#core/card'
import type { CardStep } from '#core/card'
import type { Fleet } from '../../../../shared/api'

/** What this step taught here and on the others of the fleet, and the method's photographs of it. */
const props = defineProps<{ step: CardStep; fleet: Fleet | null }>()
const store = useOpened()
const session = useSession()
const { note } = useChecks()
const { once, doing } = useOnce()
const own = computed(() => lessonsOf(store.doc))
const mine = computed(() => own.value.filter(l => l.words === props.step.plain))
const others = computed(() =>
  offered(
    (props.fleet?.lessons ?? []).filter(l => l.fromId !== store.id),
    own.value,
    props.step.plain,
  ),
)
const photos = computed(() => (props.fleet?.photos ?? []).filter(p => p.words === props.step.plain && p.jobId !== store.id))
const writing = ref(false)
const text = ref('')
const error = ref('')
const keepLesson = (reason: string) =>
  once(async () => {
    if (!reason.trim()) return
    const said = { kind: 'lesson', key: props.step.id, done: true, reason: reason.trim(), about: props.step.plain } as const
    const bad = await note(said, 'what a step taught')
    error.value = bad[0]?.message ?? ''
    if (bad.length) return
    text.value = ''
    writing.value = false
  })
</script>

<template>
  <div class="taught" data-test="taught">
    <p v-for="l in mine" :key="l.text"><b>taught:</b> {{ l.text }}</p>
    <p v-for="l in others" :key="l.text" class="offer">
      <span
        ><b>{{ l.from }}:</b> {{ l.text }}</span
      >
      <button
        v-if="session.mayEdit"
        type="button"
        class="plain"
        :disabled="doing"
        data-test="take-lesson"
        @click="keepLesson(l.text)"
      >
        so here too
      </button>
    </p>
    <div v-if="photos.length" class="photos">
      <MethodPhoto v-for="p in photos" :key="p.id" :photo="p" />
    </div>
    <template v-if="session.mayEdit">
      <button v-if="!writing" type="button" class="plain" data-test="teach" @click="writing = true">what it taught</button>
      <form v-else @submit.prevent="keepLesson(text)">
        <v-text-field
          v-model="text"
          label="For whoever does it next"
          autofocus
          maxlength="500"
          :error-messages="error"
          data-test="lesson"
        />
        <button type="submit" class="press">keep it</button>
      </form>
    </template>
  </div>
</template>

<style scoped>
.taught {
  margin: 10px 0;
}
.offer {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  border-left: 4px solid var(--mv-agreed);
  padding: 4px 0 4px 10px;
}
.photos {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin: 8px 0;
}
form {
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
</style>
