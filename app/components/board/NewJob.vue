<script setup lang="ts">
import { v7 as uuidv7 } from 'uuid'
import { parsePosition } from '#core/geo'
import { newJobChanges } from '#core/job'
import type { Job } from '#core/job'

/** What is asked before a job begins, and no more; or a job out of its own ZIP. */
const emit = defineEmits<{ cancel: [] }>()
const session = useSession()
const store = useJob()
const sending = useSending()
const router = useRouter()
const name = ref('')
const position = ref('')
const kind = ref<Job['kind']>('home')
const PLACEHOLDER = { home: 'Whose house', building: 'Which building', vehicle: 'Which vehicle', boat: 'Her name' }
const carrier = ref<string | null>(null)
const down = ref('')
const up = ref('')
const nameError = ref('')
const positionError = ref('')
const downError = ref('')
const upError = ref('')
const nameField = ref<{ focus: () => void } | null>(null)

function speed(text: string, set: (m: string) => void): number | null {
  if (!text.trim()) return null
  const v = Number(text.trim().replace(',', '.'))
  if (!Number.isFinite(v) || v < 0 || v > 10_000) set('0 to 10 000 Mbit/s')
  return v
}

let created = false
const importing = ref(false)
const importError = ref('')
/** a job out of an archive: it comes under ids of its own, nothing that is here is touched */
async function importJob(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  importError.value = ''
  importing.value = true
  try {
    const made = await api<{ jobId: string }>('/api/jobs/import', { method: 'POST', raw: file })
    await navigateTo(`/job/${made.jobId}/ask`)
  } catch (x) {
    importError.value = messageOf(x)
  }
  importing.value = false
}
async function create() {
  if (created) return
  nameError.value = name.value.trim() ? '' : 'give it a name'
  positionError.value = downError.value = upError.value = ''
  let at = { latDeg: null as number | null, lonDeg: null as number | null }
  if (position.value.trim()) {
    try {
      at = parsePosition(position.value)
    } catch (e) {
      positionError.value = messageOf(e)
    }
  }
  const agreedDownMbps = speed(down.value, m => (downError.value = m))
  const agreedUpMbps = speed(up.value, m => (upError.value = m))
  if (nameError.value || positionError.value || downError.value || upError.value) return
  created = true
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
  const begun = newJobChanges(
    {
      name: name.value.trim(),
      ...at,
      zone,
      kind: kind.value,
      job: { ...session.enough, carrier: carrier.value, agreedDownMbps, agreedUpMbps },
    },
    uuidv7,
  )
  try {
    await session.own!.replica.edit(begun.jobId, begun.changes)
  } catch {
    created = false
    nameError.value = 'this device has no room left: make room, then start again'
    return
  }
  sending.soon(0)
  await store.open(begun.jobId)
  await router.push(`/job/${begun.jobId}/ask`)
}
onMounted(() => nameField.value?.focus())
</script>

<template>
  <form class="new" @submit.prevent="create">
    <MvChoice
      :value="kind"
      :save="v => (kind = v)"
      label="For"
      :choices="[
        { value: 'home', title: 'home' },
        { value: 'building', title: 'building' },
        { value: 'vehicle', title: 'vehicle' },
        { value: 'boat', title: 'boat' },
      ]"
      data-test="kind"
    />
    <v-text-field
      ref="nameField"
      v-model="name"
      label="Job"
      :placeholder="PLACEHOLDER[kind]"
      :error-messages="nameError"
      maxlength="120"
    />
    <v-text-field
      v-model="position"
      label="Position (may follow)"
      placeholder="46.8085, −41.3620 or 46°48.5′N 41°21.7′W"
      :error-messages="positionError"
      class="wide"
    />
    <MvChoice :value="carrier" :save="v => (carrier = v)" label="SIM of" :choices="session.carriers.map(c => c.name)" clearable />
    <v-text-field v-model="down" label="Agreed down" suffix="Mbit/s" inputmode="decimal" :error-messages="downError" />
    <v-text-field v-model="up" label="Agreed up" suffix="Mbit/s" inputmode="decimal" :error-messages="upError" />
    <button type="submit" class="press filled" data-test="create">Start</button>
    <button type="button" class="press bare" @click="emit('cancel')">cancel</button>
    <label class="press bare file"
      >{{ importing ? 'reading it…' : 'or from a job’s ZIP'
      }}<input type="file" accept=".zip,application/zip" :disabled="importing" data-test="import-job" @change="importJob"
    /></label>
    <p v-if="importError" class="error wide" role="alert">{{ importError }}</p>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: 0.8fr 1.2fr 2fr 1fr 1fr 1fr auto auto;
  gap: 10px;
  padding: 16px 24px;
  border-bottom: 1px solid var(--mv-line);
  align-items: start;
}
.file {
  grid-column: 1 / -1;
  justify-self: start;
}
@media (max-width: 900px) {
  .new {
    grid-template-columns: 1fr;
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
