<script setup lang="ts">
import { cableLabels, labelsCsv, PICK_GROUPS, pickList, pickListCsv } from '#core/install'
import type { PickGroup } from '#core/install'
import { holesOf } from '#core/judge'
import { buildingOf } from '#core/site'
import { length, num } from '#core/units'

/** Everything to be bought and packed, counted over the whole tree; labels for both ends of every cable. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const design = computed(() => store.variant)
const building = computed(() => buildingOf(store.here))
const tree = computed(() => store.result.tree!)
const list = computed(() =>
  pickList({
    job: store.job,
    design: design.value,
    tree: tree.value,
    building: building.value,
    holes: holesOf({ tree: tree.value, building: building.value }).length,
  }),
)
const labels = computed(() => cableLabels(tree.value, design.value.name))
const groups = computed(() =>
  (Object.keys(PICK_GROUPS) as PickGroup[])
    .map(g => ({ id: g, name: PICK_GROUPS[g], rows: list.value.rows.filter(r => r.group === g) }))
    .filter(g => g.rows.length),
)
const setPlugs = (plugs: 'factory' | 'crimped') =>
  store.commit([{ table: 'designs', op: 'update', rowId: design.value.id, fields: { plugs } }], 'plugs of the cables')
const waste = computed(() => list.value.boughtM - list.value.runM)
const pdf = (what: 'picklist' | 'labels') =>
  `/api/jobs/${store.id}/plan.pdf?what=${what}&design=${design.value.id}&units=${prefs.units}`
</script>

<template>
  <MvSheet v-model="open" :title="`Pick list of variant ${design.name}`" wide>
    <div class="bar">
      <fieldset :disabled="!session.mayEdit">
        <legend class="soft">Cables</legend>
        <label>
          <input type="radio" name="plugs" :checked="design.plugs === 'factory'" @change="setPlugs('factory')" /> sealed factory
          plugs, stock lengths
        </label>
        <label>
          <input
            type="radio"
            name="plugs"
            data-test="crimped"
            :checked="design.plugs === 'crimped'"
            @change="setPlugs('crimped')"
          />
          cut from the drum, crimped on site
        </label>
      </fieldset>
      <p class="sum" data-test="cable-sum">
        <b class="fig">{{ length(list.runM, prefs.units, 0) }}</b> run,
        <b class="fig">{{ length(list.boughtM, prefs.units, 0) }}</b> bought{{
          waste > 0.5 ? `, ${length(waste, prefs.units, 0)} left over` : ''
        }}
      </p>
      <span class="out soft"
        >save
        <button
          type="button"
          class="plain"
          data-test="list-csv"
          @click="downloadText('pick-list.csv', pickListCsv(list), 'text/csv')"
        >
          CSV
        </button>
        <a :href="pdf('picklist')" download data-test="list-pdf">PDF</a></span
      >
    </div>
    <table data-test="pick-rows">
      <tbody v-for="g in groups" :key="g.id">
        <tr class="group">
          <th colspan="3" scope="rowgroup">{{ g.name }}</th>
        </tr>
        <tr v-for="r in g.rows" :key="r.name + r.note">
          <td class="fig n">{{ num(r.quantity) }}{{ r.unit ? ` ${r.unit}` : '' }}</td>
          <td class="what">{{ r.name }}</td>
          <td class="soft">{{ r.note }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="c in list.cuttings" :key="c.line" class="soft">
      {{ c.line }}: {{ num(c.cutting.boughtM) }} m bought, {{ num(c.cutting.wasteM, 1) }} m left over;
      {{ c.cutting.exact ? 'no less will do' : 'the best found' }}.
    </p>
    <h3>
      Labels <small class="soft">{{ labels.length }}, one at each end as it is pulled</small>
      <span class="out soft"
        >save
        <button type="button" class="plain" @click="downloadText('labels.csv', labelsCsv(labels), 'text/csv')">CSV</button>
        <a :href="pdf('labels')" download data-test="labels-pdf">PDF</a></span
      >
    </h3>
    <ul class="labels">
      <li v-for="l in labels.filter(x => x.end === 'first')" :key="l.code">
        <b class="fig">{{ l.code }}</b> {{ l.from }} → {{ l.to }}
        <span class="soft">{{ l.line }}, {{ length(l.lengthM, prefs.units) }}</span>
      </li>
    </ul>
  </MvSheet>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 24px;
  align-items: end;
  flex-wrap: wrap;
}
fieldset {
  border: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.sum {
  margin: 0;
}
.out {
  margin-left: auto;
  font-size: 13px;
  font-weight: 400;
}
.out a {
  color: inherit;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 10px;
}
td {
  border-bottom: 1px solid var(--mv-line);
  padding: 4px 12px 4px 0;
  vertical-align: top;
}
.group th {
  text-align: left;
  padding: 12px 0 3px;
  border-bottom: 1px solid var(--mv-ink);
}
.n {
  text-align: right;
  white-space: nowrap;
  width: 64px;
}
.what {
  width: 42%;
}
h3 {
  display: flex;
  gap: 10px;
  align-items: baseline;
  margin-top: 20px;
}
.labels {
  list-style: none;
  padding: 0;
  columns: 2;
  font-size: 13px;
}
.labels li {
  break-inside: avoid;
  padding: 3px 0;
}
@media (max-width: 900px) {
  .labels {
    columns: 1;
  }
  tr {
    display: grid;
    grid-template-columns: 64px 1fr;
  }
  td.soft {
    grid-column: 2;
    border-bottom: 1px solid var(--mv-line);
  }
  td:not(.soft) {
    border-bottom: 0;
  }
  .what {
    width: auto;
  }
}
</style>
