<script setup lang="ts">
import { nth } from '#core/sure'
import { parse } from 'csv-parse/browser/esm/sync'
import { guessDelimiter, readPattern } from '#core/formats'
import type { MeasuredPattern } from '#core/formats'
import { crossedSteps, isDoubleBeam, isSingleBeam, pairsOf, uncrossedSteps } from '#core/fitting'
import { CONNECTORS, OwnFigures, POLARISATIONS } from '#core/job'
import type { Node, Part, Polarisation, Port } from '#core/job'
import { partOf } from '#core/chain'
import { usualPolarisation } from '#core/catalogue'
import { num } from '#core/units'

/** One part of the design: another in its place, and the maker's own figures over those of the catalogue. */
const props = defineProps<{ node: Node; twins?: Node[] }>()
const open = defineModel<boolean>({ required: true })
const store = useJob()
const session = useSession()
const crewParts = useCrewParts()
const part = computed(() => partOf(props.node))
const base = computed(() => partOf({ ...props.node, own: null }))
const everywhere = computed(() => [props.node, ...(props.twins ?? [])])
const choices = computed(() => (part.value ? crewParts.like(part.value) : []))

/** Levels that are always below zero: 40 is meant as −40. */
const NEGATIVE = new Set<string>(['inputLimitDbm', 'shutDownDbm'])
const FIGURES = Object.entries(PART_FIGURES).flatMap(([k, [label, unit]]) => {
  const key = k as keyof OwnFigures
  const range = OwnFigures.properties[key] as unknown as { minimum: number; maximum: number } | undefined
  return range ? [{ key, label, unit, low: range.minimum, high: range.maximum, negative: NEGATIVE.has(k) }] : []
})
const figures = computed(() => FIGURES.filter(f => part.value && f.key in part.value))
const valueOf = (p: Part | undefined, key: keyof OwnFigures): number | null =>
  ((p as unknown as Record<string, number>)?.[key] as number) ?? null
const gainDbi = computed(() => props.node.own?.gainDbi ?? null)
const error = ref('')

async function setOwn(fields: Partial<OwnFigures> | Record<string, unknown>) {
  const merged = Object.fromEntries(
    Object.entries({ ...props.node.own, ...fields }).filter(([, v]) => v !== undefined && v !== null),
  )
  return setAll({ own: Object.keys(merged).length ? merged : null }, 'a maker’s figure')
}
/** Of all that are built alike. */
const setAll = (fields: Partial<Node>, label: string) =>
  store.commit(
    everywhere.value.map(n => ({ table: 'nodes', op: 'update', rowId: n.id, fields })),
    label,
  )
const parts = useSwapParts()
async function swap(id: string) {
  const next = choices.value.find(p => p.id === id)
  if (!next) return
  error.value = (await parts.swap(everywhere.value, next))[0]?.message ?? ''
}
const name = computed(() => store.result?.tree?.nodes.find(n => n.node.id === props.node.id)?.name ?? part.value?.name ?? '')
/** One part's own: those built alike keep theirs. */
const setName = (v: string | null) =>
  store.commit([{ table: 'nodes', op: 'update', rowId: props.node.id, fields: { name: v } }], 'name a part')
