<script setup lang="ts">
import { BARE_FIXTURE, insert, movesAbout, setField } from '#core/job'
import type { Fields, Fixture } from '#core/job'
import { RULE_PACKS, surgesOf } from '#core/judge'
import { guessedCorners } from '#core/install'
import { buildingOf, round2 } from '#core/site'
import { length, num } from '#core/units'

/** Where a surge goes: each arrestor, its conductor with lengths and bends, the electrode and its bond. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const { once, doing } = useOnce()
const building = computed(() => buildingOf(store.here))
const arrestors = computed(() => store.result.tree?.nodes.filter(n => n.part.kind === 'arrestor') ?? [])
const paths = computed(() => surgesOf({ doc: store.here, tree: store.result.tree, building: building.value, job: store.job }))
const electrodes = computed(() => store.doc.fixtures.filter(f => f.kind === 'electrode'))
const bare = computed(() => store.result.findings.find(f => f.code === 'level.no-arrestor') ?? null)
const aboard = computed(() => movesAbout(store.job.kind))
const words = <T extends string>(list: readonly T[]) => list.map(value => ({ value, title: value }))
const ELECTRODES = computed(() =>
  words(aboard.value ? (['hull plate'] as const) : (['rod', 'house earthing', 'water pipe', 'gas pipe'] as const)),
)
const BONDED = words(['yes', 'no'] as const)
const CONDUCTOR = words(['solid', 'braid'] as const)
const add = () =>
  once(() => {
    const at = arrestors.value[0]?.node
    const fields = {
      ...BARE_FIXTURE,
      kind: 'electrode' as const,
      name: '',
      eastM: at?.eastM ?? 0,
      northM: at?.northM ?? 0,
      upM: aboard.value ? 0 : -0.3,
    }
    return store.commit([insert('fixtures', fields)], 'an electrode')
  })
const set = (f: Fixture, field: keyof Fields<'fixtures'>) => (v: unknown) =>
  store.commit([setField('fixtures', f.id, field, v)], 'the way of a surge')
const gone = (f: Fixture) => store.commit([{ table: 'fixtures', op: 'delete', rowId: f.id }], 'take it away')
function draw(f: Fixture) {
  const at = arrestors.value[0]?.node
  if (!at) return
  const guessed = guessedCorners(at, f, building.value)
  const middle = { eastM: at.eastM, northM: at.northM, upM: round2((at.upM + f.upM) / 2) }
  void set(f, 'corners')(guessed.length ? guessed : [middle])
}
const m = (v: number) => length(v, prefs.units)
</script>

<template>
  <section>
    <h2>Where a surge goes</h2>
    <FindingRow v-if="bare" :finding="bare" brief />
    <p v-if="!arrestors.length" class="soft">
      No arrestor in any line yet: one in series in every line that comes in, each feed of it by itself; one that passes DC where
      the antenna is fed over its coax. Ethernet and DC from outdoors have theirs too.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th>arrestor</th>
          <th>conductor</th>
          <th>bends</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in paths" :key="p.arrestor.node.id" data-test="surge-row">
          <td>{{ p.arrestor.name }} to {{ p.electrode.name || p.electrode.electrode }}</td>
          <td class="fig">{{ m(p.way.lengthM) }}</td>
          <td class="fig">{{ p.way.bends }}, {{ num(p.way.turnedDeg) }}°</td>
        </tr>
        <tr v-if="!paths.length">
          <td colspan="3" class="soft">No electrode noted: where its conductor goes is not known.</td>
        </tr>
      </tbody>
    </table>
    <div v-for="f in electrodes" :key="f.id" class="electrode" data-test="electrode">
      <div class="fields">
        <MvChoice
          label="to"
          :value="f.electrode"
          :choices="ELECTRODES"
          :disabled="!session.mayEdit"
          :save="set(f, 'electrode')"
          data-test="electrode-kind"
        />
        <MvChoice
          v-if="!aboard && f.electrode !== 'house earthing'"
          label="bonded to the building’s earthing"
          :value="f.bonded"
          :choices="BONDED"
          clearable
          :disabled="!session.mayEdit"
          :save="set(f, 'bonded')"
          data-test="bonded"
        />
        <MvChoice
          label="by"
          :value="f.conductor"
          :choices="CONDUCTOR"
          clearable
          :disabled="!session.mayEdit"
          :save="set(f, 'conductor')"
        />
      </div>
      <p v-if="session.mayEdit" class="row">
        <button
          v-if="!f.corners"
          type="button"
          class="press small"
          :disabled="!arrestors.length"
          data-test="draw-surge"
          @click="draw(f)"
        >
          draw its way
        </button>
        <button v-else type="button" class="press small bare" @click="set(f, 'corners')(null)">guess its way again</button>
        <button type="button" class="press small bare" @click="gone(f)">take away</button>
      </p>
    </div>
    <button type="button" class="press small" :disabled="!session.mayEdit || doing" data-test="add-electrode" @click="add">
      an electrode
    </button>
    <p class="soft">
      {{
        aboard
          ? 'A boat and a vehicle have rules of their own: what is bonded is for a marine or vehicle electrician.'
          : RULE_PACKS[store.job.rules].earth
      }}
      Solid copper, short, straight, bends of 203 mm radius and more, never through rooms, never to gas. A gas tube wears: after a
      strike it is tested or replaced. Nothing here survives a direct strike; air terminals are a licensed person’s, who decides
      all of this.
    </p>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
  margin-bottom: 8px;
}
th,
td {
  text-align: right;
  padding: 5px 4px;
  border-bottom: 1px solid var(--mv-line);
  vertical-align: top;
}
th {
  font-weight: 400;
  color: var(--mv-soft);
  font-size: 12.5px;
}
th:first-child,
td:first-child {
  text-align: left;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin: 6px 0;
}
.row {
  display: flex;
  gap: 8px;
}
.electrode {
  border-bottom: 1px solid var(--mv-line);
  padding: 6px 0;
  margin-bottom: 8px;
}
@media (max-width: 900px) {
  .press {
    min-height: 44px;
  }
}
</style>
