<script setup lang="ts">
import { nth } from '#core/sure'
import { nextMetreDb } from '#core/aim'
import { carriesRadio } from '#core/chain'
import type { HeightCurve } from '#core/aim'
import type { MastView } from '#core/masts'
import { length, num, signed } from '#core/units'

/** How high is worth it: level toward one mast against antenna height, less the cable of each kind that reaches it. */
const props = defineProps<{ mast: MastView }>()
const store = useOpened()
const prefs = usePrefs()
const { engine } = useEngine()
const band = ref(props.mast.best!.band)
watch(
  () => props.mast.mast.id,
  () => (band.value = props.mast.best!.band),
)
const curve = shallowRef<HeightCurve | null>(null)
let asked = 0
watch(
  [() => props.mast.mast.id, () => props.mast.path?.key, () => band.value, () => store.terrainVersion],
  async () => {
    const mine = ++asked
    const c = await engine.heights(toRaw(store.doc), props.mast.mast.id, band.value, props.mast.calibration?.offsetDb ?? 0)
    if (mine === asked) curve.value = c
  },
  { immediate: true },
)
const mount = computed(() => store.result.mountHeightM)
const chosenLine = computed(() => store.result.tree?.joints.find(j => j.line && carriesRadio(j))?.line?.id ?? 'line-400')
const line = computed(() => curve.value?.lines.find(l => l.partId === chosenLine.value) ?? null)
const words = computed(() => {
  const c = curve.value
  const l = line.value
  if (!c || !l) return []
  const m = (v: number) => length(v, prefs.units, 0)
  const gain =
    nth(l.netDbm, c.heightM.indexOf(l.bestM)) -
    nth(l.netDbm, Math.max(0, Math.min(c.heightM.length - 1, Math.round(mount.value) - nth(c.heightM, 0))))
  const next = nextMetreDb(c, l, mount.value)
  return [
    c.sightM === null
      ? `the ridge is not cleared within ${m(30)}`
      : c.sightM <= nth(c.heightM, 0)
        ? 'in sight from the lowest height'
        : `the ridge clears from ${m(c.sightM)}`,
    c.clearM === null ? `the Fresnel zone stays filled up to ${m(30)}` : `60 % of the zone is free from ${m(c.clearM)}`,
    Math.abs(gain) < 0.5
      ? `the mount at ${length(mount.value, prefs.units)} is high enough on ${l.name}`
      : `best on ${l.name}: ${m(l.bestM)}, ${signed(gain, 1)} dB against the mount at ${length(mount.value, prefs.units)}`,
    `from there the next metre buys ${signed(next, 1)} dB`,
  ]
})
</script>

<template>
  <div class="heights" data-test="heights">
    <div class="chart">
      <LazyHeightChart v-if="curve" :curve="curve" :line-id="chosenLine" :mount-m="mount" :units="prefs.units" />
      <p v-else class="soft">Working it out…</p>
    </div>
    <div class="say">
      <p class="bands">
        band
        <button
          v-for="b in mast.bands"
          :key="b"
          type="button"
          :class="{ on: b === band }"
          :aria-pressed="b === band"
          @click="band = b"
        >
          {{ b }}
        </button>
      </p>
      <ul>
        <li v-for="w in words" :key="w">{{ w }}</li>
      </ul>
      <table v-if="curve" class="fig">
        <thead>
          <tr>
            <th>line</th>
            <th>best at</th>
            <th>RSRP there</th>
            <th>its loss</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in curve.lines" :key="l.partId" :class="{ on: l.partId === chosenLine }">
            <td>{{ l.name }}</td>
            <td>{{ length(l.bestM, prefs.units, 0) }}</td>
            <td>{{ num(l.netDbm[curve.heightM.indexOf(l.bestM)]!, 1) }}</td>
            <td>{{ num(l.lossDb[curve.heightM.indexOf(l.bestM)]!, 1) }} dB</td>
          </tr>
        </tbody>
      </table>
      <p class="soft">
        delta-Bullington over the terrain held; isotropic antenna;
        {{
          mast.calibration?.readings
            ? 'corrected by what was read of this mast'
            : mast.calibration
              ? 'corrected by what was read of other masts'
              : 'nothing read here yet'
        }}; trees, entry loss and load left out
      </p>
    </div>
  </div>
</template>

<style scoped>
.heights {
  display: grid;
  grid-template-columns: 1fr minmax(360px, 44%);
  height: 100%;
}
.chart {
  min-height: 200px;
  min-width: 0;
}
.say {
  padding: 6px 16px;
  font-size: 13px;
  overflow: auto;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
.bands button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 4px 6px;
  cursor: pointer;
  min-height: 32px;
}
.bands button.on {
  border-color: var(--mv-ink);
  font-weight: 700;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 12.5px;
  margin: 4px 0;
}
th,
td {
  text-align: right;
  padding: 2px 8px;
  border-bottom: 1px solid var(--mv-line);
}
th:first-child,
td:first-child {
  text-align: left;
}
th {
  font-weight: 400;
  color: var(--mv-soft);
}
tr.on td {
  font-weight: 700;
}
@media (max-width: 900px) {
  .heights {
    display: block;
  }
  .chart {
    height: 240px;
  }
}
</style>
