<script setup lang="ts">
/** The visits in somebody's own calendar program: the week as a file, or an address that it reads again by itself. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ from: string; to: string }>()
const { once, doing } = useOnce()
const { copy, copied, isSupported } = useClipboard({ legacy: true })
const file = computed(() => `/api/board/calendar.ics?from=${props.from}&to=${props.to}`)
const address = ref('')
const said = ref('')
const error = ref('')
watch(open, () => (address.value = said.value = error.value = ''))

const told = (work: () => Promise<void>) =>
  once(async () => {
    error.value = said.value = ''
    await work().catch(e => {
      error.value =
        e instanceof Unreachable
          ? 'No connection: an address is made by the server. The file of before still works.'
          : messageOf(e)
    })
  })
const make = () =>
  told(async () => {
    const { path } = await api<{ path: string }>('/api/board/subscription', { method: 'POST', body: {} })
    address.value = new URL(path, location.origin).href
  })
const end = () =>
  told(async () => {
    await api('/api/board/subscription', { method: 'DELETE' })
    address.value = ''
    said.value = 'It has ended: a calendar that still has it reads nothing any more.'
  })
</script>

<template>
  <MvSheet v-model="open" title="Visits in your calendar">
    <h3>This week, once</h3>
    <p>
      <a class="press" :href="file" download="week.ics" data-test="week-ics">the week as a file</a>
    </p>
    <h3>All visits, kept up to date</h3>
    <p class="soft">
      An address that your calendar program reads again by itself: a month back, half a year ahead. Whoever has it sees the crew’s
      visits with their addresses, without signing in; give it to nobody. A new one ends the one before.
    </p>
    <p v-if="address" class="address">
      <input
        class="plain"
        readonly
        :value="address"
        aria-label="address for your calendar program"
        data-test="calendar-address"
        @focus="e => (e.target as HTMLInputElement).select()"
      />
      <button v-if="isSupported" type="button" class="press" @click="copy(address)">{{ copied ? 'copied' : 'copy' }}</button>
    </p>
    <p v-if="said" role="status">{{ said }}</p>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <p class="does">
      <button type="button" class="press" :disabled="doing" data-test="calendar-new" @click="make">
        {{ address ? 'another address' : 'make an address' }}
      </button>
      <button type="button" class="press bare" :disabled="doing" data-test="calendar-end" @click="end">
        end the one there is
      </button>
    </p>
  </MvSheet>
</template>

<style scoped>
h3 {
  margin-top: 14px;
}
h3:first-child {
  margin-top: 0;
}
p {
  margin: 8px 0;
}
a.press {
  display: inline-block;
  color: inherit;
  text-decoration: none;
}
.address {
  display: flex;
  gap: 8px;
}
.address input {
  flex: 1;
  min-width: 0;
}
.does {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
</style>
