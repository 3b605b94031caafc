<script setup lang="ts">
import { endNames, isData } from '#core/chain'
import type { Joint, Tree, TreeNode } from '#core/chain'
import { removeSteps, spliceInto } from '#core/fitting'
import { partWay } from '#core/site'

/** The data cables of a design, each with its line and length, from the box that they feed on. */
const props = defineProps<{ tree: Tree }>()
const emit = defineEmits<{ open: [at: TreeNode] }>()
const store = useOpened()
const session = useSession()
const crewParts = useCrewParts()
const joints = computed(() => props.tree.joints.filter(isData))
const lines = computed(() => crewParts.all.value.filter(p => p.kind === 'line' && p.medium === 'data'))
/** a box is taken out where its radio is */
const small = (j: Joint) => [j.from.at, j.to.at].filter(n => n.part.kind === 'injector' || n.part.kind === 'arrestor')
const ends = computed(() => [...new Map(joints.value.flatMap(small).map(n => [n.node.id, n])).values()])
const setRun = (j: Joint, fields: Partial<Joint['run']>) =>
  store.commit([{ table: 'runs', op: 'update', rowId: j.run.id, fields }], 'a data cable')
const setLine = (j: Joint, id: string) => setRun(j, { partId: id, part: lines.value.find(l => l.id === id) ?? null })
/** half way along the cable, moved on the picture afterwards */
const putSwitch = (j: Joint) =>
  store.commitSteps(
    spliceInto(j, 'sw-plain', { at: partWay(j.from.at.node, j.to.at.node, Infinity, 0.5), firstM: j.run.lengthM / 2 }),
    'a switch',
  )
const remove = (at: TreeNode) => store.commit(removeSteps(props.tree, at), `take out ${at.name}`)
</script>

<template>
  <section class="data" aria-label="Data cables" data-test="data-cables">
    <h2>Data cables</h2>
    <ul>
      <li v-for="j in joints" :key="j.run.id">
        <span>{{ endNames(j) }}</span>
        <MvChoice
          :value="j.run.partId"
          aria-label="data cable"
          :choices="lines.map(l => ({ value: l.id, title: l.name }))"
          :save="v => (v ? setLine(j, v) : undefined)"
        />
        <CableLength :length-m="j.run.lengthM" :save="v => setRun(j, { lengthM: v })" />
        <v-checkbox :model-value="j.run.measured" label="measured" @update:model-value="v => setRun(j, { measured: !!v })" />
        <button v-if="session.mayEdit" type="button" class="plain soft" data-test="put-switch" @click="putSwitch(j)">
          put a switch in
        </button>
      </li>
    </ul>
    <p>
      <template v-for="at in ends" :key="at.node.id">
        <button type="button" class="plain" @click="emit('open', at)">{{ at.name }}</button>
        <button v-if="session.mayEdit" type="button" class="plain soft" :aria-label="`take out ${at.name}`" @click="remove(at)">
          take out
        </button>
      </template>
    </p>
  </section>
</template>

<style scoped>
.data {
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-line);
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 2fr) 120px auto auto;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr 1fr;
    padding: 10px 0;
  }
  /* the line’s whole name: two alike but for their end are told apart */
  li > :nth-child(-n + 2) {
    grid-column: 1 / -1;
  }
  .plain {
    min-height: 44px;
  }
}
</style>
