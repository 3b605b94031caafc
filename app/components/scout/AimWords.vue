<script setup lang="ts">
import { bearingHalfWidth } from '#core/masts'
import type { MastView } from '#core/masts'
import { relativeToSun } from '#core/geo'
import { bearing, num } from '#core/units'

/** One mast's bearing told every way it can be found from here. */
const props = defineProps<{ mast: MastView; now: Date }>()
const store = useOpened()
const { bow, beside, tolerance } = useBearingWords(() => props.mast)
const words = computed(() => {
  const m = props.mast
  const site = store.site
  const out = [bow.value, beside.value].filter(Boolean)
  if (site.latDeg !== null && site.lonDeg !== null) {
    const sun = relativeToSun({ latDeg: site.latDeg, lonDeg: site.lonDeg }, props.now, m.bearingDeg)
    if (sun) out.push(`${num(Math.abs(sun.turnDeg))}° ${sun.turnDeg > 0 ? 'right' : 'left'} of the sun now`)
  }
  const { oneDb, threeDb } = tolerance.value
  if (oneDb !== null && threeDb !== null) out.push(`${num(oneDb)}° off costs 1 dB, ${num(threeDb)}° costs 3`)
  return out.join(' · ')
})
const width = computed(() => bearingHalfWidth(props.mast, store.result.declination))
</script>

<template>
  <p class="aim-words" data-test="aim-words">
    <strong>{{ mast.mast.name }}</strong> <b class="fig">{{ bearing(mast.bearingDeg) }}</b> true<template
      v-if="mast.magneticDeg !== null"
      >, <b class="fig">{{ bearing(mast.magneticDeg) }}</b> by compass ±{{ num(width) }}°</template
    >
    <span class="soft">{{ words ? `· ${words}` : '' }}</span>
  </p>
</template>

<style scoped>
.aim-words {
  flex: 1;
  min-width: 0;
  line-height: 1.3;
}
</style>
