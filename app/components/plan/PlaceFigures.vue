<script setup lang="ts">
import { movesAbout } from '#core/job'
import type { Node } from '#core/job'
import { fromLocal, round2, toLocal } from '#core/site'
import { bearing } from '#core/units'

/** Where a part is, by figures from the middle of the site: what is screwed to it and its cables follow, as when it is dragged. */
const props = defineProps<{ node: Node }>()
const store = useOpened()
const session = useSession()
const { move } = useMoveParts()
const { unit, factor } = useLengths()
const local = computed(() => toLocal(store.site, props.node))
const aboard = computed(() => movesAbout(store.job.kind))
const words = computed(() => {
  const { axisDeg } = store.site
  return aboard.value
    ? { along: 'Forward', across: 'Starboard' }
    : { along: `To ${bearing(axisDeg)}`, across: `To ${bearing((axisDeg + 90) % 360)}` }
})
function set(along: number, across: number) {
  const flat = fromLocal(store.site.axisDeg, along, across)
  move(props.node.id, { eastM: round2(flat.eastM), northM: round2(flat.northM) })
}
/** Further than this from the site's middle a part is on another site, m. */
const MOST_M = 500
</script>

<template>
  <div class="place" role="group" aria-label="Where it is, from the middle">
    <MvNumber
      :label="words.along"
      :unit="unit"
      :factor="factor"
      :value="local[0]"
      :low="-MOST_M"
      :high="MOST_M"
      required
      :disabled="!session.mayEdit"
      data-test="place-along"
      :save="async v => (set(v, local[1]), [])"
    />
    <MvNumber
      :label="words.across"
      :unit="unit"
      :factor="factor"
      :value="local[1]"
      :low="-MOST_M"
      :high="MOST_M"
      required
      :disabled="!session.mayEdit"
      data-test="place-across"
      :save="async v => (set(local[0], v), [])"
    />
    <MvNumber
      label="Up"
      :unit="unit"
      :factor="factor"
      :value="node.upM"
      :low="-5"
      :high="200"
      required
      :disabled="!session.mayEdit"
      data-test="place-up"
      :save="async v => (move(node.id, { upM: round2(v) }), [])"
    />
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: repeat(3, 130px);
  gap: 8px;
  padding: 8px 0 4px;
}
@media (max-width: 900px) {
  .place {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
