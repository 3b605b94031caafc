<script setup lang="ts">
import { sure } from '#core/sure'
import { editsOf, movesAbout, USES } from '#core/job'
import type { Fields, FloorRow, MaterialId, Site, TableName, Use } from '#core/job'
import { floorsOf, MATERIALS, throughDb, USE_FIGURES, whyDb } from '#core/site'
import { bandByName, dlCentreMHz } from '#core/radio'
import { length, num } from '#core/units'

/** What the site is made of: what a wave must go through on its way in, and what parts two antennas. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const site = computed(() => store.site)
const kind = computed(() => store.job.kind)
const ashore = computed(() => !movesAbout(kind.value))
const { unit, factor } = useLengths()
const frequency = computed(() => dlCentreMHz(bandByName(store.design?.band ?? 'B20') ?? sure(bandByName('B20'))))
const words = (id: MaterialId) => `${MATERIALS[id].words}, ${num(throughDb(id, frequency.value))} dB`
const WALLS: MaterialId[] = ['brick', 'block', 'concrete', 'reinforced concrete', 'timber', 'foil', 'sheet metal', 'plastic']
const PANES: MaterialId[] = ['glass', 'coated glass', 'open']
const FLOORS: MaterialId[] = ['timber floor', 'concrete', 'reinforced concrete', 'plasterboard', 'open', 'timber', 'plastic']
const ROOFS: MaterialId[] = ['tiles', 'timber', 'reinforced concrete', 'sheet metal', 'foil', 'plasterboard', 'plastic']
const options = (ids: MaterialId[], now: string) =>
  [...new Set([...ids, now as MaterialId])].map(id => ({ value: id, title: words(id) }))
const set =
  <T extends TableName>(table: T, rowId: string, label: string) =>
  (fields: Partial<Fields<T>>) =>
    store.commit(editsOf([{ table, op: 'update', rowId, fields }]), label)
const uses = (now: Use): { value: Use | null; title: string }[] => [
  { value: null, title: `as its rooms: ${USE_FIGURES[now].words}` },
  ...USES.map(u => ({ value: u, title: USE_FIGURES[u].words })),
]
const edits = useSiteEdits()
const setSite = (fields: Partial<Site>) => edits.setSite(fields, 'what it is made of')
const floors = computed(() => floorsOf(store.here))
const setFloor = (level: number, fields: Partial<FloorRow>) => edits.setFloor(level, fields, 'a floor')
const open = ref(false)
const { doing, once } = useOnce()
const addWall = () =>
  once(() =>
    store.commit(
      [
        {
          table: 'walls',
          op: 'insert',
          fields: { level: 0, fromEastM: 0, fromNorthM: -4, toEastM: 0, toNorthM: 4, material: 'brick', lossDb: null },
        },
      ],
      'an inside wall',
    ),
  )
const addSheet = () =>
  once(() =>
    store.commit(
      [
        {
          table: 'sheets',
          op: 'insert',
          fields: {
            name: 'Sheet',
            eastM: 0,
            northM: 0,
            upM: floors.value.at(-1)?.toM ?? 3,
            azimuthDeg: 0,
            tiltDeg: 90,
            widthM: 1.2,
            heightM: 1.2,
            material: 'sheet metal',
            lossDb: null,
          },
        },
      ],
      'a sheet',
    ),
  )
const remove = (table: 'walls' | 'sheets', rowId: string) =>
  once(() => store.commit([{ table, op: 'delete', rowId }], 'take it out'))

interface Figure {
  key: string
  label: string
  /** in metres, or feet where the person measures in them, unless said otherwise */
  unit?: string
  low: number
  high: number
  decimals?: number
}
const along = (key: string, label: string, low = -500, high = 500): Figure => ({ key, label, low, high })
/** What stands inside and is drawn by hand: its figures, and what it can be made of. */
const STANDING: Record<'walls' | 'sheets', { words: string; lossLabel: string; of: MaterialId[]; figures: Figure[] }> = {
  walls: {
    words: 'a wall',
    lossLabel: 'Measured through it',
    of: [...WALLS, 'plasterboard', 'glass'],
    figures: [
      { key: 'level', label: 'Floor', unit: '', low: 0, high: 39, decimals: 0 },
      along('fromEastM', 'From, east'),
      along('fromNorthM', 'north'),
      along('toEastM', 'to, east'),
      along('toNorthM', 'north'),
    ],
  },
  sheets: {
    words: 'a sheet',
    lossLabel: 'Measured',
    of: ['sheet metal', 'foil'],
    figures: [
      along('eastM', 'East', -500, 300),
      along('northM', 'North', -500, 300),
      along('upM', 'Up', -20, 300),
      along('widthM', 'Wide', 0.1, 20),
      along('heightM', 'High', 0.1, 20),
      { key: 'azimuthDeg', label: 'Faces', unit: '°', low: 0, high: 360, decimals: 0 },
      { key: 'tiltDeg', label: 'Tilt, 90 lies flat', unit: '°', low: -90, high: 90, decimals: 0 },
    ],
  },
}
const standing = computed(() => [
  ...store.doc.walls.map(row => ({ table: 'walls' as const, row, name: null })),
  ...store.doc.sheets.map(row => ({ table: 'sheets' as const, row, name: row.name })),
])
const figureOf = (row: object, key: string) => (row as Record<string, number>)[key] ?? null
</script>

