<script setup lang="ts">
import { lastingMbps } from '#core/connect'
import { monthsOf } from '#core/judge'
import { num } from '#core/units'

/** The month of each connection whose data is counted: used, as it goes, and whether it lasts. */
const store = useOpened()
const { width, el } = useWidth()
const months = computed(() =>
  monthsOf({ doc: store.doc, tree: store.result.tree, atUtc: store.result.atUtc }).map(m => {
    const top = Math.max(m.month.allowanceGb, m.month.endGb.mid) * 1.12
    const w = Math.max(240, Math.min(560, width.value - 44))
    const h = 130
    const x = (day: number) => 34 + ((w - 40) * day) / m.month.days
    const y = (gb: number) => h - (gb / top) * (h - 14)
    let sum = 0
    const mbOn = new Map<number, number>()
    for (const { day, mb } of m.counted) mbOn.set(day, (mbOn.get(day) ?? 0) + mb)
    const used = Array.from({ length: m.month.countedTo }, (_, i) => `L${x(i + 1)} ${y((sum += (mbOn.get(i + 1) ?? 0) / 1000))}`)
    return { ...m, w, h, x, y, used: used.length ? `M${x(0)} ${y(0)}${used.join('')}` : '' }
  }),
)
</script>

<template>
  <div ref="el" class="months">
    <section v-for="m in months" :key="m.row.id" data-test="month">
      <header>
        <h2>The month on {{ m.row.name }}</h2>
        <b v-if="m.month.countedTo" class="fig"
          >{{ num(m.month.usedGb, 1) }} of {{ num(m.month.allowanceGb) }} GB by day {{ m.month.countedTo }}</b
        >
        <b v-else class="fig">{{ num(m.month.endGb.mid, 1) }} of {{ num(m.month.allowanceGb) }} GB, by its use</b>
      </header>
      <svg
        :width="m.w"
        :height="m.h + 22"
        :viewBox="`0 0 ${m.w} ${m.h + 22}`"
        role="img"
        :aria-label="`${num(m.month.endGb.mid, 1)} GB at the end of the month of ${num(m.month.allowanceGb)}`"
      >
        <path :d="`M34 ${m.h}H${m.w - 6}`" stroke="var(--mv-line)" />
        <path :d="`M34 ${m.y(m.month.allowanceGb)}H${m.w - 6}`" stroke="var(--mv-agreed)" stroke-width="4" />
        <text x="2" :y="m.y(m.month.allowanceGb) + 4" font-size="12" fill="var(--mv-soft)" class="fig">
          {{ num(m.month.allowanceGb) }}
        </text>
        <text x="2" :y="m.h + 4" font-size="12" fill="var(--mv-soft)" class="fig">0</text>
        <path :d="m.used" fill="none" stroke="var(--mv-ink)" stroke-width="3" />
        <path
          :d="`M${m.x(m.month.countedTo)} ${m.y(m.month.usedGb)}L${m.x(m.month.days)} ${m.y(m.month.endGb.mid)}`"
          stroke="var(--mv-computed)"
          stroke-width="1.6"
        />
        <path
          v-if="m.month.runsOutDay"
          :d="`M${m.x(m.month.runsOutDay)} ${m.y(m.month.allowanceGb)}V${m.h}`"
          stroke="var(--mv-short)"
          stroke-width="1.6"
        />
        <text
          v-for="d in [1, 8, 15, 22, m.month.days]"
          :key="d"
          :x="m.x(d)"
          :y="m.h + 18"
          font-size="12"
          text-anchor="middle"
          fill="var(--mv-soft)"
          class="fig"
        >
          {{ d }}
        </text>
      </svg>
      <p>
        <b :class="{ short: m.month.runsOutDay }">{{
          m.month.runsOutDay ? `used up on day ${m.month.runsOutDay}` : `${num(m.month.endGb.mid, 1)} GB as it goes: it lasts`
        }}</b>
        <span class="soft">
          {{ num(m.month.endGb.low, 1) }} to {{ num(m.month.endGb.high, 1) }} GB, eight in ten;
          {{ num(lastingMbps(m.month.allowanceGb, m.month.days), 2) }} Mbit/s would last it day and night<template
            v-if="m.outageMbDay"
          >
            ; a day on it alone takes {{ num(m.outageMbDay / 1000, 1) }} GB</template
          ></span
        >
      </p>
      <UsageImport :connection="m.row" :from="m.period.from" :days="m.period.days" />
    </section>
  </div>
</template>

<style scoped>
.months {
  display: grid;
  gap: 12px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  justify-content: space-between;
  align-items: baseline;
}
.short {
  color: var(--mv-short);
}
svg {
  display: block;
  max-width: 100%;
}
</style>
