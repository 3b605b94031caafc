<script setup lang="ts">
import { estimateHeading, readSwept, SWEPT } from '#core/aim'
import { normalise360, turn } from '#core/geo'
import type { Sweep } from '#core/job'
import { num, signed } from '#core/units'

/** Up and down, once the heading is locked: few readings, the pattern's own width, and where to leave it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ quantity: Sweep['quantity']; band: string | null; headingDeg: number; setupId: string | null }>()
const store = useJob()
const session = useSession()
/** what an antenna on a pole is tilted by at most, degrees */
const [LOWEST, HIGHEST, STEP] = [-15, 30, 5]
const sweeps = useSweeps()
const sweep = computed(() => sweeps.latest('tilt'))
const steps = computed(() => sweeps.stepsOf(sweep.value))
const what = computed(() => sweep.value?.quantity ?? props.quantity)
const reads = computed(() => SWEPT[what.value])
const tilt = ref(store.design?.aimedTiltDeg ?? 0)
const { pattern } = useEstimate({
  steps: computed(() => []),
  quantity: what,
  mastDeg: computed(() => null),
  struck: computed(() => []),
})
/** A flat panel is as narrow upright as it is across, unless its sheet says more. */
const width = computed(() => Math.min(90, pattern.value?.beamwidthDeg ?? 60))
const estimate = computed(() =>
  steps.value.length
    ? estimateHeading(
        steps.value.map(s => ({ headingDeg: normalise360(s.tiltDeg!), value: s.value })),
        {
          beamwidthDeg: width.value,
          // Masts stand near the horizon: a hill's or a tower's top is a few degrees over it.
          prior: { headingDeg: 2, sigmaDeg: 12 },
          reachable: Array.from({ length: (HIGHEST - LOWEST) / STEP + 1 }, (_, i) => normalise360(LOWEST + i * STEP)),
        },
      )
    : null,
)
const asTilt = (deg: number) => turn(0, deg)
const best = computed(() => (estimate.value && steps.value.length >= 3 ? asTilt(estimate.value.headingDeg) : null))
const next = computed(() => (estimate.value?.next != null ? asTilt(estimate.value.next) : 0))
const live = useLive(what, tilt)
const typed = ref('')
const error = ref('')
const figure = computed(() => live.value.value)
watch(
  [tilt, () => live.modem.link],
  () => {
    const p = pattern.value
    if (p)
      live.modem.turn({
        headingDeg: props.headingDeg,
        tiltDeg: tilt.value,
        gainDbi: p.gainDbi,
        beamwidthDeg: p.beamwidthDeg,
        frontToBackDb: p.frontToBackDb,
      })
  },
  { immediate: true },
)
const by = (d: number) => (tilt.value = Math.min(HIGHEST, Math.max(LOWEST, tilt.value + d)))
const { doing, once } = useOnce()
const keep = () =>
  once(async () => {
    error.value = ''
    let value: number
    try {
      value = typed.value || live.dwelt.value === null ? readSwept(typed.value, what.value) : live.dwelt.value
    } catch (e) {
      error.value = messageOf(e)
      return
    }
    const { quantity, band, setupId, headingDeg } = props
    const how = { quantity, band, setupId, axis: 'tilt', dwellS: 10, stepDeg: STEP } as const
    const id = sweep.value?.id ?? (await sweeps.begin(how, 'start a sweep up and down'))
    if (!id) return
    const old = steps.value.find(s => s.tiltDeg === tilt.value)
    const bad = await sweeps.keep(id, { pass: 1, headingDeg, tiltDeg: tilt.value, value }, old)
    error.value = bad[0]?.message ?? ''
    if (bad.length) return
    typed.value = ''
    tilt.value = next.value
  })
const lock = () =>
  store.commit(
    [{ table: 'designs', op: 'update', rowId: store.variant.id, fields: { aimedTiltDeg: Math.round(tilt.value * 10) / 10 } }],
    'lock the tilt',
  )
const rows = computed(() => [...steps.value].sort((a, b) => b.tiltDeg! - a.tiltDeg!))
const span = computed(() => {
  const v = rows.value.map(r => r.value)
  return { low: Math.min(...v) - 1, high: Math.max(...v) }
})
const share = (v: number) => `${Math.max(2, ((v - span.value.low) / (span.value.high - span.value.low || 1)) * 100)}%`
</script>

<template>
  <MvSheet v-model="open" title="Up and down">
    <div class="tilt" data-test="tilt">
      <p class="soft">
        At {{ num(headingDeg) }}° true, locked finger-tight. Half a beam up or down costs 3 dB, as it does sideways.
      </p>
      <div class="now">
        <b v-if="figure !== null" class="fig big">{{ num(figure, reads.decimals) }}</b>
        <input
          v-else
          v-model="typed"
          class="fig big"
          inputmode="decimal"
          placeholder="–"
          :aria-label="`${reads.words} read now`"
          data-test="tilt-value"
          @keydown.enter="keep"
        />
        <span>{{ reads.words }} {{ reads.unit }}</span>
        <span class="at"
          >antenna <b class="fig">{{ signed(tilt) }}°</b></span
        >
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <div class="keys">
        <button type="button" class="press" data-test="tilt-down" @click="by(-STEP)">↓ {{ STEP }}°</button>
        <button type="button" class="press" data-test="tilt-up" @click="by(STEP)">↑ {{ STEP }}°</button>
        <button type="button" class="press go" data-test="tilt-keep" :disabled="doing || !session.mayEdit" @click="keep">
          Keep this step
        </button>
      </div>
      <ul v-if="rows.length">
        <li v-for="r in rows" :key="r.id">
          <span class="fig">{{ signed(r.tiltDeg!) }}°</span><i :style="{ width: share(r.value) }" /><b class="fig">{{
            num(r.value, reads.decimals)
          }}</b>
        </li>
      </ul>
      <p v-if="best !== null" class="met" data-test="tilt-best">
        best {{ signed(best) }}° ± {{ num(estimate!.plusMinusDeg) }}°, nine in ten
      </p>
      <p v-else class="soft">{{ rows.length ? `then ${signed(next)}°` : 'begin level' }}</p>
      <button type="button" class="press" data-test="tilt-lock" :disabled="!session.mayEdit" @click="lock">
        {{ store.design?.aimedTiltDeg != null ? `locked at ${signed(store.design.aimedTiltDeg)}°` : 'lock here' }}
      </button>
    </div>
  </MvSheet>
</template>

<style scoped>
.tilt {
  display: grid;
  gap: 10px;
}
.now {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.big {
  font-size: 56px;
  width: 200px;
  border: 0;
  background: none;
  color: var(--mv-ink);
}
.at {
  margin-left: auto;
}
.keys {
  display: grid;
  grid-template-columns: 1fr 1fr 1.6fr;
  gap: 8px;
}
.keys .press {
  min-height: 56px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 56px 1fr 70px;
  align-items: center;
  gap: 10px;
  min-height: 28px;
}
li i {
  height: 8px;
  background: var(--mv-ink);
}
li b,
li .fig {
  text-align: right;
}
.met {
  color: var(--mv-met);
  font-weight: 700;
  margin: 0;
}
</style>
