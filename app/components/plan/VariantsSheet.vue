<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import type { Variant } from '#core/solve'
import { sayExpected } from '#core/promise'
import { length, num, signed } from '#core/units'

/** Variants side by side, what differs in bold; one is chosen with a reason, the others stay. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ choose: [id: string] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const { engine } = useEngine()
const { answer: variants, failed } = useAsked<Variant[]>(
  [() => store.whole],
  () => engine.compare(toRaw(store.whole!), nowUtc()),
  200,
)

/** a class by itself: its label says of what */
const COST = ['nothing to buy', 'low', 'middle', 'high'] as const
const ROWS: { label: string; of: (v: Variant) => string; better?: (v: Variant) => number }[] = [
  { label: 'approach', of: v => (v.approach === 'booster' ? 'booster' : 'router') },
  { label: 'outside', of: v => v.outside || '–' },
  { label: 'box', of: v => v.box || '–' },
  { label: 'band', of: v => v.band ?? '–' },
  { label: 'down, Mbit/s', of: v => (v.down ? sayExpected(v.down) : 'not worked out'), better: v => v.down?.median ?? -1 },
  { label: 'up, Mbit/s', of: v => (v.up ? sayExpected(v.up) : '–'), better: v => v.up?.median ?? -1 },
  { label: 'promised', of: v => v.where || '–' },
  {
    label: 'worst room, RSRP',
    of: v => (v.worst ? `${num(v.worst.rsrpDbm)} dBm in ${v.worst.name}` : '–'),
    better: v => v.worst?.rsrpDbm ?? -999,
  },
  { label: 'rooms short', of: v => (v.worst ? String(v.shortRooms) : '–'), better: v => -v.shortRooms },
  {
    label: 'toward the mast from there',
    of: v => (v.worst?.upEirpDbm != null ? `${num(v.worst.upEirpDbm)} dBm` : '–'),
    better: v => v.worst?.upEirpDbm ?? -999,
  },
  {
    label: 'isolation over what is needed',
    of: v => (v.isolationMarginDb !== null ? `${signed(v.isolationMarginDb)} dB` : '–'),
    better: v => v.isolationMarginDb ?? 0,
  },
  { label: 'parts', of: v => String(v.parts), better: v => -v.parts },
  { label: 'cable', of: v => length(v.metres, prefs.units, 0), better: v => -v.metres },
  { label: 'adapters', of: v => String(v.adapters), better: v => -v.adapters },
  { label: 'holes', of: v => (v.holes ? String(v.holes) : 'none: can be taken away again'), better: v => -v.holes },
  { label: 'cost class', of: v => COST[v.cost], better: v => -v.cost },
  { label: 'hours', of: v => num(v.hours, 1), better: v => -v.hours },
]
const differs = (of: (v: Variant) => string) => new Set((variants.value ?? []).map(of)).size > 1
const isBest = (row: (typeof ROWS)[number], v: Variant): boolean =>
  !!row.better && differs(row.of) && row.of(v) !== '–' && row.better(v) === Math.max(...variants.value!.map(row.better))
const setReason = (id: string) => (reason: string | null) =>
  store.commit([{ table: 'designs', op: 'update', rowId: id, fields: { reason } }], 'why this variant')
/** two of one name could not be told apart in the bar */
const setName = (id: string) => async (name: string) =>
  store.doc.designs.some(d => d.id !== id && d.name === name)
    ? [{ field: 'name', message: 'another variant has this name' }]
    : store.commit([{ table: 'designs', op: 'update', rowId: id, fields: { name } }], 'name a variant')
const { doing, once } = useOnce()
const remove = (id: string) => once(() => store.commit([{ table: 'designs', op: 'delete', rowId: id }], 'take a variant out'))
const swept = (id: string) => store.doc.sweeps.some(s => s.designId === id) || store.doc.setups.some(s => s.designId === id)
</script>

<template>
  <MvSheet v-model="open" title="Variants side by side" wide>
    <p v-if="failed" class="error" role="alert">{{ failed }}</p>
    <p v-else-if="!variants" class="soft">Working each variant out…</p>
    <table v-else class="side" data-test="variants">
      <thead>
        <tr>
          <th scope="col"><span class="soft">worked out on the same readings</span></th>
          <th v-for="v in variants" :key="v.designId" scope="col" :class="{ on: v.chosen }">
            {{ v.name }}
            <small v-if="v.chosen" class="soft">chosen</small>
            <button
              v-else
              type="button"
              class="press small"
              :disabled="!session.mayEdit"
              :data-test="`choose-${v.name}`"
              @click="emit('choose', v.designId)"
            >
              choose
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in ROWS" :key="row.label" :class="{ alike: !differs(row.of) }">
          <th scope="row">{{ row.label }}</th>
          <td v-for="v in variants" :key="v.designId" :class="{ on: v.chosen, differs: differs(row.of), best: isBest(row, v) }">
            {{ row.of(v) }}
          </td>
        </tr>
        <tr v-if="session.mayEdit">
          <th scope="row">name</th>
          <td v-for="v in variants" :key="v.designId" :class="{ on: v.chosen }">
            <MvText label="Name" :value="v.name" required :data-test="`rename-${v.name}`" :save="setName(v.designId)" />
          </td>
        </tr>
        <tr>
          <th scope="row">why</th>
          <td v-for="v in variants" :key="v.designId" :class="{ on: v.chosen }">
            <MvText
              :label="v.chosen ? 'Why this one' : 'Why not'"
              :value="v.reason"
              :data-test="`reason-${v.name}`"
              :save="setReason(v.designId)"
            />
          </td>
        </tr>
        <tr v-if="session.mayEdit && variants.length > 1">
          <th scope="row" />
          <td v-for="v in variants" :key="v.designId" :class="{ on: v.chosen }">
            <button
              v-if="!v.chosen && !swept(v.designId)"
              type="button"
              class="plain"
              :disabled="doing"
              @click="remove(v.designId)"
            >
              take {{ v.name }} out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      What differs is bold; the better of a figure is underlined. The one chosen is the one that the whole job shows.
    </p>
  </MvSheet>
</template>

<style scoped>
.side {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 5px 12px 5px 0;
  border-bottom: 1px solid var(--mv-line);
  font-weight: 400;
}
thead th {
  font-size: 20px;
  font-weight: 700;
}
thead th:not(:first-child) {
  padding-left: 10px;
}
thead .soft {
  font-size: 12.5px;
  font-weight: 400;
}
thead button {
  font-size: 13px;
}
thead small,
thead button {
  margin-left: 8px;
}
tbody th {
  color: var(--mv-soft);
  width: 190px;
}
.on {
  background: var(--mv-sky);
  padding-left: 10px;
}
td:not(.on) {
  padding-left: 10px;
}
.differs {
  font-weight: 700;
}
.best {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.alike td {
  color: var(--mv-soft);
}
</style>
