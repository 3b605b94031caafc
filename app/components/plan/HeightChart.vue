<script setup lang="ts">
import { lastOf, nth } from '#core/sure'
import VChart from 'vue-echarts'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import type { HeightCurve } from '#core/aim'
import { fromMetres, length, num } from '#core/units'
import type { Units } from '#core/units'

use([SVGRenderer, LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent])
const props = defineProps<{ curve: HeightCurve; lineId: string; mountM: number; units: Units }>()
const prefs = usePrefs()
const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--mv-${name}`).trim()
const option = computed(() => {
  void prefs.night
  const c = props.curve
  const at = (m: number) => Number(fromMetres(m, props.units).toFixed(1))
  const series = (
    name: string,
    values: readonly number[],
    { colour, width, type = 'solid' }: { colour: string; width: number; type?: 'solid' | 'dashed' | 'dotted' },
  ) => ({
    name,
    type: 'line' as const,
    symbol: 'none',
    lineStyle: { color: css(colour), width, type },
    itemStyle: { color: css(colour) },
    data: c.heightM.map((h, i) => [at(h), Number(nth(values, i).toFixed(2))]),
  })
  const axis = {
    axisLine: { lineStyle: { color: css('ink') } },
    axisLabel: { color: css('soft') },
    splitLine: { lineStyle: { color: css('line') } },
    nameTextStyle: { color: css('soft') },
  }
  const marks = [
    { x: props.mountM, words: 'mount' },
    ...(c.sightM !== null && c.sightM > nth(c.heightM, 0) ? [{ x: c.sightM, words: 'ridge clears' }] : []),
    ...(c.clearM !== null && c.clearM > (c.sightM ?? 0) ? [{ x: c.clearM, words: 'zone free' }] : []),
  ]
  const chosen = c.lines.find(l => l.partId === props.lineId)
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next' },
    grid: { left: 56, right: 24, top: 58, bottom: 42 },
    legend: { top: 0, left: 50, textStyle: { color: css('ink') } },
    tooltip: { trigger: 'axis' as const, valueFormatter: (v: unknown) => `${num(Number(v), 1)} dBm` },
    xAxis: {
      type: 'value' as const,
      min: at(nth(c.heightM, 0)),
      max: at(lastOf(c.heightM)),
      name: props.units === 'metric' ? 'm over ground' : 'ft over ground',
      nameLocation: 'middle' as const,
      nameGap: 22,
      ...axis,
    },
    yAxis: {
      type: 'value' as const,
      scale: true,
      name: 'RSRP, dBm',
      nameLocation: 'middle' as const,
      nameGap: 40,
      ...axis,
      axisLabel: { color: css('soft'), formatter: (v: number) => num(v) },
    },
    series: [
      {
        ...series('at the antenna', c.rsrpDbm, { colour: 'computed', width: 1.6 }),
        markLine: {
          symbol: 'none',
          silent: true,
          lineStyle: { color: css('soft'), type: 'dashed' as const },
          label: { color: css('ink'), position: 'end' as const, rotate: 0 },
          data: marks.map(m => ({ xAxis: at(m.x), label: { formatter: `${m.words} ${length(m.x, props.units, 0)}` } })),
        },
      },
      ...(chosen ? [series(`after ${chosen.name}`, chosen.netDbm, { colour: 'ink', width: 3 })] : []),
      ...c.lines
        .filter(l => l.partId === 'line-195' && l !== chosen)
        .map(l => series(`after ${l.name}`, l.netDbm, { colour: 'short', width: 1.6, type: 'dashed' })),
      ...c.lines
        .filter(l => l.partId === 'line-600' && l !== chosen)
        .map(l => series(`after ${l.name}`, l.netDbm, { colour: 'met', width: 1.6, type: 'dotted' })),
    ],
  }
})
</script>

<template>
  <VChart :option="option" autoresize class="height-chart" />
</template>

<style scoped>
.height-chart {
  height: 100%;
  min-height: 200px;
}
</style>
