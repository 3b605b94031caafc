<script setup lang="ts">
import { nth } from '#core/sure'
import {
  headerSignature,
  lackingFields,
  looksSwapped,
  MAST_FIELDS,
  proposeMapping,
  proposeRules,
  readMastRow,
} from '#core/formats'
import type { MastRules } from '#core/formats'
import { parseCoordinate } from '#core/geo'
import { BANDS } from '#core/radio'
import { positionOf } from '#core/survey'
import { num } from '#core/units'
import type { MastTable } from '~/utils/mast-files'
import { openMastFile, writeMasts } from '~/utils/mast-files'
import type { MastImportState } from '../../../shared/api'

/** Lists of masts in and out: headings mapped, rows tried, the rest sent in pieces that survive a lost connection. */
const open = defineModel<boolean>({ required: true })
const store = useOpened()
const session = useSession()
const upload = useMastUpload()
const file = shallowRef<File | null>(null)
const table = shallowRef<MastTable | null>(null)
const rules = ref<MastRules | null>(null)
const ruled = (set: (r: MastRules) => unknown) => rules.value && set(rules.value)
const remembered = ref(false)
const swapNoted = ref(false)
const fault = ref('')
const resume = shallowRef<MastImportState | null>(null)
const error = computed(() => fault.value || upload.error.value)
const NEEDED = new Set(['lat', 'lon', 'carrier', 'name'])
const WORDS: Partial<Record<(typeof MAST_FIELDS)[number], string>> = {
  lat: 'latitude',
  lon: 'longitude',
  height: 'height over ground',
  ground: 'ground over sea',
  cell: 'cell identity',
  area: 'area code',
  seen: 'last seen',
  accuracy: 'accuracy of the place',
}

async function take(e: Event) {
  const input = e.target as HTMLInputElement
  fault.value = upload.error.value = ''
  upload.report.value = null
  table.value = null
  resume.value = null
  file.value = input.files?.[0] ?? null
  input.value = ''
  if (!file.value) return
  try {
    const t = await openMastFile(file.value)
    const fresh = proposeRules(t.header, new Date(file.value.lastModified).toISOString().slice(0, 10), t.sample)
    const before = await api<MastRules>(`/api/masts/mapping?signature=${encodeURIComponent(signatureOf(file.value, t))}`).catch(
      () => null,
    )
    remembered.value = !!before
    const named = proposeMapping(t.header)
    byContent.value = MAST_FIELDS.filter(f => named[f] < 0 && fresh.mapping[f] >= 0).map(f => WORDS[f] ?? f)
    rules.value = before ? completed(before, fresh) : fresh
    // Which way round is looked at afresh in every file, also where the mapping is remembered.
    swapNoted.value = rules.value.swapped = swapped(t, rules.value)
    resume.value = await upload.begun(file.value)
    table.value = t
  } catch (x) {
    fault.value = messageOf(x)
  }
}
/** fields whose column was told by what stands in it, not by its heading */
const byContent = ref<string[]>([])
/** A mapping kept by an older app knows fewer fields: those it lacks are in no column. */
function completed(before: MastRules, fresh: MastRules): MastRules {
  const nowhere = Object.fromEntries(MAST_FIELDS.map(f => [f, -1])) as MastRules['mapping']
  return { ...fresh, ...before, mapping: { ...nowhere, ...before.mapping }, listedOn: fresh.listedOn }
}
/** A mapping belongs to one kind of file: the same headings may mean other things in another. */
const signatureOf = (f: File, t: MastTable): string =>
  `${/\.(geojson|json|gpx|kml)(\.gz)?$/i.exec(f.name)?.[1]?.toLowerCase() ?? 'csv'}|${headerSignature(t.header)}`
