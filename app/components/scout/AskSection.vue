<script setup lang="ts">
import { BODIES, DEFAULT_SITE, setField } from '#core/job'
import type { Body, Edit, Fields, Site, TableName } from '#core/job'
import { formatPosition, parsePosition } from '#core/geo'
import { RULE_PACKS } from '#core/judge'
import { moves, presentStop } from '#core/survey'
import { layoutSection } from '#core/drawing'
import { BODY_FIGURES, bodyOf, needAtDbm, withBody } from '#core/site'
import { length, num } from '#core/units'

/** What is wanted, where, and what the house is like; drawn as it is told. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const job = computed(() => store.job)
const site = computed(() => store.site)
const update =
  <T extends TableName>(table: T, rowId: string, label: string) =>
  (field: keyof Fields<T>) =>
  (v: unknown) =>
    store.commit([setField(table, rowId, field, v) as Edit], label)
const setJob = (field: keyof Fields<'jobs'>) => update('jobs', job.value.id, fieldWord(field))(field)
const { setNext } = useVisits()
/** The one SIM that a job begins with is of the carrier that is planned for: that is said once. */
function setCarrier(carrier: string | null) {
  const [sim] = store.doc.sims
  const begun = carrier !== null && store.doc.sims.length === 1 && sim && sim.carrier === null
  const name = sim?.name === 'SIM' ? `${carrier} SIM` : sim?.name
  return store.commit(
    [
      { table: 'jobs', op: 'update', rowId: job.value.id, fields: { carrier } },
      ...(begun ? [{ table: 'sims' as const, op: 'update' as const, rowId: sim.id, fields: { carrier, name } }] : []),
    ],
    fieldWord('carrier'),
  )
}
/** what is set once a job, told in a line */
const detailWords = computed(() =>
  [
    site.value.groundM === null ? 'ground height not known' : `${length(site.value.groundM, prefs.units)} above sea`,
    `rules: ${RULE_PACKS[job.value.rules].name}`,
    `rooms need ${num(needAtDbm(job.value, { use: null, needDbm: null }))} dBm`,
    `earth radius × ${num(job.value.kFactor, 2)}`,
  ].join(', '),
)
const edits = useSiteEdits()
const setSite = (field: keyof Site) => (v: unknown) => edits.setSite({ [field]: v }, fieldWord(field))
const moving = computed(() => moves(store.doc))
const stop = computed(() => presentStop(store.doc))
/** where it stands belongs to the stop while it is at one */
const setGround = (v: unknown) => (stop.value ? update('stops', stop.value.id, 'ground')('groundM')(v) : setSite('groundM')(v))
type Measure = 'lengthM' | 'depthM' | 'storeyHeightM' | 'roofRiseM' | 'mizzenRiseM'
/** what is measured of a vehicle, and of a boat with her masts */
const measures = computed<{ field: Measure; label: string; low: number; high: number; optional?: boolean }[]>(() => {
  const boat = job.value.kind === 'boat'
  const masts = [
    { field: 'roofRiseM' as const, label: 'Mast above the coachroof', low: 0, high: 60 },
    { field: 'mizzenRiseM' as const, label: 'A mizzen, above the coachroof', low: 0.5, high: 60, optional: true },
  ]
  return [
    { field: 'lengthM', label: 'Length', low: 2, high: 150 },
    { field: 'depthM', label: 'Width', low: 1, high: 100 },
    { field: 'storeyHeightM', label: boat ? 'Water to coachroof' : 'Ground to roof', low: 0.5, high: 20 },
    ...(boat ? masts : []),
  ]
})
const shell = computed(() => (job.value.kind === 'boat' ? 'boat' : 'vehicle'))
const body = computed(() => bodyOf(site.value, shell.value))
const bodies = computed(() =>
  BODIES.filter(b => BODY_FIGURES[b].kind === shell.value).map(b => ({ value: b, title: BODY_FIGURES[b].words })),
)
const { unit: lengthUnit, factor } = useLengths()

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
const { width, el } = useWidth()
const view = computed(() =>
  width.value
    ? layoutSection(store.doc, store.result, {
        width: width.value,
        height: Math.min(430, Math.max(230, width.value * 0.6)),
        units: prefs.units,
        levels: false,
        compact: width.value < 760,
      })
    : null,
)
const carriers = computed(() => [
  ...new Set([...session.carriers.map(c => c.name), ...(job.value.carrier ? [job.value.carrier] : [])]),
])
</script>

