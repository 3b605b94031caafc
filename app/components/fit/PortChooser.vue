<script setup lang="ts">
import { openBridge } from '~/instruments/bridge'
import { recordingLink } from '~/instruments/recording'
import { openSerial, serialHere } from '~/instruments/serial'
import type { ModemPort } from '../../../shared/modem'

/** Ways to a port: a bridge, this machine's own, a recording. */
const props = defineProps<{
  opening: boolean
  what: string
  /** of the bridges the last is offered first */
  last?: boolean
  baud?: number
}>()
const emit = defineEmits<{ open: [way: () => Promise<ModemPort>] }>()
const session = useSession()
/** kept from the last time there was a network: on the roof there is none */
const bridges = useLocalStorage<string[]>('bridges', [])
const url = ref('')
const code = ref('')
const usual = () => (props.last ? bridges.value.at(-1) : bridges.value[0]) ?? ''
url.value = usual()
onMounted(async () => {
  const told = await api<{ bridges: string[]; code: string | null }>('/api/instruments').catch(() => null)
  if (!told) return
  bridges.value = told.bridges
  if (!told.bridges.includes(url.value)) url.value = usual()
  code.value ||= told.code ?? ''
})
async function replay(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  const text = await file.text()
  emit('open', () => Promise.resolve().then(() => recordingLink(text, file.name)))
}
</script>

<template>
  <section>
    <h3>Through a bridge</h3>
    <p class="soft">{{ what }} on another machine’s port or network: <code>npm run bridge</code> there shows the code.</p>
    <p v-if="!bridges.length" class="soft">
      This installation names no bridge yet; whoever runs it sets <code>NUXT_BRIDGES</code>, and pages may connect to it.
    </p>
    <form v-else class="row" @submit.prevent="emit('open', () => openBridge(url, code))">
      <MvChoice :value="url" :save="v => (url = v)" :choices="bridges" label="bridge" />
      <v-text-field v-model="code" label="pairing code" autocomplete="off" data-test="pair-code" />
      <button type="submit" class="press filled" data-test="modem-bridge" :disabled="opening || !code">
        {{ opening ? 'connecting…' : 'connect' }}
      </button>
    </form>
  </section>
  <section>
    <h3>At this machine’s own port</h3>
    <p v-if="!serialHere()" class="soft">
      This browser has no way to a serial port. Chromium-based ones on a computer have; on a phone use a bridge, or type what is
      shown.
    </p>
    <button v-else type="button" class="press" :disabled="opening" @click="emit('open', () => openSerial(baud))">
      choose the port
    </button>
  </section>
  <section v-if="session.mayEdit">
    <h3>What was recorded</h3>
    <label class="press file">
      play a recording
      <input type="file" accept=".txt,text/plain" data-test="modem-replay" aria-label="play a recording" @change="replay" />
    </label>
  </section>
</template>

<style scoped>
section {
  padding-bottom: 18px;
}
.row {
  display: flex;
  gap: 10px;
  align-items: flex-start;
  flex-wrap: wrap;
}
.row > * {
  flex: 1 1 140px;
}
.press.file {
  display: inline-block;
}
@media (max-width: 900px) {
  .press {
    min-height: 56px;
  }
}
</style>
