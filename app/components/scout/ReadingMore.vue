<script setup lang="ts">
import type { ReadingEntry } from '~/composables/useReadingEntry'

/** What is seldom changed of a reading: its carrier, when it was taken, a page that would not load. */
const props = defineProps<{ entry: ReadingEntry }>()
const e = toRef(props, 'entry')
const open = ref(false)
/** on the roof band, width and cell are typed here; at the desk they stand in the row */
const TYPED = ['band', 'width', 'cell'] as const
const dated = ref(false)
const fieldOf = (name: (typeof TYPED)[number]) => e.value.fields.find(f => f.name === name)
</script>

<template>
  <div class="more">
    <button type="button" class="line" :aria-expanded="open" data-test="more" @click="open = !open">
      <b>more</b> <span class="soft">{{ e.usual }}</span>
    </button>
    <div v-if="open" class="panel">
      <template v-if="e.kind === 'reading'">
        <v-text-field
          v-for="name in TYPED"
          :key="name"
          v-model="e.values[name]"
          class="fig roof"
          :label="fieldOf(name)?.label"
          :suffix="fieldOf(name)?.unit"
          :error-messages="e.errors[name]"
          :inputmode="name === 'width' ? 'decimal' : 'text'"
          autocomplete="off"
        />
        <button type="button" class="press small" :aria-label="`Technology ${e.technology}`" @click="e.swapTechnology()">
          {{ e.technology }}
        </button>
        <button type="button" class="press small" data-test="paste" @click="e.pasting = !e.pasting">
          paste the modem’s page
        </button>
        <button
          type="button"
          class="press small"
          :class="{ on: e.role !== 'anchor' }"
          title="Carriers used together are read one by one, each a row of the same moment"
          data-test="carrier-role"
          @click="e.nextRole()"
        >
          {{ ROLE_WORDS[e.role] }}
        </button>
      </template>
      <button type="button" class="press small" data-test="no-load" @click="e.save(true)">would not load</button>
      <label v-if="dated || e.taken" class="taken"
        >taken <input v-model="e.taken" type="datetime-local" aria-label="Taken at; empty is now" data-test="taken"
      /></label>
      <button v-else type="button" class="plain" data-test="taken-change" @click="dated = true">taken now · change</button>
    </div>
  </div>
</template>

<style scoped>
.line {
  background: none;
  border: 0;
  padding: 6px 0;
  text-align: left;
  cursor: pointer;
}
.line b {
  border-bottom: 1px solid var(--mv-ink);
  margin-right: 8px;
}
.panel {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding-top: 6px;
}
.taken input {
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  background: none;
  padding: 4px 2px;
  width: 186px;
}
.roof {
  display: none;
}
@media (max-width: 640px) {
  .line {
    width: 100%;
    min-height: 56px;
    border: 1px solid var(--mv-line);
    padding: 6px 10px;
    display: flex;
    flex-direction: column;
    justify-content: center;
  }
  .line span {
    font-size: 12.5px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    max-width: 100%;
  }
  .roof {
    display: block;
    flex: 1 1 30%;
  }
  .panel .press {
    min-height: 56px;
    flex: 1 1 45%;
    text-align: center;
  }
}
</style>
