<script setup lang="ts">
import type { ReadingEntry } from '~/composables/useReadingEntry'

/** The keypad of the roof, its one main press, and where the figure falls among the last ones here. */
const props = defineProps<{ entry: ReadingEntry; spotId: string }>()
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0', '⌫']
const { figures } = useLastHere(() => props.spotId)
/** of the quantity that is typed, newest first */
const lately = computed(() => figures(props.entry.active))
const typed = computed(() => Number(props.entry.shown.replace('−', '-').replace(',', '.')))
const hasTyped = computed(() => props.entry.shown !== '' && Number.isFinite(typed.value))
/** the strip holds what was read and what is typed, with room on either side */
const range = computed(() => {
  const all = [...lately.value, ...(hasTyped.value ? [typed.value] : [])]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const room = Math.max(2, (high - low) * 0.2)
  return { low: low - room, wide: high - low + 2 * room }
})
const at = (v: number) => shareOf(v - range.value.low, range.value.wide)
const spread = computed(() => Math.max(...lately.value) - Math.min(...lately.value))
const among = computed(() =>
  !hasTyped.value || lately.value.length < 2
    ? ''
    : typed.value >= Math.min(...lately.value) && typed.value <= Math.max(...lately.value)
      ? 'typed: among them'
      : 'typed: outside them',
)
const unit = computed(() => props.entry.fields.find(f => f.name === props.entry.active)?.unit ?? '')
</script>

<template>
  <div class="pad">
    <div class="keys">
      <button v-for="k in KEYS" :key="k" type="button" class="fig" :aria-label="k === '⌫' ? 'delete' : k" @click="entry.press(k)">
        {{ k }}
      </button>
    </div>
    <button type="button" class="press go" data-test="keep-roof" @click="entry.save()">Keep {{ entry.shown }}</button>
    <div v-if="lately.length" class="lately" data-test="lately">
      <p>
        <small class="soft">last {{ lately.length === 1 ? 'one' : lately.length }} here</small>
        <b class="fig">{{ lately.map(v => String(v).replace('-', '−')).join(' ') }}</b>
      </p>
      <div v-if="lately.length > 1" class="strip">
        <p>
          <small>spread {{ +spread.toFixed(1) }} {{ unit }}</small> <small class="soft">{{ among }}</small>
        </p>
        <div class="axis" aria-hidden="true">
          <i v-for="(v, i) in lately" :key="i" :style="{ left: at(v) }" />
          <i v-if="hasTyped" class="typed" :style="{ left: at(typed) }" />
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: none;
}
@media (max-width: 640px) {
  .pad {
    display: block;
  }
  .keys {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 3px;
  }
  .keys button {
    min-height: 56px;
    font-size: 24px;
    background: var(--mv-sheet);
    border: 1px solid var(--mv-line);
  }
  .go {
    width: 100%;
    min-height: 56px;
    text-align: center;
    font-size: 18px;
    margin-top: 4px;
  }
  .lately {
    display: grid;
    grid-template-columns: 1fr 1.4fr;
    gap: 14px;
    padding: 8px 0;
  }
  .lately p {
    display: flex;
    justify-content: space-between;
    flex-wrap: wrap;
    gap: 0 8px;
  }
  .axis {
    position: relative;
    height: 16px;
    border-bottom: 1px solid var(--mv-ink);
  }
  .axis i {
    position: absolute;
    bottom: -5px;
    width: 9px;
    height: 9px;
    margin-left: -4px;
    border-radius: 50%;
    background: var(--mv-ink);
  }
  .axis .typed {
    background: none;
    border: 2px solid var(--mv-computed);
    width: 13px;
    height: 13px;
    margin-left: -6px;
    bottom: -7px;
  }
}
</style>
