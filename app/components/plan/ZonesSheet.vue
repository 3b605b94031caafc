<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import { layoutZones } from '#core/drawing'
import { antennasOf, areaOf, divided, levelsOf, zoneTrouble } from '#core/fitting'
import type { Division, Donors } from '#core/fitting'
import { editsOf, insert, remove, update, USES } from '#core/job'
import type { Use, Zone } from '#core/job'
import { buildingOf, floorWords, USE_FIGURES } from '#core/site'
import { num } from '#core/units'

/** The building by zones: divided at a press, each with its floors and its use, then laid out as one kit. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const session = useSession()
const { engine } = useEngine()
const { el, width } = useWidth()
const { unit, factor } = useLengths()
const building = computed(() => buildingOf(store.here))
const zones = computed(() => store.doc.zones)
const level = ref(0)
const donors = ref<Donors>('own')
const floors = computed(() => building.value.floors.map(f => ({ value: f.level, title: floorWords(f) })))
const DIVIDE: { value: Division; title: string }[] = [
  { value: 'whole', title: 'one zone, the whole building' },
  { value: 'two', title: 'two zones along its length' },
  { value: 'three', title: 'three zones along its length' },
  { value: 'four', title: 'four zones along its length' },
  { value: 'floors', title: 'a zone a floor' },
]
const DONORS: { value: Donors; title: string }[] = [
  { value: 'own', title: 'an outside antenna each' },
  { value: 'shared', title: 'one outside antenna, shared' },
]
const divide = (division: Division) =>
  store.commit(
    [...zones.value.map(z => remove('zones', z.id)), ...divided(building.value, division).map(z => insert('zones', z))],
    'divide into zones',
  )
const set = (z: Zone, fields: Partial<Zone>) => store.commit([update('zones', z.id, fields)], 'a zone')
const take = (z: Zone) => store.commit([remove('zones', z.id)], 'take out a zone')
const top = computed(() => building.value.floors.at(-1)?.level ?? 0)
/** the same area a floor up, as often as the building lets */
function copyUp(z: Zone) {
  const { id: _id, version: _version, ...rest } = z
  const up = Math.min(top.value, Math.max(z.fromLevel, z.toLevel) + 1)
  return store.commit(
    [insert('zones', { ...rest, name: `${z.name}, ${floorWords(building.value.floors[up]!)}`, fromLevel: up, toLevel: up })],
    'copy a zone',
  )
}
const antennas = (z: Zone): number => levelsOf(building.value, z).reduce((n, l) => n + antennasOf(building.value, z, l), 0)
const m2 = (z: Zone): number => {
  const a = areaOf(building.value, z)
  return (a.alongToM - a.alongFromM) * (a.acrossToM - a.acrossFromM)
}
const uses: { value: Use | null; title: string }[] = [
  { value: null, title: 'as its floors' },
  ...USES.map(u => ({ value: u, title: `${USE_FIGURES[u].words}, ${num(USE_FIGURES[u].designDbm)} dBm` })),
]
const troubles = computed(() => zones.value.map(z => zoneTrouble(building.value, z)))
const ready = computed(() => zones.value.length > 0 && troubles.value.every(t => t === null))
const shares = computed(() => zones.value.length > 1 && zones.value.length <= 4)
const { doing, once } = useOnce()
const error = ref('')
const lay = () =>
  once(async () => {
    error.value = ''
    try {
      const changes = await engine.zones(toRaw(store.whole!), toRaw(store.variant), donors.value, nowUtc())
      const wrong = await store.commit(editsOf(changes), 'lay out by zones')
      if (wrong[0]) error.value = wrong[0].message
      else open.value = false
    } catch (e) {
      error.value = messageOf(e)
    }
  })
const EDGES = [
  ['alongFromM', 'along from'],
  ['alongToM', 'to'],
  ['acrossFromM', 'across from'],
  ['acrossToM', 'to'],
] as const
</script>

