<script setup lang="ts">
import type { ReadingEntry } from '~/composables/useReadingEntry'

/** On the roof: the figure that is typed, large, and the others beside it, each with what was read last. */
const props = defineProps<{ entry: ReadingEntry; spotId: string }>()
const { last } = useLastHere(() => props.spotId)
/** what is typed by thumb; band, width and cell stand under “more” */
const TYPED = new Set(['rsrp', 'sinr', 'rsrq', 'down', 'up', 'ping'])
const fields = computed(() => props.entry.fields.filter(f => TYPED.has(f.name)))
const activeField = computed(() => props.entry.fields.find(f => f.name === props.entry.active))
const valueOf = (name: string): string => (props.entry.values as Record<string, string>)[name] || '–'
</script>

<template>
  <div class="figures tabs">
    <div class="now">
      <span class="name"
        ><b>{{ activeField?.label }}</b> <small class="soft">{{ activeField?.unit }}</small></span
      >
      <span class="big fig"
        ><span>{{ entry.shown || '–' }}</span
        ><button v-if="entry.active === 'sinr'" type="button" class="sign" aria-label="minus or plus" @click="entry.press('±')">
          ±
        </button></span
      >
    </div>
    <button
      v-for="f in fields.filter(x => x.name !== entry.active)"
      :key="f.name"
      type="button"
      class="beside"
      @click="entry.pick(f.name)"
    >
      <span class="name"
        >{{ f.label }} <small class="soft">{{ f.unit }}</small></span
      >
      <b class="fig">{{ valueOf(f.name) }}</b>
      <small class="soft">{{ last(f.name) }}</small>
    </button>
    <p v-if="entry.errors[entry.active]" class="error" role="alert">{{ entry.errors[entry.active] }}</p>
  </div>
</template>

<style scoped>
.figures {
  display: none;
}
@media (max-width: 640px) {
  .figures {
    display: grid;
    grid-template-columns: 1.9fr 1fr 1fr;
    margin-bottom: 6px;
  }
  .now {
    border: 2px solid var(--mv-ink);
    padding: 4px 10px;
    background: var(--mv-sheet);
  }
  .name {
    display: flex;
    justify-content: space-between;
    font-size: 13px;
  }
  .big {
    font-size: 48px;
    font-weight: 600;
    line-height: 1.15;
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  .sign {
    min-width: 48px;
    min-height: 48px;
    font-size: 24px;
    background: var(--mv-sheet);
    border: 1px solid var(--mv-line);
  }
  .beside {
    background: none;
    border: 1px solid var(--mv-line);
    margin-left: -1px;
    padding: 4px 8px;
    min-height: 56px;
    text-align: left;
    display: flex;
    flex-direction: column;
    justify-content: space-between;
  }
  .beside b {
    font-size: 22px;
  }
  .error {
    grid-column: 1 / -1;
  }
}
@media (max-width: 640px) and (max-height: 720px) {
  .now {
    padding: 2px 10px;
  }
  .beside {
    min-height: 50px;
    padding: 2px 8px;
  }
  .big {
    font-size: 28px;
    line-height: 1.1;
  }
  .beside b {
    font-size: 16px;
  }
  .beside .soft:last-child {
    display: none;
  }
}
</style>
