<script setup lang="ts">
import type { PackPlace, usePack } from '~/composables/usePack'

/** What of a place is on this device, and the way to bring the rest. */
const props = defineProps<{ pack: ReturnType<typeof usePack>; place: PackPlace }>()
const mb = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`
const held = computed(() => props.pack.of(props.place.id))
const DAY_MS = 86_400_000
/** A pack says its age: masts change, and ground that another device brought is fetched by itself. */
function age(at: string): string {
  const days = Math.floor((Date.now() - Date.parse(at)) / DAY_MS)
  return days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days old`
}
</script>

<template>
  <span v-if="pack.running.value && pack.running.value.id === place.id" class="pack"
    ><v-progress-linear
      :model-value="(pack.running.value.done / pack.running.value.of) * 100"
      color="primary"
      height="6"
      :aria-label="`Making ${place.name} ready`"
    /><small class="fig"
      >{{ pack.running.value.done }} of {{ pack.running.value.of }} blocks, {{ mb(pack.running.value.bytes) }}</small
    ><button type="button" class="press small" @click="pack.stop()">stop</button></span
  >
  <span v-else class="pack"
    ><small :class="held?.complete ? 'met' : 'soft'" data-test="pack">{{
      held ? `on this device: ${mb(held.bytes)}, ${held.masts} masts, ${age(held.at)}` : 'not on this device'
    }}</small
    ><button type="button" class="press small" :disabled="!!pack.running.value" data-test="prepare" @click="pack.prepare(place)">
      {{ held ? 'again' : 'make ready' }}
    </button></span
  >
</template>

<style scoped>
.pack {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: flex-end;
  flex-wrap: wrap;
  text-align: right;
}
.pack small {
  font-size: 12.5px;
}
.met {
  color: var(--mv-met);
  font-weight: 600;
}
</style>
