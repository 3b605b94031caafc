<script setup lang="ts">
import type { IsolationRow } from '#core/job'
import type { Pair } from '#core/separation'
import { length, num } from '#core/units'

/** Every donor and inside antenna with what parts them, by four methods side by side; the one in force has a reason. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const loops = computed(() => store.result.loops)
const METHODS: { id: IsolationRow['inForce']; name: string; what: string }[] = [
  { id: 'quick', name: 'quick rule', what: 'distance, angle and gains, nothing between' },
  { id: 'maker', name: 'maker’s figure', what: 'for such a lay-out' },
  { id: 'computed', name: 'computed', what: 'patterns, surfaces, a scattered way' },
  { id: 'measured', name: 'measured on site', what: 'from antenna to antenna' },
]
const valueOf = (p: Pair, id: IsolationRow['inForce']): number | null =>
  ({ quick: p.quickDb, maker: p.entered?.makerDb ?? null, computed: p.computedDb, measured: p.entered?.measuredDb ?? null })[id]
/** a pair has no row until something is entered for it */
function set(p: Pair, fields: Partial<Omit<IsolationRow, 'id'>>) {
  const label = 'isolation of a pair'
  if (p.entered) return store.commit([{ table: 'isolations', op: 'update', rowId: p.entered.id, fields }], label)
  const row: Omit<IsolationRow, 'id'> = {
    designId: store.variant.id,
    donorId: p.donor.node.id,
    serverId: p.server.node.id,
    makerDb: null,
    measuredDb: null,
    inForce: 'computed',
    reason: null,
    ...fields,
  }
  return store.commit([{ table: 'isolations', op: 'insert', fields: row }], label)
}
/** what was measured is believed as soon as it is entered */
const enter = (p: Pair, id: 'maker' | 'measured') => (v: number | null) =>
  set(p, {
    [id === 'maker' ? 'makerDb' : 'measuredDb']: v,
    ...(v === null ? (p.inForce === id ? { inForce: 'computed' } : {}) : id === 'measured' ? { inForce: 'measured' } : {}),
  })
const bands = computed(() => store.result.bands.filter(b => b.loop))
</script>

<template>
  <MvSheet v-model="open" title="Isolation, pair by pair" wide>
    <section v-for="loop in loops" :key="loop.at.node.id" data-test="isolation">
      <h3>
        {{ loop.at.name }}
        <small class="soft"
          >needs {{ num(loop.neededDb) }} dB: gain {{ num(loop.at.part.gainDb) }} and margin {{ num(loop.marginDb) }}; all pairs
          together {{ num(loop.isolationDb) }}</small
        >
      </h3>
      <div v-for="p in loop.pairs" :key="p.donor.node.id + p.server.node.id" class="pair">
        <p>
          <strong>{{ p.donor.name }}</strong> and <strong>{{ p.server.name }}</strong>, {{ length(p.alongM, prefs.units) }} along,
          {{ length(p.upM, prefs.units) }} up;
          {{ p.crossings.length ? p.crossings.map(x => x.material).join(', ') : 'nothing' }} between; {{ num(p.linesDb, 1) }} dB
          in cables
        </p>
        <div class="methods" role="radiogroup" :aria-label="`Isolation of ${p.server.name}`">
          <div v-for="m in METHODS" :key="m.id" class="method" :class="{ on: p.inForce === m.id }">
            <button
              type="button"
              role="radio"
              :aria-checked="p.inForce === m.id"
              :disabled="!session.mayEdit || valueOf(p, m.id) === null"
              :data-test="`method-${m.id}`"
              @click="set(p, { inForce: m.id })"
            >
              {{ m.name }}
              <b v-if="(m.id === 'quick' || m.id === 'computed') && valueOf(p, m.id) !== null" class="fig"
                >{{ num(valueOf(p, m.id)!) }} dB</b
              >
            </button>
            <MvNumber
              v-if="m.id === 'maker' || m.id === 'measured'"
              label="Isolation"
              unit="dB"
              :value="valueOf(p, m.id)"
              :low="0"
              :high="200"
              :data-test="`enter-${m.id}`"
              :save="enter(p, m.id)"
            />
            <small class="soft">{{
              m.id === 'quick' && p.quickDb === null ? 'holds only where both stand upright' : m.what
            }}</small>
          </div>
        </div>
        <MvText
          v-if="p.inForce !== 'computed'"
          label="Why this figure is believed"
          :value="p.entered?.reason ?? null"
          :save="v => set(p, { reason: v })"
        />
      </div>
    </section>
    <h3>On every band of the mast</h3>
    <table data-test="loop-bands">
      <thead>
        <tr>
          <th scope="col">band</th>
          <th scope="col">what it does</th>
          <th scope="col" class="r">area still served</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="b in bands" :key="b.band">
          <td>
            {{ b.band }} <span class="soft">{{ num(b.frequencyMHz) }} MHz</span>
          </td>
          <td :class="{ short: b.loop!.state === 'oscillating' }">
            {{ loopWords(b.loop!) }}
          </td>
          <td class="r fig">{{ num(100 * b.loop!.servedShare) }} %</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      The sum is good to ±6 dB until measured: a signal into one antenna, read at the other, or the gain that the amplifier
      settles at.
    </p>
  </MvSheet>
</template>

<style scoped>
.pair {
  border-top: 1px solid var(--mv-line);
  padding: 8px 0;
}
.pair p {
  margin: 0 0 6px;
}
.methods {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 10px;
  margin-bottom: 8px;
}
.method {
  display: flex;
  flex-direction: column;
  gap: 4px;
  border-left: 3px solid var(--mv-line);
  padding-left: 8px;
}
.method.on {
  border-color: var(--mv-ink);
  background: var(--mv-sky);
}
.method button {
  display: flex;
  justify-content: space-between;
  background: none;
  border: 0;
  padding: 4px 6px 4px 0;
  min-height: 32px;
  cursor: pointer;
  text-align: left;
}
.method button:disabled {
  cursor: default;
  opacity: 0.6;
}
.method.on button {
  font-weight: 700;
}
.method b {
  font-size: 16px;
}
table {
  border-collapse: collapse;
  min-width: 60%;
}
th,
td {
  text-align: left;
  padding: 3px 24px 3px 0;
  border-bottom: 1px solid var(--mv-line);
  font-weight: 400;
}
.r {
  text-align: right;
}
.short {
  color: var(--mv-short);
  font-weight: 600;
}
@media (max-width: 900px) {
  .methods {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
