<script setup lang="ts">
import { BODIES, DEFAULT_SITE } from '#core/job'
import type { Body, Site } from '#core/job'
import type { Measure } from './MeasureField.vue'
import { moves } from '#core/survey'
import { BODY_FIGURES, bodyOf, withBody } from '#core/site'

/** What the drawing is made from; what is measured on the drawing itself stands here where there is no drawing. */
const { drawn = false } = defineProps<{ /** length, storey and roof are edited on the drawing */ drawn?: boolean }>()
const store = useOpened()
const job = computed(() => store.job)
const site = computed(() => store.site)
const moving = computed(() => moves(store.doc))
const edits = useSiteEdits()
const setSite = (field: keyof Site) => (v: unknown) => edits.setSite({ [field]: v }, fieldWord(field))
/** what is measured of a vehicle, and of a boat with her masts */
const measures = computed<{ field: Measure; label: string; low: number; high: number; optional?: boolean }[]>(() => {
  const boat = job.value.kind === 'boat'
  const masts = [
    { field: 'roofRiseM' as const, label: 'Mast above the coachroof', low: 0, high: 60 },
    { field: 'mizzenRiseM' as const, label: 'A mizzen, above the coachroof', low: 0.5, high: 60, optional: true },
  ]
  return [
    { field: 'lengthM', label: 'Length', low: 2, high: 150 },
    { field: 'depthM', label: 'Width', low: 1, high: 100 },
    { field: 'storeyHeightM', label: boat ? 'Water to coachroof' : 'Ground to roof', low: 0.5, high: 20 },
    ...(boat ? masts : []),
  ]
})
const shell = computed(() => (job.value.kind === 'boat' ? 'boat' : 'vehicle'))
const body = computed(() => bodyOf(site.value, shell.value))
const bodies = computed(() =>
  BODIES.filter(b => BODY_FIGURES[b].kind === shell.value).map(b => ({ value: b, title: BODY_FIGURES[b].words })),
)
</script>

<template>
  <fieldset v-if="!moving">
    <legend>{{ job.kind === 'home' ? 'The house' : 'The building' }}</legend>
    <MeasureField field="depthM" label="Depth" :low="2" :high="400" />
    <MvNumber
      label="Its long side runs toward"
      unit="° true"
      :value="site.axisDeg"
      :low="0"
      :high="360"
      required
      :decimals="0"
      :save="setSite('axisDeg')"
    />
    <MvNumber
      label="Storeys"
      unit=""
      :value="site.storeys"
      :low="1"
      :high="40"
      required
      :decimals="0"
      :save="v => setSite('storeys')(v === null ? null : Math.round(v))"
    />
    <template v-if="!drawn">
      <MeasureField v-for="(m, field) in ON_DRAWING" :key="field" :field="field" v-bind="m" />
    </template>
  </fieldset>
  <fieldset v-else>
    <legend>{{ job.kind === 'boat' ? 'The boat' : 'The vehicle' }}</legend>
    <MvChoice
      label="What it is"
      :value="body"
      :choices="bodies"
      data-test="body"
      :save="(b: Body | null) => (b ? edits.setSite(withBody(site, b, DEFAULT_SITE[job.kind]), 'what it is') : undefined)"
    />
    <MeasureField v-for="m in measures" :key="m.field" v-bind="m" />
  </fieldset>
</template>
