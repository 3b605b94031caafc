<script setup lang="ts">
import { upsert } from '#core/job'
import { countOpen, makeReport, openOf, sayOpen, TAKEN_OPEN } from '#core/report'
import { nowUtc } from '~/replica/clock'
import type { HandoverItem } from '../../../shared/api'

/** What the customer gets: the same on screen, on paper and as PDF. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const report = computed(() =>
  makeReport(store.doc, store.result, { units: prefs.units, crew: session.me?.crewName ?? '', by: session.me?.name ?? '' }),
)
const busy = ref('')
const error = ref('')
const said = ref('')
const handed = computed(() => store.doc.checks.find(c => c.key === 'handover'))

const frozen = ref<HandoverItem[]>([])
async function loadFrozen() {
  frozen.value = await api<HandoverItem[]>(`/api/jobs/${store.id}/handovers`).catch(() => frozen.value)
}
onMounted(loadFrozen)

/** @param handover  a frozen one, as it was handed over; else the job as it stands */
async function pdf(handover?: string) {
  if (busy.value) return
  busy.value = 'pdf'
  error.value = ''
  try {
    await store.send()
    const path = `/api/jobs/${store.id}/report.pdf?units=${prefs.units}${handover ? `&handover=${handover}` : ''}`
    downloadBlob(`${fileName(store.job.name, 'handover')}.pdf`, await fetchFile(path))
  } catch (e) {
    error.value = e instanceof TypeError ? 'No connection: print works without one, the PDF is made by the server.' : messageOf(e)
  }
  busy.value = ''
}
const { note } = useChecks()
const open = computed(() => openOf(store.doc, store.result))
const taking = ref(false)
const takenBy = ref('')
/** Nothing open is handed over unless somebody takes it over by name. */
function press() {
  if (busy.value) return
  if (countOpen(open.value)) taking.value = true
  else void handOver()
}
async function takeOpen() {
  if (busy.value || !takenBy.value.trim()) return
  await note(
    { kind: 'tick', key: TAKEN_OPEN, done: true, reason: sayOpen(open.value), by: takenBy.value.trim(), stopId: null },
    'taken over open',
  )
  taking.value = false
  await handOver()
}
async function handOver() {
  if (busy.value) return
  busy.value = 'hand over'
  error.value = said.value = ''
  const fields = {
    kind: 'tick' as const,
    key: 'handover',
    done: true,
    reason: null,
    by: session.member.name,
    atUtc: nowUtc(),
    stopId: null,
    about: null,
    value: null,
  }
  try {
    // Handed over is what is frozen, and frozen only once everything is with the server.
    await store.send()
    if (store.unsent || store.asides.length)
      throw new Error(
        store.asides.length
          ? 'Something the server refused is still put aside: mend or drop it first, then hand over.'
          : 'Not everything is sent yet: hand over where there is a connection.',
      )
    const pictures = (await session.own!.store.uploads()).filter(u => u.jobId === store.id).length
    if (pictures)
      throw new Error(
        `${pictures === 1 ? 'A picture is' : `${pictures} pictures are`} still on the way: hand over once everything is sent.`,
      )
    await api(`/api/jobs/${store.id}/handovers`, { body: {} })
    await store.commit([upsert('checks', handed.value?.id, fields)], 'hand over')
    said.value = 'Frozen with its result, as handed over.'
    await loadFrozen()
  } catch (e) {
    error.value = messageOf(e)
  }
  busy.value = ''
}
/** the whole job as a file, with its pictures */
async function zip() {
  if (busy.value) return
  busy.value = 'zip'
  error.value = ''
  try {
    await store.send()
    downloadBlob(`${fileName(store.job.name, 'job')}.zip`, await fetchFile(`/api/jobs/${store.id}/archive.zip`))
  } catch (e) {
    error.value = messageOf(e)
  }
  busy.value = ''
}
const copying = ref(false)
const copyName = ref('')
async function template() {
  if (busy.value || !copyName.value.trim()) return
  busy.value = 'copy'
  error.value = ''
  try {
    await store.send()
    const made = await api<{ jobId: string }>(`/api/jobs/${store.id}/template`, { body: { name: copyName.value.trim() } })
    await navigateTo(`/job/${made.jobId}/ask`)
  } catch (e) {
    error.value = messageOf(e)
  }
  busy.value = ''
}
const forgetting = ref(false)
async function forget() {
  error.value = ''
  try {
    await store.send()
    await api(`/api/jobs/${store.id}/forget-customer`, { body: {} })
    await store.fetchWhole()
    said.value = 'Name, contact and address are gone from the job, its history and its handovers.'
  } catch (e) {
    error.value = messageOf(e)
  }
  forgetting.value = false
}
const print = () => window.print()
useKeys({ p: { does: 'print', run: print }, d: { does: 'PDF', run: () => void pdf() } })
</script>