/** One antenna with two feeds may be two single beams, and the other way round. */
const pairing = computed(() => {
  const { tree } = store.result ?? {}
  const now = part.value
  if (!tree || !now || (!isDoubleBeam(now) && !pairOf.value)) return null
  return pairOf.value
    ? { label: 'Or one with two feeds', choices: crewParts.all.value.filter(isDoubleBeam) }
    : { label: 'Or two beams, crossed', choices: crewParts.all.value.filter(isSingleBeam) }
})
const pairOf = computed(() => {
  const { tree } = store.result ?? {}
  return tree ? (pairsOf(tree).find(p => p.some(n => n.node.id === props.node.id)) ?? null) : null
})
async function pair(id: string) {
  const { tree, chosen } = store.result ?? {}
  const next = pairing.value?.choices.find(p => p.id === id)
  const at = tree?.donors.find(d => d.node.id === props.node.id)
  if (!tree || !at || next?.kind !== 'antenna') return
  const looks = at.node.azimuthDeg ?? (chosen?.path ? chosen.frameBearingDeg : 0)
  const steps = pairOf.value ? uncrossedSteps(tree, pairOf.value, next) : crossedSteps(tree, at, next, looks)
  const bad = await store.commitSteps(steps, 'a pair of antennas')
  error.value = bad[0]?.message ?? ''
}
const POLARISATION_WORD: Record<Polarisation, string> = {
  vertical: 'upright (vertical)',
  horizontal: 'lying (horizontal)',
  slant: 'at ±45°',
}
const setPolarisation = (polarisation: Polarisation | null) => setAll({ polarisation }, 'how an antenna is fitted')
const fittedWays = computed(() => {
  const usual = part.value?.kind === 'antenna' ? usualPolarisation(part.value) : 'vertical'
  const said = POLARISATIONS.map(p => ({ value: p as Polarisation | null, title: POLARISATION_WORD[p] }))
  return [{ value: null, title: `as usual: ${POLARISATION_WORD[usual]}` }, ...said]
})
const bandsText = ref('')
watch(
  part,
  p => {
    bandsText.value = p && 'bands' in p ? p.bands.join(' ') : ''
  },
  { immediate: true },
)
const saveBands = () =>
  setOwn({ bands: bandsText.value.split(/[\s,;]+/).filter(Boolean) as string[] }).then(e => {
    error.value = e[0]?.message ?? ''
  })
const measured = computed(() => part.value?.kind === 'antenna' && part.value.ranges.some(r => r.azimuthDb))
/** the measured pattern stands in the part's copy in this design, on every range */
async function setPattern(pattern: MeasuredPattern | null) {
  const copy = base.value
  if (copy?.kind !== 'antenna') return
  const ranges = copy.ranges.map(({ azimuthDb: _a, elevationDb: _e, ...r }) => ({ ...r, ...pattern }))
  const bad = await store.commit(
    everywhere.value.map(n => ({
      table: 'nodes' as const,
      op: 'update' as const,
      rowId: n.id,
      fields: { part: { ...copy, ranges } },
    })),
    pattern ? 'a measured pattern' : 'take the pattern off',
  )
  error.value = bad[0]?.message ?? ''
}
async function bringPattern(e: Event) {
  const file = pickedFile(e)
  if (!file) return
  error.value = ''
  try {
    if (file.size > LARGEST_PATTERN) throw new RangeError('The table is larger than 1 MB.')
    const text = (await file.text()).replace(/^\uFEFF/, '')
    const rows = parse(text, {
      delimiter: guessDelimiter(nth(text.split(/\r?\n/, 1), 0)),
      skip_empty_lines: true,
      relax_column_count: true,
    }) as string[][]
    // A heading has a word where the angle would stand.
    await setPattern(readPattern(/^[-−+\d]/.test(rows[0]?.[0]?.trim() ?? '') ? rows : rows.slice(1)))
  } catch (x) {
    error.value = messageOf(x)
  }
}
const LARGEST_PATTERN = 1_000_000
const ports = computed(() => (part.value && part.value.kind !== 'line' ? part.value.ports : []))
const setPort = (port: Port, fields: Partial<Port>) =>
  setOwn({ ports: ports.value.map(p => (p.id === port.id ? { ...p, ...fields } : p)) })
</script>

