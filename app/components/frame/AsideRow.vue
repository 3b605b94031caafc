<script setup lang="ts">
import type { Aside } from '~/replica/model'
import { parseNumber } from '#core/formats'

/** A change that the server would not take: why, what it held, and the ways on. */
const props = defineProps<{ aside: Aside }>()
const store = useJob()
const session = useSession()
const wrong = computed(() => props.aside.errors.filter(e => e.field in props.aside.change.fields))
const drafts = ref<Record<string, string>>(
  Object.fromEntries(wrong.value.map(e => [e.field, String(props.aside.change.fields[e.field] ?? '')])),
)
const errors = ref<Record<string, string>>({})
const busy = ref(false)
/** What it was, in a few words that its writer knows it by. */
const held = computed(() => {
  const { name, downMbps, rsrpDbm, value } = props.aside.change.fields
  const told = [
    name,
    rsrpDbm !== undefined && `RSRP ${rsrpDbm} dBm`,
    downMbps !== undefined && `${downMbps} Mbit/s down`,
    value,
  ].find(v => v !== undefined && v !== null && v !== false)
  return told === undefined ? Object.keys(props.aside.change.fields).slice(0, 3).map(fieldWord).join(', ') : String(told)
})
/** The server's word, with fields called as people call them. */
const why = computed(() =>
  props.aside.errors.reduce((text, e) => (e.field ? text.replaceAll(e.field, fieldWord(e.field)) : text), props.aside.detail),
)
function mended(): Record<string, unknown> {
  const out: Record<string, unknown> = {}
  for (const [field, text] of Object.entries(drafts.value)) {
    if (text === String(props.aside.change.fields[field] ?? '')) continue
    out[field] = typeof props.aside.change.fields[field] === 'string' ? text : parseNumber(text)
  }
  return out
}
async function again() {
  if (busy.value) return
  busy.value = true
  errors.value = {}
  try {
    errors.value = Object.fromEntries((await store.takeUp(props.aside, mended())).map(e => [e.field, e.message]))
  } catch (e) {
    errors.value = { '': messageOf(e) }
  }
  busy.value = false
}
</script>

<template>
  <section role="alert" data-test="aside">
    <p>
      <strong>Not taken:</strong> {{ tableWord(aside.change.table) }}{{ held ? `, ${held}` : '' }}. {{ why }}
      <b v-if="errors['']">{{ errors[''] }}</b>
    </p>
    <label v-for="e in wrong" :key="e.field" class="mend">
      <span>{{ fieldWord(e.field) }}</span>
      <input
        v-model="drafts[e.field]"
        :inputmode="typeof aside.change.fields[e.field] === 'string' ? 'text' : 'decimal'"
        :data-test="`mend-${e.field}`"
        @keydown.enter="again"
      />
      <b v-if="errors[e.field]">{{ errors[e.field] }}</b>
    </label>
    <span class="ways">
      <button v-if="session.mayEdit" type="button" class="press filled" :disabled="busy" data-test="take-up" @click="again">
        {{ wrong.length ? 'send it mended' : 'send it again' }}
      </button>
      <button type="button" class="press" data-test="let-go" @click="store.letGo(aside)">let it go</button>
    </span>
  </section>
</template>

<style scoped>
.mend {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.mend input {
  background: #fbf9f4;
  color: #191d22;
  border: 1px solid #191d22;
  padding: 6px 10px;
  min-height: 34px;
  width: 160px;
  font-family: var(--mv-mono);
}
.ways {
  display: flex;
  gap: 8px;
}
@media (pointer: coarse), (max-width: 640px) {
  .mend {
    flex: 1 0 100%;
  }
  .mend input {
    flex: 1;
    min-height: 56px;
    font-size: 16px;
  }
  .ways {
    flex: 1 0 100%;
  }
  .ways .press {
    flex: 1;
    text-align: center;
  }
}
</style>
