<script setup lang="ts">
import { nth } from '#core/sure'
import { asNegative, parseNumber } from '#core/formats'
import { USES } from '#core/job'
import type { Enough } from '#core/job'
import { NEED_CALLS_DBM, RSRP_EDGES, SINR_EDGES } from '#core/radio'
import { USE_FIGURES } from '#core/site'
import { BUSY_HOURS } from '#core/survey'
import { num } from '#core/units'

/** What counts as enough: of a job, or of every new job of the crew. Emptied, a field takes the trade's figure again. */
const props = defineProps<{
  value: Partial<Enough>
  save: (field: keyof Enough, v: unknown) => Promise<{ field: string; message: string }[]>
}>()
const levels = USES.map(u => `${USE_FIGURES[u].words} ${num(USE_FIGURES[u].designDbm)}`).join(', ')
const BY_USE = `Left empty, each room needs what its use is designed for: ${levels} dBm.`
const edges = computed(() => ({
  rsrpEdges: (props.value.rsrpEdges ?? RSRP_EDGES).map(v => num(v)).join('  '),
  sinrEdges: (props.value.sinrEdges ?? SINR_EDGES).map(v => num(v)).join('  '),
}))
const hours = computed(() => (props.value.busyHours ?? BUSY_HOURS).join(' to '))
/** Two hours of the clock, from and to; past midnight too. */
async function saveHours(text: string | null) {
  if (!text?.trim()) return props.save('busyHours', null)
  const [from, to, ...more] = text.match(/\d+/g)?.map(Number) ?? []
  if (from === undefined || to === undefined || more.length || from > 23 || to > 24 || from === to % 24)
    return [{ field: 'busyHours', message: 'two hours of the clock, 0 to 23: 17 to 23' }]
  return props.save('busyHours', [from, to % 24])
}
/** Four figures, best first; RSRP is below zero whether or not the sign was typed. */
async function saveEdges(field: 'rsrpEdges' | 'sinrEdges', text: string | null) {
  if (!text?.trim()) return props.save(field, null)
  try {
    const typed = text
      .trim()
      .split(/[\s;]+/)
      .map(t => (field === 'rsrpEdges' ? asNegative(parseNumber(t)) : parseNumber(t)))
    const figures = typed.filter(v => v !== null)
    if (typed.length !== 4 || figures.length !== 4 || figures.some((e, i) => i > 0 && e >= nth(figures, i - 1)))
      return [{ field, message: 'four figures, each lower than the one before' }]
    return await props.save(field, figures)
  } catch (e) {
    return [{ field, message: messageOf(e) }]
  }
}
</script>

<template>
  <MvNumber
    label="A room needs, for data"
    unit="dBm RSRP"
    :value="value.needDataDbm ?? null"
    hint="by its use"
    :low="-140"
    :high="-40"
    negative
    :save="v => save('needDataDbm', v)"
  />
  <MvNumber
    label="for calls"
    unit="dBm RSRP"
    :value="value.needCallsDbm ?? NEED_CALLS_DBM"
    :low="-140"
    :high="-40"
    negative
    :save="v => save('needCallsDbm', v)"
  />
  <small class="soft wide">{{ BY_USE }}</small>
  <MvText
    class="wide"
    label="Grades of RSRP, dBm, from: very good, good, weak, poor"
    :value="edges.rsrpEdges"
    :save="t => saveEdges('rsrpEdges', t)"
  />
  <MvText
    class="wide"
    label="Grades of SINR, dB, from: very good, good, weak, poor"
    :value="edges.sinrEdges"
    :save="t => saveEdges('sinrEdges', t)"
  />
  <MvText
    class="wide"
    label="Busy hours of the day: speeds are compared within them"
    :value="hours"
    :save="saveHours"
    data-test="busy-hours"
  />
</template>

<style scoped>
.wide {
  grid-column: 1 / -1;
}
</style>