<template>
  <MvSheet v-if="part" v-model="open" :title="name" wide>
    <MvText
      label="Name"
      :value="node.name"
      :hint="node.name ? 'empty: named by what it is and where' : name"
      :disabled="!session.mayEdit"
      data-test="part-name"
      :save="setName"
    />
    <PlaceFigures v-if="!twins?.length" :node="node" />
    <MvChoice
      label="Part"
      :value="node.partId"
      :choices="choices.map(p => ({ value: p.id, title: p.name }))"
      :disabled="!session.mayEdit"
      data-test="swap-part"
      :save="v => swap(v)"
    />
    <MvChoice
      v-if="pairing"
      :label="pairing.label"
      :value="null"
      :choices="pairing.choices.map(p => ({ value: p.id, title: p.name }))"
      :disabled="!session.mayEdit"
      data-test="pairing"
      :save="v => v && pair(v)"
    />
    <p v-if="twins?.length" class="soft">What is changed here is changed on all {{ twins.length + 1 }} that are built alike.</p>
    <MvChoice
      v-if="part.kind === 'antenna'"
      label="How it is fitted"
      class="fitted"
      :value="node.polarisation"
      :choices="fittedWays"
      :disabled="!session.mayEdit"
      data-test="polarisation"
      :save="setPolarisation"
    />
    <h3>The maker’s figures win</h3>
    <p class="soft">Where the part’s own sheet says otherwise, enter it; empty takes the catalogue’s again.</p>
    <div class="grid">
      <MvNumber
        v-if="part.kind === 'antenna'"
        label="Gain on every band"
        unit="dBi"
        :value="gainDbi"
        :low="-20"
        :high="40"
        :save="v => setOwn({ gainDbi: v ?? undefined })"
      />
      <MvNumber
        v-for="f in figures"
        :key="f.key"
        :label="f.label + (node.own?.[f.key] === undefined ? '' : ' *')"
        :unit="f.unit"
        :value="valueOf(part, f.key)"
        :low="f.low"
        :high="f.high"
        :negative="f.negative"
        :save="v => setOwn({ [f.key]: v === valueOf(base, f.key) ? undefined : v })"
      />
    </div>
    <p v-if="part.kind === 'antenna'" class="soft">
      By the catalogue:
      <span v-for="r in part.ranges" :key="r.lowMHz" class="fig"
        >{{ r.lowMHz }}–{{ r.highMHz }} MHz {{ num(r.gainDbi, 1) }} dBi, {{ r.beamwidthDeg }}° × {{ r.verticalBeamwidthDeg }}°;
      </span>
    </p>
    <p v-if="part.kind === 'antenna' && session.mayEdit" class="pattern">
      <label class="press small file"
        >its pattern from a table<input type="file" accept=".csv,.txt,.tsv" data-test="pattern-file" @change="bringPattern"
      /></label>
      <span class="soft">angle, dB across, dB upright; 15° between rows at most</span>
      <template v-if="measured">
        <b>measured in both planes</b>
        <button type="button" class="plain" @click="setPattern(null)">take it off</button>
      </template>
    </p>
    <template v-if="'bands' in part">
      <v-text-field v-model="bandsText" label="Bands" :disabled="!session.mayEdit" @blur="saveBands" @keydown.enter="saveBands" />
    </template>
    <table v-if="ports.length" class="ports">
      <thead>
        <tr>
          <th>port</th>
          <th>for</th>
          <th>connector</th>
          <th>gender</th>
          <th>Ω</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in ports" :key="p.id">
          <td class="fig">{{ p.id }}</td>
          <td>{{ p.role }}</td>
          <td>
            <MvChoice
              :value="p.connector"
              :choices="[...CONNECTORS]"
              :aria-label="`connector of port ${p.id}`"
              :disabled="!session.mayEdit"
              :save="v => setPort(p, { connector: v })"
            />
          </td>
          <td>
            <MvChoice
              :value="p.gender"
              :choices="['plug', 'socket']"
              :aria-label="`gender of port ${p.id}`"
              :disabled="!session.mayEdit"
              :save="v => setPort(p, { gender: v })"
            />
          </td>
          <td class="fig">{{ p.impedanceOhm }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
  </MvSheet>
</template>

<style scoped>
.pattern {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
}
.fitted {
  margin-top: 10px;
}
h3 {
  margin-top: 12px;
  font-size: 16px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 10px;
  margin: 10px 0;
}
.ports {
  width: 100%;
  border-collapse: collapse;
}
.ports th {
  text-align: left;
  font-size: 12.5px;
  color: var(--mv-soft);
  font-weight: 400;
}
.ports td {
  padding: 2px 8px 2px 0;
}
</style>