<template>
  <fieldset class="building">
    <legend>{{ ashore ? 'What it is made of' : 'Its skin' }}</legend>
    <MvChoice
      :value="site.wallMaterial"
      :label="ashore ? 'Outside walls' : 'Sides'"
      :choices="options(WALLS, site.wallMaterial)"
      data-test="wall-material"
      :save="v => setSite({ wallMaterial: v })"
    />
    <MvChoice
      :value="site.roofMaterial"
      label="Roof"
      :choices="options(ROOFS, site.roofMaterial)"
      :save="v => setSite({ roofMaterial: v })"
    />
    <template v-if="ashore">
      <MvChoice
        :value="site.paneMaterial"
        label="Window panes"
        :choices="options(PANES, site.paneMaterial)"
        :save="v => setSite({ paneMaterial: v })"
      />
      <MvNumber
        label="Share of panes in the walls"
        unit="%"
        :value="site.panePercent"
        :low="0"
        :high="100"
        required
        :decimals="0"
        :save="v => setSite({ panePercent: v })"
      />
      <MvChoice
        :value="site.floorMaterial"
        label="Floors and ceilings"
        :choices="options(FLOORS, site.floorMaterial)"
        :save="v => setSite({ floorMaterial: v })"
      />
    </template>
    <small class="soft wide" data-test="why-walls"
      >{{ ashore ? 'Walls' : 'Sides' }} {{ num(throughDb(site.wallMaterial, frequency), 1) }} dB at {{ num(frequency) }} MHz:
      {{ whyDb(site.wallMaterial, frequency) }}.</small
    >
    <button v-if="ashore" type="button" class="press small" :aria-expanded="open" data-test="inside" @click="open = !open">
      {{ open ? 'less' : 'floors, inside walls, sheets' }}
      <template v-if="!open && (store.doc.walls.length || store.doc.sheets.length)">
        ({{ store.doc.walls.length + store.doc.sheets.length }})
      </template>
    </button>
    <div v-if="open && ashore" class="wide rows">
      <table>
        <thead>
          <tr>
            <th>floor</th>
            <th>name</th>
            <th>height</th>
            <th>slab above</th>
            <th v-if="kind === 'building'">used as</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="f in floors" :key="f.level">
            <td class="fig">
              {{ f.level }} <small class="soft">{{ length(f.fromM, prefs.units) }}</small>
            </td>
            <td><MvText label="Name" :value="f.name" :save="v => setFloor(f.level, { name: v })" /></td>
            <td>
              <MvNumber
                label="Height"
                :unit="unit"
                :factor="factor"
                :value="f.toM - f.fromM"
                :low="1.8"
                :high="20"
                :decimals="1"
                :save="v => setFloor(f.level, { heightM: v })"
              />
            </td>
            <td>
              <MvChoice
                :value="f.material"
                label="Slab above"
                :choices="options(FLOORS, f.material)"
                :save="v => setFloor(f.level, { material: v })"
              />
            </td>
            <td v-if="kind === 'building'">
              <MvChoice
                :value="store.doc.floors.find(r => r.level === f.level)?.use ?? null"
                label="Used as"
                :choices="uses(f.use)"
                data-test="floor-use"
                :save="v => setFloor(f.level, { use: v })"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <div v-for="{ table, row, name } in standing" :key="row.id" class="item">
        <strong v-if="name === null">inside wall</strong>
        <MvText v-else label="Sheet" required :value="name" :save="v => set(table, row.id, 'a sheet')({ name: v ?? '' })" />
        <MvNumber
          v-for="f in STANDING[table].figures"
          :key="f.key"
          :label="f.label"
          :unit="f.unit ?? unit"
          :factor="f.unit === undefined ? factor : 1"
          :value="figureOf(row, f.key)"
          :low="f.low"
          :high="f.high"
          required
          :decimals="f.decimals ?? 1"
          :save="v => set(table, row.id, STANDING[table].words)({ [f.key]: f.key === 'level' ? Math.round(v ?? 0) : v })"
        />
        <MvChoice
          :value="row.material"
          label="Of"
          :choices="options(STANDING[table].of, row.material)"
          :save="v => set(table, row.id, STANDING[table].words)({ material: v })"
        />
        <MvNumber
          :label="STANDING[table].lossLabel"
          unit="dB"
          :value="row.lossDb"
          :low="0"
          :high="60"
          :save="v => set(table, row.id, STANDING[table].words)({ lossDb: v })"
        />
        <button v-if="session.mayEdit" type="button" class="plain" @click="remove(table, row.id)">take out</button>
      </div>
      <p v-if="session.mayEdit" class="adds">
        <button type="button" class="press small" :disabled="doing" data-test="add-wall" @click="addWall">an inside wall</button>
        <button type="button" class="press small" :disabled="doing" data-test="add-sheet" @click="addSheet">a sheet</button>
        <span class="soft">A table’s figure, until both sides of a wall are read.</span>
      </p>
    </div>
  </fieldset>
</template>

<style scoped>
.building {
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
.wide {
  grid-column: 1 / -1;
}
.rows table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
.rows th:first-child {
  width: 48px;
}
.rows th:nth-child(3) {
  width: 20%;
}
.rows th:nth-child(n + 4) {
  width: 25%;
}
.rows th {
  text-align: left;
  font-weight: 400;
  font-size: 12.5px;
  color: var(--mv-soft);
}
.rows td {
  padding: 3px 6px 3px 0;
}
.item {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110px, 1fr));
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--mv-line);
  padding: 8px 0;
}
.adds {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  padding: 8px 0;
}
@media (max-width: 900px) {
  .rows thead {
    display: none;
  }
  .rows tr {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px 0;
    padding: 8px 0;
    border-top: 1px solid var(--mv-line);
  }
  .rows td:first-child {
    grid-column: 1 / -1;
  }
}
</style>
