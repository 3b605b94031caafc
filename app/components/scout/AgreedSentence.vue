<script setup lang="ts">
/** What was agreed, as the sentence that it is said in: each phrase edited where it stands. */
const store = useOpened()
const session = useSession()
const job = computed(() => store.job)
const set = useJobFields()
const proved = computed(() => store.doc.spots.filter(s => s.indoors && s.needed))
</script>

<template>
  <section aria-labelledby="agreed">
    <h2 id="agreed">What was agreed</h2>
    <p class="sentence">
      <MvNumber
        phrase
        label="Down"
        unit="Mbit/s"
        :value="job.agreedDownMbps"
        :low="0"
        :high="10000"
        :save="set('agreedDownMbps')"
      />
      Mbit/s down and
      <MvNumber phrase label="Up" unit="Mbit/s" :value="job.agreedUpMbps" :low="0" :high="10000" :save="set('agreedUpMbps')" />
      up, at
      <NuxtLink class="rooms" :to="`/job/${store.id}/survey`" title="Survey: where it must be proved">{{
        proved.map(s => s.name).join(', ') || 'no room yet'
      }}</NuxtLink>; calls
      <button
        type="button"
        class="switch"
        role="switch"
        aria-label="Calls must work"
        :aria-checked="job.agreedCalls"
        :disabled="!session.mayEdit"
        @click="set('agreedCalls')(!job.agreedCalls)"
      >
        {{ job.agreedCalls ? 'must work' : 'are not asked for' }}</button>; drop-outs an hour:
      <MvNumber
        phrase
        label="Drop-outs borne"
        unit="an hour"
        hint="not agreed"
        :value="job.agreedDrops"
        :low="0"
        :high="3600"
        data-test="agreed-drops"
        :save="set('agreedDrops')"
      />
      <template v-if="job.agreedDrops !== null">at most</template>.
    </p>
  </section>
</template>

<style scoped>
.sentence {
  font-size: 26px;
  line-height: 1.7;
}
.rooms,
.switch {
  font-weight: 700;
  color: var(--mv-ink);
  text-decoration: none;
  background: none;
  border: 0;
  border-bottom: 2px solid var(--mv-ink);
  padding: 0 1px;
  line-height: 1.3;
  cursor: pointer;
}
@media (max-width: 900px) {
  .sentence {
    font-size: 20px;
    line-height: 2.1;
  }
}
</style>
