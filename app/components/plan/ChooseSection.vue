<script setup lang="ts">
import { lastOf, sure } from '#core/sure'
import { editsOf, isCoax, isExtender } from '#core/job'
import type { Design, Part, Port, Run } from '#core/job'
import { partById } from '#core/catalogue'
import { flatten, isCable, isData, isStraight, jointLossDb, jointM, outlineOf, portsWith, turned } from '#core/chain'
import type { AntennaNode, Joint, Outline, TreeNode } from '#core/chain'
import { roleOf } from '#core/drawing'
import { branchSteps, joinSteps, kitChanges, looseSteps, removeSteps, screwOn } from '#core/fitting'
import type { Kit, PartChoice, Step } from '#core/fitting'
import { buildingOf } from '#core/site'
import { v7 as uuidv7 } from 'uuid'
import { length, num, signed } from '#core/units'

/** Which approach, and the parts in the order the signal meets them; what does not fit says so at its joint. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const crewParts = useCrewParts()
const result = computed(() => store.result)
const design = computed(() => store.variant)
const tree = computed(() => result.value.tree)
const roots = computed(() => (tree.value ? outlineOf(tree.value) : []))
const straight = computed(() => isStraight(roots.value))
const rows = computed(() => roots.value.flatMap(flatten))
const findings = computed(() => result.value.findings.filter(f => f.section === 'choose'))
const laidOut = computed(() => !!tree.value?.nodes.length)
const APPROACHES = computed<{ id: Design['approach']; name: string; when: string }[]>(() => [
  {
    id: 'router',
    name: 'Router with an outside antenna',
    when: 'data for the place; lifts level and, with a beam, SINR; calls only over Wi-Fi',
  },
  {
    id: 'booster',
    name: store.job.kind === 'building' ? 'Amplifier and inside antennas' : 'Booster, one inside antenna',
    when: 'calls and phones as they are; repeats what is outside, cannot better its SINR',
  },
])
const { doing, once: one } = useOnce()
const act = async (work: () => Promise<unknown>) => void (session.mayEdit && (await one(work)))
const layOut = (kit: Kit, choice: PartChoice = {}) =>
  act(() => {
    const bearing = result.value.chosen?.path ? result.value.chosen.frameBearingDeg : null
    const changes = kitChanges(store.doc, design.value, kit, { bearingDeg: bearing, newId: uuidv7, choice })
    return store.commit(editsOf(changes), `lay out a ${KIT_WORDS[kit]}`)
  })
const KIT_WORDS: Record<Kit, string> = {
  'router': 'router',
  'outdoors': 'modem outdoors',
  'window': 'router at the window',
  'stick': 'plug-in stick',
  'booster': 'booster',
  'booster and router': 'booster with a router',
  'extender': 'pair of extender units',
}
const lines = computed(() => crewParts.all.value.filter(isCoax))
const optionsFor = (at: TreeNode): Part[] => crewParts.like(at.part)
/** a part and those built alike, each once: two feeds end in one and the same router */
const each = (o: Outline) => [o, ...o.twins]
const count = (o: Outline): number => new Set(each(o).map(t => t.at.node.id)).size
const partOfId = (partId: string) => crewParts.all.value.find(p => p.id === partId)
const { swap } = useSwapParts()
const setPart = (o: Outline, partId: string) => {
  const part = partOfId(partId)
  if (part)
    void swap(
      each(o).map(t => t.at.node),
      part,
    )
}
const setRun = (o: Outline, fields: Partial<Run>) =>
  store.commit(
    each(o).flatMap(t => (t.joint ? [{ table: 'runs' as const, op: 'update' as const, rowId: t.joint.run.id, fields }] : [])),
    'change a cable',
  )
const setDesign = (fields: Partial<Design>) =>
  store.commit([{ table: 'designs', op: 'update', rowId: design.value.id, fields }], 'change the design')
const apply = (steps: Step[], label: string) => act(() => store.commitSteps(steps, label))

