<script setup lang="ts">
import { formatPosition, parsePosition } from '#core/geo'
import { moves, presentStop } from '#core/survey'

/** Where the site stands, or where it is now: typed, taken from the device, or from a receiver on the pole. */
const store = useOpened()
const job = computed(() => store.job)
const site = computed(() => store.site)
const moving = computed(() => moves(store.doc))
const stop = computed(() => presentStop(store.doc))
const pack = usePack()
onMounted(() => pack.load([null]))
const position = ref('')
const positionError = ref('')
const editing = ref(false)
watch(
  [() => site.value.latDeg, () => site.value.lonDeg],
  ([lat, lon]) => {
    if (editing.value) return
    position.value = lat != null && lon != null ? formatPosition({ latDeg: lat, lonDeg: lon }) : ''
  },
  { immediate: true },
)
async function savePosition() {
  editing.value = false
  if (!position.value.trim()) return
  try {
    const p = parsePosition(position.value)
    positionError.value = ''
    if (Math.abs(p.latDeg - (site.value.latDeg ?? 999)) < 6e-5 && Math.abs(p.lonDeg - (site.value.lonDeg ?? 999)) < 6e-5) return
    positionError.value =
      (
        await store.commit(
          [
            stop.value
              ? { table: 'stops', op: 'update', rowId: stop.value.id, fields: { ...p } }
              : { table: 'sites', op: 'update', rowId: site.value.id, fields: { ...p } },
          ],
          'position',
        )
      )[0]?.message ?? ''
    if (!positionError.value) await store.send().then(() => store.fetchWhole())
  } catch (e) {
    positionError.value = messageOf(e)
  }
}
const locating = ref(false)
function here() {
  locating.value = true
  navigator.geolocation?.getCurrentPosition(
    p => {
      locating.value = false
      position.value = `${p.coords.latitude.toFixed(6)}, ${p.coords.longitude.toFixed(6)}`
      void savePosition()
    },
    e => {
      locating.value = false
      positionError.value = `The device gives no position: ${e.message}`
    },
    { enableHighAccuracy: true, timeout: 15_000 },
  )
}
const receiver = useReceiver()
const receiving = ref(false)
function byReceiver() {
  const { fix } = receiver
  if (!fix) return void (receiving.value = true)
  position.value = `${fix.latDeg.toFixed(6)}, ${fix.lonDeg.toFixed(6)}`
  void savePosition()
}
</script>

<template>
  <fieldset>
    <legend>{{ stop ? `Where: now at ${stop.name}` : moving ? 'Where it is now' : 'Where' }}</legend>
    <v-text-field
      v-model="position"
      class="wide fig"
      label="Position"
      placeholder="46.8085, −41.3620 or 46°48.5′N 41°21.7′W"
      :error-messages="positionError"
      data-test="position"
      @focus="editing = true"
      @blur="savePosition"
      @keydown.enter="savePosition"
    />
    <div v-if="!moving && site.latDeg !== null && site.lonDeg !== null" class="wide ready">
      <span class="soft">Ground within 60 km and the masts about it, for no coverage:</span
      ><PackState :pack="pack" :place="{ id: null, name: job.name, latDeg: site.latDeg, lonDeg: site.lonDeg }" />
    </div>
    <p v-if="pack.error.value" class="error wide" role="alert">{{ pack.error.value }}</p>
    <button type="button" class="press small" :disabled="locating" @click="here">
      {{ locating ? 'finding…' : 'where I stand' }}
    </button>
    <button type="button" class="press small" data-test="by-receiver" @click="byReceiver">
      {{ receiver.fix ? 'where the receiver is' : 'by a receiver…' }}
    </button>
    <LazyReceiverSheet v-if="receiving" v-model="receiving" />
  </fieldset>
</template>
