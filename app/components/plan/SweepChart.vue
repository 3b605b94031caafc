<script setup lang="ts">
import VChart from 'vue-echarts'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { num } from '#core/units'

/** One curve of a sweep, with the bands it is meant for shaded and a line at what is still good. */
use([SVGRenderer, LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent])
const props = defineProps<{
  points: readonly (readonly [number, number])[]
  xName: string
  yName: string
  bands?: { name: string; low: number; high: number }[]
  limit?: { at: number; words: string }
  /** larger is lower on the chart: what comes back */
  inverse?: boolean
}>()
const prefs = usePrefs()
const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(`--mv-${name}`).trim()
const option = computed(() => {
  void prefs.night
  const axis = {
    axisLine: { lineStyle: { color: css('ink') } },
    axisLabel: { color: css('soft'), formatter: (v: number) => num(v, v % 1 ? 1 : 0) },
    splitLine: { lineStyle: { color: css('line') } },
    nameTextStyle: { color: css('soft') },
    nameLocation: 'middle' as const,
    type: 'value' as const,
    scale: true,
  }
  return {
    animation: false,
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next' },
    grid: { left: 56, right: 24, top: 24, bottom: 42 },
    tooltip: { trigger: 'axis' as const, valueFormatter: (v: unknown) => num(Number(v), 2) },
    xAxis: { ...axis, name: props.xName, nameGap: 24, min: 'dataMin' as const, max: 'dataMax' as const },
    yAxis: { ...axis, name: props.yName, nameGap: 38, inverse: !!props.inverse },
    series: [
      {
        type: 'line' as const,
        symbol: 'none',
        lineStyle: { color: css('ink'), width: 2 },
        data: props.points.map(([x, y]) => [x, Number(y.toFixed(3))]),
        markArea: {
          silent: true,
          itemStyle: { color: css('beam'), opacity: 0.5 },
          label: { color: css('soft'), position: 'insideTop' as const },
          data: (props.bands ?? []).map(b => [{ xAxis: b.low, name: b.name }, { xAxis: b.high }]) as never,
        },
        markLine: props.limit
          ? {
              symbol: 'none',
              silent: true,
              lineStyle: { color: css('short'), type: 'dashed' as const },
              label: { formatter: props.limit.words, color: css('short'), position: 'insideEndTop' as const },
              data: [{ yAxis: props.limit.at }],
            }
          : undefined,
      },
    ],
  }
})
</script>

<template>
  <VChart :option="option" autoresize class="sweep" />
</template>

<style scoped>
.sweep {
  height: 300px;
}
</style>