const idsOf = (o: Outline) => [...new Set(each(o).map(t => t.at.node.id))]
const runIdsOf = (o: Outline) => each(o).flatMap(t => t.joint?.run.id ?? [])
const about = (ids: string[]) => findings.value.filter(f => f.severity !== 'good' && ids.some(id => f.subjectId.includes(id)))
/** one of each code: twins would say it twice */
const once = <T extends { code: string }>(list: T[]): T[] => list.filter((f, i) => list.findIndex(g => g.code === f.code) === i)
const atRun = (o: Outline) => once(about(runIdsOf(o)))
const atPart = (o: Outline) => once(about(idsOf(o)).filter(f => !runIdsOf(o).some(id => f.subjectId.includes(id))))
const rest = computed(() => {
  const told = new Set(rows.value.flatMap(o => [...atRun(o), ...atPart(o)].map(f => f.key)))
  return findings.value.filter(f => !told.has(f.key))
})
const frequency = computed(() => result.value.levels?.carrier.frequencyMHz ?? 806)
const gainOf = (o: Outline): string => {
  const { part } = o.at
  if (part.kind === 'antenna') return `${signed(turned(o.at as AntennaNode, frequency.value, null).pattern.gainDbi, 1)} dBi`
  if (part.kind === 'amplifier') {
    const state = result.value.levels?.amplifiers.find(a => a.at.node.id === o.at.node.id)
    return state ? `${signed(state.gainDb)} of ${num(part.gainDb)} dB` : `${signed(part.gainDb)} dB`
  }
  const level = result.value.levels?.ports.find(p => p.visit.at.node.id === o.at.node.id)
  return level && level.gainDb < 0 ? `−${num(-level.gainDb, 1)} dB` : ''
}
const rsrpOf = (o: Outline): string => {
  const level = result.value.levels?.ports.find(p => p.visit.at.node.id === o.at.node.id)
  return level ? `RSRP ${num(o.at.part.kind === 'antenna' && o.joint ? level.entryRsrpDbm : level.rsrpDbm)}` : ''
}
/** A lead is as long as its maker made it; a cable once it is measured. */
const isKnown = ({ run }: Joint) => run.measured || !run.partId
const leadWords = ({ leads }: Joint): string =>
  leads.map(l => `${l.line.name}, ${length(l.lengthM, prefs.units)}${l.assumed ? ', coax assumed' : ''}`).join(' and ')
const lossOf = (joint: Joint): string => `−${num(jointLossDb(joint, frequency.value), 1)} dB`
const spareOf = (joint: Joint): string => {
  const l = result.value.lengths.find(x => x.joint.run.id === joint.run.id)
  if (!l || (joint.run.partId && joint.run.measured)) return ''
  return l.spareM < -0.05
    ? `${length(-l.spareM, prefs.units)} short`
    : l.spareM > 0.3
      ? `${length(l.spareM, prefs.units)} over`
      : 'just reaches'
}
const bands = computed(() => {
  const mast = result.value.chosen
  const sent = mast ? store.doc.cells.filter(c => c.mastId === mast.mast.id).map(c => c.band) : []
  return [...new Set(sent)].sort()
})
const roleWord = (at: TreeNode) => roleWords(roleOf(tree.value!, at))
const portWords = (part: Part): string => {
  if (part.kind === 'line') return ''
  const [first] = part.ports
  if (!first) return ''
  const many =
    part.kind === 'antenna' && part.ports.length > 1
      ? `, ${portsWith(part, 'feed').length} feeds`
      : part.kind === 'router'
        ? `, ${part.ports.length} ports`
        : ''
  const last = lastOf(part.ports)
  if (part.ports.length === 2 && (part.kind === 'arrestor' || part.kind === 'pad' || part.kind === 'adapter'))
    return `${first.connector} ${first.gender} to ${last.connector} ${last.gender}`
  return `${first.connector} ${first.gender}, ${first.impedanceOhm} Ω${many}`
}

const opened = ref<Pick<Outline, 'at' | 'twins'> | null>(null)
const sheet = ref(false)
function openPart(o: Pick<Outline, 'at' | 'twins'>) {
  opened.value = o
  sheet.value = true
}
const openedNode = computed(() => store.doc.nodes.find(n => n.id === opened.value?.at.node.id) ?? null)

