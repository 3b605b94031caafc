<script setup lang="ts">
import type { Node } from '#core/job'
import { bearing, length } from '#core/units'

/** The part picked on the picture: its name, how high it is, which way it looks, and its place by figure. */
defineProps<{ node: Node; /** the way it looks; null where it hears all round */ facing: number | null }>()
const emit = defineEmits<{ turn: [byDeg: number] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
/** the three figures of its place stand open beside it */
const byFigure = ref(false)
const nameOf = (id: string) => store.result.tree?.nodes.find(n => n.node.id === id)?.name ?? 'part'
</script>

<template>
  <div class="picked">
    <strong data-test="picked-name">{{ nameOf(node.id) }}</strong> <span class="fig">{{ length(node.upM, prefs.units) }}</span> up
    <template v-if="facing !== null">
      · looks <span class="fig">{{ bearing(facing) }}</span>
      <button type="button" class="turn" :disabled="!session.mayEdit" aria-label="turn left" @click="emit('turn', -15)">↶</button>
      <button
        type="button"
        class="turn"
        :disabled="!session.mayEdit"
        aria-label="turn right"
        data-test="turn-right"
        @click="emit('turn', 15)"
      >
        ↷
      </button>
    </template>
    <span class="soft">· drag it, or arrow keys, 0.1 m a press{{ facing !== null ? '; L and R turn it' : '' }}, or&nbsp;</span>
    <button type="button" class="plain" :aria-expanded="byFigure" data-test="by-figure" @click="byFigure = !byFigure">
      by figure
    </button>
    <PlaceFigures v-if="byFigure" :key="node.id" :node="node" />
  </div>
</template>

<style scoped>
.picked {
  position: absolute;
  left: 16px;
  top: 46px;
  font-size: 13px;
  background: var(--mv-sheet);
  border: 1px solid var(--mv-line);
  padding: 3px 10px;
}
.turn {
  border: 1px solid var(--mv-line);
  background: none;
  cursor: pointer;
  padding: 0 6px;
  min-height: 24px;
}
</style>
