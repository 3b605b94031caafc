<script setup lang="ts">
/** Who it is for, how they are reached, where, and when somebody comes next. */
const store = useOpened()
const job = computed(() => store.job)
const set = useJobFields()
const { setNext } = useVisits()
</script>

<template>
  <section class="who" aria-labelledby="who">
    <h2 id="who">Who and when</h2>
    <p class="sentence">
      <MvText phrase label="Job" required :value="job.name" :save="set('name')" />, for
      <MvText phrase label="Customer" hint="nobody noted" :value="job.customerName" :save="set('customerName')" />,
      <MvText
        phrase
        label="How to reach them"
        hint="how to reach them"
        :value="job.customerContact"
        :save="set('customerContact')"
      />, at <MvText phrase label="Address" hint="no address" :value="job.customerAddress" :save="set('customerAddress')" />; next
      visit <MvText phrase label="Next visit" type="date" hint="not set" :value="job.nextOn" :save="setNext" />.
    </p>
    <MvText label="Notes" :rows="1" :value="job.notes" :save="set('notes')" />
  </section>
</template>

<style scoped>
.who {
  border-top: 1px solid var(--mv-line);
  padding: 12px 0;
}
.sentence {
  font-size: 16px;
  line-height: 2;
  margin-bottom: 8px;
}
</style>
