<script setup lang="ts">
import { insert, update } from '#core/job'
import type { Connection } from '#core/job'
import { num } from '#core/units'
import type { UsageFile } from '~/workers/files'

/** What a box or a carrier counted, brought as a table: looked at first, then kept by day. */
const props = defineProps<{ connection: Connection; from: string; days: number }>()
const store = useOpened()
const session = useSession()
const text = ref('')
const file = shallowRef<UsageFile | null>(null)
const error = ref('')
const LARGEST = 60_000_000
const { doing, once } = useOnce()
const look = (mapping?: UsageFile['mapping']) =>
  once(async () => {
    error.value = ''
    try {
      file.value = await parsed('usage', { text: text.value, ...(mapping ? { mapping } : {}) })
    } catch (e) {
      file.value = mapping ? file.value : null
      error.value = messageOf(e)
    }
  })
async function bring(e: Event) {
  const input = e.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  if (chosen.size > LARGEST) return void (error.value = `The file is larger than ${LARGEST / 1e6} MB.`)
  text.value = await chosen.text()
  await look()
}
const columns = computed(() =>
  (file.value?.header ?? []).map((title, value) => ({ value, title: title || `column ${value + 1}` })),
)
const UNITS = [
  { value: 1, title: 'MB' },
  { value: 1000, title: 'GB' },
  { value: 1e-6, title: 'bytes' },
  { value: 0.001, title: 'kB' },
  { value: 1.048_576, title: 'MiB' },
  { value: 1073.741_824, title: 'GiB' },
]
const change = (fields: Partial<UsageFile['mapping']>) => file.value && look({ ...file.value.mapping, ...fields })
const dayNumber = (onDay: string) => Math.round((Date.parse(onDay) - Date.parse(props.from)) / 86_400_000) + 1
const within = computed(() =>
  (file.value?.read.days ?? []).filter(d => dayNumber(d.onDay) >= 1 && dayNumber(d.onDay) <= props.days),
)
const gb = computed(() => (file.value?.read.days ?? []).reduce((s, d) => s + d.mb, 0) / 1000)
/** A file of years is no month: a row each would fill the job. */
const MOST_DAYS = 400
const keep = () =>
  once(async () => {
    const days = file.value?.read.days ?? []
    if (days.length > MOST_DAYS) return void (error.value = `It holds ${num(days.length)} days: at most ${MOST_DAYS} are kept.`)
    const mine = new Map(store.doc.usageDays.filter(u => u.connectionId === props.connection.id).map(u => [u.onDay, u.id]))
    const wrong = await store.commit(
      days.map(d => {
        const id = mine.get(d.onDay)
        return id
          ? update('usageDays', id, { mb: d.mb, hours: d.hours })
          : insert('usageDays', { connectionId: props.connection.id, ...d })
      }),
      'usage of a month',
    )
    if (wrong.length) error.value = wrong[0]!.message
    else file.value = null
  })
</script>

<template>
  <div v-if="session.mayEdit" class="usage" data-test="usage">
    <label v-if="!file" class="press small file"
      >bring what was counted, CSV<input
        type="file"
        accept=".csv,.txt,text/csv"
        :disabled="!!doing"
        data-test="usage-file"
        @change="bring"
    /></label>
    <template v-else>
      <p data-test="usage-read">
        <b>{{ num(file.read.days.length) }} days, {{ num(gb, 1) }} GB</b>
        <span v-if="file.read.left" class="short">; {{ num(file.read.left) }} rows could not be read: {{ file.read.why }}</span>
        <span v-if="!within.length" class="short">; none of them is of the month that runs, from {{ from }}</span>
      </p>
      <p class="sentence">
        Day in
        <MvChoice phrase label="Day" :value="file.mapping.when" :choices="columns" :save="v => change({ when: v })" />, data in
        <MvChoice
          phrase
          label="Data"
          :value="file.mapping.data[0] ?? null"
          :choices="columns"
          :save="v => change({ data: [v] })"
        /><template v-if="file.mapping.data.length > 1"> and {{ columns[file.mapping.data[1]!]?.title }}</template
        >, in <MvChoice phrase label="Unit" :value="file.mapping.mbOf" :choices="UNITS" :save="v => change({ mbOf: v })" />.
      </p>
      <p class="acts">
        <button type="button" class="press small filled" :disabled="!!doing" data-test="usage-keep" @click="keep">
          keep them
        </button>
        <button type="button" class="press small bare" @click="file = null">leave it</button>
      </p>
    </template>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.sentence {
  line-height: 2;
}
.acts {
  display: flex;
  gap: 8px;
}
.short {
  color: var(--mv-short);
}
@media (max-width: 900px) {
  .press {
    min-height: 56px;
  }
}
</style>
