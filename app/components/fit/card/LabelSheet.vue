<script setup lang="ts">
import { nth } from '#core/sure'
import { BARE_LABEL, insert, update } from '#core/job'
import type { CardStep } from '#core/card'
import { parseImei, parseMac, readBarCodes } from '#core/formats'
import { barCodes, coverBetween, masked } from '~/utils/masking'
import type { Cover } from '~/utils/masking'

/** A label photographed: the key covered before the picture is kept, serial, IMEI and MAC taken off it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ file: File | null; step: CardStep }>()
const store = useOpened()
const { add, busy, error } = usePhotos()
const { once } = useOnce()

/** boxes whose label it may be */
const boxes = computed(() => {
  const tree = store.result?.tree
  return tree ? [...tree.routers, ...tree.amplifiers, ...tree.donors].map(n => ({ value: n.node.id, title: n.name })) : []
})
const nodeId = ref<string | null>(null)
const serial = ref('')
const imei = ref('')
const mac = ref('')
const imeiError = ref('')
const macError = ref('')
const read = ref('')
const covers = ref<Cover[]>([])
const url = ref('')
const held = computed(() => store.doc.labels.find(l => l.nodeId === nodeId.value) ?? null)

watch([open, () => props.file], async ([isOpen, file]) => {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = ''
  if (!isOpen || !file) return
  url.value = URL.createObjectURL(file)
  covers.value = []
  const own = boxes.value.find(b => props.step.id.endsWith(b.value))
  nodeId.value = own?.value ?? boxes.value.find(b => !store.doc.labels.some(l => l.nodeId === b.value))?.value ?? null
  serial.value = imei.value = mac.value = imeiError.value = macError.value = ''
  const codes = await barCodes(file)
  read.value =
    codes === null ? 'This browser reads no bar codes: type what stands there.' : codes.length ? '' : 'No bar code found on it.'
  if (!codes?.length) return
  const label = readBarCodes(codes)
  serial.value = label.serial ?? ''
  imei.value = label.imei ?? ''
  mac.value = label.mac ?? ''
  read.value = 'Read off its bar codes: look whether it is so.'
})
onUnmounted(() => url.value && URL.revokeObjectURL(url.value))

// A finger or the mouse draws what is covered; the arrow keys are not needed to keep the picture without one.
const frame = ref<HTMLElement | null>(null)
const from = ref<{ x: number; y: number } | null>(null)
const drawn = ref<Cover | null>(null)
function at(e: PointerEvent): { x: number; y: number } {
  const box = frame.value!.getBoundingClientRect()
  return { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height }
}
function begin(e: PointerEvent) {
  frame.value!.setPointerCapture(e.pointerId)
  from.value = at(e)
}
function draw(e: PointerEvent) {
  if (from.value) drawn.value = coverBetween(from.value, at(e))
}
const LEAST = 0.01
function end() {
  if (drawn.value && drawn.value.width > LEAST && drawn.value.height > LEAST) covers.value = [...covers.value, drawn.value]
  from.value = drawn.value = null
}
const share = (c: Cover) => ({
  left: `${c.left * 100}%`,
  top: `${c.top * 100}%`,
  width: `${c.width * 100}%`,
  height: `${c.height * 100}%`,
})

function parsed<T>(text: string, parse: (t: string) => T, say: (m: string) => void): T | null {
  say('')
  if (!text.trim()) return null
  try {
    return parse(text)
  } catch (e) {
    say(messageOf(e))
    return null
  }
}
const keep = () =>
  once(async () => {
    const label = {
      serial: serial.value.trim() || null,
      imei: parsed(imei.value, parseImei, m => (imeiError.value = m)),
      mac: parsed(mac.value, parseMac, m => (macError.value = m)),
    }
    if (imeiError.value || macError.value || !props.file) return
    if (nodeId.value && Object.values(label).some(Boolean)) {
      const read = Object.fromEntries(Object.entries(label).filter(([, v]) => v)) as Partial<typeof label>
      const edit = held.value
        ? update('labels', held.value.id, read)
        : insert('labels', { ...BARE_LABEL, ...label, nodeId: nodeId.value })
      const bad = await store.commit([edit], 'what a label says')
      if (bad.length) {
        error.value = nth(bad, 0).message
        return
      }
    }
    await add([await masked(props.file, covers.value)], { nodeId: nodeId.value, stepKey: props.step.id })
    if (!error.value) open.value = false
  })
</script>

<template>
  <MvSheet v-model="open" title="A label" wide>
    <p>Draw over the default key, and whatever else nobody should read: it is gone before the picture is kept.</p>
    <div
      v-if="url"
      ref="frame"
      class="frame"
      data-test="label-frame"
      @pointerdown.prevent="begin"
      @pointermove="draw"
      @pointerup="end"
      @pointercancel="end"
    >
      <img :src="url" alt="the label as photographed" draggable="false" />
      <i v-for="(c, i) in covers" :key="i" :style="share(c)" />
      <i v-if="drawn" :style="share(drawn)" />
    </div>
    <p class="soft">
      {{ covers.length === 0 ? 'Nothing covered yet.' : `${covers.length} covered.` }}
      <button v-if="covers.length" type="button" class="plain" @click="covers = covers.slice(0, -1)">the last one away</button>
      {{ read }}
    </p>
    <div class="fields">
      <MvChoice :value="nodeId" :save="v => (nodeId = v)" label="Of" :choices="boxes" />
      <v-text-field v-model="serial" class="fig" label="Serial" maxlength="60" data-test="serial" />
      <v-text-field v-model="imei" class="fig" label="IMEI" inputmode="numeric" :error-messages="imeiError" data-test="imei" />
      <v-text-field v-model="mac" class="fig" label="MAC" :error-messages="macError" data-test="mac" />
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <button type="button" class="press filled keep" :disabled="busy" data-test="keep-label" @click="keep">
      {{ busy ? 'keeping it…' : 'keep picture and figures' }}
    </button>
  </MvSheet>
</template>

<style scoped>
.frame {
  position: relative;
  margin: 10px 0;
  touch-action: none;
  cursor: crosshair;
  width: fit-content;
}
img {
  display: block;
  max-width: 100%;
  max-height: 46vh;
  user-select: none;
}
i {
  position: absolute;
  background: #000;
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px 12px;
  margin: 10px 0;
}
.keep {
  min-height: 56px;
}
@media (max-width: 900px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