<template>
  <div class="handover">
    <div class="bar no-print">
      <button type="button" class="press filled" :disabled="!!busy" data-test="pdf" @click="pdf()">
        {{ busy === 'pdf' ? 'Making the PDF…' : 'PDF' }} <kbd class="key">D</kbd>
      </button>
      <button type="button" class="press" @click="print">Print <kbd class="key">P</kbd></button>
      <button v-if="session.mayEdit" type="button" class="press" data-test="hand-over" :disabled="!!busy" @click="press">
        {{ handed?.done ? `handed over by ${handed.by}; again` : 'Hand over' }}
      </button>
      <button type="button" class="press bare" :disabled="!!busy" data-test="zip" @click="zip">
        {{ busy === 'zip' ? 'packing…' : 'whole job, ZIP' }}
      </button>
      <template v-if="session.mayEdit">
        <button v-if="!copying" type="button" class="press bare" data-test="template" @click="copying = true">
          next one like it
        </button>
        <form v-else class="like" @submit.prevent="template">
          <v-text-field v-model="copyName" label="Name of the next" maxlength="120" data-test="template-name" />
          <button type="submit" class="press small" :disabled="!!busy || !copyName.trim()" data-test="template-make">
            make it
          </button>
          <button type="button" class="press small bare" @click="copying = false">leave it</button>
        </form>
      </template>
      <span v-if="frozen.length" class="frozen soft"
        >as handed over:
        <button
          v-for="h in frozen.slice(0, 3)"
          :key="h.id"
          type="button"
          class="plain"
          data-test="frozen"
          :title="`by ${h.madeBy}, engine ${h.engine}`"
          @click="pdf(h.id)"
        >
          {{ dayAndTime(h.madeAt) }}
        </button></span
      >
      <span class="grow" role="status"
        >{{ said }} <b class="error">{{ error }}</b></span
      >
      <form v-if="taking" class="taking" @submit.prevent="takeOpen">
        <span>{{ sayOpen(open) }}: the paper names each.</span>
        <v-text-field v-model="takenBy" label="Taken over as it is by" maxlength="120" data-test="taken-by" />
        <button type="submit" class="press small" :disabled="!!busy || !takenBy.trim()" data-test="take-open">
          hand over open
        </button>
        <button type="button" class="press small bare" @click="taking = false">not yet</button>
      </form>
      <template v-if="session.me?.role === 'lead'">
        <button v-if="!forgetting" type="button" class="press bare" data-test="forget" @click="forgetting = true">
          delete the customer’s data
        </button>
        <template v-else
          ><span>Name, contact and address, for good?</span
          ><button type="button" class="press" data-test="forget-yes" @click="forget">Delete them</button
          ><button type="button" class="press bare" @click="forgetting = false">keep</button></template
        >
      </template>
    </div>
    <div class="hand no-print">
      <SignaturePanel />
      <CustomerLink :frozen="frozen" />
    </div>
    <article class="paper" tabindex="0" aria-label="Report">
      <header>
        <h1>{{ report.title }}</h1>
        <p class="soft">{{ report.subtitle }}</p>
      </header>
      <section v-for="b in report.blocks" :key="b.title" :class="b.kind">
        <h2>{{ b.title }}</h2>
        <dl v-if="b.kind === 'facts'">
          <template v-for="r in b.rows" :key="r[0]"
            ><dt>{{ r[0] }}</dt>
            <dd>{{ r[1] }}</dd></template
          >
        </dl>
        <template v-else-if="b.kind === 'drawing'"
          ><DrawingView :drawing="b.drawing" :label="b.title" />
          <p class="soft cap">{{ b.caption }}</p></template
        >
        <table v-else-if="b.kind === 'table'">
          <thead>
            <tr>
              <th v-for="h in b.head" :key="h">{{ h }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in b.rows" :key="i">
              <td v-for="(c, k) in r" :key="k">{{ c }}</td>
            </tr>
          </tbody>
        </table>
        <ul v-else>
          <li v-for="i in b.items" :key="i">{{ i }}</li>
        </ul>
      </section>
      <footer class="soft">{{ report.foot }}</footer>
    </article>
  </div>
</template>

<style scoped>
.taking {
  flex: 1 0 100%;
  flex-wrap: wrap;
}
.taking :deep(.v-input) {
  flex: 1 1 200px;
  max-width: 320px;
}
.like,
.taking {
  display: flex;
  gap: 8px;
  align-items: center;
}
.like :deep(.v-input) {
  width: 200px;
}
.handover {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 8px 20px;
  border-bottom: 1px solid var(--mv-line);
  flex-wrap: wrap;
}
.grow {
  flex: 1;
}
.hand {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 28px;
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-line);
}
.frozen {
  font-size: 12.5px;
}
.plain {
  background: none;
  border: 0;
  border-bottom: 1px solid var(--mv-ink);
  cursor: pointer;
  padding: 4px 2px;
  margin-left: 8px;
}
.paper {
  overflow: auto;
  padding: 28px 40px 40px;
  background: var(--mv-sheet);
  flex: 1;
  max-width: 1120px;
  width: 100%;
  margin: 0 auto;
}
.paper header {
  border-bottom: 2px solid var(--mv-ink);
  padding-bottom: 8px;
  margin-bottom: 14px;
}
.paper h1 {
  font-size: 30px;
}
section {
  margin-bottom: 20px;
  break-inside: avoid;
}
h2 {
  margin-bottom: 6px;
}
dl {
  display: grid;
  grid-template-columns: 160px 1fr;
  gap: 4px 16px;
  margin: 0;
}
dt {
  color: var(--mv-soft);
}
dd {
  margin: 0;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--mv-soft);
}
th,
td {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--mv-line);
  vertical-align: top;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.cap {
  font-size: 12.5px;
  margin-top: 4px;
}
.drawing :deep(svg) {
  height: auto;
  border: 1px solid var(--mv-line);
}
footer {
  font-size: 12.5px;
  border-top: 1px solid var(--mv-line);
  padding-top: 6px;
}
@media (max-width: 900px) {
  .hand {
    grid-template-columns: 1fr;
    padding: 12px 14px;
  }
  .paper {
    padding: 16px 14px;
  }
  dl {
    grid-template-columns: 110px 1fr;
  }
  .bar {
    padding: 8px 14px;
  }
  table {
    font-size: 13px;
  }
}
@media print {
  .handover,
  .paper {
    display: block;
    overflow: visible;
    padding: 0;
    height: auto;
    max-width: none;
  }
}
</style>
