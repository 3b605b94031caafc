<script setup lang="ts">
import { BARE_FIXTURE, FIXTURES, setField } from '#core/job'
import type { Edit, Fields, Fixture } from '#core/job'
import { numbered } from '#core/drawing'
import { buildingOf, roofOver, USUAL_WINDOW } from '#core/site'

/** What stands on the site beside the kit, and the photographs that are pinned to it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ picked: string | null }>()
const store = useOpened()
const session = useSession()
const { add, remove, busy, error } = usePhotos()
const photos = computed(() => numbered(store.doc))
const { unit, factor } = useLengths()
const pickedNode = computed(() => store.doc.nodes.find(n => n.id === props.picked) ?? null)
const pickedSpot = computed(() => store.doc.spots.find(s => s.id === props.picked) ?? null)
const ADD: Record<Fixture['kind'], string> = {
  'mains socket': 'a mains socket',
  '12 V feed': 'a 12 V feed',
  'satellite terminal': 'a satellite terminal',
  'roof unit': 'a unit on the roof',
  'way in': 'a way in',
  'duct': 'a duct',
  'electrode': 'an electrode',
}
const NOTE: Record<Fixture['kind'], string> = {
  'mains socket': '',
  '12 V feed': '',
  'satellite terminal': '',
  'roof unit': 'air-conditioner, vent, chimney',
  'way in': 'what is known of it stands in Route',
  'duct': 'its width stands in Route',
  'electrode': 'its bond stands in Route',
}
/** a new one stands where it usually does, to be dragged from there */
function place(kind: Fixture['kind']) {
  const building = buildingOf(store.here)
  if (kind === 'mains socket' || kind === '12 V feed') {
    const box = store.result.tree?.amplifiers[0]?.node ?? store.result.tree?.routers[0]?.node
    return { eastM: box?.eastM ?? 0, northM: box?.northM ?? 0, upM: Math.max(0.3, (box?.upM ?? 1.3) - 1) }
  }
  if (kind === 'way in' || kind === 'duct') return { eastM: 0, northM: 0, upM: 1.5 }
  if (kind === 'electrode') return { eastM: 0, northM: -building.halfDepthM, upM: -0.3 }
  const over = roofOver(building, { eastM: 0, northM: 0 }) ?? building.eavesM
  return { eastM: 0, northM: 0, upM: Math.round((over + (kind === 'satellite terminal' ? 0.4 : 0)) * 10) / 10 }
}
const put = (kind: Fixture['kind']) =>
  store.commit(
    [
      {
        table: 'fixtures',
        op: 'insert',
        fields: {
          kind,
          ...BARE_FIXTURE,
          name: '',
          ...place(kind),
          widthM: kind === 'roof unit' ? 0.8 : null,
          heightM: kind === 'roof unit' ? 0.4 : null,
        },
      },
    ],
    ADD[kind],
  )
const set =
  <T extends 'fixtures' | 'photos'>(table: T, rowId: string, field: keyof Fields<T>) =>
  (v: number | string | null) =>
    store.commit([setField(table, rowId, field, v) as Edit], 'what stands on the site')
const setName = (id: string) => (v: string | null) => set('fixtures', id, 'name')(v ?? '')
const halve = (id: string) => (v: number | null) => set('fixtures', id, 'halfFieldDeg')(v === null ? null : v / 2)
const gone = (id: string) => store.commit([{ table: 'fixtures', op: 'delete', rowId: id }], 'take it away')
function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const at = pickedNode.value || pickedSpot.value ? null : { eastM: 0, northM: 0, upM: 1.5 }
  void add(input.files, { nodeId: pickedNode.value?.id, spotId: pickedSpot.value?.id, at }).then(() => (input.value = ''))
}
const shows = (p: (typeof photos.value)[number]) =>
  store.doc.spots.find(s => s.id === p.spotId)?.name ??
  (p.nodeId ? store.result.tree?.nodes.find(n => n.node.id === p.nodeId)?.name : undefined)
</script>

