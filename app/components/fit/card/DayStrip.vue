<script setup lang="ts">
import { nth } from '#core/sure'
import { afterDark, firstDay, notThrough, planDay, startOf } from '#core/card'
import type { CardStep } from '#core/card'
import { clockWords, daylightOn } from '#core/geo'
import type { Visit } from '#core/job'
import { num } from '#core/units'

/** The day as it runs: who does what when, climbs raised, with dark and the end of the visit on the same hours. */
const props = defineProps<{ steps: readonly CardStep[]; visit: Visit | null; stepId: string | null }>()
const emit = defineEmits<{ pick: [id: string] }>()
const store = useOpened()
const { el, width } = useWidth()

const people = computed<1 | 2>(() => ((props.visit?.people ?? 2) > 1 ? 2 : 1))
const open = computed(() => props.steps.filter(s => !s.done && !s.notSo && !s.waits && !s.hardensUntil))
/** what a late part holds up is no part of this day */
const held = computed(() => props.steps.filter(s => !s.done && s.waits).length)
const plan = computed(() => firstDay(planDay(open.value, people.value)))
/** steps for which something hardens first */
const another = computed(() => plan.value.later.length + props.steps.filter(s => !s.done && s.hardensUntil && !s.waits).length)
const startMin = computed(() => startOf(props.visit ?? NEW_VISIT))
const light = computed(() => {
  const { latDeg, lonDeg, zone } = store.site
  if (latDeg === null || lonDeg === null) return null
  return daylightOn({ latDeg, lonDeg }, props.visit?.onDay ?? dayOf(new Date()), zone)
})
const endMin = computed(() => (props.visit ? startMin.value + props.visit.hours * 60 : null))
const lastMin = computed(() =>
  Math.max(
    startMin.value + plan.value.lengthMin,
    endMin.value ?? 0,
    startMin.value + 240,
    Math.min((light.value?.toMin ?? 0) + DUSK_MIN, 1320),
  ),
)
/** of the evening after the light has gone, shown so that it is seen where it begins */
const DUSK_MIN = 45
const PAD = 26
const x = (min: number) => PAD + ((min - startMin.value) / (lastMin.value - startMin.value)) * (width.value - 2 * PAD)
const hours = computed(() => {
  const first = Math.ceil(startMin.value / 60)
  const n = Math.floor(lastMin.value / 60) - first + 1
  const every = width.value / n < 42 ? 2 : 1
  return Array.from({ length: n }, (_, i) => (first + i) * 60).filter((_, i) => i % every === 0)
})
/** two lanes where two are there: a step for both lies over both */
const bars = computed(() => {
  const free = [0, 0]
  return plan.value.slots.map(s => {
    const both = people.value === 2 && s.step.people === 2
    const lane = both || people.value === 1 ? 0 : nth(free, 0) <= s.fromMin + 1e-9 ? 0 : 1
    free[lane] = s.toMin
    if (both) free[1] = s.toMin
    const from = x(startMin.value + s.fromMin)
    return { ...s, lane, both, from, wide: Math.max(1, x(startMin.value + s.toMin) - from - 1) }
  })
})
const over = computed(() => (props.visit ? notThrough(plan.value, props.visit.hours) : []))
const dark = computed(() => afterDark(plan.value, light.value ? light.value.toMin - startMin.value : null))
const LANE = 18
const TOP = 6
const height = computed(() => TOP + people.value * LANE + 20)
const through = computed(() => clockWords(startMin.value + plan.value.lengthMin))
</script>

<template>
  <figure ref="el" class="day" data-test="day-strip">
    <svg v-if="width" :width="width" :height="height" role="group" aria-label="The day by the clock">
      <rect
        v-if="light && light.toMin < lastMin"
        :x="x(light.toMin)"
        :y="0"
        :width="Math.max(0, width - x(light.toMin))"
        :height="height - 18"
        class="dark"
      />
      <rect
        v-for="b in bars"
        :key="b.step.id"
        :x="b.from"
        :y="TOP + b.lane * LANE"
        :width="b.wide"
        :height="(b.both ? people * LANE : LANE) - 2"
        :class="['bar', b.step.stand === 'up' ? 'up' : 'down', { on: b.step.id === stepId }]"
        @click="emit('pick', b.step.id)"
      >
        <title>{{ b.step.words }}: {{ clockWords(startMin + b.fromMin) }} to {{ clockWords(startMin + b.toMin) }}</title>
      </rect>
      <line v-if="endMin !== null" :x1="x(endMin)" :x2="x(endMin)" y1="0" :y2="height - 16" class="end" />
      <text v-for="h in hours" :key="h" :x="x(h)" :y="height - 4" text-anchor="middle" class="fig">{{ clockWords(h) }}</text>
    </svg>
    <figcaption>
      <b>{{ people === 2 ? 'two' : 'one alone' }}: through at {{ through }}</b
      ><span v-if="held" class="late"> · {{ held }} {{ held === 1 ? 'step waits' : 'steps wait' }} for another day</span
      ><span v-if="another" class="late" data-test="another-day">
        · {{ another === 1 ? 'one step' : `${another} steps` }} another day: what is filled or glued hardens first</span
      ><span v-if="!plan.exact && !another" class="soft">
        · no two are sooner than {{ clockWords(startMin + plan.boundMin) }}</span
      ><span v-if="light" class="soft"> · dark at {{ clockWords(light.toMin) }}</span
      ><span v-if="over.length" class="error">
        · {{ over.length }} {{ over.length === 1 ? 'step' : 'steps' }} past the visit’s {{ num(visit!.hours, 1) }} h</span
      ><span v-if="dark.length" class="error"> · {{ dark.length }} up there in the dark: another day</span
      ><span class="legend"><i class="up" /> up <i class="down" /> ground</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.day {
  margin: 0;
  padding: 8px 20px 6px;
  border-bottom: 1px solid var(--mv-line);
}
svg {
  display: block;
}
.dark {
  fill: var(--mv-ground);
}
.bar {
  cursor: pointer;
}
.up {
  fill: var(--mv-ink);
  background: var(--mv-ink);
}
.down {
  fill: var(--mv-beam);
  background: var(--mv-beam);
}
.on {
  stroke: var(--mv-agreed);
  stroke-width: 3;
}
.end {
  stroke: var(--mv-ink);
  stroke-width: 2;
  stroke-dasharray: 3 3;
}
text {
  font-size: 12px;
  fill: var(--mv-soft);
}
figcaption {
  font-size: 13px;
}
.late {
  color: var(--mv-short);
}
.legend {
  float: right;
  color: var(--mv-soft);
}
.legend i {
  display: inline-block;
  width: 12px;
  height: 10px;
  margin-left: 8px;
}
</style>
