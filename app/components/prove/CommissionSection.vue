<script setup lang="ts">
import { answers, begunSteps, lanesOf } from '#core/connect'

/** From power-on to a house that works: connections in, networks out, what hangs on each; then failover, and the month. */
const store = useOpened()
const session = useSession()
const lanes = computed(() => lanesOf(store.doc, store.result.tree))
const picked = ref<{ what: 'connection' | 'network'; id: string } | null>(null)
const lane = computed(() => (picked.value?.what === 'connection' ? lanes.value.find(l => l.row.id === picked.value!.id) : null))
const network = computed(() =>
  picked.value?.what === 'network' ? store.doc.networks.find(n => n.id === picked.value!.id) : null,
)
const { doing, once } = useOnce()
const error = ref('')
const begun = computed(() => begunSteps(store.doc, store.result.tree))
const begin = () =>
  once(async () => (error.value = (await store.commitSteps(begun.value, 'commissioning begun'))[0]?.message ?? ''))
/** what is open here, the worst first */
const open = computed(() => store.result.findings.filter(f => f.section === 'commission' && !f.accepted && f.severity !== 'good'))
const inOrder = computed(() => lanes.value.filter(l => l.row.use !== 'by hand'))
/** what is to come up next: the first in order that does not answer */
const coming = computed(() => inOrder.value.find(l => !answers(l.row.state)) ?? null)
useKeys({ Escape: { does: 'nothing picked', run: () => (picked.value = null) } })
</script>

<template>
  <div class="commission">
    <div v-if="!lanes.length && !store.doc.networks.length" class="begin">
      <h2>Nothing is noted of how it is set up</h2>
      <p>
        By which SIM or line it comes to the internet and in what order, what each may carry, whose passwords the networks have,
        and what finds its network again.
      </p>
      <button
        v-if="session.mayEdit"
        type="button"
        class="press filled"
        :disabled="!!doing || !begun.length"
        data-test="commission-begin"
        @click="begin"
      >
        begin with what the plan tells
      </button>
      <p class="error" role="alert">{{ error }}</p>
    </div>
    <template v-else>
      <ConnectionPicture :lanes="lanes" :picked="picked?.id ?? null" @pick="(what, id) => (picked = { what, id })" />
      <ConnectionEditor v-if="lane" :key="lane.row.id" :lane="lane" @done="picked = null" />
      <NetworkEditor v-else-if="network" :key="network.id" :network="network" @done="picked = null" />
      <FailoverStrip v-if="inOrder.length > 1" :lanes="inOrder" />
      <div class="below">
        <FirstConnection v-if="coming" :key="coming.row.id" :lane="coming" />
        <section v-else class="pane" :data-test="inOrder.length ? 'all-up' : 'none-in-use'">
          <template v-if="inOrder.length">
            <h2>Every connection in use answers</h2>
            <p class="soft">Proof of what it brings is in Before and after; what is open here stands beside.</p>
          </template>
          <h2 v-else>No connection is in use yet</h2>
        </section>
        <section class="pane">
          <BoxFacts />
          <MonthPane />
          <h2 v-if="open.length">{{ open.length === 1 ? 'Open here' : `Open here: ${open.length}` }}</h2>
          <FindingRow v-for="f in open" :key="f.key" :finding="f" brief />
          <p v-if="!open.length" class="soft">Nothing is open here.</p>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.commission {
  height: 100%;
  overflow: auto;
}
.begin {
  padding: 32px 20px;
  max-width: 640px;
  display: grid;
  gap: 14px;
  justify-items: start;
  font-size: 16px;
}
.below {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
}
.pane {
  padding: 14px 20px;
  display: grid;
  gap: 8px;
}
.below > :first-child {
  border-right: 1px solid var(--mv-line);
}
@media (max-width: 900px) {
  .below {
    grid-template-columns: 1fr;
  }
  .pane {
    padding: 12px 14px;
  }
  .below > :first-child {
    border-right: 0;
  }
}
</style>
