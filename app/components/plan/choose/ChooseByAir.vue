<script setup lang="ts">
import type { TreeNode, Tree } from '#core/chain'

/** Routers that hear an inside antenna by air: no cable shows them in the order of the signal. */
defineProps<{ tree: Tree }>()
const emit = defineEmits<{ figures: [at: TreeNode] }>()
const store = useOpened()
const session = useSession()
const t = useSay()
/** the level at its place is worked out with the findings */
const saidOf = (at: TreeNode): string => {
  const found = store.result.findings.find(f => f.code === 'choose.by-air' && f.subjectId === at.node.id)
  return found ? t(found.title) : 'nothing is repeated yet'
}
const takeOut = (at: TreeNode) => store.commit([{ table: 'nodes', op: 'delete', rowId: at.node.id }], `take out ${at.name}`)
</script>

<template>
  <section class="by-air" aria-label="By air" data-test="by-air">
    <h2>By air</h2>
    <p v-for="at in tree.byAir" :key="at.node.id">
      <b>{{ at.name }}</b> <span class="soft">{{ saidOf(at) }}</span>
      <button type="button" class="plain" @click="emit('figures', at)">maker’s figures</button>
      <button v-if="session.mayEdit" type="button" class="plain" :aria-label="`take out ${at.name}`" @click="takeOut(at)">
        take out
      </button>
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
  align-items: baseline;
  gap: 4px 12px;
}
</style>
