<script setup lang="ts">
import {
  distanceToFault,
  openEndLossDb,
  readTouchstone,
  returnLossDb,
  SIDE_LOBES_DB,
  throughLossDb,
  vswrFrom,
  worstFault,
} from '#core/formats'
import type { NetworkSweep } from '#core/formats'
import { bandByName } from '#core/radio'
import { length, num } from '#core/units'

/** A cable or an antenna as an analyser measured it: VSWR, loss, and where along a cable it is at fault. */
const open = defineModel<boolean>({ required: true })
const store = useJob()
const prefs = usePrefs()
const sweep = shallowRef<NetworkSweep | null>(null)
const name = ref('')
const error = ref('')
const LARGEST = 8_000_000
async function bring(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  error.value = ''
  sweep.value = null
  try {
    if (file.size > LARGEST) throw new RangeError('The file is larger than 8 MB.')
    sweep.value = readTouchstone(await file.text())
    name.value = file.name
  } catch (x) {
    error.value = messageOf(x)
  }
}
const VIEWS = [
  { id: 'vswr', title: 'VSWR' },
  { id: 'loss', title: 'loss' },
  { id: 'fault', title: 'distance to fault' },
] as const
const view = ref<(typeof VIEWS)[number]['id']>('vswr')
/** of the cable: foam about 0.85, solid polyethylene 0.66 */
const velocity = ref(0.85)
const bands = computed(() =>
  (store.result?.bands ?? []).flatMap(b => {
    const band = bandByName(b.band)
    return band
      ? [
          {
            name: b.band,
            low: Math.min(band.dlLowMHz, band.ulLowMHz || band.dlLowMHz),
            high: Math.max(band.dlHighMHz, band.ulHighMHz),
          },
        ]
      : []
  }),
)
const faults = computed(() => {
  if (!sweep.value || view.value !== 'fault') return null
  try {
    return distanceToFault(sweep.value.points, velocity.value)
  } catch (x) {
    return messageOf(x)
  }
})
const curve = computed((): [number, number][] => {
  const points = sweep.value?.points ?? []
  if (view.value === 'vswr') return points.map(p => [p.frequencyMHz, Math.min(10, vswrFrom(p.s11))])
  if (view.value === 'loss') return points.map(p => [p.frequencyMHz, throughLossDb(p) ?? openEndLossDb(p.s11)])
  return Array.isArray(faults.value) ? faults.value.map(f => [f.distanceM, f.returnLossDb]) : []
})
const said = computed(() => {
  if (!sweep.value) return ''
  if (view.value === 'fault') {
    if (!Array.isArray(faults.value)) return faults.value ?? ''
    const worst = worstFault(faults.value)
    const told = `Most comes back from ${length(worst.distanceM, prefs.units)}: ${num(worst.returnLossDb)} dB return loss there.`
    return `${told} What lies ${num(SIDE_LOBES_DB)} dB under it may be the sum’s own side lobes.`
  }
  return bands.value
    .flatMap(b => {
      const inside = sweep.value!.points.filter(p => p.frequencyMHz >= b.low && p.frequencyMHz <= b.high)
      if (!inside.length) return [`${b.name}: not swept`]
      if (view.value === 'loss')
        return [`${b.name}: ${num(Math.max(...inside.map(p => throughLossDb(p) ?? openEndLossDb(p.s11))), 1)} dB`]
      const worst = Math.max(...inside.map(p => vswrFrom(p.s11)))
      if (!Number.isFinite(worst)) return [`${b.name}: all comes back, as from an open end`]
      return [
        `${b.name}: VSWR ${num(worst, 2)} at worst, ${num(Math.min(...inside.map(p => returnLossDb(p.s11))), 1)} dB return loss`,
      ]
    })
    .join(' · ')
})
const LIMIT = { vswr: { at: 2, words: 'VSWR 2' }, loss: undefined, fault: { at: 20, words: '20 dB' } } as const
</script>

<template>
  <MvSheet v-model="open" title="A measured sweep" wide>
    <label class="press file"
      >Touchstone file, .s1p or .s2p<input type="file" accept=".s1p,.s2p,.txt" data-test="sweep-file" @change="bring"
    /></label>
    <span v-if="sweep" class="soft">
      {{ name }}: {{ sweep.points.length }} points, {{ num(sweep.points[0]!.frequencyMHz) }}–{{
        num(sweep.points.at(-1)!.frequencyMHz)
      }}
      MHz, {{ sweep.referenceOhm }} Ω, {{ sweep.ports === 2 ? 'two ports' : 'one port' }}</span
    >
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <template v-if="sweep">
      <div class="views" role="radiogroup" aria-label="What is shown">
        <button
          v-for="v in VIEWS"
          :key="v.id"
          type="button"
          role="radio"
          :aria-checked="view === v.id"
          :class="{ on: view === v.id }"
          :data-test="`sweep-${v.id}`"
          @click="view = v.id"
        >
          {{ v.title }}
        </button>
        <MvNumber
          v-if="view === 'fault'"
          label="Velocity factor of the cable"
          unit=""
          :value="velocity"
          :low="0.5"
          :high="1"
          required
          :decimals="2"
          :save="async v => ((velocity = v ?? 0.85), [])"
        />
      </div>
      <p class="says" data-test="sweep-says">{{ said }}</p>
      <SweepChart
        v-if="curve.length"
        :points="curve"
        :x-name="view === 'fault' ? 'm along the cable' : 'MHz'"
        :y-name="view === 'vswr' ? 'VSWR' : view === 'loss' ? 'dB' : 'return loss, dB'"
        :bands="view === 'fault' ? [] : bands"
        :limit="LIMIT[view]"
        :inverse="view === 'fault'"
      />
      <p v-if="view === 'loss' && sweep.ports === 1" class="soft">
        One port: half of what comes back, the far end open or shorted.
      </p>
    </template>
    <p v-else class="soft">
      VSWR and return loss of an antenna; loss of a cable; where along it a kink or a wet joint sends most back.
    </p>
  </MvSheet>
</template>

<style scoped>
.views {
  display: flex;
  gap: 4px;
  align-items: center;
  margin: 12px 0 4px;
}
.views button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 6px 10px;
  cursor: pointer;
}
.views button.on {
  border-color: var(--mv-ink);
  font-weight: 700;
}
.views :deep(.v-input) {
  max-width: 220px;
  margin-left: auto;
}
.says {
  font-weight: 600;
}
</style>
