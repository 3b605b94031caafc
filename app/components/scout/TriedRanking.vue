<script setup lang="ts">
import { nth } from '#core/sure'
import { LEAST_TESTS } from '#core/promise'
import { hoursWords, rankTried, settledWords, setupWords, traitsOf } from '#core/survey'
import type { RankedBy, Tried } from '#core/survey'
import { mbps, num } from '#core/units'

/** What was tried side by side, the best first: each as its range with the middle marked, and whether the rest is chance. */
const props = defineProps<{ spotId: string }>()
const store = useOpened()
const QUANTITIES = ['down', 'up', 'SINR', 'RSRP'] as const
const everywhere = ref(false)
const by = ref<RankedBy>('down')
const WORDS: Record<RankedBy, { words: string; unit: string; decimals: 0 | 1 }> = {
  down: { words: 'download', unit: 'Mbit/s', decimals: 1 },
  up: { words: 'upload', unit: 'Mbit/s', decimals: 1 },
  SINR: { words: 'SINR', unit: 'dB', decimals: 1 },
  RSRP: { words: 'RSRP', unit: 'dBm', decimals: 0 },
}
const told = (v: number) => (by.value === 'down' || by.value === 'up' ? mbps(v) : num(v, WORDS[by.value].decimals))
/** by each quantity that two or more have */
const rankings = computed(
  () =>
    new Map(
      QUANTITIES.flatMap(q => {
        const r = rankTried(store.here, store.log, { by: q, spotId: everywhere.value ? undefined : props.spotId })
        return r ? [[q, r] as const] : []
      }),
    ),
)
const possible = computed(() => [...rankings.value.keys()])
watchEffect(() => {
  if (!rankings.value.has(by.value) && possible.value.length) by.value = nth(possible.value, 0)
})
const ranking = computed(() => rankings.value.get(by.value) ?? null)
const span = computed(() => {
  const all = ranking.value?.tried.flatMap(t => [t.summary.low, t.summary.high]) ?? [0, 1]
  const [low, high] = [by.value === 'down' || by.value === 'up' ? 0 : Math.min(...all) - 1, Math.max(...all) + 1]
  return { low, width: high - low || 1 }
})
const at = (v: number) => `${(((v - span.value.low) / span.value.width) * 100).toFixed(2)}%`
/** what every one of them has need not be said of each */
const shared = computed(() => {
  const lists = ranking.value?.tried.map(t => (t.setup ? traitsOf(t.setup).map(x => x[1]) : [])) ?? []
  return new Set(lists[0]?.filter(w => lists.every(l => l.includes(w))) ?? [])
})
function nameOf(t: Tried): string {
  const own = t.setup
    ? traitsOf(t.setup)
        .map(x => x[1])
        .filter(w => !shared.value.has(w))
    : []
  const band = t.band && !own.some(w => w.includes(t.band!)) ? [t.band] : []
  const place = everywhere.value ? [t.spot.name] : []
  return [...place, ...band, ...own].join(', ') || (t.setup ? setupWords(t.setup) : 'set-up not noted')
}
function behindWords(t: Tried): string {
  const b = t.behind
  if (!b) return 'best'
  const { by: diff, low, high, counts } = b.difference
  const speed = by.value === 'down' || by.value === 'up'
  const less = speed ? `best is ${num(Math.exp(diff), 1)}×` : `best is ${num(diff, 1)} dB over it`
  const range = speed ? `${num(Math.exp(low), 1)} to ${num(Math.exp(high), 1)}×` : `${num(low, 1)} to ${num(high, 1)} dB`
  if (b.beyondChance) return `${less} (${range}), p ${b.p < 0.01 ? '< 0.01' : num(b.p, 2)}`
  const among = b.difference.beyondChance ? ` among ${ranking.value!.tried.length} tried` : ''
  const open = `${Math.min(...counts) < LEAST_TESTS ? 'not enough to say' : 'may be chance'}${among}`
  return [`${less} (${range}): ${open}`, settledWords(b.difference)].filter(Boolean).join('; ')
}
</script>

<template>
  <section v-if="possible.length" class="ranking" data-test="ranking">
    <header>
      <h3>Tried {{ everywhere ? 'anywhere' : 'here' }}, by</h3>
      <button
        v-for="q in possible"
        :key="q"
        type="button"
        class="press small"
        :class="{ on: by === q }"
        :aria-pressed="by === q"
        @click="by = q"
      >
        {{ WORDS[q].words }}
      </button>
      <label class="soft"><input v-model="everywhere" type="checkbox" /> all places</label>
    </header>
    <template v-if="ranking">
      <ol>
        <li v-for="t in ranking.tried" :key="`${t.spot.id} ${t.setup?.row.id} ${t.band}`" :class="{ best: !t.behind }">
          <span class="name">{{ nameOf(t) }}</span>
          <span class="bar" role="img" :aria-label="`${told(t.summary.low)} to ${told(t.summary.high)} ${WORDS[by].unit}`">
            <i class="range" :style="{ left: at(t.summary.low), right: `calc(100% - ${at(t.summary.high)})` }" />
            <i class="middle" :style="{ left: at(t.summary.median) }" />
          </span>
          <b class="fig"
            >{{ told(t.summary.median) }}<small>&nbsp;{{ WORDS[by].unit }}</small></b
          >
          <span class="soft">{{ behindWords(t) }}, {{ t.summary.count }}×</span>
        </li>
      </ol>
      <p class="soft">
        {{ [ranking.test, hoursWords(ranking), ranking.reserve].filter(Boolean).join('; ') }}.
        <template v-if="shared.size">All: {{ [...shared].join(', ') }}.</template>
      </p>
    </template>
  </section>
</template>

<style scoped>
.ranking {
  margin: 10px 0;
}
header {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
h3 {
  font-size: 13.5px;
  margin: 0;
}
ol {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(90px, 1.2fr) minmax(70px, 1fr) 86px;
  gap: 0 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--mv-line);
  align-items: center;
  font-size: 13px;
}
.best .name {
  font-weight: 700;
}
li .soft {
  grid-column: 1 / -1;
  font-size: 12.5px;
}
.fig {
  text-align: right;
}
.fig small {
  font-weight: 400;
}
.bar {
  position: relative;
  height: 18px;
}
.bar i {
  position: absolute;
}
.range {
  top: 8px;
  height: 2px;
  min-width: 2px;
  background: var(--mv-soft);
}
.middle {
  top: 2px;
  width: 3px;
  height: 14px;
  margin-left: -1px;
  background: var(--mv-ink);
}
p {
  font-size: 12.5px;
  margin: 0;
}
@media (max-width: 640px) {
  header .press.small {
    min-height: 44px;
  }
}
</style>
