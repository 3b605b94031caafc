<script setup lang="ts">
import { nextStop, stopSheet } from '#core/report'

/** The sheet of the present stop: read before it is left, and when it is reached. */
const props = defineProps<{ prepared: (stopId: string) => boolean }>()
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const sheet = computed(() => {
  const next = nextStop(store.doc)
  return stopSheet(store.doc, store.result, {
    units: prefs.units,
    crew: session.me?.crewName ?? '',
    prepared: next ? props.prepared(next.id) : null,
  })
})
</script>

<template>
  <MvSheet v-model="open" :title="sheet.title">
    <p class="soft">{{ sheet.subtitle }}</p>
    <section v-for="b in sheet.blocks" :key="b.title" data-test="stop-sheet">
      <template v-if="b.kind === 'facts'">
        <h3>{{ b.title }}</h3>
        <dl>
          <template v-for="[what, says] in b.rows" :key="what">
            <dt class="soft">{{ what }}</dt>
            <dd>{{ says }}</dd>
          </template>
        </dl>
      </template>
    </section>
    <a class="press small" :href="`/api/jobs/${store.id}/plan.pdf?what=stop&units=${prefs.units}`" data-test="stop-pdf">as PDF</a>
  </MvSheet>
</template>

<style scoped>
h3 {
  padding-top: 10px;
}
dl {
  display: grid;
  grid-template-columns: 150px 1fr;
  gap: 4px 12px;
}
.press {
  margin-top: 14px;
}
@media (max-width: 900px) {
  dl {
    grid-template-columns: 110px 1fr;
  }
}
</style>
