<script setup lang="ts">
import { moves } from '#core/survey'

/** What is wanted, what was asked, for whom, where, and what the site is like; drawn as it is told. */
const store = useOpened()
const session = useSession()
const job = computed(() => store.job)
const moving = computed(() => moves(store.doc))
/** The one SIM that a job begins with is of the carrier that is planned for: that is said once. */
function setCarrier(carrier: string | null) {
  const [sim] = store.doc.sims
  const begun = carrier !== null && store.doc.sims.length === 1 && sim && sim.carrier === null
  const name = sim?.name === 'SIM' ? `${carrier} SIM` : sim?.name
  return store.commit(
    [
      { table: 'jobs', op: 'update', rowId: job.value.id, fields: { carrier } },
      ...(begun ? [{ table: 'sims' as const, op: 'update' as const, rowId: sim.id, fields: { carrier, name } }] : []),
    ],
    fieldWord('carrier'),
  )
}
const carriers = computed(() => [
  ...new Set([...session.carriers.map(c => c.name), ...(job.value.carrier ? [job.value.carrier] : [])]),
])
const { width } = useWindowSize()
/** beside the form stands the drawing */
const beside = computed(() => width.value > 900)
</script>

<template>
  <div class="ask">
    <div class="form" tabindex="-1">
      <AgreedSentence />
      <AskedTable />
      <WhoFields />
      <fieldset v-if="moving">
        <legend>Stops</legend>
        <StopsPanel />
      </fieldset>
      <WhereFields />
      <fieldset>
        <legend>SIMs, and what is there today</legend>
        <MvChoice
          :value="job.carrier"
          label="Planned for the network of"
          :choices="carriers"
          clearable
          data-test="carrier"
          :save="v => setCarrier(v ?? null)"
        />
        <SimsPanel />
      </fieldset>
      <ShapeFields :drawn="beside && !moving" />
      <BuildingFields />
      <SiteDetails />
    </div>
    <AskDrawing v-if="beside" />
  </div>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: minmax(420px, 3fr) 2fr;
  height: 100%;
}
.form {
  overflow: auto;
  padding: 14px 20px 24px;
  border-right: 1px solid var(--mv-line);
}
.form :deep(fieldset) {
  border: 0;
  border-top: 1px solid var(--mv-line);
  padding: 12px 0 4px;
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 10px;
  align-items: start;
}
.form :deep(legend) {
  float: left;
  grid-column: 1 / -1;
  font-weight: 700;
  font-size: 16px;
}
.form :deep(.wide) {
  grid-column: 1 / -1;
}
.form :deep(.ready) {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
  font-size: 13px;
}
@media (max-width: 900px) {
  .ask {
    display: block;
    overflow: auto;
  }
  .form {
    border: 0;
    overflow: visible;
  }
}
</style>
