<script setup lang="ts">
import { editsOf, isExtender } from '#core/job'
import { flatten, isData, isStraight, outlineOf } from '#core/chain'
import type { Outline } from '#core/chain'
import { kitChanges } from '#core/fitting'
import type { Kit, PartChoice } from '#core/fitting'
import { kitName } from '#core/solve'
import { v7 as uuidv7 } from 'uuid'

/** Which way, then its parts in the order the signal meets them; what does not fit says so at its joint. */
const store = useOpened()
const session = useSession()
const kit = useKit()
const { findings, said, doing, act } = kit
const result = computed(() => store.result)
const design = computed(() => store.variant)
const tree = computed(() => result.value.tree)
const roots = computed(() => (tree.value ? outlineOf(tree.value) : []))
const straight = computed(() => isStraight(roots.value))
const rows = computed(() => roots.value.flatMap(flatten))
const isBuilding = computed(() => store.job.kind === 'building')
const laidOut = computed(() => !!tree.value?.nodes.length)
const layOut = (what: Kit, choice: PartChoice = {}) =>
  act(async () => {
    const bearing = result.value.chosen?.path ? result.value.chosen.frameBearingDeg : null
    const changes = kitChanges(store.doc, design.value, what, { bearingDeg: bearing, newId: uuidv7, choice })
    const wrong = await store.commit(editsOf(changes), `lay out a ${KIT_WORDS[what]}`)
    if (!wrong.length) shown.value = null
  })
/** what is laid out, as a kit: a modem that stands outdoors is one */
const kitNow = computed<Kit>(() => {
  const { byAir = [], routers = [], amplifiers = [] } = tree.value ?? {}
  if (design.value.approach === 'booster')
    return amplifiers.some(a => isExtender(a.part)) ? 'extender' : byAir.length ? 'booster and router' : 'booster'
  return routers.some(r => r.part.outdoors) ? 'outdoors' : 'router'
})
const bands = computed(() => {
  const mast = result.value.chosen
  const sent = mast ? store.doc.cells.filter(c => c.mastId === mast.mast.id).map(c => c.band) : []
  return [...new Set(sent)].sort()
})
const bandChoices = computed(() =>
  bands.value.length ? bands.value : ['B20', 'B3', 'B1', 'B7', 'B8', 'B12', 'B13', 'B66', 'B71'],
)
const setBand = (band: string) =>
  store.commit([{ table: 'designs', op: 'update', rowId: design.value.id, fields: { band } }], 'change the design')
const rest = computed(() => {
  const told = new Set(rows.value.flatMap(o => [...said.atRun(o), ...said.atPart(o)].map(f => f.key)))
  return findings.value.filter(f => !told.has(f.key))
})
/** those of a joint after the rest, each code once */
const ordered = computed(() => {
  const joints = findings.value.filter(f => !rest.value.includes(f))
  return [...rest.value, ...joints.filter((f, i) => joints.findIndex(g => g.code === f.code) === i)]
})

/** the one pane that is open over the kit or under it */
type Pane = 'ways' | 'kits' | 'more'
const shown = ref<Pane | null>(null)
const PANES = [
  { id: 'ways', name: 'other ways', test: 'compare' },
  { id: 'kits', name: 'other kits', test: 'propose' },
  { id: 'more', name: 'carrier, parts', test: 'kit-more' },
] as const
const opened = ref<Pick<Outline, 'at' | 'twins'> | null>(null)
const sheet = ref(false)
function openPart(o: Pick<Outline, 'at' | 'twins'>) {
  opened.value = o
  sheet.value = true
}
const openedNode = computed(() => store.doc.nodes.find(n => n.id === opened.value?.at.node.id) ?? null)
const zoning = ref(false)
</script>