/** ports on which something more may hang, by the part they are of */
const freePorts = (at: TreeNode): Port[] =>
  (tree.value?.open ?? [])
    .filter(j => j.at.node.id === at.node.id && ['server', 'out', 'tap', 'through'].includes(j.port.role))
    .map(j => j.port)
const context = () => ({ kind: store.job.kind, building: buildingOf(store.here), design: design.value })
const addAntenna = (at: TreeNode, port: Port) => apply(branchSteps(context(), { at, port }, 'ant-dome'), 'add an inside antenna')
const INSERTS = [
  'spl-2',
  'spl-3',
  'spl-4',
  'tap-6',
  'tap-10',
  'tap-15',
  'pad-3',
  'pad-6',
  'pad-10',
  'pad-20',
  'arr-gas',
  'adp-n-n',
  'adp-window',
]
const insertInto = (joint: Joint, partId: string) =>
  apply(screwOn(joint, 'to', partId), `put in a ${sure(partById(partId)).name}`)
const remove = (o: Outline) =>
  apply(
    each(o)
      .filter((t, i, all) => all.findIndex(u => u.at.node.id === t.at.node.id) === i)
      .flatMap(t => removeSteps(tree.value!, t.at)),
    `take out the ${o.at.name}`,
  )
const ADDS = computed(() =>
  crewParts.all.value.filter(p => p.kind === 'antenna' || p.kind === 'amplifier' || p.kind === 'router' || p.kind === 'splitter'),
)
const addLoose = (partId: string) => {
  const part = partOfId(partId)
  // Beside those that were put down before it: none lies on another.
  const at = { eastM: -store.site.lengthM / 2 + loose.value.length, northM: 1, upM: 2 }
  return part && apply(looseSteps(design.value, part, at), `add a ${part.name}`)
}
const loose = computed(() => tree.value?.loose ?? [])
const entries = computed(() =>
  (tree.value?.open ?? []).map(j => ({
    ...j,
    title: `${j.at.name}, ${j.port.role === 'feed' ? 'feed' : 'port'} ${j.port.id}`,
  })),
)
const joinFrom = ref<number | null>(null)
const joinTo = ref<number | null>(null)
const join = () => {
  const [a, b] = [entries.value[joinFrom.value ?? -1], entries.value[joinTo.value ?? -1]]
  if (!a || !b || a.at.node.id === b.at.node.id) return
  joinFrom.value = joinTo.value = null
  void apply(joinSteps(context(), a, b), 'join two parts')
}
const t = useSay()
const catalogue = ref(false)
const sweeping = ref(false)
const zoning = ref(false)
const comparing = ref(false)
const proposing = ref(false)
/** what is laid out, as a kit: a modem that stands outdoors is one */
const kitNow = computed<Kit>(() => {
  const { byAir = [], routers = [], amplifiers = [] } = tree.value ?? {}
  if (design.value.approach === 'booster')
    return amplifiers.some(a => isExtender(a.part)) ? 'extender' : byAir.length ? 'booster and router' : 'booster'
  return routers.some(r => r.part.outdoors) ? 'outdoors' : 'router'
})
</script>

