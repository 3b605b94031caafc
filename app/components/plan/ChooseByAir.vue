<script setup lang="ts">
import { heardByAir } from '#core/coverage'
import type { TreeNode, Tree } from '#core/chain'
import { buildingOf } from '#core/site'
import { num } from '#core/units'

/** Routers that hear an inside antenna by air: no cable shows them in the order of the signal. */
const props = defineProps<{ tree: Tree }>()
const emit = defineEmits<{ figures: [at: TreeNode] }>()
const store = useOpened()
const session = useSession()
const heard = computed(() => {
  const { levels } = store.result
  return levels ? heardByAir(store.here, props.tree, buildingOf(store.here), levels) : []
})
const levelOf = (at: TreeNode): string => {
  const found = heard.value.find(h => h.router.node.id === at.node.id)
  return found ? `RSRP ${num(found.level.rsrpDbm)} dBm from ${found.level.server.name}` : 'nothing is repeated yet'
}
const takeOut = (at: TreeNode) => store.commit([{ table: 'nodes', op: 'delete', rowId: at.node.id }], `take out ${at.name}`)
</script>

<template>
  <section class="by-air" aria-label="By air" data-test="by-air">
    <h2>By air</h2>
    <p v-for="at in tree.byAir" :key="at.node.id">
      <b>{{ at.name }}</b> <span class="soft">{{ levelOf(at) }}, by its own antennas</span>
      <button type="button" class="plain" @click="emit('figures', at)">maker’s figures</button>
      <button v-if="session.mayEdit" type="button" class="plain" @click="takeOut(at)">take out</button>
    </p>
  </section>
</template>

<style scoped>
.by-air {
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-line);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
</style>