<template>
  <div class="choose">
    <VariantBar />
    <div class="now">
      <p class="way">
        <template v-if="laidOut">
          <strong data-test="way-now">{{ kitName(kitNow, store.job.kind) }}</strong> on
        </template>
        <template v-else>No kit yet, on</template>
        <MvChoice
          phrase
          label="Band"
          hint="a band"
          :value="design.band"
          :choices="bandChoices"
          data-test="band"
          :save="setBand"
        />
        <span v-if="result.chosen">of {{ result.chosen.mast.name }}</span>
        <NuxtLink v-else :to="`/job/${store.job.id}/bearings`">of a mast: choose it first</NuxtLink>
      </p>
      <div v-if="laidOut" class="panes">
        <button
          v-for="p in PANES"
          :key="p.id"
          type="button"
          class="plain"
          :aria-expanded="shown === p.id"
          :data-test="p.test"
          @click="shown = shown === p.id ? null : p.id"
        >
          {{ p.name }}
        </button>
        <button v-if="isBuilding" type="button" class="plain" data-test="zones" @click="zoning = true">zones</button>
      </div>
    </div>
    <div v-if="!laidOut || shown === 'ways'" class="pane">
      <WaysTable :busy="doing" @lay="layOut" />
      <p v-if="session.mayEdit" class="usual">
        Or lay out the usual parts at once:
        <button type="button" class="plain" :disabled="doing" data-test="approach-router" @click="layOut('router')">
          router
        </button>
        <button type="button" class="plain" :disabled="doing" data-test="approach-booster" @click="layOut('booster')">
          {{ isBuilding ? 'amplifier' : 'booster' }}
        </button>
        <button v-if="isBuilding && !laidOut" type="button" class="plain" data-test="zones" @click="zoning = true">
          amplifiers by zones
        </button>
      </p>
    </div>
    <KitProposals v-if="laidOut && shown === 'kits'" :kit="kitNow" :busy="doing" @lay="layOut" />
    <template v-if="laidOut">
      <KitStrip v-if="straight" :rows="rows" :kit="kit" @open="openPart" />
      <KitTree v-else :rows="rows" :kit="kit" @open="openPart" />
      <KitMore v-if="shown === 'more'" :kit="kit" class="pane" />
    </template>
    <div class="found">
      <FindingRow v-for="f in ordered" :key="f.key" :finding="f" />
      <p v-if="laidOut && !findings.length" class="fine">Everything fits together: bands, plugs, impedance, ports.</p>
    </div>
    <template v-if="tree && laidOut">
      <ChooseModems :tree="tree" />
      <ChooseByAir v-if="tree.byAir.length" :tree="tree" @figures="at => openPart({ at, twins: [] })" />
      <ChooseServices v-if="store.job.kind === 'boat'" :tree="tree" />
      <ChooseData v-if="tree.joints.some(isData)" :tree="tree" @open="at => openPart({ at, twins: [] })" />
    </template>
    <ZonesSheet v-if="zoning" v-model="zoning" />
    <PartSheet v-if="openedNode" v-model="sheet" :node="openedNode" :twins="opened!.twins.map(x => x.at.node)" />
  </div>
</template>

<style scoped>
.choose {
  height: 100%;
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.now,
.panes,
.way,
.usual {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 4px 8px;
}
.now {
  justify-content: space-between;
  padding: 10px 20px;
  border-bottom: 1px solid var(--mv-line);
  flex: none;
}
.way,
.way :deep(.v-field) {
  font-size: 18px;
}
.panes {
  gap: 18px;
}
.panes [aria-expanded='true'] {
  font-weight: 700;
  border-bottom-width: 3px;
}
.pane {
  border-bottom: 1px solid var(--mv-line);
  flex: none;
}
.usual {
  padding: 0 20px 14px;
  gap: 14px;
}
.found {
  padding: 12px 20px;
}
@media (max-width: 900px) {
  .now {
    padding: 8px 14px;
  }
  .usual {
    padding: 0 14px 12px;
  }
  .panes .plain,
  .usual .plain {
    min-height: 44px;
  }
}
</style>
