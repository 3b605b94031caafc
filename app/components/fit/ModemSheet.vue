<script setup lang="ts">
import type { ModemPort } from '../../../shared/modem'

/** Where the figures come from: a bridge, this machine's port, a recording; or nothing, and they are typed. */
const open = defineModel<boolean>({ required: true })
const modem = useInstrument()
async function listen(way: () => Promise<ModemPort>) {
  if (await modem.open(way)) open.value = false
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
    <PortChooser what="A modem" :opening="modem.opening" @open="listen" />
  </MvSheet>
</template>

<style scoped>
section {
  padding-bottom: 18px;
}
.row {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.row > * {
  flex: 1 1 140px;
}
@media (max-width: 900px) {
  .press {
    min-height: 56px;
  }
}
</style>
