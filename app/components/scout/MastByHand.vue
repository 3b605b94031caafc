<script setup lang="ts">
import { nth } from '#core/sure'
import { v7 as uuidv7 } from 'uuid'
import { parsePosition } from '#core/geo'
import { parseNumber } from '#core/formats'
import { bandFromEntry } from '#core/radio'

/** One mast typed in: it belongs to this job, and works with no network. */
const open = defineModel<boolean>({ required: true })
const store = useJob()
const session = useSession()
const name = ref('')
const position = ref('')
const height = ref('')
const carrier = ref<string | null>(store.job?.carrier ?? null)
const bands = ref('')
const errors = reactive({ name: '', position: '', height: '', carrier: '', bands: '' })
async function save() {
  Object.assign(errors, { name: '', position: '', height: '', carrier: '', bands: '' })
  let at = null
  try {
    at = parsePosition(position.value)
  } catch (e) {
    errors.position = messageOf(e)
  }
  let heightM: number | null = null
  try {
    heightM = parseNumber(height.value)
    if (heightM !== null && (heightM < 0 || heightM > 700)) errors.height = '0 to 700 m'
  } catch (e) {
    errors.height = messageOf(e)
  }
  if (!name.value.trim()) errors.name = 'give it a name'
  if (!carrier.value) errors.carrier = 'whose mast?'
  const list = bands.value
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(t => [t, bandFromEntry(t, /^n/i.test(t) ? 'NR' : 'LTE')] as const)
  const wrong = list.find(([, b]) => !b)
  if (!list.length) errors.bands = 'at least one band or channel'
  else if (wrong) errors.bands = `“${wrong[0]}” is no band or channel held`
  if (Object.values(errors).some(Boolean) || !at || !carrier.value) return
  const mastId = uuidv7()
  const failed = await store.commit(
    [
      {
        table: 'masts' as const,
        op: 'insert' as const,
        rowId: mastId,
        fields: { name: name.value.trim(), ...at, heightM, groundM: null, carrier: carrier.value, accuracyM: null, seenOn: null },
      },
      ...list.map(([, b]) => ({
        table: 'cells' as const,
        op: 'insert' as const,
        fields: {
          mastId,
          technology: b!.technology,
          band: b!.name,
          cellId: null,
          channel: null,
          azimuthDeg: null,
          beamwidthDeg: null,
          powerDbm: null,
        },
      })),
    ],
    'add a mast',
  )
  if (failed.length) errors.name = nth(failed, 0).message
  else {
    open.value = false
    name.value = position.value = height.value = bands.value = ''
  }
}
</script>

<template>
  <MvSheet v-model="open" title="A mast by hand">
    <form @submit.prevent="save">
      <v-text-field v-model="name" label="Mast" :error-messages="errors.name" autofocus />
      <v-text-field v-model="position" label="Position" placeholder="46.725, −41.366" :error-messages="errors.position" />
      <v-combobox
        v-model="carrier"
        label="Carrier"
        :items="session.carriers.map(c => c.name)"
        variant="outlined"
        density="compact"
        :error-messages="errors.carrier"
      />
      <v-text-field v-model="bands" label="Bands or channels" placeholder="B20 B3 n78" :error-messages="errors.bands" />
      <v-text-field
        v-model="height"
        label="Height over ground, if known"
        suffix="m"
        inputmode="decimal"
        :error-messages="errors.height"
      />
      <button type="submit" class="press filled">Add it</button>
    </form>
  </MvSheet>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
</style>