function swapped(t: MastTable, r: MastRules): boolean {
  const pairs = t.sample.flatMap(row => {
    try {
      return [[parseCoordinate(row[r.mapping.lat] ?? '', 'lat'), parseCoordinate(row[r.mapping.lon] ?? '', 'lon')] as const]
    } catch {
      return []
    }
  })
  return looksSwapped(pairs, positionOf(store.doc))
}
const carriers = computed(() => new Map(session.carriers.flatMap(c => c.codes.map(code => [code, c.name] as const))))
const TRIED = 5
const read = computed(() =>
  (table.value?.sample ?? []).map(r => {
    try {
      const m = readMastRow(r, rules.value!, code => carriers.value.get(code))
      return {
        ok: true,
        text: [
          `${m.name}: ${num(m.latDeg, 4)}, ${num(m.lonDeg, 4)}`,
          `${m.carrier} ${m.band || 'band unknown'}${m.azimuthDeg !== null ? ` toward ${m.azimuthDeg}°` : ''}`,
          m.accuracyM !== null && `good to ${Math.round(m.accuracyM)} m`,
          m.seenOn && `seen ${m.seenOn}`,
        ]
          .filter(Boolean)
          .join(', '),
      }
    } catch (e) {
      return { ok: false, text: messageOf(e) }
    }
  }),
)
/** the first rows as they are read, then those of the sample that would not be taken, each with its line */
const tried = computed(() =>
  [
    ...read.value.slice(0, TRIED).keys(),
    ...[...read.value.keys()].filter(i => i >= TRIED && !nth(read.value, i).ok).slice(0, TRIED),
  ].map(i => ({ line: i + 2, ...nth(read.value, i) })),
)
const refused = computed(() => read.value.filter(r => !r.ok).length)
/** what the list has and what every list needs; the rest only when asked for */
const shown = computed(() =>
  MAST_FIELDS.filter(f => every.value || NEEDED.has(f) || f === 'band' || rules.value!.mapping[f] >= 0),
)
const every = ref(false)
const lacking = computed(() => (rules.value ? lackingFields(rules.value.mapping, rules.value.wholeCarrier) : []))
async function send() {
  if (!table.value || !file.value || !rules.value) return
  await upload.send(table.value, file.value, {
    rules: rules.value,
    signature: signatureOf(file.value, table.value),
    resume: resume.value,
  })
  if (upload.report.value) await store.fetchWhole()
}
const whole = (v: number) => Math.round(v).toLocaleString('en-GB').replace(/,/g, '\u2009')
const left = computed(() => {
  const s = upload.secondsLeft.value
  return s === null ? '' : s > 90 ? `, about ${Math.ceil(s / 60)} min left` : `, about ${Math.ceil(s)} s left`
})
async function save(kind: 'csv' | 'geojson' | 'gpx' | 'kml') {
  const doc = store.doc
  downloadText(
    `masts.${kind}`,
    await writeMasts(kind, doc.masts, doc.cells),
    kind === 'csv' ? 'text/csv' : kind === 'geojson' ? 'application/geo+json' : 'application/xml',
  )
}
</script>

