<script setup lang="ts">
import { num, signed } from '#core/units'

/** Each band of the mast on one line: the worst room, the loop, what goes up. */
const emit = defineEmits<{ band: [name: string] }>()
const store = useOpened()
const session = useSession()
const loops = computed(() => store.result.loops.length > 0)
</script>

<template>
  <table class="bandtable" data-test="bands">
    <thead>
      <tr>
        <th scope="col">band <kbd class="key">B</kbd></th>
        <th scope="col" class="r">{{ store.result.rooms.length ? 'worst room' : 'at the modem' }}</th>
        <th v-if="loops" scope="col">the loop</th>
        <th
          v-if="loops"
          scope="col"
          class="r"
          title="from a phone in the hardest room toward the mast, against the same phone outside"
        >
          up, over the phone’s own
        </th>
        <th v-if="loops" scope="col" class="r" title="the booster’s own noise toward the mast, EIRP">noise up</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="b in store.result.bands" :key="b.band" :class="{ on: b.band === store.design?.band }">
        <td>
          <button
            type="button"
            :disabled="!session.mayEdit"
            :aria-pressed="b.band === store.design?.band"
            @click="emit('band', b.band)"
          >
            {{ b.band }}
          </button>
        </td>
        <td class="r fig">
          {{ b.rsrpDbm === null ? '–' : `${num(b.rsrpDbm)} dBm`
          }}<small v-if="b.short" class="bad">&nbsp;{{ b.short }} short</small>
        </td>
        <td v-if="loops" :class="{ bad: b.loop?.state === 'oscillating' }">
          {{ b.loop ? loopWords(b.loop) : '–' }}
        </td>
        <td v-if="loops" class="r fig">{{ b.upGainDb === null ? '–' : `${signed(b.upGainDb)} dB` }}</td>
        <td v-if="loops" class="r fig">
          {{ b.upNoiseDbmPerMHz === null ? '–' : `${num(b.upNoiseDbmPerMHz)} dBm/MHz` }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.bandtable {
  border-collapse: collapse;
  flex: none;
}
.bandtable th {
  white-space: nowrap;
  font-weight: 400;
  color: var(--mv-soft);
  text-align: left;
  padding: 0 14px 0 0;
  position: sticky;
  top: 0;
  background: var(--mv-paper);
}
.bandtable td {
  padding: 0 14px 0 0;
  white-space: nowrap;
}
.bandtable .r {
  text-align: right;
}
.bandtable button {
  background: none;
  border: 0;
  padding: 0 4px 0 0;
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.bandtable tr.on td {
  font-weight: 700;
}
.bad {
  color: var(--mv-short);
}
</style>
