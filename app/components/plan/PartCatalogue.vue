<script setup lang="ts">
import { nth } from '#core/sure'
import { parse } from 'csv-parse/browser/esm/sync'
import { partById } from '#core/catalogue'
import { guessDelimiter, readPart, writeParts } from '#core/formats'
import type { Part, PartKind } from '#core/job'
import { num } from '#core/units'

/** The crew's own parts, beside those that are shipped: by form or by table, both ways. */
const open = defineModel<boolean>({ required: true })
const session = useSession()
const crew = useCrewParts()
const error = ref('')
const said = ref('')
const KINDS: PartKind[] = [
  'antenna',
  'line',
  'router',
  'amplifier',
  'arrestor',
  'pad',
  'adapter',
  'splitter',
  'tap',
  'injector',
  'source',
  'service',
]
const like = ref<string | null>(null)
const draft = ref<Part | null>(null)
/** A new part begins as a copy of one that is like it: every figure is there, and only what differs is changed. */
function begin(id: string) {
  const base = crew.all.value.find(p => p.id === id)
  if (!base) return
  const own = !partById(id)
  draft.value = JSON.parse(
    JSON.stringify({
      ...base,
      id: own ? base.id : `own-${Date.now().toString(36)}`,
      name: own ? base.name : `${base.name}, ours`,
    }),
  ) as Part
  like.value = null
}
const numbers = computed(() =>
  Object.entries(PART_FIGURES).filter(([k]) => typeof (draft.value as Record<string, unknown> | null)?.[k] === 'number'),
)
const valueOf = (k: string): number | null => ((draft.value as unknown as Record<string, number>)[k] as number) ?? null
function set(k: string, v: unknown) {
  draft.value = { ...(draft.value as object), [k]: v } as Part
}
/** lists are written as in the table */
const cells = computed(() => {
  if (!draft.value) return {}
  const [head, row] = parse(writeParts([draft.value])) as string[][]
  return Object.fromEntries(head!.map((h, i) => [h, row![i] ?? '']))
})
const LISTS: [column: string, label: string, hint: string][] = [
  ['bands', 'Bands', 'B3 B20 n78'],
  ['ranges', 'Ranges', '617-960 8dBi 70x80 | 1700-2700 10dBi 55x60: from-to MHz, gain, width across x upright'],
  ['sizeMm', 'Width, height, depth', '240 80 240, mm'],
  ['mount', 'Fixed by', 'pole clamp; four screws; bolt through the skin'],
  ['clampMm', 'Clamps poles', '30 52: from and to, mm'],
  ['foot', 'Foot through a skin', 'holeMm=25 leastMm=0.7 mostMm=45'],
  ['constants', 'Loss constants k1 k2', 'dB/100 m: k1·√f + k2·f, f in MHz'],
  ['stockM', 'Stock lengths', '5 10 15, metres'],
  ['ports', 'Ports', 'id:role:connector:gender:ohm, parted by |'],
]
function setList(column: string, text: string) {
  error.value = ''
  try {
    const read = readPart(c => (c === column ? text : undefined))
    if (column in read) set(column, read[column])
  } catch (e) {
    error.value = messageOf(e)
  }
}
async function keep(list: unknown[]) {
  error.value = ''
  said.value = ''
  try {
    const { kept } = await api<{ kept: number }>('/api/parts', { method: 'PUT', body: { parts: list } })
    said.value = kept === 1 ? 'Kept.' : `${kept} parts kept.`
    draft.value = null
    await crew.load()
  } catch (e) {
    error.value = messageOf(e)
  }
}
async function remove(p: Part) {
  error.value = ''
  try {
    await api(`/api/parts/${encodeURIComponent(p.id)}`, { method: 'DELETE' })
    await crew.load()
  } catch (e) {
    error.value = messageOf(e)
  }
}
const LARGEST = 2_000_000
async function bring(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  error.value = said.value = ''
  try {
    if (file.size > LARGEST) throw new RangeError('The table is larger than 2 MB.')
    const text = (await file.text()).replace(/^\uFEFF/, '')
    const rows = parse(text, {
      columns: true,
      delimiter: guessDelimiter(nth(text.split(/\r?\n/, 1), 0)),
      skip_empty_lines: true,
      relax_column_count: true,
    }) as Record<string, string>[]
    if (!rows.length) throw new RangeError('The table has no rows.')
    const list = rows.map((row, i) => {
      try {
        return readPart(c => row[c])
      } catch (x) {
        throw new RangeError(`Line ${i + 2}: ${messageOf(x)}`)
      }
    })
    await keep(list)
  } catch (x) {
    error.value = messageOf(x)
  }
}
const save = (which: 'own' | 'all') =>
  downloadText('parts.csv', writeParts(which === 'own' ? crew.parts.value : crew.all.value), 'text/csv')
