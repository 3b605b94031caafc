<script setup lang="ts">
import type { MastView } from '#core/masts'
import { carriersOf } from '#core/survey'
import { num } from '#core/units'

/** What is set once a site: how far north lies off, what stands near, and where masts and ground come from. */
type Spot = { latDeg: number; lonDeg: number; bearingDeg: number; distanceM: number }
const props = defineProps<{ mast: MastView | null }>()
const emit = defineEmits<{ map: [] }>()
/** a place that was pointed at on the map, for what stands near */
const spot = defineModel<Spot | null>('spot', { required: true })
const store = useOpened()
const session = useSession()
const { landmarks } = useBearingWords(() => props.mast)
const dec = computed(() => store.result.declination)
const north = computed(() => {
  if (!dec.value) return 'compass'
  const deg = dec.value.declinationDeg
  return `compass: north ${num(Math.abs(deg), 1)}° ${deg < 0 ? 'W' : 'E'}`
})
/** two carriers or more are compared */
const carriers = computed(() => carriersOf(store.doc))
type Sheet = '' | 'masts' | 'terrain' | 'mast' | 'compass' | 'seen' | 'sims'
const sheet = ref<Sheet>('')
const sheetOf = (name: Sheet) =>
  computed({
    get: () => sheet.value === name,
    set: v => {
      sheet.value = v ? name : ''
    },
  })
const importing = sheetOf('masts')
const terrain = sheetOf('terrain')
const adding = sheetOf('mast')
const compass = sheetOf('compass')
const seen = sheetOf('seen')
const beside = sheetOf('sims')
watch(spot, at => at && (seen.value = true))
function pickPlace() {
  seen.value = false
  emit('map')
}
useKeys({ c: { does: 'compass, nose, sun', run: () => (compass.value = true) } })
</script>

<template>
  <p class="tools">
    <button type="button" class="plain" data-test="compass" @click="compass = true">{{ north }}</button>
    <button type="button" class="plain" data-test="seen" @click="seen = true">obstacles nearby</button>
    <button v-if="carriers.length > 1" type="button" class="plain" data-test="sims-beside" @click="beside = true">
      {{ carriers.length === 2 ? 'both SIMs' : `${carriers.length} SIMs` }}
    </button>
    <span v-if="session.mayEdit" class="add">
      <button type="button" class="plain" data-test="add-mast" @click="adding = true">add a mast</button>
      <button type="button" class="plain desk" data-test="import-masts" @click="importing = true">import masts</button>
      <button type="button" class="plain desk" data-test="terrain" @click="terrain = true">terrain</button>
    </span>
    <MastImport v-model="importing" />
    <TerrainImport v-model="terrain" />
    <MastByHand v-model="adding" />
    <CompassSheet v-model="compass" :mast="mast" :landmarks="landmarks" />
    <SeenSheet v-model="seen" :spot="spot" @pick="pickPlace" @done="spot = null" />
    <LazySimsSheet v-if="beside" v-model="beside" />
  </p>
</template>

<style scoped>
.tools,
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.tools {
  flex: 1 0 100%;
  font-size: 13px;
}
.add {
  margin-left: auto;
}
@media (max-width: 900px) {
  .tools .plain {
    min-height: 44px;
  }
}
@media (max-width: 640px) {
  .tools .desk {
    display: none;
  }
}
</style>
