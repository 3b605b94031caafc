<script setup lang="ts">
import { v7 as uuidv7 } from 'uuid'
import { antennaAt, PARTS, partById } from '#core/catalogue/parts'
import type { Part } from '#core/catalogue/parts'
import { kitChanges } from '#core/job/defaults'
import { passLossDb, runLossDb } from '#core/chain/tree'
import { fromMetres, num, signed } from '#core/units'
import type { Design, Node, Run } from '#core/job/schema'

/** Which approach, and the kit in the order the signal meets it; what does not fit says so at its joint. */
const store = useJob()
const prefs = usePrefs()
const session = useSession()
const result = computed(() => store.result!)
const kit = computed(() => result.value.kit)
const design = computed(() => store.design!)
const findings = computed(() => result.value.findings.filter(f => f.section === 'choose'))
const laidOut = computed(() => !!kit.value?.order.length)
const APPROACHES: { id: Design['approach']; name: string; when: string }[] = [
  {
    id: 'router',
    name: 'Router with an outside antenna',
    when: 'data for the house; lifts level and, with a beam, SINR; calls only over Wi-Fi',
  },
  {
    id: 'booster',
    name: 'Booster, one inside antenna',
    when: 'calls and phones as they are; repeats what is outside, cannot better its SINR',
  },
]
async function layOut(approach: Design['approach']) {
  const changes = kitChanges(
    store.doc!,
    design.value,
    approach,
    result.value.chosen?.path ? result.value.chosen.frameBearingDeg : null,
    uuidv7,
  )
  await store.commit(
    changes.map(c => ({ table: c.table, op: c.op, rowId: c.rowId, fields: c.fields })),
    `lay out a ${approach}`,
  )
}
const optionsFor = (node: Node): Part[] =>
  PARTS.filter(p =>
    node.role === 'outside'
      ? p.kind === 'antenna' && p.use === 'outside'
      : node.role === 'inside'
        ? p.kind === 'antenna' && p.use === 'inside'
        : p.kind === node.role,
  )
const lines = PARTS.filter(p => p.kind === 'line')
const setPart = (node: Node, partId: string) =>
  store.commit([{ table: 'nodes', op: 'update', rowId: node.id, fields: { partId, gainDb: null } }], 'change a part')
const setRun = (run: Run, fields: Partial<Run>) =>
  store.commit([{ table: 'runs', op: 'update', rowId: run.id, fields }], 'change a cable')
const setDesign = (fields: Partial<Design>) =>
  store.commit([{ table: 'designs', op: 'update', rowId: design.value.id, fields }], 'change the design')
const at = (id: string) => findings.value.filter(f => f.subjectId.includes(id) && f.severity !== 'good')
const rest = computed(() =>
  findings.value.filter(
    f => !kit.value?.order.some(o => f.subjectId.includes(o.node.id) || (o.run && f.subjectId.includes(o.run.id))),
  ),
)
const gainOf = (node: Node): string => {
  const part = partById(node.partId)
  if (part?.kind === 'antenna') return `${signed(node.gainDb ?? antennaAt(part, kit.value!.frequencyMHz).pattern.gainDbi, 1)} dBi`
  if (part?.kind === 'amplifier') return `${signed(node.gainDb ?? part.gainDb)} dB`
  const loss = passLossDb(node)
  return loss ? `−${num(loss, 1)} dB` : ''
}
const bands = computed(() => {
  const mast = result.value.chosen
  return mast ? [...new Set(store.doc!.cells.filter(c => c.mastId === mast.mast.id).map(c => c.band))].sort() : []
})
const ROLE = {
  outside: 'outside antenna',
  arrestor: 'arrestor',
  pad: 'pad',
  amplifier: 'amplifier',
  router: 'router',
  inside: 'inside antenna',
}
const factor = computed(() => fromMetres(1, prefs.units))
const unit = computed(() => (prefs.units === 'metric' ? 'm' : 'ft'))
const portWords = (partId: string) => {
  const p = partById(partId)
  if (p && 'port' in p)
    return (
      `${p.port.connector} ${p.port.gender}, ${p.port.impedanceOhm} ` +
      `Ω${p.kind === 'router' ? `, ${p.ports} ports` : ''}${p.kind === 'antenna' && p.feeds > 1 ? `, ${p.feeds} feeds` : ''}`
    )
  return p && 'from' in p ? `${p.from.connector} ${p.from.gender} to ${p.to.gender}` : ''
}
</script>

