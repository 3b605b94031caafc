<script setup lang="ts">
import { serialHere } from '~/instruments/serial'

/** Where the figures come from: a bridge, this machine's port, a recording; or nothing, and they are typed. */
const open = defineModel<boolean>({ required: true })
const modem = useInstrument()
const session = useSession()
/** kept from the last time there was a network: on the roof there is none */
const bridges = useLocalStorage<string[]>('bridges', [])
const url = ref(bridges.value[0] ?? '')
const code = ref('')
onMounted(async () => {
  const told = await api<{ bridges: string[]; code: string | null }>('/api/instruments').catch(() => null)
  if (!told) return
  bridges.value = told.bridges
  if (!told.bridges.includes(url.value)) url.value = told.bridges[0] ?? ''
  code.value ||= told.code ?? ''
})
async function toBridge() {
  if (await modem.toBridge(url.value, code.value)) open.value = false
}
async function toSerial() {
  if (await modem.toSerial()) open.value = false
}
async function replay(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  if (file && (await modem.replay(await file.text(), file.name))) open.value = false
  input.value = ''
}
function save() {
  downloadText(`modem ${new Date().toISOString().slice(0, 16).replace(':', '-')}.txt`, modem.recording(), 'text/plain')
}
</script>

<template>
  <MvSheet v-model="open" title="Listen to a modem">
    <p v-if="modem.trouble" class="error" role="alert" data-test="modem-trouble">{{ modem.trouble }}</p>
    <section v-if="modem.link">
      <p>
        <strong>{{ modem.link.name }}</strong>
        <span v-if="modem.sample" class="soft">
          · {{ modem.sample.operator ?? 'operator not told' }} · {{ modem.sample.technology ?? 'technology not told'
          }}{{ modem.sample.cellId ? ` · cell ${modem.sample.cellId}` : '' }}</span
        >
      </p>
      <p class="row">
        <button type="button" class="press" data-test="modem-stop" @click="modem.close()">stop listening</button>
        <button type="button" class="press bare" @click="save">save what was said</button>
      </p>
    </section>
    <section>
      <h3>Through a bridge</h3>
      <p class="soft">A modem on another machine’s port or network: <code>npm run bridge</code> there shows the code.</p>
      <p v-if="!bridges.length" class="soft">
        This installation names no bridge yet; whoever runs it sets <code>NUXT_BRIDGES</code>, and pages may connect to it.
      </p>
      <form v-else class="row" @submit.prevent="toBridge">
        <v-select v-model="url" :items="bridges" label="bridge" />
        <v-text-field v-model="code" label="pairing code" autocomplete="off" data-test="pair-code" />
        <button type="submit" class="press filled" data-test="modem-bridge" :disabled="modem.opening || !code">
          {{ modem.opening ? 'connecting…' : 'connect' }}
        </button>
      </form>
    </section>
    <section>
      <h3>At this machine’s own port</h3>
      <p v-if="!serialHere()" class="soft">
        This browser has no way to a serial port. Chromium-based ones on a computer have; on a phone use a bridge, or type what
        the modem’s page shows.
      </p>
      <button v-else type="button" class="press" :disabled="modem.opening" @click="toSerial">choose the port</button>
    </section>
    <section v-if="session.mayEdit">
      <h3>What was recorded</h3>
      <label class="press file">
        play a recording
        <input type="file" accept=".txt,text/plain" data-test="modem-replay" aria-label="play a recording" @change="replay" />
      </label>
    </section>
  </MvSheet>
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
