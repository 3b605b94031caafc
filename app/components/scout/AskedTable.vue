<script setup lang="ts">
import { COMPLAINTS } from '#core/job'
import type { Complaint } from '#core/job'
import { askedOf } from '#core/judge'

/** What was asked of the owner, what was said, and what follows from it. */
const store = useOpened()
const job = computed(() => store.job)
const set = useJobFields()
const follows = computed(() => askedOf(store.doc, store.result.tree))
const hanging = computed(() => store.doc.spots.filter(s => s.hangs).map(s => `${s.hangs} (${s.name})`))
const COMPLAINT: { value: Complaint | null; title: string }[] = [
  { value: null, title: 'not asked' },
  ...COMPLAINTS.map(c => ({ value: c, title: c })),
]
const DRILL = [
  { value: 'yes' as const, title: 'yes' },
  { value: 'no' as const, title: 'no' },
  { value: 'ask' as const, title: 'still to ask' },
]
</script>

<template>
  <section class="asked" aria-labelledby="asked">
    <h2 id="asked">Asked</h2>
    <span class="soft head">said</span>
    <span class="soft head">what follows</span>

    <span>is it Wi-Fi or cellular</span>
    <MvChoice phrase label="Wi-Fi or cellular?" :value="job.complaint" :choices="COMPLAINT" :save="set('complaint')" />
    <span :class="follows.complaint.state">{{ follows.complaint.says }}</span>

    <span>there today</span>
    <MvText phrase :rows="1" label="What is there today" hint="nothing noted" :value="job.today" :save="set('today')" />
    <span />

    <span>changed lately</span>
    <MvText
      phrase
      :rows="1"
      label="What changed lately"
      hint="not asked"
      :value="job.changedLately"
      :save="set('changedLately')"
    />
    <span :class="follows.changed.state">{{ follows.changed.says }}</span>

    <span>hangs on today’s spot</span>
    <NuxtLink class="link" :class="{ soft: !hanging.length }" :to="`/job/${store.id}/survey`">{{
      hanging.join(', ') || 'not asked'
    }}</NuxtLink>
    <span :class="follows.hangs.state">{{ follows.hangs.says }}</span>

    <span>may we drill</span>
    <span class="two">
      <MvChoice phrase label="May we drill?" :value="job.mayDrill" :choices="DRILL" :save="set('mayDrill')" />
      <MvText
        v-if="job.mayDrill !== 'no'"
        phrase
        label="Where we may drill"
        hint="where: not said"
        :value="job.drillWhere"
        :save="set('drillWhere')"
      />
    </span>
    <span :class="follows.drill.state">{{ follows.drill.says }}</span>

    <span>power cuts to bridge</span>
    <span class="two">
      <MvNumber
        phrase
        label="Power cuts to be bridged"
        unit="min"
        hint="not asked"
        :value="job.outageMin"
        :low="0"
        :high="10000"
        :decimals="0"
        :save="set('outageMin')"
      />
      <span v-if="job.outageMin !== null">min</span>
    </span>
    <span :class="follows.outage.state">{{ follows.outage.says }}</span>
  </section>
</template>

<style scoped>
.asked {
  display: grid;
  grid-template-columns: minmax(120px, 0.8fr) minmax(150px, 1fr) minmax(180px, 1.3fr);
  gap: 6px 16px;
  align-items: baseline;
  border-top: 1px solid var(--mv-line);
  padding: 12px 0;
  margin-top: 12px;
}
.head {
  font-size: 13px;
}
.link {
  color: var(--mv-ink);
  font-weight: 700;
  text-underline-offset: 4px;
}
.link.soft {
  color: var(--mv-soft);
  font-weight: 400;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: baseline;
}
.open {
  color: var(--mv-short);
}
.met {
  color: var(--mv-met);
}
.note {
  color: var(--mv-computed);
}
@media (max-width: 900px) {
  .asked {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  .head,
  .asked > span:empty {
    display: none;
  }
  .open,
  .met,
  .note {
    margin-bottom: 12px;
  }
}
</style>
