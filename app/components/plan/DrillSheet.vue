<script setup lang="ts">
import { num } from '#core/units'

/** Before you drill: what is still assumed, what it could cost, how it is known cheapest; and the dry run's card. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const drill = computed(() => store.result.drill)
const t = useSay()
const figure = (v: number, unit: string) => `${num(v, unit === 'Mbit/s' && Math.abs(v) < 10 ? 1 : 0)} ${unit}`
</script>

<template>
  <MvSheet v-model="open" title="Before you drill" wide>
    <p v-if="!drill.assumed.length" class="fine">Nothing is assumed any more.</p>
    <table v-else class="assumed" data-test="assumed">
      <thead>
        <tr>
          <th scope="col">still assumed</th>
          <th scope="col">what it could cost</th>
          <th scope="col">the cheapest way to know</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(a, i) in drill.assumed" :key="i" :class="{ first: a.first }">
          <td>{{ t(a.what) }}</td>
          <td>{{ t(a.cost) }}</td>
          <td>{{ t(a.know) }}</td>
        </tr>
      </tbody>
    </table>
    <h3>The dry run: everything loose, cable through a window, power on</h3>
    <p v-if="!drill.dryRun.length" class="soft">The card is written once a reading, or a mast, and the kit are known.</p>
    <table v-else class="card" data-test="dry-run">
      <thead>
        <tr>
          <th scope="col">read</th>
          <th scope="col">where</th>
          <th scope="col" class="r">expected</th>
          <th scope="col" class="r">stop</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in drill.dryRun" :key="`${d.where} ${d.quantity}`">
          <td>{{ d.quantity }}</td>
          <td>{{ d.where }}</td>
          <td class="r fig">{{ figure(d.expected, d.unit) }}</td>
          <td class="r fig">{{ d.stopWhen }} {{ figure(d.stopAt, d.unit) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">Past a stop figure something is not as planned: find out what, move, read again. Only then a hole.</p>
    <CautionTicks section="place" />
  </MvSheet>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--mv-soft);
  font-size: 12.5px;
}
th,
td {
  padding: 5px 12px 5px 0;
  border-bottom: 1px solid var(--mv-line);
  vertical-align: top;
}
.assumed td:first-child {
  font-weight: 600;
  width: 34%;
  border-left: 3px solid var(--mv-agreed);
  padding-left: 8px;
}
.first td:first-child {
  border-color: var(--mv-short);
}
.first td {
  color: var(--mv-short);
}
h3 {
  margin: 20px 0 6px;
}
.card {
  border: 1px solid var(--mv-ink);
}
.card td,
.card th {
  padding: 7px 12px;
}
.r {
  text-align: right;
}
.card .fig {
  font-size: 16px;
}
</style>
