<script setup lang="ts">
import { useClock } from '~/replica/clock'

/** What needs a person now: two values for one field, a refused change, a session that ended, a wrong clock, an engine error. */
const store = useJob()
const session = useSession()
const sending = useSending()
const clock = useClock()
const show = (v: unknown) => (v === null || v === '' ? 'nothing' : String(v))
const again = ref(false)
const MINUTE_MS = 60_000
const clockWords = computed(() => {
  const off = clock.offsetMs.value ?? 0
  const minutes = Math.round(Math.abs(off) / MINUTE_MS)
  return `${minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`} ${off > 0 ? 'behind' : 'ahead'}`
})
async function back() {
  again.value = false
  await store.send()
  await store.fetchWhole()
}
</script>

<template>
  <div class="trouble no-print">
    <section v-for="c in store.conflicts" :key="c.id" role="alert" data-test="conflict">
      <p>
        Two people set the <strong>{{ fieldWord(c.field) }}</strong>. Which stands?
      </p>
      <button type="button" class="press" @click="store.settle(c, 'mine')">mine: {{ show(c.mine) }}</button>
      <button type="button" class="press" @click="store.settle(c, 'theirs')">theirs: {{ show(c.theirs) }}</button>
    </section>
    <AsideRow v-for="a in store.asides" :key="a.id" :aside="a" />
    <section v-if="session.ended" role="alert" data-test="ended">
      <p>
        <strong>The session has ended.</strong> {{ sending.total }} change{{ sending.total === 1 ? '' : 's' }} kept here, sent
        when you sign in.
      </p>
      <SignInAgain v-if="again" :after="back" />
      <button v-else type="button" class="press" @click="again = true">sign in again</button>
    </section>
    <section v-if="clock.wrong.value" role="status" data-test="clock">
      <p>
        This device’s clock is <strong>{{ clockWords }}</strong>. Times are kept by the server’s clock; set this one right before
        sun bearings are trusted.
      </p>
    </section>
    <section v-if="store.keepError" role="alert" data-test="no-room">
      <p>{{ store.keepError }}</p>
    </section>
    <section v-if="store.engineError" role="alert">
      <p>{{ store.engineError }}</p>
    </section>
  </div>
</template>

<style scoped>
.trouble {
  max-height: 40dvh;
  overflow: auto;
  flex: none;
}
.trouble :deep(section) {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 20px;
  background: var(--mv-agreed);
  color: #191d22;
  flex-wrap: wrap;
  border-bottom: 1px solid #191d22;
}
.trouble :deep(section .press) {
  background: #fbf9f4;
  color: #191d22;
  border-color: #191d22;
}
.trouble :deep(section .press.filled) {
  background: #191d22;
  color: #fbf9f4;
}
.trouble :deep(p) {
  flex: 1;
  min-width: 220px;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
}
.trouble :deep(.v-input) {
  min-width: 180px;
  max-width: 320px;
  background: #fbf9f4;
}
</style>