<template>
  <MvSheet v-model="open" title="Masts from a list" wide>
    <p class="soft">
      CSV (also gzipped), GeoJSON, GPX or KML; one row a cell. Cells are gathered to masts, the newer list wins, the same list
      twice changes nothing, and until the last row is in nobody sees any of it.
    </p>
    <div class="bar">
      <label class="press file"
        >{{ file?.name ?? 'Choose a list'
        }}<input
          type="file"
          accept=".csv,.txt,.tsv,.gz,.geojson,.json,.gpx,.kml,text/csv"
          data-test="mast-file"
          :disabled="upload.busy.value"
          @change="take"
      /></label>
      <span v-if="store.doc.masts.length" class="soft"
        >or save the {{ store.doc.masts.length }} masts near here as
        <button
          v-for="k in ['csv', 'geojson', 'gpx', 'kml'] as const"
          :key="k"
          type="button"
          class="plain"
          :data-test="`save-${k}`"
          @click="save(k)"
        >
          {{ k === 'geojson' ? 'GeoJSON' : k.toUpperCase() }}
        </button></span
      >
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <template v-if="table && rules && !upload.report.value && !upload.busy.value">
      <p v-if="resume" class="note">
        This list was begun here: {{ whole(resume.rows) }} rows are already with the server. It goes on from there.
      </p>
      <template v-else>
        <p v-if="remembered" class="note">Read as your crew read a list with these headings before.</p>
        <p v-if="byContent.length && !remembered" class="note" data-test="by-content">
          No heading says {{ byContent.join(', ') }}: proposed by what stands in the columns. Check them.
        </p>
        <p v-if="swapNoted && rules.swapped" class="note" data-test="swapped">
          Latitude and longitude stand in each other’s columns here; they are read the other way round.
        </p>
        <div class="map">
          <MvChoice
            v-for="f in shown"
            :key="f"
            :value="rules.mapping[f]"
            :save="v => ruled(r => (r.mapping[f] = v))"
            :label="(WORDS[f] ?? f) + (NEEDED.has(f) ? ' *' : '')"
            :choices="[
              { value: -1, title: '– none –' },
              ...table.header.map((h, i) => ({ value: i, title: h || `column ${i + 1}` })),
            ]"
            :data-test="`map-${f}`"
          />
          <MvChoice
            :value="rules.heightUnit"
            :save="v => ruled(r => (r.heightUnit = v))"
            label="Heights in"
            :choices="[
              { value: 'm', title: 'metres' },
              { value: 'ft', title: 'feet' },
            ]"
          />
          <MvChoice
            v-if="rules.mapping.carrier < 0"
            :value="rules.wholeCarrier ?? null"
            :save="v => ruled(r => (r.wholeCarrier = v))"
            label="Carrier of the whole list"
            :choices="session.carriers.map(c => c.name)"
            clearable
            data-test="whole-carrier"
          />
          <MvChoice
            :value="rules.fallbackBand"
            :save="v => ruled(r => (r.fallbackBand = v))"
            label="Band where none is named"
            :choices="[{ value: null, title: 'leave it unknown' }, ...BANDS.map(b => ({ value: b.name, title: b.name }))]"
          />
          <v-text-field
            :model-value="rules.listedOn ?? ''"
            label="List of"
            type="date"
            data-test="listed"
            @update:model-value="v => ruled(r => (r.listedOn = v || null))"
          />
          <button v-if="!every" type="button" class="press small" data-test="more-columns" @click="every = true">
            {{ MAST_FIELDS.length - shown.length }} more it may carry
          </button>
          <v-checkbox v-model="rules.swapped" label="lat and lon exchanged" data-test="swap" />
        </div>
        <p class="soft">Read as told: {{ read.length - refused }} of the first {{ read.length }} rows would be taken.</p>
        <ul class="tried">
          <li v-for="t in tried" :key="t.line" :class="{ error: !t.ok }">line {{ t.line }}: {{ t.text }}</li>
        </ul>
        <p v-if="lacking.length" class="error">Still to map: {{ lacking.join(', ') }}</p>
      </template>
      <button type="button" class="press filled" :disabled="lacking.length > 0" data-test="import" @click="send">
        {{ resume ? 'Go on' : 'Bring it in' }}
      </button>
    </template>
    <div v-if="upload.busy.value" class="going" data-test="import-progress">
      <template v-if="upload.state.value?.state === 'merging'"
        ><p>
          <strong>{{ whole(upload.state.value.kept) }} rows read, now {{ upload.state.value.step ?? 'merging' }}.</strong>
        </p>
        <v-progress-linear indeterminate color="primary" height="8" aria-label="Merging"
      /></template>
      <template v-else
        ><p>
          <strong>{{ Math.round(upload.sent.value * 100) }} %</strong> · {{ whole(upload.state.value?.rows ?? 0) }} rows,
          {{ whole(upload.rowsPerSecond.value) }} a second{{ left }}
        </p>
        <v-progress-linear :model-value="upload.sent.value * 100" color="primary" height="8" aria-label="Sent"
      /></template>
      <p v-if="upload.trouble.value" class="error" role="status" data-test="import-trouble">{{ upload.trouble.value }}</p>
      <p v-if="upload.waiting.value" class="error" role="status">
        No connection: it goes on by itself when there is one. Nothing sent is lost.
      </p>
      <button type="button" class="press" data-test="import-stop" @click="upload.cancel()">Stop</button>
    </div>
    <div v-if="upload.report.value" data-test="import-report">
      <p>
        <strong
          >{{ whole(upload.report.value.kept) }} of {{ whole(upload.report.value.rows) }} rows kept:
          {{ whole(upload.report.value.masts) }} masts, {{ whole(upload.report.value.cells) }} cells.</strong
        >
        {{
          upload.report.value.changed
            ? `${whole(upload.report.value.changed)} of them are new or changed.`
            : 'All of it was known: nothing changed.'
        }}
      </p>
      <template v-if="upload.report.value.rejects.length">
        <p>
          {{ whole(upload.report.value.rows - upload.report.value.kept) }} not taken:
          <a
            class="press small"
            data-test="rejected"
            :href="`/api/masts/imports/${upload.report.value.id}/rejected.csv`"
            download="rows-not-taken.csv"
            >all of them as CSV</a
          >
        </p>
        <ul class="tried">
          <li v-for="b in upload.report.value.rejects" :key="b.line">line {{ b.line }}: {{ b.reason }}</li>
        </ul>
      </template>
    </div>
  </MvSheet>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
}
.file {
  display: inline-block;
  margin: 12px 0;
  position: relative;
}
.file input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  width: 100%;
}
.file:focus-within {
  outline: 2px solid var(--mv-computed);
  outline-offset: 2px;
}
.note {
  padding: 6px 0;
  font-weight: 600;
}
a.press {
  display: inline-block;
  margin: 8px 0;
  color: var(--mv-ink);
  text-decoration: none;
}
.map {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin: 8px 0;
  align-items: start;
}
.tried {
  list-style: none;
  padding: 8px 0;
  margin: 0;
  font-size: 13px;
  font-family: var(--mv-mono);
  max-height: 220px;
  overflow: auto;
}
.going {
  display: grid;
  gap: 10px;
  padding: 12px 0;
  justify-items: start;
}
.going .v-progress-linear {
  width: 100%;
}
@media (max-width: 640px) {
  .map {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
