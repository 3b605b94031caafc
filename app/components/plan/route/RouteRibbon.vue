<script setup lang="ts">
import type { CableLength } from '#core/fitting'
import { length } from '#core/units'

/** The way of one cable end to end, each piece to scale: taped heavy, drawn thin, guessed dashed; then what is over of the stock. */
const props = defineProps<{ cable: CableLength; picked: number | null }>()
const emit = defineEmits<{ pick: [index: number] }>()
const prefs = usePrefs()
const { el, width } = useWidth()
const EDGE = 20
/** narrower than this a figure does not stand over its piece, px */
const FIGURE_PX = 34
const pieces = computed(() => {
  const { way, neededM, lengthM, joint } = props.cable
  const list = way
    ? way.pieces.map(p => ({ index: p.index, lengthM: p.lengthM, taped: p.taped || joint.run.measured, guessed: false }))
    : [{ index: -1, lengthM: neededM, taped: joint.run.measured, guessed: !joint.run.measured }]
  const over = Math.max(0, lengthM - neededM)
  const ends = way ? Math.max(0, neededM - way.lengthM) : 0
  const perM = Math.max(0, width.value - 2 * EDGE) / Math.max(0.1, neededM + over)
  let x = EDGE
  const drawn = list.map(p => {
    const from = x
    x += p.lengthM * perM
    return { ...p, x1: from, x2: x }
  })
  const endsTo = x + ends * perM
  return { drawn, ends: { x1: x, x2: endsTo, m: ends }, over: { x1: endsTo, x2: endsTo + over * perM, m: over } }
})
const m = (v: number) => length(v, prefs.units)
</script>

<template>
  <div ref="el" class="ribbon" data-test="ribbon">
    <h2>The way, end to end</h2>
    <svg :width="width" height="74" :viewBox="`0 0 ${width} 74`" role="group" aria-label="pieces of the way">
      <g
        v-for="p in pieces.drawn"
        :key="p.index"
        class="piece"
        :class="{ on: p.index === picked }"
        :role="p.index >= 0 ? 'button' : undefined"
        :tabindex="p.index >= 0 ? 0 : undefined"
        :aria-label="p.index >= 0 ? `piece ${p.index + 1}, ${m(p.lengthM)}${p.taped ? ', measured' : ', drawn'}` : undefined"
        :data-test="p.index >= 0 ? 'piece' : undefined"
        @click="p.index >= 0 && emit('pick', p.index)"
        @keydown.enter="p.index >= 0 && emit('pick', p.index)"
      >
        <rect :x="p.x1" y="0" :width="Math.max(1, p.x2 - p.x1)" height="74" class="catch" />
        <line :x1="p.x1" :x2="p.x2" y1="30" y2="30" :class="p.taped ? 'taped' : p.guessed ? 'guessed' : 'drawn'" />
        <line :x1="p.x1" :x2="p.x1" y1="22" y2="38" class="tick" />
        <text v-if="p.x2 - p.x1 > FIGURE_PX" :x="(p.x1 + p.x2) / 2" y="16" class="m fig">{{ m(p.lengthM) }}</text>
        <template v-if="p.index >= 0 && p.x2 - p.x1 > 20">
          <circle :cx="(p.x1 + p.x2) / 2" cy="54" r="10" class="number" />
          <text :x="(p.x1 + p.x2) / 2" y="58.5" class="digit">{{ p.index + 1 }}</text>
        </template>
      </g>
      <line v-if="pieces.ends.m" :x1="pieces.ends.x1" :x2="pieces.ends.x2" y1="30" y2="30" class="guessed" />
      <line :x1="pieces.ends.x1" :x2="pieces.ends.x1" y1="22" y2="38" class="tick" />
      <text v-if="pieces.ends.x2 - pieces.ends.x1 > 44" :x="(pieces.ends.x1 + pieces.ends.x2) / 2" y="57" class="m soft">
        ends, drip
      </text>
      <line v-if="pieces.over.m > 0.05" :x1="pieces.over.x1" :x2="pieces.over.x2" y1="30" y2="30" class="over" />
      <line :x1="pieces.ends.x2" :x2="pieces.ends.x2" y1="22" y2="38" class="tick" />
    </svg>
  </div>
</template>

<style scoped>
.ribbon {
  border-top: 1px solid var(--mv-line);
  padding: 10px 0 6px;
  background: var(--mv-paper);
}
h2 {
  padding: 0 20px;
  font-size: 15px;
}
svg {
  display: block;
}
.catch {
  fill: transparent;
}
.piece[role='button'] {
  cursor: pointer;
}
.piece:focus-visible {
  outline: none;
}
.piece:focus-visible .number,
.piece.on .number {
  fill: var(--mv-computed);
}
line {
  stroke: var(--mv-ink);
}
.taped {
  stroke-width: 4;
}
.drawn {
  stroke-width: 2;
}
.guessed {
  stroke-width: 2;
  stroke-dasharray: 5 4;
}
.over {
  stroke: var(--mv-agreed);
  stroke-width: 4;
}
.tick {
  stroke-width: 1.2;
}
.m {
  font-size: 13px;
  font-weight: 600;
  text-anchor: middle;
  fill: var(--mv-ink);
}
.m.soft {
  font-weight: 400;
  font-size: 12px;
  fill: var(--mv-soft);
}
.number {
  fill: var(--mv-ink);
}
.digit {
  fill: var(--mv-sheet);
  font-size: 12px;
  font-weight: 700;
  text-anchor: middle;
}
</style>
