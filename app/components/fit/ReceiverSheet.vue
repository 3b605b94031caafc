<script setup lang="ts">
import { num } from '#core/units'
import type { ModemPort } from '../../../shared/modem'

/** A position receiver or a compass on the pole, by NMEA 0183. */
const open = defineModel<boolean>({ required: true })
const receiver = useReceiver()
async function listen(way: () => Promise<ModemPort>) {
  if (await receiver.open(way)) open.value = false
}
</script>

<template>
  <MvSheet v-model="open" title="Position and heading by NMEA 0183">
    <p v-if="receiver.trouble" class="error" role="alert" data-test="receiver-trouble">{{ receiver.trouble }}</p>
    <section v-if="receiver.link">
      <p>
        <strong>{{ receiver.link.name }}</strong>
        <span v-if="receiver.fix" class="soft">
          · {{ receiver.fix.latDeg.toFixed(5) }}, {{ receiver.fix.lonDeg.toFixed(5)
          }}{{ receiver.fix.accuracyM !== null ? `, ±${num(receiver.fix.accuracyM)} m` : '' }}</span
        >
        <span v-if="receiver.trueDeg !== null" class="soft"> · looks {{ num(receiver.trueDeg) }}° true</span>
        <span v-else-if="receiver.magneticDeg !== null" class="soft"> · looks {{ num(receiver.magneticDeg) }}° magnetic</span>
        <span v-else class="soft"> · tells no heading</span>
      </p>
      <button type="button" class="press" data-test="receiver-stop" @click="receiver.close()">stop listening</button>
    </section>
    <PortChooser what="A receiver" last :baud="4800" :opening="receiver.opening" @open="listen" />
    <p class="soft">GGA, GLL and RMC tell where, HDT, HDG and HDM which way. A checksum that does not hold is not taken.</p>
  </MvSheet>
</template>

<style scoped>
section {
  padding-bottom: 18px;
}
</style>