<template>
  <div class="choose">
    <VariantBar />
    <div class="approach" role="radiogroup" aria-label="Approach">
      <button
        v-for="a in APPROACHES"
        :key="a.id"
        type="button"
        role="radio"
        :aria-checked="laidOut && design.approach === a.id"
        :class="{ on: laidOut && design.approach === a.id }"
        :disabled="!session.mayEdit || doing"
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
        <MvChoice
          label="Band"
          :value="design.band"
          :choices="bands.length ? bands : ['B20', 'B3', 'B1', 'B7', 'B8', 'B12', 'B13', 'B66', 'B71']"
          data-test="band"
          :save="b => setDesign({ band: b })"
        />
        <span class="soft">{{ result.chosen ? `of ${result.chosen.mast.name}` : 'choose the mast in Bearings' }}</span>
      </div>
    </div>
    <p v-if="store.job.kind === 'building' && session.mayEdit" class="by-zone">
      <button type="button" class="plain" data-test="zones" @click="zoning = true">lay out by zones</button>
      <span class="soft">an amplifier each, over the floors and areas that you say</span>
    </p>
    <ZonesSheet v-if="zoning" v-model="zoning" />
    <template v-if="!laidOut">
      <p class="empty">Press an approach: the usual kit is laid out on the site, every part of it can then be changed.</p>
      <ApproachAdvice :busy="doing" @lay="layOut" />
    </template>
    <ol v-else-if="straight" class="strip" tabindex="0" aria-label="The kit, in the order of the signal">
      <template v-for="(o, i) in rows" :key="o.at.node.id">
        <li v-if="o.joint && isCable(o.joint)" class="run">
          <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
            <path
              v-for="n in o.twins.length + 1"
              :key="n"
              :d="`M0 ${12 + (n - 1 - o.twins.length / 2) * 6}H100`"
              stroke="var(--mv-ink)"
              :stroke-width="isKnown(o.joint) ? 3 : 1.6"
              :stroke-dasharray="isKnown(o.joint) ? '' : '5 4'"
            />
          </svg>
          <span v-if="o.joint.leads.length" class="lead" data-test="own-lead">
            {{ leadWords(o.joint) }}{{ o.joint.run.partId ? ', goes on by' : '' }}
          </span>
          <MvChoice
            v-if="o.joint.run.partId"
            :value="o.joint.run.partId"
            :label="o.twins.length ? `${o.twins.length + 1} cables alike` : 'Cable'"
            :choices="lines.map(l => ({ value: l.id, title: l.name }))"
            :save="v => setRun(o, { partId: v, part: lines.find(l => l.id === v) ?? null })"
          />
          <CableLength v-if="o.joint.run.partId" :length-m="o.joint.run.lengthM" :save="v => setRun(o, { lengthM: v })" />
          <v-checkbox
            v-if="o.joint.run.partId"
            :model-value="o.joint.run.measured"
            label="measured"
            @update:model-value="v => setRun(o, { measured: !!v })"
          />
          <b class="fig">{{ lossOf(o.joint) }}</b>
          <span class="soft spare">{{ spareOf(o.joint) }}</span>
          <p v-for="f in atRun(o)" :key="f.key" class="joint" :class="f.severity">{{ t(f.title) }}</p>
        </li>
        <li class="part" :data-role="roleOf(tree!, o.at)">
          <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
            <path :d="i ? 'M0 12H100' : 'M50 12H100'" stroke="var(--mv-ink)" stroke-width="3" /></svg
          ><i class="knot" />
          <span class="role">{{ count(o) > 1 ? `${count(o)} × ` : '' }}{{ roleWord(o.at) }}</span>
          <MvChoice
            :value="o.at.node.partId"
            :aria-label="roleWord(o.at)"
            :choices="optionsFor(o.at).map(p => ({ value: p.id, title: p.name }))"
            :save="v => setPart(o, v)"
          />
          <span class="soft port">{{ portWords(o.at.part) }}</span>
          <b class="fig">{{ gainOf(o) }}</b>
          <span class="acts">
            <button type="button" class="plain" :data-test="`figures-${roleOf(tree!, o.at)}`" @click="openPart(o)">
              maker’s figures{{ o.at.node.own ? ' *' : '' }}
            </button>
            <button v-if="o.joint && session.mayEdit" type="button" class="plain" :disabled="doing" @click="remove(o)">
              take out
            </button>
          </span>
          <p v-for="f in atPart(o)" :key="f.key" class="joint" :class="f.severity">{{ t(f.title) }}</p>
        </li>
      </template>
    </ol>
    <div v-else class="tree" tabindex="0" role="region" aria-label="The signal tree">
      <table>
        <thead>
          <tr>
            <th>part, in the order of the signal</th>
            <th>cable to it</th>
            <th class="r">length</th>
            <th class="r">loss</th>
            <th class="r">part</th>
            <th class="r">after it</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <template v-for="(o, i) in rows" :key="`${o.at.node.id} ${o.visit.feed} ${i}`">
            <tr :class="{ root: !o.joint }" :data-role="roleOf(tree!, o.at)">
              <td class="name" :style="{ paddingLeft: `${8 + o.depth * 22}px` }">
                <i v-if="o.depth" class="elbow" aria-hidden="true" />
                <button type="button" class="plain" @click="openPart(o)">
                  {{ count(o) > 1 ? `${count(o)} × ` : '' }}{{ o.at.name }}{{ o.at.node.own ? ' *' : '' }}
                </button>
              </td>
              <td>
                <MvChoice
                  v-if="o.joint?.run.partId"
                  :value="o.joint.run.partId"
                  aria-label="cable"
                  :choices="lines.map(l => ({ value: l.id, title: l.name }))"
                  :save="v => setRun(o, { partId: v, part: lines.find(l => l.id === v) ?? null })"
                />
                <span v-if="o.joint?.leads.length" class="soft">{{ leadWords(o.joint) }}</span>
                <span v-else-if="o.joint && !o.joint.run.partId" class="soft">screwed on</span>
              </td>
              <td class="r fig">
                <CableLength
                  v-if="o.joint?.run.partId && !o.joint.leads.length"
                  class="cut"
                  :length-m="o.joint.run.lengthM"
                  data-test="tree-length"
                  :save="v => setRun(o, { lengthM: v })"
                />
                <template v-else>{{ o.joint && isCable(o.joint) ? length(jointM(o.joint), prefs.units) : '' }}</template>
                <small v-if="o.joint" class="soft">{{ spareOf(o.joint) }}</small>
              </td>
              <td class="r fig">{{ o.joint ? lossOf(o.joint) : '' }}</td>
              <td class="r fig">{{ gainOf(o) }}</td>
              <td class="r fig">{{ rsrpOf(o) }}</td>
              <td class="r edits">
                <v-menu v-if="session.mayEdit && (o.joint || freePorts(o.at).length)">
                  <template #activator="{ props: m }">
                    <button type="button" class="plain" v-bind="m" :aria-label="`change at ${o.at.name}`">change</button>
                  </template>
                  <v-list density="compact">
                    <v-list-item
                      v-for="p in freePorts(o.at)"
                      :key="p.id"
                      :title="`inside antenna on port ${p.id}`"
                      @click="addAntenna(o.at, p)"
                    />
                    <template v-if="o.joint">
                      <v-list-item
                        v-for="id in INSERTS"
                        :key="id"
                        :title="`put in before it: ${partById(id)!.name}`"
                        @click="insertInto(o.joint, id)"
                      />
                      <v-list-item title="take it out" @click="remove(o)" />
                    </template>
                  </v-list>
                </v-menu>
              </td>
            </tr>
            <tr v-for="f in [...atRun(o), ...atPart(o)]" :key="f.key" class="said">
              <td colspan="7" :style="{ paddingLeft: `${30 + o.depth * 22}px` }">
                <span class="joint" :class="f.severity">{{ t(f.title) }}</span>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <ChooseModems v-if="tree && laidOut" :tree="tree" />
    <ChooseByAir v-if="tree?.byAir.length" :tree="tree" @figures="at => openPart({ at, twins: [] })" />
    <ChooseServices v-if="tree && laidOut && store.job.kind === 'boat'" :tree="tree" />
    <ChooseData v-if="tree && tree.joints.some(isData)" :tree="tree" @open="at => openPart({ at, twins: [] })" />
    <div class="words">
      <section>
        <FindingRow v-for="f in rest" :key="f.key" :finding="f" />
        <FindingRow v-for="f in once(findings.filter(g => !rest.includes(g)))" :key="f.key" :finding="f" />
        <p v-if="laidOut && !findings.length" class="fine">Everything fits together: bands, plugs, impedance, ports.</p>
      </section>
      <section v-if="laidOut" class="own">
        <h2>The carrier, and more parts</h2>
        <div class="grid">
          <MvNumber
            label="Carrier width"
            unit="MHz"
            :value="design.bandwidthMHz"
            :low="1.4"
            :high="100"
            :save="v => setDesign({ bandwidthMHz: v })"
          />
          <template v-if="tree!.amplifiers.length">
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
              :value="design.marginDb ?? result.loops[0]?.marginDb ?? null"
              :low="0"
              :high="40"
              :save="v => setDesign({ marginDb: v })"
            />
          </template>
          <MvChoice
            v-if="session.mayEdit"
            label="Add a part"
            :value="null"
            :choices="ADDS.map(p => ({ value: p.id, title: p.name }))"
            :disabled="doing"
            data-test="add-part"
            :save="v => v && addLoose(v)"
          />
          <button type="button" class="press small" data-test="catalogue" @click="catalogue = true">The crew’s own parts</button>
          <button type="button" class="press small" data-test="sweep" @click="sweeping = true">A measured sweep</button>
        </div>
        <form
          v-if="session.mayEdit && entries.length > 1 && (loose.length || joinFrom !== null)"
          class="join"
          @submit.prevent="join"
        >
          <MvChoice
            :value="joinFrom"
            :save="v => (joinFrom = v)"
            label="Cable from"
            :choices="entries.map((e, i) => ({ value: i, title: e.title }))"
          />
          <MvChoice
            :value="joinTo"
            :save="v => (joinTo = v)"
            label="to"
            :choices="entries.map((e, i) => ({ value: i, title: e.title }))"
          />
          <button type="submit" class="press small" :disabled="joinFrom === null || joinTo === null">join</button>
        </form>
      </section>
    </div>
    <details v-if="laidOut" class="compare" @toggle="e => (proposing = (e.target as HTMLDetailsElement).open)">
      <summary data-test="propose">Other kits for this approach: least work, best result, least cost</summary>
      <KitProposals v-if="proposing" :kit="kitNow" :busy="doing" @lay="layOut" />
    </details>
    <details v-if="laidOut" class="compare" @toggle="e => (comparing = (e.target as HTMLDetailsElement).open)">
      <summary data-test="compare">Compare the approaches on this site</summary>
      <ApproachAdvice v-if="comparing" :busy="doing" @lay="layOut" />
    </details>
    <PartSheet v-if="openedNode" v-model="sheet" :node="openedNode" :twins="opened!.twins.map(x => x.at.node)" />
    <LazySweepSheet v-if="sweeping" v-model="sweeping" />
    <LazyPartCatalogue v-if="catalogue" v-model="catalogue" />
  </div>