const short = (p: Part) =>
  p.kind === 'amplifier'
    ? `${num(p.gainDb)} dB`
    : p.kind === 'antenna'
      ? `${num(Math.max(...p.ranges.map(r => r.gainDbi)), 1)} dBi`
      : 'lossDb' in p
        ? `${num(p.lossDb, 1)} dB`
        : ''
</script>

<template>
  <MvSheet v-model="open" title="Parts" wide>
    <p class="soft">
      Parts of the catalogue are generic. Enter what you really fit with the maker’s own figures: it then stands first in every
      choice. A design keeps its copy, whatever is changed here later.
    </p>
    <div class="bar">
      <MvChoice
        :value="like"
        label="New, or changed: like which part?"
        :choices="crew.all.value.map(p => ({ value: p.id, title: p.name }))"
        :disabled="!session.mayEdit"
        data-test="part-like"
        :save="v => ((like = v), v && begin(v))"
      />
      <label v-if="session.mayEdit" class="press small file"
        >From a table<input type="file" accept=".csv,.txt,.tsv,text/csv" data-test="part-file" @change="bring"
      /></label>
      <span class="soft"
        >save as CSV <button type="button" class="plain" :disabled="!crew.parts.value.length" @click="save('own')">ours</button>
        <button type="button" class="plain" data-test="save-parts" @click="save('all')">all</button></span
      >
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <p v-if="said" class="note" role="status">{{ said }}</p>
    <form v-if="draft" class="draft" @submit.prevent="keep([draft])">
      <v-text-field
        :model-value="draft.name"
        label="Name"
        maxlength="80"
        data-test="part-name"
        @update:model-value="v => set('name', v)"
      />
      <MvChoice :value="draft.kind" label="Kind" :choices="KINDS" disabled :save="() => undefined" />
      <MvNumber
        v-for="[k, [label, figureUnit]] in numbers"
        :key="k"
        :label="label"
        :unit="figureUnit"
        :value="valueOf(k)"
        :low="-200"
        :high="100000"
        required
        :save="async v => (set(k, v), [])"
      />
      <template v-for="[column, label, hint] in LISTS" :key="column">
        <v-text-field
          v-if="cells[column]"
          class="wide"
          :label="label"
          :model-value="cells[column]"
          :hint="hint"
          persistent-hint
          @change="(e: Event) => setList(column, (e.target as HTMLInputElement).value)"
        />
      </template>
      <div class="bar">
        <button type="submit" class="press" data-test="keep-part">Keep for the crew</button>
        <button type="button" class="plain" @click="draft = null">leave it</button>
      </div>
    </form>
    <table v-if="crew.parts.value.length" class="list">
      <tbody>
        <tr v-for="p in crew.parts.value" :key="p.id">
          <td>{{ p.name }}</td>
          <td class="soft">{{ p.kind }}</td>
          <td class="fig">{{ short(p) }}</td>
          <td class="r">
            <button v-if="session.mayEdit" type="button" class="plain" @click="begin(p.id)">change</button>
            <button v-if="session.mayEdit" type="button" class="plain" :aria-label="`Take out ${p.name}`" @click="remove(p)">
              take out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">None of your own yet.</p>
  </MvSheet>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  margin: 12px 0;
}
.bar > :first-child {
  flex: 1;
  min-width: 220px;
}
.draft {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 10px;
  border: 1px solid var(--mv-ink);
  padding: 12px;
  margin-bottom: 12px;
}
.wide,
.draft .bar {
  grid-column: 1 / -1;
}
.list {
  width: 100%;
  border-collapse: collapse;
}
.list td {
  border-top: 1px solid var(--mv-line);
  padding: 6px 8px 6px 0;
}
.r {
  text-align: right;
}
</style>
