<script setup lang="ts">
import { GRADE_SOURCE } from '#core/radio'

/** One figure at a spot: a keyboard row at the desk, a keypad on the roof; a modem or its page as the alternative to typing. */
const props = defineProps<{ spotId: string; after?: boolean }>()
const entry = useReadingEntry(props)
const KINDS = [
  { id: 'reading', word: 'level' },
  { id: 'speed', word: 'speed' },
  { id: 'call', word: 'call' },
  { id: 'watch', word: 'drop-outs' },
] as const
const first = ref<{ focus: () => void }[] | null>(null)
async function enter(e: Event) {
  e.preventDefault()
  await entry.save()
  void nextTick(() => first.value?.[0]?.focus())
}
</script>

<template>
  <div class="entry">
    <div class="with">
      <SetupPicker v-model="entry.setupId" :after="after" />
      <OneByOne v-if="!after && entry.typed" v-model="entry.setupId" :spot-id="spotId" @band="entry.lockedTo" />
    </div>
    <div class="kinds">
      <div class="one" role="group" aria-label="What is noted">
        <button
          v-for="k in KINDS"
          :key="k.id"
          type="button"
          :class="{ on: entry.kind === k.id }"
          :aria-pressed="entry.kind === k.id"
          :data-test="`kind-${k.id}`"
          @click="entry.kind = k.id"
        >
          {{ k.word }}
        </button>
      </div>
      <div v-if="entry.kind === 'speed'" class="one unit" role="group" aria-label="Unit of the speeds typed">
        <button
          v-for="u in ['Mbit/s', 'MB/s'] as const"
          :key="u"
          type="button"
          :class="{ on: entry.speedUnit === u }"
          :aria-pressed="entry.speedUnit === u"
          title="Some pages show megabytes: 1 MB/s is 8 Mbit/s"
          :data-test="u === 'MB/s' ? 'speed-unit' : undefined"
          @click="entry.speedUnit = u"
        >
          {{ u }}
        </button>
      </div>
      <span v-if="entry.done" class="done" role="status">{{ entry.done }}</span>
      <span v-else class="soft hint" :title="GRADE_SOURCE">{{ entry.hint }}</span>
    </div>
    <div v-if="entry.kind === 'call'" class="calls">
      <button
        v-for="c in CALLS"
        :key="c.words"
        type="button"
        class="press"
        :data-test="`call-${c.dropped ? 'dropped' : c.heard ? 'held' : c.made ? 'unheard' : 'not-made'}`"
        @click="entry.saveCall(c)"
      >
        {{ c.words }}
      </button>
      <p class="soft">Ring a person or the carrier’s test number. Never an emergency number.</p>
    </div>
    <WatchPanel v-else-if="entry.kind === 'watch'" :spot-id="spotId" @watched="entry.keepWatched" />
    <form v-show="entry.typed" class="row" @submit="enter">
      <v-text-field
        v-for="(f, i) in entry.fields"
        :key="f.name"
        :ref="i === 0 ? 'first' : undefined"
        v-model="entry.values[f.name]"
        class="fig"
        :label="f.label"
        :suffix="f.unit"
        :inputmode="f.name === 'cell' || f.name === 'band' ? 'text' : 'decimal'"
        autocomplete="off"
        :error-messages="entry.errors[f.name]"
        :data-test="f.name"
      />
      <button type="submit" class="press filled" data-test="keep">Keep <kbd class="key">↵</kbd></button>
    </form>
    <ReadingFigures v-if="entry.typed && !entry.dwelling" :entry="entry" :spot-id="spotId" />
    <div v-if="entry.typed" class="other">
      <DwellPanel
        v-if="entry.kind === 'reading'"
        v-model:standing="entry.dwelling"
        v-model:pasting="entry.pasting"
        @heard="entry.keepHeard"
        @page="entry.showPage"
      />
      <SpeedPanel v-else :setup-id="entry.setupId" @tested="entry.keepTested" />
      <ReadingMore :entry="entry" />
    </div>
    <ReadingPad v-if="entry.typed && !entry.dwelling" :entry="entry" :spot-id="spotId" />
    <p v-if="entry.errors.all" class="error" role="alert">{{ entry.errors.all }}</p>
  </div>
</template>

<style scoped>
.kinds,
.with,
.other {
  display: flex;
  gap: 6px 12px;
  align-items: center;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
/* words of which one holds: one control */
.one {
  display: flex;
}
.one button {
  background: var(--mv-sheet);
  border: 1px solid var(--mv-ink);
  margin-left: -1px;
  padding: 5px 14px;
  min-height: 34px;
  font-weight: 600;
  cursor: pointer;
}
.one button.on {
  background: var(--mv-ink);
  color: var(--mv-sheet);
}
.done {
  color: var(--mv-met);
  font-weight: 600;
}
.hint {
  font-size: 12.5px;
}
.calls {
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 8px;
}
.calls p {
  grid-column: 1 / -1;
  font-size: 12.5px;
}
.row {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(98px, 1fr));
  gap: 8px;
  align-items: start;
  margin-bottom: 8px;
}
.row .press {
  min-height: 40px;
}
@media (max-width: 640px) {
  .with {
    justify-content: space-between;
    flex-wrap: nowrap;
  }
  .kinds {
    display: block;
    margin-bottom: 6px;
  }
  .one {
    width: 100%;
  }
  .one button {
    flex: 1;
    min-height: 48px;
    padding: 4px;
    font-size: 15px;
  }
  .unit {
    margin-top: -1px;
  }
  .unit button {
    min-height: 40px;
    border-color: var(--mv-line);
  }
  .hint {
    display: none;
  }
  .done {
    display: block;
    padding: 4px 0;
  }
  .row {
    display: none;
  }
  .other {
    align-items: stretch;
    flex-wrap: nowrap;
    gap: 6px;
    margin-bottom: 6px;
  }
  .other > * {
    flex: 1;
    min-width: 0;
  }
  .calls .press {
    min-height: 56px;
  }
  .entry {
    display: flex;
    flex-direction: column;
  }
  /* what it is made with is one quiet line: pressed to be changed */
  .with :deep(.press.small) {
    background: none;
    border: 0;
    border-bottom: 1px solid var(--mv-ink);
    padding: 0;
    min-height: 28px;
    font-weight: 400;
  }
  .with :deep(select) {
    max-width: 190px;
  }
}
@media (max-width: 640px) and (max-height: 720px) {
  /* a short screen: the keypad first, what else there is below it */
  .other {
    order: 1;
    margin-top: 8px;
  }
}
</style>
