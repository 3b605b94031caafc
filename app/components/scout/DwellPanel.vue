<script setup lang="ts">
import { hasSettled } from '#core/survey'
import { readStatusPage } from '#core/formats'
import type { PageFigures } from '#core/formats'
import { num } from '#core/units'

/** Half a minute at one place: the modem is heard, the middle of it becomes a reading. Or its page is pasted. */
/** while one stands and waits, the keys are out of the way */
const standing = defineModel<boolean>('standing', { default: false })
const emit = defineEmits<{ heard: [figures: Partial<PageFigures>, words: string]; page: [figures: PageFigures, told: string] }>()
const modem = useInstrument()
const DWELL_S = 30
/** a dwell that settled early enough may be kept from here on */
const LEAST_S = 8
const listening = ref(false)
/** the form for the modem’s page is open */
const pasting = defineModel<boolean>('pasting', { default: false })
const text = ref('')
const pasteError = ref('')
const startedMs = ref<number | null>(null)
watch(startedMs, s => (standing.value = s !== null))
onBeforeUnmount(() => (standing.value = false))
const heldS = computed(() =>
  startedMs.value !== null && modem.sample ? Math.max(0, Math.floor((modem.sample.atMs - startedMs.value) / 1000)) : 0,
)
const settled = computed(
  () => heldS.value >= LEAST_S && hasSettled(modem.ring.since('rsrpDbm', startedMs.value ?? 0).map(s => s.value)),
)
const now = computed(() =>
  [
    modem.sample?.rsrpDbm ? `RSRP ${num(modem.sample.rsrpDbm.value)} dBm` : 'RSRP not known',
    modem.sample?.sinrDb ? `SINR ${num(modem.sample.sinrDb.value)}` : '',
    modem.sample?.rsrqDb ? `RSRQ ${num(modem.sample.rsrqDb.value)}` : '',
    modem.sample?.cellId ? `cell ${modem.sample.cellId}` : '',
  ]
    .filter(Boolean)
    .join(' · '),
)
watch(heldS, s => {
  if (s >= DWELL_S) keep()
})
// The link went while one stood there: nothing is kept of half a dwell.
watch(
  () => modem.live,
  on => {
    if (!on && startedMs.value !== null) startedMs.value = null
  },
)
function keep() {
  const from = startedMs.value
  if (from === null) return
  startedMs.value = null
  const { ring, sample } = modem
  const levels = ring.since('rsrpDbm', from).map(s => s.value)
  const spread = levels.length ? Math.max(...levels) - Math.min(...levels) : 0
  emit(
    'heard',
    {
      rsrpDbm: ring.median('rsrpDbm', from),
      rsrqDb: ring.median('rsrqDb', from),
      sinrDb: ring.median('sinrDb', from),
      cellId: sample?.cellId ?? null,
      technology: sample?.technology === 'NR' ? 'NR' : 'LTE',
    },
    `${levels.length} answers over ${Math.round(((sample?.atMs ?? from) - from) / 1000)} s, ${num(spread, 0)} dB apart`,
  )
}
function take() {
  pasteError.value = ''
  try {
    const { figures, notUnderstood, several } = readStatusPage(text.value)
    if (figures.rsrpDbm === null && figures.sinrDb === null && figures.rsrqDb === null)
      throw new RangeError('No RSRP, SINR or RSRQ is named in it.')
    const told = [
      several.length ? 'several carriers are named: the first was taken' : '',
      notUnderstood.length ? `not understood: ${notUnderstood.slice(0, 3).join(' · ')}` : '',
    ]
    emit('page', figures, told.filter(Boolean).join('; '))
    pasting.value = false
    text.value = ''
  } catch (e) {
    pasteError.value = messageOf(e)
  }
}
</script>

<template>
  <div class="dwell">
    <template v-if="modem.live">
      <span class="now fig" data-test="dwell-now">{{ now }}</span>
      <button
        v-if="startedMs === null"
        type="button"
        class="press filled"
        data-test="dwell"
        @click="startedMs = modem.sample!.atMs"
      >
        stand here {{ DWELL_S }} s
      </button>
      <template v-else>
        <strong class="count" role="timer">{{ DWELL_S - heldS }} s{{ settled ? ' · settled' : '' }}</strong>
        <button type="button" class="press small" :disabled="!settled" data-test="dwell-keep" @click="keep">keep now</button>
        <button type="button" class="press bare" @click="startedMs = null">stop</button>
      </template>
    </template>
    <button type="button" class="press small" data-test="listen" @click="listening = true">
      {{ modem.live ? modem.link!.name : modem.trouble || 'listen to a modem' }}
    </button>
    <form v-if="pasting" class="paste" @submit.prevent="take">
      <textarea v-model="text" rows="4" aria-label="What the modem’s page shows" placeholder="RSRP −97 dBm …" data-test="page" />
      <button type="submit" class="press small" data-test="take-page">take the figures</button>
      <p v-if="pasteError" class="error" role="alert">{{ pasteError }}</p>
    </form>
    <LazyModemSheet v-if="listening" v-model="listening" />
  </div>
</template>

<style scoped>
.dwell {
  display: flex;
  gap: 8px 12px;
  align-items: center;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.now {
  font-weight: 600;
}
.count {
  font-size: 20px;
}
.paste {
  flex: 1 1 100%;
  display: grid;
  gap: 6px;
}
.paste textarea {
  border: 1px solid var(--mv-line);
  background: var(--mv-sheet);
  padding: 6px 8px;
  font-size: 14px;
}
.paste .press {
  justify-self: start;
}
@media (max-width: 640px) {
  .dwell .press {
    min-height: 56px;
    flex: 1 1 40%;
    padding: 6px 10px;
    font-size: 15px;
    text-align: center;
  }
  .count {
    font-size: 34px;
  }
}
</style>