<template>
  <div class="choose">
    <div class="approach" role="radiogroup" aria-label="Approach">
      <button
        v-for="a in APPROACHES"
        :key="a.id"
        type="button"
        role="radio"
        :aria-checked="laidOut && design.approach === a.id"
        :class="{ on: laidOut && design.approach === a.id }"
        :disabled="!session.mayEdit"
        :data-test="`approach-${a.id}`"
        @click="layOut(a.id)"
      >
        <svg viewBox="0 0 120 44" width="120" height="44" aria-hidden="true">
          <path d="M34 42V20L64 6L94 20V42Z" fill="var(--mv-sheet)" stroke="currentColor" stroke-width="1.6" />
          <path d="M32 22V2M18 4H32M21 1V7M26 0V8" fill="none" stroke="currentColor" stroke-width="1.6" />
          <path d="M32 12V34H46" fill="none" stroke="currentColor" stroke-width="1.6" />
          <rect x="46" y="28" width="14" height="11" fill="currentColor" class="box" />
          <path
            v-if="a.id === 'booster'"
            d="M60 33H76V26M70 26H82L79 31H73Z"
            fill="none"
            stroke="currentColor"
            stroke-width="1.6"
          />
          <path v-else d="M66 30Q72 34 66 38M71 27Q80 34 71 41" fill="none" stroke="currentColor" stroke-width="1.4" />
        </svg>
        <strong>{{ a.name }}</strong><span>{{ a.when }}</span>
      </button>
      <div class="band">
        <v-select
          label="Band"
          :model-value="design.band"
          :items="bands.length ? bands : ['B20', 'B3', 'B1', 'B7', 'B8']"
          data-test="band"
          @update:model-value="b => setDesign({ band: b })"
        />
        <span class="soft">{{ result.chosen ? `of ${result.chosen.mast.name}` : 'choose the mast in Bearings' }}</span>
      </div>
    </div>
    <p v-if="!laidOut" class="empty">
      Press an approach: the usual kit is laid out in the house, every part of it can then be changed.
    </p>
    <ol v-else class="strip" tabindex="0" aria-label="The kit, in the order of the signal">
      <template v-for="(s, i) in kit!.order" :key="s.node.id">
        <li v-if="s.run" class="run">
          <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
            <path
              d="M0 12H100"
              stroke="var(--mv-ink)"
              :stroke-width="s.run.measured ? 3 : 1.6"
              :stroke-dasharray="s.run.measured ? '' : '5 4'"
            />
          </svg>
          <v-select
            :model-value="s.run.partId"
            label="Cable"
            :items="lines.map(l => ({ value: l.id, title: l.name }))"
            @update:model-value="v => setRun(s.run!, { partId: v })"
          />
          <MvNumber
            label="Length"
            :unit="unit"
            :factor="factor"
            :value="s.run.lengthM"
            :low="0"
            :high="500"
            required
            :decimals="1"
            :save="v => setRun(s.run!, { lengthM: v! })"
          />
          <v-checkbox
            :model-value="s.run.measured"
            label="measured"
            @update:model-value="v => setRun(s.run!, { measured: !!v })"
          />
          <b class="fig">−{{ num(runLossDb(s.run, s.line, kit!.frequencyMHz), 1) }} dB</b>
          <p v-for="f in at(s.run.id)" :key="f.key" class="joint" :class="f.severity">{{ f.title }}</p>
        </li>
        <li class="part" :data-role="s.node.role">
          <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
            <path :d="i ? 'M0 12H100' : 'M50 12H100'" stroke="var(--mv-ink)" stroke-width="3" /></svg
          ><i class="knot" />
          <span class="role">{{ ROLE[s.node.role] }}</span>
          <v-select
            :model-value="s.node.partId"
            :aria-label="ROLE[s.node.role]"
            :items="optionsFor(s.node).map(p => ({ value: p.id, title: p.name }))"
            @update:model-value="v => setPart(s.node, v)"
          />
          <span class="soft port">{{ portWords(s.node.partId) }}</span>
          <b class="fig">{{ gainOf(s.node) }}</b>
          <p v-for="f in at(s.node.id).filter(f => !f.subjectId.includes('.'))" :key="f.key" class="joint" :class="f.severity">
            {{ f.title }}
          </p>
        </li>
      </template>
    </ol>
    <div class="words">
      <section>
        <FindingRow v-for="f in rest" :key="f.key" :finding="f" />
        <FindingRow v-for="f in findings.filter(f => !rest.includes(f))" :key="f.key" :finding="f" />
        <p v-if="laidOut && !findings.length" class="fine">Everything fits together: bands, plugs, impedance, ports.</p>
      </section>
      <section v-if="laidOut" class="own">
        <h2>Maker’s figures win</h2>
        <p class="soft">Where the part’s own sheet says otherwise, enter it.</p>
        <div class="grid">
          <MvNumber
            v-if="kit!.outside"
            label="Outside antenna gain"
            unit="dBi"
            :value="kit!.outside.node.gainDb ?? kit!.outside.pattern.gainDbi"
            :low="-20"
            :high="40"
            :save="
              v =>
                store.commit(
                  [{ table: 'nodes', op: 'update', rowId: kit!.outside!.node.id, fields: { gainDb: v } }],
                  'antenna gain',
                )
            "
          />
          <MvNumber
            v-if="kit!.amplifier"
            label="Amplifier gain"
            unit="dB"
            :value="kit!.amplifier.part.gainDb"
            :low="0"
            :high="100"
            :save="
              v =>
                store.commit(
                  [{ table: 'nodes', op: 'update', rowId: kit!.amplifier!.node.id, fields: { gainDb: v } }],
                  'amplifier gain',
                )
            "
          />
          <MvNumber
            label="Carrier width"
            unit="MHz"
            :value="design.bandwidthMHz"
            :low="1.4"
            :high="100"
            :save="v => setDesign({ bandwidthMHz: v })"
          />
          <template v-if="kit!.amplifier">
            <MvNumber
              label="Carriers in its band"
              unit=""
              :value="design.carriersInBand"
              :low="1"
              :high="40"
              :decimals="0"
              :save="v => setDesign({ carriersInBand: v === null ? null : Math.round(v) })"
            />
            <MvNumber
              label="Margin against oscillation"
              unit="dB"
              :value="design.marginDb"
              :low="0"
              :high="40"
              required
              :save="v => setDesign({ marginDb: v! })"
            />
            <MvNumber
              label="Roof and sheets between"
              unit="dB"
              :value="design.obstructionDb"
              :low="0"
              :high="60"
              required
              :save="v => setDesign({ obstructionDb: v! })"
            />
          </template>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.choose {
  height: 100%;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.approach {
  display: grid;
  grid-template-columns: 1fr 1fr 210px;
  border-bottom: 1px solid var(--mv-line);
}
.approach > button {
  display: grid;
  grid-template-columns: 120px 1fr;
  column-gap: 16px;
  text-align: left;
  background: none;
  border: 0;
  border-right: 1px solid var(--mv-line);
  padding: 12px 20px;
  cursor: pointer;
  align-items: center;
}
.approach svg {
  grid-row: 1 / 3;
}
.approach strong {
  font-size: 16px;
  align-self: end;
}
.approach button span {
  color: var(--mv-soft);
  font-size: 13px;
  align-self: start;
}
.approach > button.on {
  background: var(--mv-sheet);
  box-shadow: inset 0 -4px var(--mv-ink);
}
.band {
  padding: 14px 16px;
  display: grid;
  gap: 4px;
  font-size: 12.5px;
  align-content: center;
}
.strip {
  list-style: none;
  display: flex;
  margin: 0;
  padding: 18px 12px 12px;
  overflow-x: auto;
  background: var(--mv-sky);
  border-bottom: 1px solid var(--mv-ink);
  min-height: 236px;
}
.strip li {
  flex: 1;
  min-width: 138px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 0 6px;
}
.strip li.part {
  min-width: 176px;
}
.strip svg {
  height: 24px;
  width: calc(100% + 12px);
  margin: 0 -6px;
  overflow: visible;
  fill: var(--mv-ink);
}
.strip :deep(.v-field) {
  background: var(--mv-sheet);
}
.strip :deep(.v-input) {
  flex: none;
}
.strip :deep(.v-select__selection-text) {
  white-space: normal;
  line-height: 1.25;
  font-size: 14px;
}
.strip li.part {
  position: relative;
}
.knot {
  position: absolute;
  left: 50%;
  top: 5px;
  width: 14px;
  height: 14px;
  margin-left: -7px;
  border-radius: 50%;
  background: var(--mv-ink);
}
.role {
  font-weight: 700;
}
.port {
  font-size: 12.5px;
}
b.fig {
  font-size: 16px;
  margin-top: auto;
}
.run {
  margin-top: 0;
}
.run :deep(.v-checkbox) {
  font-size: 12.5px;
  margin: -6px 0;
}
.joint {
  font-size: 12.5px;
  border-left: 3px solid var(--mv-agreed);
  padding-left: 6px;
}
.joint.stop {
  border-color: var(--mv-short);
  color: var(--mv-short);
  font-weight: 600;
}
.joint.note {
  border-color: var(--mv-line);
}
.words {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
  padding: 16px 20px;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-top: 10px;
}
.empty {
  padding: 24px 20px;
  font-size: 16px;
}
.fine {
  color: var(--mv-met);
  font-weight: 600;
}
@media (max-width: 900px) {
  .approach {
    grid-template-columns: 1fr;
  }
  .approach > button {
    border: 0;
    border-bottom: 1px solid var(--mv-line);
    min-height: 76px;
  }
  .words {
    grid-template-columns: 1fr;
  }
  .strip {
    flex-direction: column;
  }
  .strip svg {
    display: none;
  }
  .strip li {
    margin-bottom: 12px;
  }
}
</style>
