<script setup lang="ts">
import { update } from '#core/job'
import { RULE_PACKS } from '#core/judge'
import { presentStop } from '#core/survey'
import { needAtDbm } from '#core/site'
import { length, num } from '#core/units'

/** What is set once a job, behind one line that tells it. */
const store = useOpened()
const prefs = usePrefs()
const job = computed(() => store.job)
const site = computed(() => store.site)
const setJob = useJobFields()
/** what is set once a job, told in a line */
const detailWords = computed(() =>
  [
    site.value.groundM === null ? 'ground height not known' : `${length(site.value.groundM, prefs.units)} above sea`,
    `rules: ${RULE_PACKS[job.value.rules].name}`,
    `rooms need ${num(needAtDbm(job.value, { use: null, needDbm: null }))} dBm`,
    `earth radius × ${num(job.value.kFactor, 2)}`,
  ].join(', '),
)
const edits = useSiteEdits()
const stop = computed(() => presentStop(store.doc))
/** where it stands belongs to the stop while it is at one */
const setGround = (v: number | null) =>
  stop.value
    ? store.commit([update('stops', stop.value.id, { groundM: v })], 'ground')
    : edits.setSite({ groundM: v }, fieldWord('groundM'))
const { unit: lengthUnit, factor } = useLengths()
</script>

<template>
  <details class="details">
    <summary data-test="site-details">
      <b>Site details</b> <span class="soft">{{ detailWords }}</span>
    </summary>
    <fieldset>
      <MvNumber
        label="Ground above sea"
        :unit="lengthUnit"
        :factor="factor"
        :value="site.groundM"
        :low="-450"
        :high="9000"
        :decimals="1"
        :save="setGround"
      />
      <MvNumber
        label="Earth radius × k"
        unit=""
        :value="job.kFactor"
        :low="0.5"
        :high="5"
        required
        :decimals="2"
        :save="setJob('kFactor')"
      />
      <MvChoice
        :value="job.rules"
        label="Rules of"
        :choices="Object.entries(RULE_PACKS).map(([value, p]) => ({ value, title: p.name }))"
        :save="setJob('rules')"
      />
    </fieldset>
    <fieldset>
      <legend>What counts as enough</legend>
      <EnoughFields :value="job" :save="(field, v) => setJob(field)(v)" />
    </fieldset>
  </details>
</template>

<style scoped>
.details {
  border-top: 1px solid var(--mv-line);
  margin-top: 14px;
  padding-top: 10px;
}
summary {
  cursor: pointer;
}
</style>