</template>

<style scoped>
.by-zone {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 0;
  padding: 6px 20px;
  border-bottom: 1px solid var(--mv-line);
}
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
.spare {
  font-size: 12.5px;
}
.acts {
  display: flex;
  gap: 10px;
  font-size: 12.5px;
}
.cut {
  width: 104px;
  margin-left: auto;
}
/* the column says it */
.cut :deep(.v-label) {
  clip-path: inset(50%);
}
.tree {
  overflow: auto;
  background: var(--mv-sheet);
  border-bottom: 1px solid var(--mv-ink);
  max-height: 58%;
  flex: none;
}
.tree table {
  width: 100%;
  border-collapse: collapse;
}
.tree th {
  position: sticky;
  top: 0;
  background: var(--mv-sheet);
  z-index: 1;
  text-align: left;
  font-weight: 400;
  font-size: 12.5px;
  color: var(--mv-soft);
  padding: 4px 8px;
  border-bottom: 1px solid var(--mv-line);
}
.tree td {
  padding: 1px 8px;
  border-bottom: 1px solid var(--mv-line);
  white-space: nowrap;
}
.tree td.name {
  position: relative;
}
.tree tr.root td {
  border-top: 2px solid var(--mv-ink);
}
.tree tr.said td {
  border: 0;
  padding-bottom: 4px;
}
.elbow {
  display: inline-block;
  width: 10px;
  height: 12px;
  border-left: 1px solid var(--mv-ink);
  border-bottom: 1px solid var(--mv-ink);
  margin: 0 6px 4px -14px;
}
.r {
  text-align: right !important;
}
.tree small {
  margin-left: 6px;
}
.join {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 10px;
  align-items: center;
  margin-top: 10px;
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
.compare {
  border-top: 1px solid var(--mv-line);
}
.compare summary {
  cursor: pointer;
  font-weight: 600;
  padding: 12px 20px;
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
