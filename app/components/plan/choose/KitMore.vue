<script setup lang="ts">
import type { TreeNode } from '#core/chain'
import { joinSteps, looseSteps } from '#core/fitting'
import type { Design, Port } from '#core/job'

/** What is set once a job: the carrier, parts beside the usual kit, cables between any two free ports. */
const { kit } = defineProps<{ kit: KitUse }>()
const { apply, context, doing } = kit
const store = useOpened()
const session = useSession()
const crewParts = useCrewParts()
const result = computed(() => store.result)
const design = computed(() => store.variant)
const setDesign = (fields: Partial<Design>) =>
  store.commit([{ table: 'designs', op: 'update', rowId: design.value.id, fields }], 'change the design')
const adds = computed(() =>
  crewParts.all.value.filter(p => p.kind === 'antenna' || p.kind === 'amplifier' || p.kind === 'router' || p.kind === 'splitter'),
)
const loose = computed(() => result.value.tree?.loose ?? [])
const addLoose = (partId: string) => {
  const part = crewParts.all.value.find(p => p.id === partId)
  // Beside those that were put down before it: none lies on another.
  const at = { eastM: -store.site.lengthM / 2 + loose.value.length, northM: 1, upM: 2 }
  return part && apply(looseSteps(design.value, part, at), `add a ${part.name}`)
}
const entries = computed(() =>
  (result.value.tree?.open ?? []).map((j: { at: TreeNode; port: Port }) => ({
    ...j,
    title: `${j.at.name}, ${j.port.role === 'feed' ? 'feed' : 'port'} ${j.port.id}`,
  })),
)
const ends = computed(() => entries.value.map((e, i) => ({ value: i, title: e.title })))
const joinFrom = ref<number | null>(null)
const joinTo = ref<number | null>(null)
const join = () => {
  const [a, b] = [entries.value[joinFrom.value ?? -1], entries.value[joinTo.value ?? -1]]
  if (!a || !b || a.at.node.id === b.at.node.id) return
  joinFrom.value = joinTo.value = null
  void apply(joinSteps(context(), a, b), 'join two parts')
}
const joins = computed(() => entries.value.length > 1 && (loose.value.length > 0 || joinFrom.value !== null))
const catalogue = ref(false)
const sweeping = ref(false)
</script>

<template>
  <div class="more">
    <MvNumber
      label="Carrier width"
      unit="MHz"
      :value="design.bandwidthMHz"
      :low="1.4"
      :high="100"
      :save="v => setDesign({ bandwidthMHz: v })"
    />
    <template v-if="result.tree?.amplifiers.length">
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
      :choices="adds.map(p => ({ value: p.id, title: p.name }))"
      :disabled="doing"
      data-test="add-part"
      :save="v => v && addLoose(v)"
    />
    <form v-if="session.mayEdit && joins" class="join" @submit.prevent="join">
      <MvChoice :value="joinFrom" :save="v => (joinFrom = v)" label="Cable from" :choices="ends" />
      <MvChoice :value="joinTo" :save="v => (joinTo = v)" label="to" :choices="ends" />
      <button type="submit" class="press small" :disabled="joinFrom === null || joinTo === null">join</button>
    </form>
    <p class="opens">
      <button type="button" class="plain" data-test="catalogue" @click="catalogue = true">the crew’s own parts</button>
      <button type="button" class="plain" data-test="sweep" @click="sweeping = true">a measured sweep of a cable</button>
    </p>
    <LazySweepSheet v-if="sweeping" v-model="sweeping" />
    <LazyPartCatalogue v-if="catalogue" v-model="catalogue" />
  </div>
</template>

<style scoped>
.more {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 12px 16px;
  padding: 4px 20px 16px;
}
.join {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
}
.opens {
  grid-column: 1 / -1;
  display: flex;
  gap: 20px;
}
@media (max-width: 900px) {
  .join {
    grid-template-columns: 1fr;
  }
  .opens .plain {
    min-height: 44px;
  }
}
</style>