<template>
  <MvSheet v-model="open" title="On the site" wide>
    <section>
      <h3>What kit is fed from, and what takes room or sky</h3>
      <p class="soft">
        Drag them on the picture. A box is held against the nearest socket, a terminal against what hides its sky.
      </p>
      <div v-for="f in store.doc.fixtures" :key="f.id" class="thing" :data-test="`fixture-${f.kind}`">
        <span class="kind"
          >{{ f.kind }}<small class="soft">{{ NOTE[f.kind] }}</small></span
        >
        <MvText class="name" label="name" :value="f.name || null" :save="setName(f.id)" />
        <MvNumber
          label="up"
          :value="f.upM"
          :unit="unit"
          :factor="factor"
          :low="-20"
          :high="300"
          :decimals="1"
          required
          :save="set('fixtures', f.id, 'upM')"
        />
        <template v-if="f.kind === 'satellite terminal'">
          <MvNumber
            :label="f.halfFieldDeg === null ? 'window, assumed' : 'window'"
            :value="f.halfFieldDeg === null ? null : 2 * f.halfFieldDeg"
            unit="°"
            :low="10"
            :high="180"
            :hint="String(2 * USUAL_WINDOW.halfFieldDeg)"
            :save="halve(f.id)"
          />
          <MvNumber label="tilt" :value="f.tiltDeg" unit="°" :low="0" :high="90" :save="set('fixtures', f.id, 'tiltDeg')" />
          <MvNumber
            label="looks"
            :value="f.azimuthDeg"
            unit="°"
            :low="0"
            :high="360"
            :save="set('fixtures', f.id, 'azimuthDeg')"
          />
        </template>
        <template v-else-if="f.kind === 'roof unit'">
          <MvNumber
            label="across"
            :value="f.widthM"
            :unit="unit"
            :factor="factor"
            :low="0.05"
            :high="50"
            :decimals="2"
            :save="set('fixtures', f.id, 'widthM')"
          />
          <MvNumber
            label="high"
            :value="f.heightM"
            :unit="unit"
            :factor="factor"
            :low="0.05"
            :high="50"
            :decimals="2"
            :save="set('fixtures', f.id, 'heightM')"
          />
        </template>
        <button type="button" class="press bare" :disabled="!session.mayEdit" @click="gone(f.id)">take away</button>
      </div>
      <p class="adds">
        <button
          v-for="kind in FIXTURES"
          :key="kind"
          type="button"
          class="press small"
          :disabled="!session.mayEdit"
          :data-test="`add-${kind.replaceAll(' ', '-')}`"
          @click="put(kind)"
        >
          {{ ADD[kind] }}
        </button>
      </p>
    </section>
    <section>
      <h3>Photographs</h3>
      <p class="soft">
        Kept on this device at once, sent when there is a network; what the camera wrote into them is left out.
        {{
          pickedNode || pickedSpot
            ? 'A new one is pinned to what is picked.'
            : 'A new one stands in the middle: drag it to its place.'
        }}
      </p>
      <ul class="photos">
        <li v-for="p in photos" :key="p.id" data-test="photo">
          <PhotoThumb :photo="p" />
          <div class="words">
            <MvText label="what it shows" :value="p.caption" :save="set('photos', p.id, 'caption')" />
            <MvNumber
              label="looking"
              :value="p.bearingDeg"
              unit="° true"
              :low="0"
              :high="360"
              :decimals="0"
              :save="set('photos', p.id, 'bearingDeg')"
            />
            <small class="soft">{{ dayAndTime(p.takenAtUtc) }}{{ shows(p) ? ` · ${shows(p)}` : '' }}</small>
            <button type="button" class="press bare" :disabled="!session.mayEdit" @click="remove(p.id)">take away</button>
          </div>
        </li>
      </ul>
      <p v-if="!photos.length" class="soft">None yet: the way in, the wall behind the box, the label before it is hidden.</p>
      <label class="press file">
        {{ busy ? 'taking it in…' : 'take or bring a photograph' }}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          multiple
          :disabled="busy || !session.mayEdit"
          data-test="bring-photo"
          aria-label="take or bring a photograph"
          @change="bring"
        />
      </label>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </section>
  </MvSheet>
</template>

<style scoped>
section + section {
  margin-top: 22px;
}
.thing {
  display: flex;
  gap: 10px;
  align-items: flex-start;
  padding: 6px 0;
  border-bottom: 1px solid var(--mv-line);
}
.thing > * {
  flex: 1;
  min-width: 76px;
}
.thing .name {
  flex-grow: 2;
}
.thing .kind {
  flex: 0 0 124px;
  padding-top: 8px;
  font-weight: 600;
  display: flex;
  flex-direction: column;
}
.thing .kind small {
  font-weight: 400;
}
.thing .press {
  flex: none;
}
.press.file {
  display: inline-block;
  margin-top: 10px;
}
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding-top: 10px;
}
.photos {
  list-style: none;
  padding: 0;
  margin: 8px 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.photos li {
  display: flex;
  gap: 10px;
}
.words {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.words .press {
  align-self: flex-start;
}
@media (max-width: 700px) {
  .thing {
    flex-wrap: wrap;
  }
  .thing .kind {
    flex-basis: 100%;
  }
  .photos {
    grid-template-columns: 1fr;
  }
  .press.file,
  .adds .press {
    min-height: 56px;
  }
}
</style>
