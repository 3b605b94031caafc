<script setup lang="ts">
import SignaturePad from 'signature_pad'
import { insert, SIGNED } from '#core/job'
import type { Signature } from '#core/job'
import { countOpen, openOf, sayOpen } from '#core/report'
import { nowUtc } from '~/replica/clock'

/** The customer's own hand under what is handed over, or under the passwords: accepted, with remarks, or refused. */
const store = useOpened()
const session = useSession()
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const signing = ref<Signature['what'] | null>(null)
const name = ref('')
const said = ref<Signature['said']>('accepted')
const remarks = ref('')
const error = ref('')
let pad: SignaturePad | null = null
const open = computed(() => openOf(store.doc, store.result))
const signed = computed(() => [...store.doc.signatures].sort((a, b) => a.atUtc.localeCompare(b.atUtc)))
/** One dot is no signature: so long the pen must have gone, thousandths of the field's width. Assumed. */
const LEAST_LENGTH = 120
const MOST_POINTS = 2000

async function begin(what: Signature['what']) {
  signing.value = what
  error.value = ''
  await nextTick()
  const el = canvas.value
  if (!el) return
  const ratio = Math.max(1, window.devicePixelRatio)
  el.width = el.offsetWidth * ratio
  el.height = el.offsetHeight * ratio
  el.getContext('2d')?.scale(ratio, ratio)
  const ink = getComputedStyle(el).color
  pad = new SignaturePad(el, { penColor: ink, minWidth: 1.2, maxWidth: 2.6 })
}
function end() {
  pad?.off()
  pad = null
  signing.value = null
  name.value = remarks.value = ''
}
/** Each stroke as x and y in turn, in thousandths of the field's width. */
function strokesOf(): number[][] {
  const width = canvas.value!.offsetWidth
  const scaled = (v: number) => Math.max(0, Math.min(1000, Math.round((v / width) * 1000)))
  return (pad?.toData() ?? [])
    .map(s => s.points.slice(0, MOST_POINTS).flatMap(p => [scaled(p.x), scaled(p.y)]))
    .filter(s => s.length >= 2)
    .slice(0, 200)
}
const lengthOf = (strokes: number[][]): number =>
  strokes.reduce((sum, s) => {
    for (let i = 2; i + 1 < s.length; i += 2) sum += Math.hypot(s[i]! - s[i - 2]!, s[i + 1]! - s[i - 1]!)
    return sum
  }, 0)
const { doing, once } = useOnce()
const keep = () =>
  once(async () => {
    const strokes = strokesOf()
    if (!name.value.trim()) return void (error.value = 'Whose hand it is stands beneath it: write the name.')
    if (lengthOf(strokes) < LEAST_LENGTH) return void (error.value = 'That is too little to be a signature.')
    if (said.value !== 'accepted' && !remarks.value.trim())
      return void (error.value = 'Say what is remarked, or why it is refused.')
    const wrong = await store.commit(
      [
        insert('signatures', {
          what: signing.value!,
          said: said.value,
          name: name.value.trim(),
          atUtc: nowUtc(),
          remarks: remarks.value.trim() || null,
          open: countOpen(open.value) ? sayOpen(open.value).slice(0, 2000) : null,
          strokes,
        }),
      ],
      'a signature',
    )
    if (wrong.length) error.value = wrong[0]!.message
    else end()
  })
const path = (s: Signature) =>
  s.strokes.map(k => k.reduce((d, v, i) => d + (i % 2 ? ` ${v}` : `${i ? 'L' : 'M'}${v}`), '')).join('')
const WHAT = { handover: 'What was handed over', access: 'Passwords and access' }
onBeforeUnmount(() => pad?.off())
</script>

<template>
  <section class="sign no-print" aria-label="Signatures" data-test="signatures">
    <h2>Signed</h2>
    <ul v-if="signed.length">
      <li v-for="s in signed" :key="s.id" data-test="signed">
        <svg viewBox="0 0 1000 360" role="img" :aria-label="`signature of ${s.name}`"><path :d="path(s)" /></svg>
        <span
          ><b :class="{ short: s.said === 'refused' }">{{ WHAT[s.what] }}: {{ s.said }}</b
          ><br />{{ s.name }}, {{ dayAndTime(s.atUtc) }}{{ s.remarks ? `: ${s.remarks}` : '' }}
          <span v-if="s.open" class="soft"><br />open then: {{ s.open }}</span></span
        >
      </li>
    </ul>
    <p v-else-if="!signing" class="soft">Nobody has signed yet.</p>
    <form v-if="signing" @submit.prevent="keep">
      <p>
        {{ WHAT[signing] }}<template v-if="countOpen(open)">, with what is open: {{ sayOpen(open) }}</template>
      </p>
      <canvas ref="canvas" aria-label="Sign here" data-test="pad" />
      <div class="fields">
        <v-text-field v-model="name" label="Name" maxlength="120" autocomplete="off" data-test="signer" />
        <MvChoice label="It is" :value="said" :choices="SIGNED" :save="v => (said = v)" data-test="said" />
        <v-text-field v-if="said !== 'accepted'" v-model="remarks" label="Remarks" maxlength="1000" data-test="remarks" />
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <p class="acts">
        <button type="submit" class="press filled" :disabled="!!doing" data-test="sign-keep">keep it</button>
        <button type="button" class="press" @click="pad?.clear()">once more</button>
        <button type="button" class="press bare" @click="end">not now</button>
      </p>
    </form>
    <p v-else-if="session.mayEdit" class="acts">
      <button type="button" class="press small" data-test="sign" @click="begin('handover')">the customer signs</button>
      <button v-if="store.doc.networks.length" type="button" class="press small" data-test="sign-access" @click="begin('access')">
        sign for passwords and access
      </button>
    </p>
  </section>
</template>

<style scoped>
.sign {
  display: grid;
  gap: 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 14px;
  align-items: center;
  border-bottom: 1px solid var(--mv-line);
  padding: 4px 0;
}
svg path {
  fill: none;
  stroke: var(--mv-ink);
  stroke-width: 8;
  stroke-linecap: round;
  stroke-linejoin: round;
}
canvas {
  width: 100%;
  max-width: 560px;
  aspect-ratio: 1000 / 360;
  background: var(--mv-paper);
  border: 1px solid var(--mv-ink);
  touch-action: none;
  color: var(--mv-ink);
}
.fields {
  display: grid;
  gap: 8px;
  max-width: 560px;
  margin: 8px 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
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