<template>
  <MvSheet v-model="open" title="The building by zones" wide>
    <div ref="el">
      <p class="soft">
        Each zone has an amplifier, its antennas on all of its floors, and what divides the signal between them. What was laid out
        before is replaced; undo brings it back.
      </p>
      <div class="row">
        <MvChoice
          label="Divide into"
          :value="null"
          :choices="DIVIDE"
          :disabled="!session.mayEdit"
          data-test="divide"
          :save="(d: Division | null) => (d ? divide(d) : undefined)"
        />
        <MvChoice
          v-if="floors.length > 1"
          label="Floor shown"
          :value="level"
          :choices="floors"
          :save="(l: number | null) => void (level = l ?? 0)"
        />
      </div>
      <DrawingView
        v-if="width > 0"
        :drawing="layoutZones(building, zones, { level, width: Math.min(820, width) })"
        :label="`zones on ${floorWords(building.floors[level]!)}`"
      />
      <p v-if="!zones.length" class="soft">No zone yet: choose how the building is divided.</p>
      <div class="row">
        <MvChoice
          v-if="shares"
          label="Outside antennas"
          :value="donors"
          :choices="DONORS"
          :save="(d: Donors | null) => void (donors = d ?? 'own')"
          data-test="donors"
        />
        <button
          v-if="session.mayEdit"
          type="button"
          class="press filled"
          :disabled="!ready || doing"
          data-test="lay-zones"
          @click="lay"
        >
          {{ doing ? 'Laying out…' : `Lay out ${zones.length === 1 ? 'the zone' : `${zones.length} zones`}` }}
        </button>
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <ol class="zones">
        <li v-for="(z, i) in zones" :key="z.id" :data-test="`zone-${i + 1}`">
          <MvText :label="`Zone ${i + 1}`" required :value="z.name" :save="v => set(z, { name: v ?? '' })" />
          <MvChoice label="from" :value="z.fromLevel" :choices="floors" :save="v => set(z, { fromLevel: v ?? 0 })" />
          <MvChoice label="up to" :value="z.toLevel" :choices="floors" :save="v => set(z, { toLevel: v ?? 0 })" />
          <MvChoice label="Used as" :value="z.use" :choices="uses" :save="v => set(z, { use: v })" data-test="zone-use" />
          <MvNumber
            v-for="[key, label] in EDGES"
            :key="key"
            :label="label"
            :unit="unit"
            :factor="factor"
            :value="z[key]"
            :low="-200"
            :high="200"
            required
            :decimals="1"
            :data-test="`zone-${key}`"
            :save="v => set(z, { [key]: v })"
          />
          <MvNumber
            label="Level in its rooms"
            unit="dBm"
            :value="z.needDbm"
            :low="-140"
            :high="-40"
            :decimals="0"
            :hint="z.needDbm === null ? 'as its use' : undefined"
            data-test="zone-needDbm"
            :save="v => set(z, { needDbm: v })"
          />
          <MvNumber
            label="People"
            unit=""
            :value="z.people"
            :low="0"
            :high="10000"
            :decimals="0"
            data-test="zone-people"
            :save="v => set(z, { people: v })"
          />
          <p>
            <span v-if="troubles[i]" class="error" role="alert">{{ z.name }}: {{ troubles[i] }}.</span>
            <span v-else class="soft">{{ num(m2(z)) }} m² a floor, {{ antennas(z) }} antennas in all</span>
            <template v-if="session.mayEdit">
              <button v-if="Math.max(z.fromLevel, z.toLevel) < top" type="button" class="plain" @click="copyUp(z)">
                copy to the floor above
              </button>
              <button type="button" class="plain" :aria-label="`take out ${z.name}`" @click="take(z)">take out</button>
            </template>
          </p>
        </li>
      </ol>
    </div>
  </MvSheet>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px;
  align-items: center;
  margin: 12px 0;
}
.zones {
  list-style: none;
  padding: 0;
  margin: 12px 0;
}
.zones li {
  display: grid;
  grid-template-columns: minmax(160px, 2fr) repeat(2, minmax(110px, 1fr)) minmax(150px, 1.5fr);
  gap: 8px 12px;
  padding: 12px 0;
  border-top: 1px solid var(--mv-line);
}
.zones p {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 0;
}
@media (max-width: 900px) {
  .zones li {
    grid-template-columns: 1fr 1fr;
  }
  .plain {
    min-height: 44px;
  }
}
</style>