<template>
  <div class="ask">
    <div class="form" tabindex="-1">
      <fieldset class="agreed">
        <legend>What was agreed</legend>
        <MvNumber
          label="Down"
          unit="Mbit/s"
          :value="job.agreedDownMbps"
          :low="0"
          :high="10000"
          :save="setJob('agreedDownMbps')"
        />
        <MvNumber label="Up" unit="Mbit/s" :value="job.agreedUpMbps" :low="0" :high="10000" :save="setJob('agreedUpMbps')" />
        <v-checkbox
          :model-value="job.agreedCalls"
          label="Calls must work"
          @update:model-value="v => setJob('agreedCalls')(!!v)"
        />
        <MvNumber
          label="Drop-outs borne"
          unit="an hour"
          :value="job.agreedDrops"
          :low="0"
          :high="3600"
          data-test="agreed-drops"
          :save="setJob('agreedDrops')"
        />
        <MvText label="Next visit" type="date" :value="job.nextOn" :save="setNext" />
      </fieldset>
      <fieldset v-if="moving">
        <legend>Stops</legend>
        <StopsPanel />
      </fieldset>
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
      <fieldset>
        <legend>SIMs, and what is there today</legend>
        <MvChoice
          :value="job.carrier"
          label="Planned for the network of"
          :choices="carriers"
          clearable
          data-test="carrier"
          :save="v => setCarrier(v ?? null)"
        />
        <SimsPanel />
        <MvText
          class="wide"
          label="What is there today, and what changed lately"
          :rows="2"
          :value="job.today"
          :save="setJob('today')"
        />
        <MvChoice
          :value="job.mayDrill"
          label="May we drill?"
          :choices="[
            { value: 'yes', title: 'yes' },
            { value: 'no', title: 'no' },
            { value: 'ask', title: 'still to ask' },
          ]"
          :save="setJob('mayDrill')"
        />
      </fieldset>
      <fieldset v-if="!moving">
        <legend>{{ job.kind === 'home' ? 'The house' : 'The building' }}</legend>
        <MvNumber
          label="Length"
          :unit="lengthUnit"
          :factor="factor"
          :value="site.lengthM"
          :low="3"
          :high="400"
          required
          :decimals="1"
          :save="setSite('lengthM')"
        />
        <MvNumber
          label="Depth"
          :unit="lengthUnit"
          :factor="factor"
          :value="site.depthM"
          :low="2"
          :high="400"
          required
          :decimals="1"
          :save="setSite('depthM')"
        />
        <MvNumber
          label="Its long side runs toward"
          unit="° true"
          :value="site.axisDeg"
          :low="0"
          :high="360"
          required
          :decimals="0"
          :save="setSite('axisDeg')"
        />
        <MvNumber
          label="Storeys"
          unit=""
          :value="site.storeys"
          :low="1"
          :high="40"
          required
          :decimals="0"
          :save="v => setSite('storeys')(v === null ? null : Math.round(v))"
        />
        <MvNumber
          label="Storey height"
          :unit="lengthUnit"
          :factor="factor"
          :value="site.storeyHeightM"
          :low="2"
          :high="6"
          required
          :decimals="1"
          :save="setSite('storeyHeightM')"
        />
        <MvNumber
          label="Roof above eaves, 0 is flat"
          :unit="lengthUnit"
          :factor="factor"
          :value="site.roofRiseM"
          :low="0"
          :high="10"
          required
          :decimals="1"
          :save="setSite('roofRiseM')"
        />
      </fieldset>
      <fieldset v-else>
        <legend>{{ job.kind === 'boat' ? 'The boat' : 'The vehicle' }}</legend>
        <MvChoice
          label="What it is"
          :value="body"
          :choices="bodies"
          data-test="body"
          :save="(b: Body | null) => (b ? edits.setSite(withBody(site, b, DEFAULT_SITE[job.kind]), 'what it is') : undefined)"
        />
        <MvNumber
          v-for="m in measures"
          :key="m.field"
          :label="m.label"
          :unit="lengthUnit"
          :factor="factor"
          :value="site[m.field]"
          :low="m.low"
          :high="m.high"
          :required="!m.optional"
          :decimals="1"
          :save="setSite(m.field)"
        />
      </fieldset>
      <BuildingFields />
      <fieldset>
        <legend>Who for</legend>
        <MvText label="Job" required :value="job.name" :save="setJob('name')" />
        <MvText label="Customer" :value="job.customerName" :save="setJob('customerName')" />
        <MvText label="How to reach them" :value="job.customerContact" :save="setJob('customerContact')" />
        <MvText label="Address" :value="job.customerAddress" :save="setJob('customerAddress')" />
        <MvText class="wide" label="Notes" :rows="2" :value="job.notes" :save="setJob('notes')" />
      </fieldset>
      <details class="details">
        <summary data-test="site-details">
          <b>Site details</b> <span class="soft">{{ detailWords }}</span>
        </summary>
        <fieldset>
          <MvNumber
            label="Ground above sea"
            :unit="lengthUnit"
            :factor="factor"
            :value="site.groundM"
            :low="-450"
            :high="9000"
            :decimals="1"
            :save="setGround"
          />
          <MvNumber
            label="Earth radius × k"
            unit=""
            :value="job.kFactor"
            :low="0.5"
            :high="5"
            required
            :decimals="2"
            :save="setJob('kFactor')"
          />
          <MvChoice
            :value="job.rules"
            label="Rules of"
            :choices="Object.entries(RULE_PACKS).map(([value, p]) => ({ value, title: p.name }))"
            :save="setJob('rules')"
          />
        </fieldset>
        <fieldset>
          <legend>What counts as enough</legend>
          <EnoughFields :value="job" :save="(field, v) => setJob(field)(v)" />
        </fieldset>
      </details>
    </div>
    <div ref="el" class="picture">
      <DrawingView v-if="view" :drawing="view.drawing" label="Section to scale" />
      <p class="soft">
        {{
          moving
            ? 'Drawn from the numbers, stern to bow, seen so that the chosen mast stands on the left; its heading is given ' +
              'in Bearings, under the compass.'
            : 'Drawn from the numbers: it lies along its long side, seen so that the chosen mast stands on the left. ' +
              'Rooms and other spots come in Survey.'
        }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: minmax(420px, 1fr) 1fr;
  height: 100%;
}
.form {
  overflow: auto;
  padding: 8px 20px 24px;
  border-right: 1px solid var(--mv-line);
}
fieldset {
  border: 0;
  padding: 12px 0 4px;
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 10px;
  align-items: start;
}
legend {
  font-weight: 700;
  font-size: 16px;
  padding: 0 0 6px;
}
.details {
  border-top: 1px solid var(--mv-line);
  margin-top: 14px;
  padding-top: 10px;
}
summary {
  cursor: pointer;
}
.wide {
  grid-column: 1 / -1;
}
.ready {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  font-size: 13px;
}
.picture {
  padding: 0;
  overflow: hidden;
}
.picture p {
  padding: 10px 20px;
}
@media (max-width: 900px) {
  .ask {
    display: block;
    overflow: auto;
  }
  .form {
    border: 0;
    overflow: visible;
  }
  .picture {
    display: none;
  }
}
</style>
